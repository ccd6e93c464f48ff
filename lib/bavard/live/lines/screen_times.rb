# frozen_string_literal: true

module Bavard
  module Live
    # How long lines of feeds took from their arrival until a screen had painted them, what they were held left out. Told by a {LineBook}
    # what went on air, and by screens what they painted. Belongs to its show's thread.
    class ScreenTimes
      WITHIN_MS = 600_000
      # Of lines on their way, and of times.
      MOST_WAITING = 2000
      MOST = 20_000
      # Whatever a screen claims.
      LONGEST_MS = 60_000
      # A line that was painted. at_ms:: when; took_ms:: after its arrival; line:: Core::Chat::Line
      Time = Struct.new(:at_ms, :took_ms, :line)

      # @yieldreturn [Boolean] whether a screen is open: what nobody could paint says nothing
      def initialize(&open)
        @open = open
        @since = {}
        @times = []
      end

      # @return [Time, nil] of the newest line that was painted
      attr_reader :last

      def came(kept, _now_ms)
        wait_for(kept, kept.line.arrived_at_ms) if kept.state.name == :aired
      end

      def moved(kept, event, _from, now_ms)
        event == :air ? wait_for(kept, now_ms) : @since.delete(kept.id)
      end

      def edited(_kept) = nil
      def forgot(kept) = @since.delete(kept.id)

      # The first screen that has it counts.
      #
      # @return [Time, nil]
      def painted(line_id, at_ms)
        line, since_ms = @since.delete(line_id)
        return unless line

        @last = Time.new(at_ms, (at_ms - since_ms).clamp(0, LONGEST_MS), line)
        @times << @last
        @times.shift if @times.size > MOST
        @last
      end

      # @return [Array<Integer>] milliseconds of the last ten minutes, shortest first
      def of_late(now_ms)
        @times.shift while @times.any? && now_ms - @times.first.at_ms > WITHIN_MS
        @times.map(&:took_ms).sort
      end

      private

      def wait_for(kept, since_ms)
        return unless kept.line.origin == :feed && @open.call

        @since[kept.id] = [kept.line, since_ms]
        @since.shift if @since.size > MOST_WAITING
      end
    end
  end
end
