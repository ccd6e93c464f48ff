# frozen_string_literal: true

module Bavard
  module Live
    # Ids of lines: they grow with arrival, over restarts too, and stay below 2**53, which JSON readers can hold.
    class LineIds
      PER_MS = 1000
      # What a process that was killed gave out and did not keep any more is as old as that at most. Where the clock was set back
      # meanwhile it would be given again, and a screen would take the one line for the other.
      UNKEPT_MS = 60_000

      # @param last [Integer] the highest one that is kept
      # @param number [Integer] of this process among those that share shows
      # @param among [Integer] how many there can be: none gives an id that another gives
      def initialize(last, number: 0, among: 1)
        @last = last + (UNKEPT_MS * PER_MS)
        @number = number
        @among = among
        @lock = Mutex.new
      end

      # @return [Integer]
      def next(now_ms)
        @lock.synchronize { @last = ours([now_ms * PER_MS, @last + 1].max) }
      end

      # Those of a show that ran elsewhere before go on from there.
      #
      # @param last [Integer] the highest one that is kept of it
      def past(last) = @lock.synchronize { @last = [@last, last].max }

      private

      def ours(id) = id + ((@number - id) % @among)
    end
  end
end
