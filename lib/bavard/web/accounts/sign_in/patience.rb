# frozen_string_literal: true

require "openssl"
require "rack/utils"
require "roda"
require "securerandom"
require_relative "../../http/household"

module Bavard
  module Web
    class SignIn < Roda
      # Tries that went wrong make the next one wait, twice as long each time: by address, by account from one address, and by
      # account from everywhere. A browser that was signed in before is counted for itself, so that nobody can keep it out; nor
      # anybody who shows a code that only the owner has.
      class Patience
        # free:: tries that cost nothing; longest_s:: of a wait
        Limit = Struct.new(:free, :longest_s)
        LIMITS = {"here" => Limit.new(5, 900), "address" => Limit.new(40, 900), "account" => Limit.new(50, 60),
                  "device" => Limit.new(5, 900)}.freeze
        FORGOTTEN_AFTER_MS = 3600 * 1000

        # @param secret [String]
        # @param clock [#call] Unix milliseconds
        def initialize(db, secret, clock)
          @table = db[:sign_in_failures]
          @secret = secret
          @clock = clock
        end

        # @param device [String, nil] of a browser that was signed in to this account before
        # @return [Integer] seconds until the next try, 0 where it may be made now
        def wait_s(login, address, device)
          rows = @table.where(key: keys(login, address, device).keys).select_hash(:key, %i[number last_ms])
          keys(login, address, device).map { |key, limit| left_s(limit, *rows[key]) }.max
        end

        def failed(login, address, device)
          now_ms = @clock.call
          @table.where { last_ms < now_ms - FORGOTTEN_AFTER_MS }.delete
          keys(login, address, device).each_key do |key|
            @table.insert_conflict(target: :key, update: {number: Sequel[:sign_in_failures][:number] + 1, last_ms: now_ms}).insert(key:, number: 1,
              last_ms: now_ms)
          end
        end

        # Whoever got in did not guess.
        def succeeded(login, address, device)
          @table.where(key: keys(login, address, device).reject { |_, limit| limit == LIMITS["address"] }.keys).delete
        end

        private

        def keys(login, address, device)
          login = login.to_s.strip.downcase[0, 255]
          from = Household.of(address)
          named = device ? {"device" => [login, device]} : {"here" => [login, from], "address" => [from], "account" => [login]}
          named.to_h { |name, parts| [OpenSSL::HMAC.hexdigest("SHA256", @secret, [name, *parts].join("\0")), LIMITS.fetch(name)] }
        end

        def left_s(limit, number = 0, last_ms = 0)
          over = number - limit.free
          return 0 if over.negative?

          pause_s = [2**[over, 20].min, limit.longest_s].min
          [(((last_ms + (pause_s * 1000)) - @clock.call) / 1000.0).ceil, 0].max
        end
      end

      # Patience at the form: whoever has to wait is told for how long, and what opens all the same.
      module Waiting
        CODE = "code"
        LONGEST_CODE = 64
        DEVICE_FOR_S = 400 * 86_400

        module_function

        # Before a password is looked at.
        def check(rodauth, site)
          return unless rodauth.request.post?

          login = rodauth.param(rodauth.login_param)
          wait_s = patience(site).wait_s(login, rodauth.request.ip, device(rodauth, site, login))
          return unless wait_s.positive? && !shown?(rodauth, login)

          Noted.kept_waiting(rodauth, site, login)
          refuse(rodauth, wait_s)
        end

        def failed(rodauth, site)
          login = rodauth.param(rodauth.login_param)
          patience(site).failed(login, rodauth.request.ip, device(rodauth, site, login))
        end

        # This browser is known from now on.
        def succeeded(rodauth, site)
          login = rodauth.account[:email]
          patience(site).succeeded(login, rodauth.request.ip, device(rodauth, site, login))
          id = SecureRandom.urlsafe_base64(18)
          Rack::Utils.set_cookie_header!(rodauth.response.headers, cookie(site), value: "#{id}.#{proof(site, login, id)}", path: "/account",
            httponly: true, same_site: :lax, secure: site.address.start_with?("https://"), max_age: DEVICE_FOR_S)
        end

        def patience(site) = Patience.new(site.db, site.session_secret, site.clock)

        def refuse(rodauth, wait_s)
          rodauth.instance_exec do
            @waits_s = wait_s
            response.status = 429
            response["retry-after"] = wait_s.to_s
            set_error_flash "Too many tries went wrong. Wait #{wait_s < 60 ? "#{wait_s} s" : "#{(wait_s / 60.0).ceil} min"}, then try again."
            scope.instance_variable_set(:@waits, true)
            response.write(login_view)
            request.halt
          end
        end

        # A code of the second factor, or one to recover it: it opens nothing but the wait, and is not used up.
        def shown?(rodauth, login)
          code = rodauth.param_or_nil(CODE).to_s.delete(" ")
          return false if code.empty? || code.length > LONGEST_CODE

          rodauth.instance_exec do
            @account = _account_from_login(login)
            return false unless @account

            kept = db[recovery_codes_table].where(recovery_codes_id_column => account_id).select_map(recovery_codes_column)
            (otp_exists? && otp_valid_code?(code)) || recovery.find(kept, code)
          ensure
            @account = nil
          end
        end

        # @return [String, nil]
        def device(rodauth, site, login)
          id, proof = rodauth.request.cookies[cookie(site)].to_s.split(".", 2)
          id if proof && Rack::Utils.secure_compare(proof(site, login, id), proof)
        end

        def cookie(site) = "#{site.cookie}.known"
        def proof(site, login, id) = OpenSSL::HMAC.hexdigest("SHA256", site.session_secret, "known #{login.to_s.strip.downcase} #{id}")
      end
    end
  end
end
