# frozen_string_literal: true

require "sequel"

module Bavard
  module Store
    # Which sets of emotes hosts want of described platforms, and how far they came.
    class EmoteSets
      # list:: [code, address] of each, as it was read last; said:: what came of it, in words, or nil
      Kept = Struct.new(:id, :show_id, :feed_id, :shelf_id, :name, :said, :list, :read_at_ms, keyword_init: true)

      def initialize(db) = @db = db

      # @return [Array<Kept>] of a feed; without those whose shelf was taken away
      def of_feed(feed_id) = there.where(Sequel[:emote_sets][:feed_id] => feed_id).map { |row| read(row) }

      # @return [Array<Kept>] that were not read since then
      def older_than(at_ms) = there.where { Sequel[:emote_sets][:read_at_ms] < at_ms }.map { |row| read(row) }

      # @return [Kept]
      def want(show_id, feed_id, name)
        gone = @db[:emote_sets].where(feed_id:, name:, shelf_id: @db[:shelves].exclude(removed_at_ms: nil).select(:id))
        @db.transaction do
          gone.delete
          @db[:emote_sets].insert_conflict.insert(show_id:, feed_id:, name:)
        end
        read(@db[:emote_sets].first(feed_id:, name:))
      end

      # @return [Kept, nil]
      def wanted(feed_id, name) = @db[:emote_sets].first(feed_id:, name:)&.then { |row| read(row) }

      # @return [Kept, nil]
      def find(id) = @db[:emote_sets].first(id:)&.then { |row| read(row) }

      # @return [Integer] 1, or 0 where it is not wanted any more
      def keep(id, **values)
        values[:list] = Sequel.pg_jsonb(values[:list]) if values.key?(:list)
        @db[:emote_sets].where(id:).update(values)
      end

      # @return [Kept, nil] that was wanted
      def leave(feed_id, name)
        row = @db[:emote_sets].first(feed_id:, name:) or return
        @db[:emote_sets].where(id: row[:id]).delete
        read(row)
      end

      private

      def there
        @db[:emote_sets].left_join(:shelves, id: :shelf_id).where(removed_at_ms: nil).select_all(:emote_sets).order(Sequel[:emote_sets][:id])
      end

      def read(row) = Kept.new(**row, list: row[:list].to_a)
    end
  end
end
