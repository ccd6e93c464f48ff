# frozen_string_literal: true

require "base64"
require "json"
require "openssl"
require "roda"
require_relative "../../../store/secret_box"
require_relative "../../http/limits"

module Bavard
  module Web
    class SignIn < Roda
      # Where letters are delivered, an account begins with one: whoever reads what is sent to an address may make the account, and
      # whoever does not is told the same whether there is one already or not.
      class Confirmation
        LASTS_MS = 3600 * 1000
        # Between two letters to one address: nobody's post is filled by somebody else.
        APART_S = 300
        PARAM = "letter"
        SAID = "A letter is on its way to that address. Its link goes on from here."
        USED = "That letter is too old. Ask for another one."
        SUBJECT = "Your account on Bavard"
        THERE_IS_ONE = "Somebody, perhaps you, asked for a new account with this address.\nThere is one already. Sign in here:\n\n%<in>s\n\n" \
                       "If the password is gone, set a new one here:\n\n%<anew>s\n"
        GO_ON = "Somebody, perhaps you, asked for an account with this address. Make it here, within an hour:\n\n%<on>s\n\n" \
                "If it was not you, there is nothing to do: no account is made.\n"
        # email:: the address; after:: where whoever asked wanted to go, such as an invitation; nil where it was nowhere
        Known = Struct.new(:email, :after)

        # @param secret [String] the installation's, of sessions
        # @param clock [#call] Unix milliseconds
        def initialize(secret, clock)
          @box = Store::SecretBox.new(OpenSSL::HMAC.digest("SHA256", secret, "letters to new people"))
          @clock = clock
          @written = Limits::Counts.new
        end

        # @return [String] what goes into the link
        def token(email, after) = Base64.urlsafe_encode64(@box.close(JSON.generate([email, after, @clock.call + LASTS_MS])), padding: false)

        # @return [Known, nil] nothing where it is too old, or none of ours
        def read(token)
          email, after, until_ms = JSON.parse(@box.open(Base64.urlsafe_decode64(token)) || "[]")
          Known.new(email, after) if until_ms && @clock.call < until_ms
        rescue ArgumentError, JSON::ParserError
          nil
        end

        # Before the form, and before what it sends is looked at. Ends the request where the address is not known to be theirs.
        def keep(rodauth, site)
          given = rodauth.param_or_nil(PARAM)
          known = given && read(given)
          return confirmed(rodauth, known) if known
          return if !site.letters.delivered? || Door.first?(rodauth, site) || rodauth.send(:internal_request?)

          Door.keep(rodauth, site)
          rodauth.request.post? ? ask(rodauth, site) : form(rodauth, given)
        end

        private

        def confirmed(rodauth, known)
          rodauth.request.params[rodauth.login_param] = known.email
          rodauth.session[rodauth.login_redirect_session_key] ||= known.after if known.after
          rodauth.scope.instance_variable_set(:@confirmed, known)
        end

        def form(rodauth, given)
          rodauth.instance_exec do
            set_error_flash USED if given
            response.write(view("confirm-address", create_account_page_title))
            request.halt
          end
        end

        # The same words after the same work, whoever has that address.
        def ask(rodauth, site)
          email = rodauth.param(rodauth.login_param).strip
          return wrong(rodauth) unless rodauth.send(:login_meets_requirements?, email)

          link = rodauth.create_account_url(PARAM => token(email, rodauth.session[rodauth.login_redirect_session_key]))
          Thread.new { write(rodauth, site, email, link) }
          rodauth.instance_exec do
            set_notice_flash SAID
            redirect login_path
          end
        end

        def wrong(rodauth)
          rodauth.instance_exec do
            response.status = 422
            set_field_error(login_param, login_does_not_meet_requirements_message)
            response.write(view("confirm-address", create_account_page_title))
            request.halt
          end
        end

        def write(rodauth, site, email, link)
          return if @written.increment(OpenSSL::Digest.hexdigest("SHA256", email.downcase), 1, expires_in: APART_S) > 1

          there = site.db[:accounts].where(email:).any?
          ways = {on: link, in: rodauth.login_url, anew: rodauth.reset_password_request_url}
          site.letters.send { rodauth.send(:create_email_to, email, SUBJECT, format(there ? THERE_IS_ONE : GO_ON, ways)) }
        rescue StandardError => error
          site.log.error("a letter could not be sent", error)
        end
      end
    end
  end
end
