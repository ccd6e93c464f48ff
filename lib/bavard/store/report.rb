# frozen_string_literal: true

require_relative "../core/intake"
require_relative "../core/report/report"
require_relative "lines"
require_relative "tallies"

module Bavard
  module Store
    # Counts the lines of a broadcast, from the log. What happened in a platform's trial or a rehearsal is not in there.
    class Report
      Counted = Core::Report::Counted
      KEPT_OFF = Sequel.lit("action IN ('drop', 'hold') AND NOT aired")
      # Minutes since the epoch: an id begins with the time of arrival in milliseconds.
      MINUTE = Sequel.lit("id / 60000000")
      PERSON = Sequel.lit("DISTINCT (feed_id, login)")

      def initialize(db)
        @db = db
      end

      # @param from_ms, to_ms [Integer] Unix milliseconds
      # @param names [Hash{Integer => String}] of feeds
      # @return [Core::Report::Counted]
      def between(show_id, from_ms, to_ms, names)
        lines = @db[:lines].where(show_id:).where { (id >= from_ms * 1000) & (id < to_ms * 1000) }
        Counted.new(from_ms:, to_ms:, feeds: feeds(lines, names), rules: rules(lines), minutes: minutes(lines), people: lines.get { count(PERSON) },
          new_people: new_people(lines, show_id, from_ms), events: events(lines))
      end

      # @param from_ms [Integer] Unix milliseconds
      # @return [Integer, nil] when the first line since then came
      def first_since(show_id, from_ms) = @db[:lines].where(show_id:).where { id >= from_ms * 1000 }.min(:id)&.div(1000)

      private

      def feeds(lines, names)
        rows = lines.group(:feed_id).select(:feed_id, Sequel.lit("COUNT(*) AS lines, COUNT(*) FILTER (WHERE aired AND NOT pulled) AS aired,
          COUNT(*) FILTER (WHERE pulled) AS pulled, COUNT(DISTINCT login) AS people"), Sequel.lit("COUNT(*) FILTER (WHERE ?) AS kept_off", KEPT_OFF))
        rows.order(Sequel.desc(:lines), :feed_id).map do |row|
          Core::Report::Feed.new(name: names.fetch(row[:feed_id], "gone"), **row.slice(:lines, :aired, :kept_off, :pulled, :people))
        end
      end

      def rules(lines) = lines.where(KEPT_OFF).exclude(rule: nil).group_and_count(:rule).as_hash(:rule, :count)
      def minutes(lines) = lines.group(MINUTE).select(MINUTE.as(:minute), Sequel.lit("COUNT(*) AS many")).as_hash(:minute, :many)

      # Who wrote nothing that is kept from before.
      def new_people(lines, show_id, from_ms)
        before = @db[:lines].as(:before)
        here = lines.distinct.select(:feed_id, :login).as(:here)
        earlier = @db.from(before).where(Sequel[:before][:show_id] => show_id, Sequel[:before][:feed_id] => Sequel[:here][:feed_id],
          Sequel[:before][:login] => Sequel[:here][:login]).where(Sequel[:before][:id] < from_ms * 1000)
        @db.from(here).exclude(earlier.select(1).exists).count
      end

      # As goals count them.
      def events(lines)
        unit = Sequel.lit(Tallies::UNIT)
        rows = lines.where(kind: Tallies::KINDS).group(:kind, unit)
          .select(:kind, unit.as(:unit), Sequel.lit("SUM(#{Tallies::TIMES}) AS times, SUM(#{Tallies::WORTH}) AS worth"))
        rows.order(:kind, :unit).map do |row|
          Core::Report::Event.new(kind: row[:kind], times: row[:times].to_i, worth: row[:worth]&.to_i, unit: row[:unit])
        end
      end
    end
  end
end
