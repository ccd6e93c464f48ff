# frozen_string_literal: true

module Bavard
  module Store
    # Feeds as they are kept. The password is closed in a SecretBox.
    class Feeds
      # address:: plain hash, its keys as the feed's kind names them; gap:: [from_ms, to_ms] or nil
      # wanted:: whether the host wants it connected
      Feed = Struct.new(:id, :show_id, :kind, :name, :shape, :colour, :address, :password, :mapping, :wanted, :heard_at_ms,
        :gap, keyword_init: true)

      def initialize(db, box)
        @db = db
        @box = box
      end

      # @return [Feed]
      def create(show_id, kind:, name:, shape:, colour:, address:, password: nil, mapping: {})
        id = @db[:feeds].insert(show_id:, kind:, name:, shape:, colour:, address: Sequel.pg_jsonb(address),
          secret: @box.close(password), mapping: Sequel.pg_jsonb(mapping))
        find(id)
      end

      # @return [Feed, nil]
      def find(id)
        read(@db[:feeds].first(id:, removed_at_ms: nil))
      end

      # @return [Array<Feed>]
      def of_show(show_id)
        @db[:feeds].where(show_id:, removed_at_ms: nil).order(:id).map { |row| read(row) }
      end

      # @param values [Hash] any of wanted, mapping, name, heard_at_ms, address
      def keep(id, **values)
        values = values.transform_values { |value| value.is_a?(Hash) ? Sequel.pg_jsonb(value) : value }
        @db[:feeds].where(id:).update(values)
      end

      def keep_gap(id, from_ms, to_ms)
        keep(id, gap_from_ms: from_ms, gap_to_ms: to_ms)
      end

      # Takes a feed away; its lines stay until it is put back or swept out.
      def remove(id, now_ms)
        keep(id, removed_at_ms: now_ms, wanted: false)
      end

      # @return [Feed, nil] nil where this show has taken no such feed away
      def put_back(show_id, id)
        back = @db[:feeds].where(id:, show_id:).exclude(removed_at_ms: nil).update(removed_at_ms: nil, wanted: true)
        find(id) if back == 1
      end

      private

      def read(row)
        return unless row

        gap = [row[:gap_from_ms], row[:gap_to_ms]]
        Feed.new(**row.slice(:id, :show_id, :kind, :name, :shape, :colour, :wanted, :heard_at_ms), address: row[:address].to_hash,
          password: @box.open(row[:secret]), mapping: row[:mapping].to_hash, gap: gap.all? ? gap : nil)
      end
    end
  end
end
