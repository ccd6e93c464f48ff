# frozen_string_literal: true

require "openssl"

module Bavard
  module Store
    # Keeps a secret at rest: AES-256-GCM with a fresh nonce each time.
    #
    #   box = SecretBox.new(key)   # 32 bytes
    #   box.open(box.close("marsh"))   # => "marsh"
    class SecretBox
      NONCE_BYTES = 12
      TAG_BYTES = 16

      def initialize(key)
        @key = key
      end

      # @return [String, nil] Base64
      def close(secret)
        return if secret.nil?

        cipher = OpenSSL::Cipher.new("aes-256-gcm").encrypt
        cipher.key = @key
        nonce = cipher.random_iv
        sealed = cipher.update(secret) + cipher.final
        [nonce + cipher.auth_tag + sealed].pack("m0")
      end

      # @return [String, nil] nil where nothing was kept, or it was closed with another key
      def open(text)
        return if text.nil?

        bytes = text.unpack1("m0")
        cipher = OpenSSL::Cipher.new("aes-256-gcm").decrypt
        cipher.key = @key
        cipher.iv = bytes[0, NONCE_BYTES]
        cipher.auth_tag = bytes[NONCE_BYTES, TAG_BYTES]
        (cipher.update(bytes[(NONCE_BYTES + TAG_BYTES)..]) + cipher.final).force_encoding(Encoding::UTF_8)
      rescue OpenSSL::Cipher::CipherError, ArgumentError
        nil
      end
    end
  end
end
