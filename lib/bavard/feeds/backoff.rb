# frozen_string_literal: true

module Bavard
  module Feeds
    # How long to wait before the next try: exponential, with full jitter in the upper half, so that many who were cut
    # at once do not all come back at once.
    class Backoff
      FIRST_MS = 500
      LONGEST_MS = 60_000
      # A connection that held this long was a good one; the next failure begins anew.
      HELD_MS = 30_000

      # @param random [#rand] gives 0.0...1.0
      def initialize(random: Random.new)
        @random = random
        @failures = 0
      end

      # @param held_ms [Integer] how long the connection that just failed had been live
      # @return [Integer] milliseconds to wait
      def next_ms(held_ms = 0)
        @failures = 0 if held_ms >= HELD_MS
        ceiling = [FIRST_MS * (2**@failures), LONGEST_MS].min
        @failures += 1 if ceiling < LONGEST_MS
        (ceiling / 2) + (@random.rand * ceiling / 2).round
      end
    end
  end
end
