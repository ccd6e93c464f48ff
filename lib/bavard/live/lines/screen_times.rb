# frozen_string_literal: true

module Bavard
  module Live
    # How long lines of feeds took from their arrival until a screen had painted them, what they were held left out. Belongs to its show's
    # thread.
    class ScreenTimes
      WITHIN_MS = 600_000
      MOST = 20_000
      HALVED_EVERY_MS = 2000
      # Whatever a screen claims.
      LONGEST_MS = 60_000
      # A line that was painted. at_ms:: when; took_ms:: after its arrival; line:: Core::Chat::Line
      Time = Struct.new(:at_ms, :took_ms, :line)

      def initialize
        @times = []
        @counted = {}
      end

      # @return [Time, nil] of the newest line that was painted
      attr_reader :last

      # The first screen that has it counts, where it was open already when the line went on air: what stands there before it says nothing.
      #
      # @param kept [LineBook::Kept]
      # @param open_since_ms [Integer] of the screen
      # @return [Time, nil]
      def painted(kept, at_ms, open_since_ms)
        since_ms = went_ms(kept)
        return if @counted.key?(kept.id) || kept.line.origin != :feed || kept.state.name != :aired || open_since_ms > since_ms

        remember(kept.id)
        @last = Time.new(at_ms, (at_ms - since_ms).clamp(0, LONGEST_MS), kept.line)
        @times << @last
        @times.shift if @times.size > MOST
        @last
      end

      # @return [Array<Integer>] milliseconds of the last ten minutes, shortest first
      def of_late(now_ms)
        @times.shift while @times.any? && now_ms - @times.first.at_ms > WITHIN_MS
        @times.map(&:took_ms).sort
      end

      # @return [Integer, nil] milliseconds that half of them are within; counted anew every few seconds
      def half(now_ms)
        return @half if @halved_ms && now_ms - @halved_ms < HALVED_EVERY_MS

        @halved_ms = now_ms
        sorted = of_late(now_ms)
        @half = sorted.empty? ? nil : sorted[(sorted.size - 1) / 2]
      end

      private

      # When it came, or left the hold; for what a feed told later, when it was told.
      def went_ms(kept) = [(kept.shown || kept.line).shown_at_ms, kept.line.arrived_at_ms].max

      def remember(line_id)
        @counted[line_id] = true
        @counted.shift if @counted.size > MOST
      end
    end
  end
end
