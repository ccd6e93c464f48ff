# frozen_string_literal: true

require "roda"

module Bavard
  module Web
    class SignIn < Roda
      # Who may make an account here, as the operator decided (BAVARD_ACCOUNTS): anybody, whoever was invited to help in a show, or
      # nobody; and whoever reads what the start-up prints, once, where there is none yet but the demo show's.
      module Door
        INVITED = %r{\A/people/join/([\w-]{32,})}
        CLOSED = "No accounts are made here. Whoever runs this Bavard can make you one, or invite you to a show.\n"
        BEGIN_KEY = "begin"
        # By an operator, to this installation.
        INVITATION = "invitation"
        LONGEST_TOKEN = 64

        module_function

        # Ends the request where it may not go on.
        def keep(rodauth, site)
          return if open?(rodauth, site)

          rodauth.response.status = 403
          rodauth.response["content-type"] = "text/plain; charset=utf-8"
          rodauth.response.write(CLOSED)
          rodauth.request.halt
        end

        def open?(rodauth, site)
          site.accounts == "open" || first?(rodauth, site) || (site.accounts == "invited" && invited?(rodauth, site)) || invited_here?(rodauth, site)
        end

        # Kept over the form in the session; it works once.
        def invited_here?(rodauth, site)
          token = rodauth.param_or_nil(INVITATION) || rodauth.session[INVITATION]
          return false unless token && token.length <= LONGEST_TOKEN && site.stores.accounts.invited?(token)

          rodauth.session[INVITATION] = token
          true
        end

        # Once the account is there: an address that has one already uses up no invitation. Where somebody else has used it meanwhile,
        # there is no account.
        def use(rodauth, site)
          token = rodauth.session[INVITATION] or return
          rodauth.session.delete(INVITATION)
          return if site.stores.accounts.take_up(token) || site.accounts == "open"

          site.db.rollback_on_exit
          keep(rodauth, site)
        end

        # By the address that was asked for before.
        def invited?(rodauth, site)
          token = rodauth.session[rodauth.login_redirect_session_key].to_s[INVITED, 1]
          !token.nil? && !site.stores.team.invitation(token, site.clock.call).nil?
        end

        # Nobody runs it yet, and nobody uses it but the demo show's host.
        def begins?(accounts) = accounts.count < 2 && accounts.where(operator: true).empty?

        # Kept over the form in the session.
        def first?(rodauth, site)
          given = rodauth.param_or_nil(BEGIN_KEY) || rodauth.session[BEGIN_KEY]
          return false unless given && site.begin_key && Rack::Utils.secure_compare(site.begin_key, given) && begins?(site.db[:accounts])

          rodauth.session[BEGIN_KEY] = given
          true
        end
      end

      # What a new account begins with.
      module Begin
        module_function

        def check(rodauth)
          name = rodauth.param_or_nil("show_name").to_s.strip
          return if name.length <= LONGEST_SHOW_NAME

          rodauth.send(:throw_error_status, 422, "show_name", "at most #{LONGEST_SHOW_NAME} characters")
        end

        def show(rodauth, site)
          name = rodauth.param_or_nil("show_name").to_s.strip
          host = rodauth.param_or_nil("host_name").to_s.strip[0, 80]
          host = rodauth.account[:email].to_s[/\A[^@]+/] if host.empty?
          # Whoever begins an installation runs it.
          site.db[:accounts].where(id: rodauth.account_id).update(operator: true) if rodauth.session.delete(Door::BEGIN_KEY)
          site.stores.accounts.deeds.note("made", by: rodauth.account[:email])
          site.stores.shows.create(rodauth.account_id, name: name.empty? ? "My show" : name, host_name: host, lead: {})
        end
      end
    end
  end
end
