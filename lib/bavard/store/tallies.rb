# frozen_string_literal: true

require_relative "../core/cues/standings"
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

      # What stands beside a name in the log may be another name each time: the last one counts.
      LAST_NAME = "(ARRAY_AGG(display_name ORDER BY arrived_at_ms DESC))[1]"

      def initialize(db)
        @db = db
      end

      # @param since_ms [Integer] Unix milliseconds
      # @return [Core::Cues::Tally]
      # @param until_ms [Integer, nil] what came later does not count
      def since(show_id, since_ms, until_ms: nil)
        counted = of(show_id, since_ms)
        counted = counted.where { arrived_at_ms < until_ms } if until_ms
        rows = counted.group(:kind, Sequel.lit(UNIT)).select(:kind, Sequel.lit(UNIT).as(:unit), *sums)
        rows.each_with_object(Core::Cues::Tally.new) { |row, tally| tally.add(row[:kind], row[:times].to_i, row[:worth]&.to_i, row[:unit]) }
      end

      # @return [Core::Cues::Standings]
      def standings_since(show_id, since_ms)
        rows = of(show_id, since_ms).group(:kind, :login, Sequel.lit(UNIT)).select(:kind, :login, Sequel.lit(UNIT).as(:unit), *sums,
          Sequel.lit("MAX(#{WORTH})").as(:largest), Sequel.lit("MAX(arrived_at_ms)").as(:last_ms), Sequel.lit(LAST_NAME).as(:name))
        rows.each_with_object(Core::Cues::Standings.new) do |row, standings|
          standings.add(Core::Cues::Standings::Entry.new(row[:kind], row[:login], row[:name], row[:unit], row[:times].to_i, row[:worth]&.to_i,
            row[:largest]&.to_i, row[:last_ms]))
        end
      end

      private

      def of(show_id, since_ms) = @db[:lines].where(show_id:, kind: KINDS).where { arrived_at_ms >= since_ms }
      def sums = [Sequel.lit("SUM(#{TIMES})").as(:times), Sequel.lit("SUM(#{WORTH})").as(:worth)]
    end
  end
end
