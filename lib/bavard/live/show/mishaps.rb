# frozen_string_literal: true

module Bavard
  module Live
    # What goes wrong is counted for the operator and said in the log.
    class Mishaps
      TOLD_EVERY_MS = 1000

      # @param log [#info, #error]
      # @param meters [Meters]
      # @param clock [#call] the time in Unix milliseconds
      def initialize(log, meters, clock)
        @log = log
        @meters = meters
        @clock = clock
        @told_at_ms = {}
      end

      # What came in and could not be read is logged no more than once a second for each source.
      #
      # @param source [Symbol] where it came in
      # @param what [String] was wrong with it
      def rejected(source, what)
        @meters.rejected(source)
        now_ms = @clock.call
        return if now_ms - @told_at_ms.fetch(source, 0) < TOLD_EVERY_MS

        @told_at_ms[source] = now_ms
        @log.info("rejected on #{source}: #{what}")
      end

      # Something of ours that nobody foresaw.
      #
      # @param place [Symbol] where it was caught
      # @param words [String] of what it was the end
      # @param error [Exception]
      def fault(place, words, error)
        @meters.fault(place)
        @log.error(words, error)
      end
    end
  end
end
