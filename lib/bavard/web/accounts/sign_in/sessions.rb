# frozen_string_literal: true

require "digest"
require "roda"

module Bavard
  module Web
    class SignIn < Roda
      # Where somebody is signed in. A session counts for as long as its row is there, and so do the sockets it opened.
      module Sessions
        IDLE_S = 14 * 86_400
        LONGEST_S = 30 * 86_400
        # How exact the time of its last use is.
        NOTED_EVERY_S = 60
        LONGEST_BROWSER = 120
        # handle:: tells one from another without being of use to anybody; here:: whether it is the one that asks
        Place = Struct.new(:handle, :browser, :address, :created_at, :last_use, :here) do
          # @return [String] the machine it says it is on, or all it says
          def machine = browser[/\(([^()]+)\)/, 1] || (browser.empty? ? "A browser that says nothing of itself" : browser)
        end
        # How long ago, in words: nobody's clock has to agree with another.
        STEPS = [[86_400, "day"], [3600, "hour"], [60, "minute"]].freeze

        module_function

        # @return [String, nil] of the session that asks, as it is kept
        def id(rodauth) = rodauth.session[rodauth.session_id_session_key]&.then { |key| rodauth.compute_hmac(key) }

        # Ends the request where nobody is signed in as far as it takes.
        #
        # @return [Integer] the account
        def account(rodauth, site)
          site.remembered.of(:account, id(rodauth)) do
            rodauth.require_account
            rodauth.account_id
          end
        end

        # @return [Boolean]
        def goes_on?(rodauth, site) = site.remembered.of(:session, id(rodauth)) { there?(rodauth) }

        def there?(rodauth)
          row = of(rodauth).first(session_id: id(rodauth).to_s) or return false
          now = Time.now
          return !of(rodauth).where(session_id: row[:session_id]).delete if now - row[:created_at] > LONGEST_S || now - row[:last_use] > IDLE_S

          of(rodauth).where(session_id: row[:session_id]).update(last_use: now, address: address(rodauth)) if now - row[:last_use] > NOTED_EVERY_S
          true
        end

        # @return [Hash] what is kept with a new one
        def about(rodauth)
          {browser: rodauth.request.user_agent.to_s.scrub("").gsub(/[[:cntrl:]]/, " ")[0, LONGEST_BROWSER], address: address(rodauth)}
        end

        # @return [String] such as "2 days ago"
        def ago(time, now = Time.now)
          length, name = STEPS.find { |seconds, _| now - time >= seconds }
          return "just now" unless length

          number = ((now - time) / length).floor
          "#{number} #{name}#{"s" if number > 1} ago"
        end

        # @return [Array<Place>] the one that asks first, then the last used
        def places(rodauth)
          here = id(rodauth)
          places = of(rodauth).where { last_use > Time.now - IDLE_S }.reverse(:last_use).map do |row|
            Place.new(handle(row[:session_id]), *row.values_at(:browser, :address, :created_at, :last_use), row[:session_id] == here)
          end
          places.partition(&:here).flatten
        end

        # @return [Integer] how many ended
        def end_others(rodauth, site)
          here = id(rodauth)
          account_id = rodauth.session_value || rodauth.account_id
          end_these(of(rodauth).exclude(session_id: here.to_s), site) { |env| env["bavard.account"] == account_id && env["bavard.session"] != here }
        end

        # @param handle [String]
        def end_one(rodauth, site, handle)
          ended = of(rodauth).select_map(:session_id).find { |one| handle(one) == handle } or return 0
          end_these(of(rodauth).where(session_id: ended), site) { |env| env["bavard.session"] == ended }
        end

        def end_this(rodauth, site)
          ended = id(rodauth) or return
          end_these(of(rodauth).where(session_id: ended), site) { |env| env["bavard.session"] == ended }
        end

        # What they opened is cut off at once, and not let in again: not before everybody sees that they have ended.
        #
        # @return [Integer] how many
        def end_these(sessions, site, &block)
          sessions.delete.tap do
            sessions.db.after_commit do
              site.remembered.forget
              site.hub.cut_where(&block)
            end
          end
        end

        # What went on in a session that was ended elsewhere, as by the operator.
        def cut_ended(site)
          going_on = site.db[:account_active_session_keys].select_map(:session_id)
          site.remembered.forget_sessions_but(going_on)
          going_on = going_on.to_h { |id| [id, true] }
          site.hub.cut_where(again: true) { |env| env["bavard.session"] && !going_on.key?(env["bavard.session"]) }
        end

        def of(rodauth) = rodauth.db[:account_active_session_keys].where(account_id: rodauth.session_value || rodauth.account_id)
        def handle(id) = Digest::SHA256.hexdigest(id)[0, 16]
        def address(rodauth) = rodauth.request.ip.to_s[0, 64]
      end
    end
  end
end
