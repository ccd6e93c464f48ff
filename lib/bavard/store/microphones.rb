# frozen_string_literal: true

require "securerandom"
require_relative "../error"
require_relative "link_keys"

module Bavard
  module Store
    # The links by which microphones come into a room: one for each person, and one at which a name is chosen.
    class Microphones
      # key:: by which a person is known in the room and in the cast; nil for the link at which a name is chosen
      # account_id:: whose own microphone it is, at their prompter, or nil
      Link = Struct.new(:id, :show_id, :feed_id, :key, :name, :token, :account_id, keyword_init: true) do
        def anybody? = key.nil?
      end
      MOST = 60
      FULL = "There are #{MOST} microphones in this room already. Take one away first.".freeze
      TOKEN_BYTES = 24
      KEY_BYTES = 6

      # @param box [SecretBox, nil] with which links are closed
      def initialize(db, box = nil)
        @db = db
        @links = LinkKeys.new(db[:microphones], box)
      end

      # @return [Array<Link>] of a room, as they were made
      def of_feed(feed_id) = @db[:microphones].where(feed_id:).order(:id).map { |row| read(row) }

      # @return [Link, nil]
      def find(feed_id, id) = @db[:microphones].first(feed_id:, id:)&.then { |row| read(row) }

      # @return [Link, nil] of a room that is there
      def by_token(token)
        row = @links.row(token) or return
        read(row, token) if @db[:feeds].first(id: row[:feed_id], removed_at_ms: nil)
      end

      # @param name [String, nil] nil: the link at which a name is chosen
      # @return [Link]
      # @raise [Bavard::Error] where there is no room for another
      def add(feed_id, name: nil, account_id: nil)
        @db.transaction do
          show_id = @db[:feeds].where(id: feed_id).for_update.get(:show_id)
          raise Error.new(FULL, field: "name") if @db[:microphones].where(feed_id:).count > MOST

          token = SecureRandom.urlsafe_base64(TOKEN_BYTES)
          key = name && SecureRandom.hex(KEY_BYTES)
          id = @db[:microphones].insert(show_id:, feed_id:, key:, name:, account_id:, **@links.columns(token))
          Link.new(id:, show_id:, feed_id:, key:, name:, token:, account_id:)
        end
      end

      # The link at which a name is chosen: made, or taken back.
      def for_anybody(feed_id, wanted)
        there = @db[:microphones].where(feed_id:, key: nil)
        return there.delete unless wanted

        there.empty? && add(feed_id)
      end

      # Another link in the place of somebody's, who stays who they are.
      #
      # @return [Boolean] false where there is none of that id
      def renew(feed_id, id)
        @db[:microphones].where(feed_id:, id:).update(@links.columns(SecureRandom.urlsafe_base64(TOKEN_BYTES))).positive?
      end

      # @return [Boolean]
      def remove(feed_id, id) = @db[:microphones].where(feed_id:, id:).delete.positive?

      private

      def read(row, token = @links.token(row)) = Link.new(**row.slice(:id, :show_id, :feed_id, :key, :name, :account_id), token:)
    end
  end
end
