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
      LATEST = "ORDER BY arrived_at_ms DESC, display_name DESC, #{WORTH} DESC NULLS LAST".freeze
      LAST = {"display_name" => :name, WORTH => :last_worth}
        .map { |what, name| Sequel.lit("(ARRAY_AGG(#{what} #{LATEST}))[1]").as(name) }.freeze

      def initialize(db)
        @db = db
      end

      # @param since_ms [Integer] Unix milliseconds
      # @param until_ms [Integer, nil] what came later does not count
      # @return [Core::Cues::Tally]
      def since(show_id, since_ms, until_ms: nil)
        counted = of(show_id, since_ms)
        counted = counted.where { arrived_at_ms < until_ms } if until_ms
        rows = counted.group(:kind, :feed_id, Sequel.lit(UNIT)).select(:kind, :feed_id, Sequel.lit(UNIT).as(:unit), *sums)
        rows.each_with_object(Core::Cues::Tally.new) do |row, tally|
          tally.add(row[:kind], row[:times].to_i, row[:worth]&.to_i, row[:unit], feed_id: row[:feed_id])
        end
      end

      # @return [Core::Cues::Standings]
      def standings_since(show_id, since_ms)
        entries(of(show_id, since_ms).exclude(login: "")).each_with_object(Core::Cues::Standings.new) { |entry, standings| standings.add(entry) }
      end

      # @return [Array<Core::Cues::Standings::Entry>] of whoever is called so, on whichever feed
      def standing_of(show_id, since_ms, login) = entries(of(show_id, since_ms).where(login:))

      private

      def of(show_id, since_ms) = @db[:lines].where(show_id:, kind: KINDS).where { arrived_at_ms >= since_ms }
      def lasts = [Sequel.lit("MAX(#{WORTH})").as(:largest), Sequel.lit("MAX(arrived_at_ms)").as(:last_ms), *LAST]

      def entries(lines)
        lines.group(:kind, :login, Sequel.lit(UNIT)).select(:kind, :login, Sequel.lit(UNIT).as(:unit), *sums, *lasts).map { |row| entry(row) }
      end

      # Sums are big decimals.
      def entry(row)
        worth, largest, last_worth = row.values_at(:worth, :largest, :last_worth).map { |number| number&.to_i }
        Core::Cues::Standings::Entry.new(*row.values_at(:kind, :login, :name, :unit), row[:times].to_i, worth, largest, row[:last_ms], last_worth)
      end

      def sums = [Sequel.lit("SUM(#{TIMES})").as(:times), Sequel.lit("SUM(#{WORTH})").as(:worth)]
    end
  end
end
