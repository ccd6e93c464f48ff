# frozen_string_literal: true

module Bavard
  module Live
    # Counts by minute over the last hour: what came in, what was kept off, what went on air.
    class Figures
      MINUTE_MS = 60_000
      MINUTES = 60
      Minute = Struct.new(:number, :in, :off, :aired)

      def initialize
        @minutes = []
      end

      # @param aired [Boolean] whether it went on a stage that viewers see
      # @param times [Integer] how many lines
      def count(at_ms, dropped:, aired:, times: 1)
        minute = minute(at_ms / MINUTE_MS)
        minute.in += times
        minute.off += times if dropped
        minute.aired += times if aired
      end

      # A line that was counted before went on a stage that viewers see.
      def aired(at_ms) = minute(at_ms / MINUTE_MS).aired += 1

      # @return [Hash] in, off, aired in the last hour, and rate: lines in the minute before now
      def at(now_ms)
        first = (now_ms / MINUTE_MS) - MINUTES
        @minutes.shift while @minutes.any? && @minutes.first.number <= first
        {in: @minutes.sum(&:in), off: @minutes.sum(&:off), aired: @minutes.sum(&:aired)}
      end

      private

      def minute(number)
        last = @minutes.last
        return last if last && last.number >= number

        @minutes << Minute.new(number, 0, 0, 0)
        @minutes.last
      end
    end
  end
end
