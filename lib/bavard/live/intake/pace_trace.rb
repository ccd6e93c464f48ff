# frozen_string_literal: true

module Bavard
  module Live
    # How many lines came in each ten seconds of the last ten minutes.
    class PaceTrace
      SLOT_MS = 10_000
      SLOTS = 60
      SLOTS_A_MINUTE = 60_000 / SLOT_MS

      def initialize
        @counts = Hash.new(0)
      end

      def count(at_ms)
        @counts[at_ms / SLOT_MS] += 1
      end

      # @return [Array<Integer>] oldest first, the last being the slot that now is in
      def at(now_ms)
        last = now_ms / SLOT_MS
        @counts.delete_if { |slot, _| slot <= last - SLOTS }
        ((last - SLOTS + 1)..last).map { |slot| @counts.fetch(slot, 0) }
      end

      # @return [Integer] lines in the last whole minute of slots
      def rate(now_ms)
        at(now_ms).last(SLOTS_A_MINUTE).sum
      end
    end
  end
end
