# frozen_string_literal: true

require "rack/attack"
require_relative "household"

module Bavard
  module Web
    # How often one household may ask. Air links are left out: a screen that is cut off by a limit is a black hole in
    # somebody's broadcast. What a relay tells of screens comes from one address.
    module Limits
      MINUTE_S = 60
      # Tries to sign in, new accounts and the like.
      ACCOUNT_POSTS = 60
      # New accounts from one address in an hour: that one is there already is told, and nobody is to go through a list.
      NEW_ACCOUNTS = 40
      HOUR_S = 3600
      # Edits come thick while somebody drags.
      POSTS = 3000
      # Names chosen at a link for anybody, in an hour.
      MICROPHONES = 60
      FREE = %r{\A/(?:air|assets|pictures|healthz|metrics|relay)(?:/|\z)}
      SAY = "That was too much at once. Wait a minute and try again.\n"
      SAY_LATER = "That was too much at once. Come back in an hour.\n"

      # Counts in this process's memory; with one process nothing more is needed.
      class Counts
        MOST = 10_000

        def initialize
          @lock = Mutex.new
          @counts = {}
        end

        def increment(key, amount, expires_in:)
          @lock.synchronize do
            sweep if @counts.size >= MOST
            entry = @counts[key]
            entry = @counts[key] = [0, now + expires_in] if entry.nil? || entry.last < now
            entry[0] += amount
          end
        end

        def read(key) = @lock.synchronize { @counts[key]&.first }

        private

        def sweep
          @counts.delete_if { |_, (_, ends_at)| ends_at < now }
          @counts.shift while @counts.size >= MOST
        end

        def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      end

      module_function

      # @return [String] who is counted
      def asker(request) = Household.of(request.ip)

      # Names that become links of their own.
      def names(attack)
        attack.throttle("microphones", limit: MICROPHONES, period: HOUR_S) do |request|
          asker(request) if request.post? && request.path.start_with?("/mic/")
        end
      end

      # @return [Class] the middleware, with counts that begin at nothing
      def middleware
        Rack::Attack.tap do |attack|
          attack.cache.store = Counts.new
          attack.throttle("account", limit: ACCOUNT_POSTS, period: MINUTE_S) do |request|
            asker(request) if request.post? && request.path.start_with?("/account/")
          end
          attack.throttle("new accounts", limit: NEW_ACCOUNTS, period: HOUR_S) do |request|
            asker(request) if request.post? && request.path == "/account/create-account"
          end
          names(attack)
          attack.throttle("posts", limit: POSTS, period: MINUTE_S) { |request| asker(request) if request.post? && !request.path.match?(FREE) }
          attack.throttled_responder = lambda do |request|
            wait_s = request.env["rack.attack.match_data"][:period]
            [429, {"content-type" => "text/plain", "retry-after" => wait_s.to_s}, [wait_s > MINUTE_S ? SAY_LATER : SAY]]
          end
        end
      end
    end
  end
end
