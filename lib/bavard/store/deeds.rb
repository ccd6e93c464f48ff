# frozen_string_literal: true

require_relative "../core/moderation/deed"

module Bavard
  module Store
    # What people with a role did, one after another.
    class Deeds
      Deed = Core::Moderation::Deed
      KEPT = 200

      def initialize(db)
        @db = db
      end

      # @param deed [Core::Moderation::Deed]
      def add(show_id, deed)
        @db[:deeds].insert_conflict.insert(show_id:, **deed.to_h, detail: Sequel.pg_jsonb(deed.detail || {}))
      end

      # @param by [String] who took it back
      # @param at_ms [Integer] Unix milliseconds
      def undone(id, by, at_ms)
        @db[:deeds].where(id:).update(undone_by: by, undone_ms: at_ms)
      end

      # @return [Array<Deed>] the newest, oldest first
      def latest(show_id, count = KEPT)
        @db[:deeds].where(show_id:).reverse(:id).limit(count).all.reverse.map { |row| read(row) }
      end

      # @return [Array<Deed>] about a line
      def of_line(show_id, line_id)
        @db[:deeds].where(show_id:, line_id:).order(:id).map { |row| read(row) }
      end

      # @return [Array<Deed>] about a person, newest first
      def about(show_id, name)
        @db[:deeds].where(show_id:, about: name).reverse(:id).limit(50).map { |row| read(row) }
      end

      # @return [Array<Deed>] newest first
      def search(show_id, by: nil, what: nil, about: nil, most: nil)
        found = @db[:deeds].where(show_id:).reverse(:id)
        found = found.where(by:) if by
        found = found.where(what:) if what
        found = found.where(Sequel.ilike(:about, "%#{@db.dataset.escape_like(about)}%")) if about
        found = found.limit(most) if most
        found.map { |row| read(row) }
      end

      # @return [Array<String>] of all who did something
      def names(show_id) = @db[:deeds].where(show_id:).distinct.order(:by).select_map(:by)

      # @return [Integer]
      def last_id = @db[:deeds].max(:id) || 0

      private

      def read(row) = Deed.new(**row.except(:show_id), detail: row[:detail].to_hash)
    end
  end
end
