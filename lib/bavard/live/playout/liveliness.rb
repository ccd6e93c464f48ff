# frozen_string_literal: true

require_relative "../../core/look/motion"

module Bavard
  module Live
    # How lively lines may move, by how many came in this second and the one before: the faster they come, the calmer.
    class Liveliness
      SECOND_MS = 1000

      def initialize
        @this_second = @last_second = @second_began_ms = 0
      end

      # @param count [Integer] lines that come in now
      # @return [Float] 0 to 1, as Core::Look::Motion has it
      def with(count, now_ms)
        if now_ms - @second_began_ms >= SECOND_MS
          @last_second = now_ms - @second_began_ms < 2 * SECOND_MS ? @this_second : 0
          @this_second = 0
          @second_began_ms = now_ms
        end
        @this_second += count
        Core::Look::Motion.liveliness([@this_second, @last_second].max)
      end
    end
  end
end
