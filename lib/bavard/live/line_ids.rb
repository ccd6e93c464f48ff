# frozen_string_literal: true

module Bavard
  module Live
    # Ids of lines: they grow with arrival, over restarts too, and stay below 2**53, which JSON readers can hold.
    class LineIds
      PER_MS = 1000

      # @param last [Integer] the highest one given out so far
      def initialize(last)
        @last = last
        @lock = Mutex.new
      end

      # @return [Integer]
      def next(now_ms)
        @lock.synchronize { @last = [now_ms * PER_MS, @last + 1].max }
      end
    end
  end
end
