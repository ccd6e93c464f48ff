# frozen_string_literal: true

require_relative "../core/cues/tally"

module Bavard
  module Live
    # When a show's broadcast begins and ends, and how many of what there are in all. Part of {Show}; for use in its thread only.
    module Broadcast
      # What is counted by the broadcast is counted from now on.
      #
      # @param noticed [String, nil] on which feed it was noticed; nil: the host says so
      def begin_broadcast(noticed = nil)
        tallies.begin(now_ms)
        cues.began_ms = now_ms
        use_cues(cues.document.merge("began_ms" => now_ms, "ended_ms" => nil, "noticed" => noticed))
      end

      # @param counted [String] of Core::Cues::Tally::COUNTED, but money
      # @param number [Integer] how many there are now, since ever
      # @return [Hash] as {#totals}
      def set_total(counted, number)
        base = number - tallies["ever"].value(counted).to_i
        use_cues(cues.document.merge("totals" => cues.document["totals"].merge(counted => base)))
        tallies.totals = cues.document["totals"]
        totals
      end

      # @param piece [Hash] a goal
      # @return [Array(Numeric, Integer)] how much came since it began to count, and how long that is, in milliseconds
      def pace_of(piece) = [tallies[piece["since"]].value(piece["counted"], piece["unit"]), now_ms - tallies.counted_from(piece["since"], now_ms)]

      # @return [Hash{String => Integer}] how many there are in all, of what is no money
      def totals
        (Core::Cues::Tally::COUNTED.keys - Core::Cues::Tally::MONEY).to_h { |counted| [counted, tallies.value("ever", counted).to_i] }
      end

      def end_broadcast = use_cues(cues.document.merge("ended_ms" => now_ms))

      # A feed that can tell says whether somebody broadcasts: the first to begin begins the broadcast, the last to end ends it.
      # What it was when Bavard connected tells nothing.
      #
      # @param before [Symbol] a FeedState's state
      # @param after [Symbol]
      def notice_broadcast(lane, before, after)
        case [before, after]
        when %i[nobody_broadcasting live]
          begin_broadcast(lane.feed.name) if cues.ended?
        when %i[live nobody_broadcasting]
          end_broadcast unless cues.ended? || on_air_elsewhere?(lane)
        end
      end

      private

      # IRC tells only where its topic does, so that it counts for nothing here.
      def on_air_elsewhere?(lane)
        lanes.each_value.any? { |other| other != lane && other.state.state == :live && other.feed.kind != "irc" }
      end
    end
  end
end
