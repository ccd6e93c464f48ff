# frozen_string_literal: true

module Bavard
  module Live
    # What a platform took away before it told of it: remembered for a while, as far as there is room.
    class TakenBefore
      LASTS_MS = 600_000
      MOST = 500

      def initialize = @at_ms = {}

      # @param platform_id [String]
      def remember(platform_id, now_ms)
        @at_ms.delete(platform_id)
        @at_ms[platform_id] = now_ms
        @at_ms.shift if @at_ms.size > MOST
      end

      # @return [Boolean] whether it was, and has come now
      def came?(platform_id, now_ms)
        at_ms = @at_ms.delete(platform_id) or return false
        now_ms - at_ms <= LASTS_MS
      end
    end
  end
end
