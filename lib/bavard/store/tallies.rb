# frozen_string_literal: true

require_relative "../core/cues/tally"

module Bavard
  module Store
    # Counts what happened, from the log.
    class Tallies
      WORTH = "COALESCE((detail->'paid'->>'minor')::numeric, (detail->'paid'->>'number')::numeric)"
      UNIT = "COALESCE(detail->'paid'->>'currency', detail->'paid'->>'unit')"
      # Gifts come in numbers; all else is counted one by one.
      TIMES = "CASE WHEN kind = 'gift' THEN GREATEST(COALESCE((detail->>'number')::numeric, 1), 1) ELSE 1 END"
      KINDS = Core::Cues::Tally::COUNTED.values.flatten.uniq.freeze

      def initialize(db)
        @db = db
      end

      # @param since_ms [Integer] Unix milliseconds
      # @return [Core::Cues::Tally]
      def since(show_id, since_ms)
        rows = @db[:lines].where(show_id:, kind: KINDS).where { arrived_at_ms >= since_ms }.group(:kind, Sequel.lit(UNIT))
          .select(:kind, Sequel.lit(UNIT).as(:unit), Sequel.lit("SUM(#{TIMES})").as(:times), Sequel.lit("SUM(#{WORTH})").as(:worth))
        rows.each_with_object(Core::Cues::Tally.new) { |row, tally| tally.add(row[:kind], row[:times].to_i, row[:worth]&.to_i, row[:unit]) }
      end
    end
  end
end
