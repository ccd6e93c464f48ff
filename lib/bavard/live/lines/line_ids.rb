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
      def initialize(last)
        @last = last + (UNKEPT_MS * PER_MS)
        @lock = Mutex.new
      end

      # @return [Integer]
      def next(now_ms)
        @lock.synchronize { @last = [now_ms * PER_MS, @last + 1].max }
      end
    end
  end
end
