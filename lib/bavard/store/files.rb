# frozen_string_literal: true

module Bavard
  module Store
    # Pictures, films, fonts and backdrops of a show, by the hash of what is in them; the bytes themselves lie in folders.
    class Files
      # kind:: "picture", "backdrop", "film" or "font"; more:: what else is known of it
      Kept = Struct.new(:id, :kind, :name, :bytes, :width, :height, :more, keyword_init: true)
      LONGEST_NAME = 120

      def initialize(db)
        @db = db
      end

      # Counts once, however often it is brought.
      #
      # @return [Kept]
      def keep(show_id, kept, now_ms)
        name = kept.name.strip.empty? ? "Without a name" : kept.name.strip[0, LONGEST_NAME]
        @db[:files].insert_conflict(target: %i[show_id id kind], update: {name:})
          .insert(show_id:, made_at_ms: now_ms, **kept.to_h.except(:more, :name), name:, more: Sequel.pg_jsonb(kept.more || {}))
        kept
      end

      # @return [Array<Kept>] the newest first
      def of_show(show_id, kind)
        @db[:files].where(show_id:, kind:).reverse(:made_at_ms).map { |row| read(row) }
      end

      # @return [Kept, nil]
      def find(show_id, kind, id)
        row = @db[:files].first(show_id:, kind:, id:)
        row && read(row)
      end

      def remove(show_id, kind, id)
        @db[:files].where(show_id:, kind:, id:).delete
      end

      private

      def read(row) = Kept.new(**row.slice(:id, :kind, :name, :bytes, :width, :height), more: row[:more].to_hash)
    end
  end
end
