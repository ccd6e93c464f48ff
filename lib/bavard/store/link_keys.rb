# frozen_string_literal: true

require "openssl"

module Bavard
  module Store
    # The keys in links, as a table keeps them: found by a digest, and closed where somebody is to see the link again, so that whoever has the
    # database alone opens nothing. What stands there in the open, from before or from where there is no box, is closed by #seal.
    class LinkKeys
      # Of 192 random bits nothing is found by trying: no salt, no stretching.
      def self.digest(token) = OpenSSL::Digest::SHA256.hexdigest(token)

      # @param table [Sequel::Dataset] with token, token_digest and token_closed
      # @param box [SecretBox, nil]
      def initialize(table, box)
        @table = table
        @box = box
      end

      # @return [Hash] for a row
      def columns(token)
        @box ? {token: nil, token_digest: self.class.digest(token), token_closed: @box.close(token)} : {token:}
      end

      # @param row [Hash] as it was read
      # @return [String, nil] nil where it was closed with another key
      def token(row) = row[:token] || @box&.open(row[:token_closed])

      # @return [Hash, nil]
      def row(token, **more)
        @table.first(token_digest: self.class.digest(token), **more) || @table.first(token:, **more)
      end

      # Closes what stands in the open.
      def seal
        return unless @box

        @table.exclude(token: nil).select_map(%i[id token]).each { |id, token| @table.where(id:).update(columns(token)) }
      end
    end
  end
end
