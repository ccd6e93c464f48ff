# frozen_string_literal: true

require "sequel"
require_relative "../core/voice/cast"

module Bavard
  module Store
    # The cast of a show: everybody who was ever in one of its voice rooms, with what they wear.
    class Cast
      MOST = 2000

      def initialize(db)
        @db = db
      end

      # @return [Array<Core::Voice::CastMember>] the host first, then as they came
      def of_show(show_id)
        @db[:cast_members].where(show_id:).order(Sequel.desc(:host), :id).limit(MOST).map { |row| read(row) }
      end

      # Somebody is in a room; what they wear stays.
      def seen(show_id, service, key, name, at_ms)
        @db[:cast_members].insert_conflict(target: %i[show_id service key], update: {name:, seen_at_ms: at_ms})
          .insert(show_id:, service:, key:, name:, seen_at_ms: at_ms)
      end

      # @param values [Hash] short, colour, face, host, states
      # @return [Boolean] false where there is nobody of that id
      def keep(show_id, id, **values)
        values[:states] = Sequel.pg_jsonb(values[:states]) if values.key?(:states)
        @db.transaction do
          @db[:cast_members].where(show_id:).update(host: false) if values[:host]
          @db[:cast_members].where(show_id:, id:).update(values).positive?
        end
      end

      # @return [Boolean]
      def remove(show_id, id) = @db[:cast_members].where(show_id:, id:).delete.positive?

      private

      def read(row) = Core::Voice::CastMember.new(**row.except(:show_id), states: row[:states].to_hash)
    end
  end
end
