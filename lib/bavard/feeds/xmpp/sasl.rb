# frozen_string_literal: true

require "openssl"
require "securerandom"

module Bavard
  module Feeds
    module Xmpp
      # How somebody is let in (SASL): as nobody in particular (RFC 4505), by a password that is never sent (SCRAM, RFC 5802 and 7677), or by
      # one that is, within TLS alone (PLAIN, RFC 4616).
      module Sasl
        DIGESTS = {"SCRAM-SHA-256" => "SHA256", "SCRAM-SHA-1" => "SHA1"}.freeze
        # More than that is no server's wish, but a way to keep us busy.
        ROUNDS = (1..100_000)

        # What is said first, and what to a challenge; whether the server has proved itself.
        class Scram
          attr_reader :mechanism

          def initialize(mechanism, login, password, nonce: SecureRandom.alphanumeric(24))
            @mechanism = mechanism
            @digest = DIGESTS.fetch(mechanism)
            @password = password.unicode_normalize(:nfkc)
            @nonce = nonce
            @bare = "n=#{login.unicode_normalize(:nfkc).gsub("=", "=3D").gsub(",", "=2C")},r=#{nonce}"
          end

          def first = "n,,#{@bare}"

          # @return [String, nil] nil where the server does not do as it should
          def answer(challenge)
            given = fields(challenge)
            return unless given["r"].to_s.start_with?(@nonce) && given["r"] != @nonce && ROUNDS.cover?(given["i"].to_i)

            without_proof = "c=biws,r=#{given["r"]}"
            all = [@bare, challenge, without_proof].join(",")
            salted = OpenSSL::KDF.pbkdf2_hmac(@password, salt: given["s"].to_s.unpack1("m"), iterations: given["i"].to_i,
              length: OpenSSL::Digest.new(@digest).digest_length, hash: @digest)
            @proof_of_server = hmac(hmac(salted, "Server Key"), all)
            "#{without_proof},p=#{[proof(salted, all)].pack("m0")}"
          end

          # @return [Boolean] whether the server knows the password as well
          def proved?(success) = !@proof_of_server.nil? && fields(success)["v"].to_s.unpack1("m") == @proof_of_server

          private

          def fields(text) = text.split(",").filter_map { |one| one.split("=", 2) if one.match?(/\A\w=/) }.to_h
          def hmac(key, text) = OpenSSL::HMAC.digest(@digest, key, text)

          def proof(salted, all)
            key = hmac(salted, "Client Key")
            signature = hmac(OpenSSL::Digest.digest(@digest, key), all)
            key.bytes.zip(signature.bytes).map { |one, other| one ^ other }.pack("C*")
          end
        end

        # Without a proof on either side.
        class Simple
          attr_reader :mechanism, :first

          def initialize(mechanism, first)
            @mechanism = mechanism
            @first = first
          end

          def answer(_challenge) = nil
          def proved?(_success) = true
        end

        module_function

        # @param offered [Array<String>]
        # @param account [Array(String, String), nil] login and password
        # @param secure [Boolean] whether nobody else reads it
        # @return [Scram, Simple, nil] nil where there is no way
        def choose(offered, account, secure:)
          return offered.include?("ANONYMOUS") ? Simple.new("ANONYMOUS", "") : nil unless account

          scram = DIGESTS.keys.find { |name| offered.include?(name) }
          return Scram.new(scram, *account) if scram

          Simple.new("PLAIN", "\0#{account.join("\0")}") if secure && offered.include?("PLAIN")
        end
      end
    end
  end
end
