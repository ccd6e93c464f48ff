# frozen_string_literal: true

require "securerandom"
require_relative "activities/reading"
require_relative "activities/signature"
require_relative "activities/waiting"

module Bavard
  module Feeds
    # Feeds of anything else: an address of the host's own that takes ActivityStreams 2.0, signed.
    module Activities
      KIND = "inbox"
      LABEL = "Signed JSON"
      TOKEN_BYTES = 24
      SECRET_BYTES = 32
      # Minutes.
      EXPECTS = (1..1440)

      module_function

      def connection(feed, _resume, clock:, take:, **)
        expects = feed.address["expects_minutes"]
        Waiting.new(feed.id, clock:, take:, expects_ms: expects && (expects * 60_000))
      end

      # @param given [String] as it was typed; empty: never
      # @return [Integer, nil] minutes within which something has to come
      # @raise [Bavard::Error]
      def expects(given)
        return if given.strip.empty?

        minutes = Integer(given, 10, exception: false)
        if EXPECTS.cover?(minutes.to_i)
          minutes
        else
          raise(Error.new("Minutes are a number from 1 to #{EXPECTS.end}.", field: "expects",
            value: given[0, 20]))
        end
      end

      # @return [Hash] name, address, password: a token for the address and a secret to sign with
      def read(given)
        name = given["name"].to_s.strip
        raise Error.new("What sends here? A name tells it apart.", field: "name") if name.empty?

        {name: name[0, 60], address: {"token" => SecureRandom.urlsafe_base64(TOKEN_BYTES)}, password: SecureRandom.urlsafe_base64(SECRET_BYTES)}
      end

      def answers?(_feed) = false
      def words(_feed) = "#{LABEL}, sent to an address of your own"
    end
  end
end
