# frozen_string_literal: true

require_relative "../all/station"
require_relative "../../http/vitals"
require_relative "../../../store/accounts"
require_relative "../../../store/usage"

module Bavard
  module Web
    # /operator/: for whoever runs this installation. To everybody else there is nothing here.
    class OperatorApp < Station
      set :needs_to_see, :read
      set :needs_to_do, :read
      # What would leave nobody who can undo it.
      # Of which a row is made for one that is new.
      NEW_ACCOUNT = Store::Accounts::Kept.new(id: 0, email: "", shows: [[0, ""].freeze].freeze).freeze
      NOTHING_USED = Store::Usage::Use.new(feeds: 0, lines: 0, bytes: 0).freeze
      NOT_ONESELF = "That is you. Another operator can do it, or bin/admin on the machine."

      before { not_found unless accounts.operator?(@visitor.account_id) }

      get "/" do
        @here = "operator"
        @label = "This installation"
        @accounts = accounts.all
        @use = site.stores.usage.by_show.to_h { |use| [use.show_id, use] }
        @invitations = accounts.invitations
        @deeds = accounts.deeds.latest
        @vitals = Vitals.of(site)
        erb :operator
      end

      post "/accounts" do
        email = text(params["email"]).strip
        word = accounts.make(email, text(params["show"]), by: me)
        made = accounts.all.find { |account| account.email.casecmp?(email) }
        json(words: "#{email} signs in with", word:, id: made.id, email: made.email, show: made.shows.dig(0, 1))
      end

      # The word of a link is seen this once.
      post "/invitations" do
        invitation = accounts.invite(text(params["name"]), by: me)
        json(id: invitation.id, name: invitation.name, words: "For #{invitation.name}, once, within a week:",
          word: "#{request.base_url}/account/create-account?invitation=#{invitation.token}")
      end

      post "/invitations/:id/back" do
        accounts.take_back(id(params[:id]), by: me)
        json(removed: true, said: "The link opens nothing any more.")
      end

      post "/:account/password" do
        word = accounts.new_password(account_id, by: me)
        cut_off(account_id)
        json(**state, words: "Signed out everywhere. Signs in with", word:)
      end

      post "/:account/sign-out" do
        accounts.sign_out(account_id, by: me)
        cut_off(account_id)
        json(**state, said: "Signed out, wherever they were.")
      end

      post "/:account/one-factor" do
        accounts.one_factor(account_id, by: me)
        json(**state, said: "The password alone opens it from now on.")
      end

      post "/:account/close" do
        accounts.close(another, by: me)
        end_shows(another)
        json(**state, said: "Closed. Nothing of its show is on any screen.")
      end

      post "/:account/reopen" do
        accounts.reopen(account_id, by: me)
        json(**state, said: "Open again.")
      end

      post "/:account/appoint" do
        accounts.appoint(another, true, by: me)
        json(**state, said: "An operator, with all that stands here.")
      end

      post "/:account/dismiss" do
        accounts.appoint(another, false, by: me)
        json(**state, said: "No operator any more.")
      end

      # With the address typed once more.
      post "/:account/remove" do
        email = accounts.row(another)[:email]
        raise Error.new("Type #{email} to take it away with everything that is theirs.", field: "email") unless text(params["email"]).strip == email

        end_shows(another) { accounts.remove(another, by: me) }
        json(removed: true, said: "#{email} is removed, with everything that was theirs.")
      end

      post "/:account/ceilings" do
        given = Store::Ceilings.read(text(params["ceilings"]))
        show_ids(account_id).each do |show_id|
          site.stores.ceilings.set(show_id, given)
          accounts.deeds.note("ceilings", by: me, about: accounts.row(account_id)[:email], detail: given)
        end
        json(**state, said: given.empty? ? "It may have what is usual." : "Counts from now on. What is there already stays.")
      end

      helpers do
        def accounts = site.stores.accounts
        def me = @me ||= accounts.row(@visitor.account_id)[:email]
        def account_id = id(params[:account])

        # @return [Hash] what its row shows
        def state
          row = accounts.row(account_id)
          {operator: row[:operator], closed: !row[:closed_at_ms].nil?, second_factor: site.db[:account_otp_keys].where(id: account_id).any?}
        end

        def show_ids(account) = site.db[:shows].where(account_id: account).select_map(:id)

        # @return [Integer] somebody else's account
        def another
          raise Conflict, NOT_ONESELF if account_id == @visitor.account_id

          account_id
        end

        # Whatever they have open.
        def cut_off(account)
          site.remembered.forget
          site.hub.cut_where { |env| env["bavard.account"] == account }
        end

        # Nothing of theirs is on any screen from now on.
        def end_shows(account)
          shows = show_ids(account)
          yield if block_given?
          shows.each { |show_id| site.shows.finish(show_id) }
          cut_off(account)
        end

        def ceilings_of(show_id) = site.stores.ceilings.own(show_id).map { |what, most| "#{what}=#{most}" }.join(" ")
        def megabytes(bytes) = "#{(bytes / 1_000_000.0).round(1)} MB"
        def ago(time) = time ? "last here #{SignIn::Sessions.ago(time)}" : "never here"

        # @return [String] of a show as it runs here, or where it does
        def pace_of(show_id)
          running = site.shows[show_id] or return site.shows.elsewhere(show_id)&.then { |address| "awake at #{address}" } || "asleep"
          screens = running.screens_open
          "awake, #{screens} screen#{"s" unless screens == 1}, #{(running.processor_share * 100).round(1)} % of a core"
        end
      end
    end
  end
end
