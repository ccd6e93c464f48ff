# frozen_string_literal: true

require "openssl"
require_relative "../../error"

module Bavard
  module Feeds
    module Activities
      # Whether a message is from who holds the secret, and from now: HMAC-SHA-256 (RFC 2104) over "timestamp.body", the
      # timestamp in Unix seconds. One that was seen before does not count again.
      #
      #   Signature.of(secret, "1795499520", body)   # => "5f3a…", 64 hexadecimal digits
      class Signature
        WITHIN_S = 300
        MOST_REMEMBERED = 20_000

        def self.of(secret, timestamp, body)
          OpenSSL::HMAC.hexdigest("SHA256", secret, "#{timestamp}.#{body}")
        end

        def initialize
          @seen = {}
          @lock = Mutex.new
        end

        # @param timestamp [String, nil] of the header
        # @param signature [String, nil] of the header, also as "sha256=…"
        # @return [String] the signature, in hexadecimal digits
        # @raise [Bavard::Error] saying what is wrong with it
        def check(secret, timestamp, signature, body, now_ms)
          refuse("There is no timestamp in Unix seconds.", "timestamp") unless timestamp.to_s.match?(/\A\d{9,12}\z/)
          given = signature.to_s.downcase.delete_prefix("sha256=")
          unless OpenSSL.secure_compare(given, self.class.of(secret, timestamp, body))
            refuse("The signature does not fit the message and its timestamp.", "signature")
          end
          refuse("The message is more than #{WITHIN_S} s old, or from the future.", "timestamp") if ((now_ms / 1000) - timestamp.to_i).abs > WITHIN_S
          remember(given, now_ms)
          given
        end

        # It was not taken after all: whoever sent it may send it once more, as it is.
        #
        # @param signature [String] as {#check} gave it
        def forget(signature) = @lock.synchronize { @seen.delete(signature) }

        private

        def remember(signature, now_ms)
          @lock.synchronize do
            @seen.shift while @seen.any? && (@seen.size >= MOST_REMEMBERED || @seen.first.last < now_ms - (2000 * WITHIN_S))
            refuse("This very message was taken before.", "signature") if @seen.key?(signature)
            @seen[signature] = now_ms
          end
        end

        def refuse(words, field)
          raise Error.new(words, field:)
        end
      end
    end
  end
end
