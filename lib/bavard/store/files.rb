# frozen_string_literal: true

module Bavard
  module Store
    # Pictures, films, fonts, sounds and backdrops of a show, by the hash of what is in them; the bytes themselves lie in folders.
    class Files
      # kind:: "picture", "backdrop", "film", "font" or "sound"; more:: what else is known of it
      Kept = Struct.new(:id, :kind, :name, :bytes, :width, :height, :more, keyword_init: true)
      LONGEST_NAME = 120

      def initialize(db)
        @db = db
      end

      # Counts once, however often it is brought.
      #
      # @return [Kept]
      def keep(show_id, kept, now_ms)
        name = named(kept.name)
        @db[:files].insert_conflict(target: %i[show_id id kind], update: {name:})
          .insert(show_id:, made_at_ms: now_ms, **kept.to_h.except(:more, :name), name:, more: Sequel.pg_jsonb(kept.more || {}))
        kept
      end

      # @return [Array<Kept>] the newest first
      def of_show(show_id, kind)
        @db[:files].where(show_id:, kind:).reverse(:made_at_ms).map { |row| read(row) }
      end

      # @return [Integer] how many sounds and films
      def shelved(show_id) = @db[:files].where(show_id:, kind: %w[sound film]).count

      # @return [Kept, nil]
      def find(show_id, kind, id)
        row = @db[:files].first(show_id:, kind:, id:)
        row && read(row)
      end

      # @param more [Hash] what else is known of it, in the place of what was
      # @return [Boolean] whether it is there
      def describe(show_id, kind, id, name:, more:)
        @db[:files].where(show_id:, kind:, id:).update(name: named(name), more: Sequel.pg_jsonb(more)).positive?
      end

      def remove(show_id, kind, id)
        @db[:files].where(show_id:, kind:, id:).delete
      end

      private

      def named(name) = name.strip.empty? ? "Without a name" : name.strip[0, LONGEST_NAME]

      def read(row) = Kept.new(**row.slice(:id, :kind, :name, :bytes, :width, :height), more: row[:more].to_hash)
    end
  end
end
