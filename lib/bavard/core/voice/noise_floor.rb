# frozen_string_literal: true

module Bavard
  module Core
    module Voice
      # How quiet it is where somebody sits: the least that was heard in the last seconds (minimum statistics, Martin 2001),
      # since even who talks without end stops for breath between two words.
      class NoiseFloor
        # Kept as the least of each of so many stretches, the newest still growing.
        STRETCH_MS = 500
        STRETCHES = 6
        # Whoever has not been heard for longer is listened to anew.
        FORGOTTEN_MS = 10_000
        # The least of a few seconds of noise lies that much below what the noise mostly is.
        BIAS_DB = 2
        # In dBov. Services that send nothing but voices have no noise at all.
        LOWEST = -75.0
        HIGHEST = -32.0
        # What is supposed before there was anything to hear, and the most while little was: the first word somebody says is
        # not yet noise.
        FIRST = -60.0
        FIRST_HIGHEST = -44.0

        def initialize
          @least = []
        end

        # @param at_ms [Integer]
        # @param dbov [Numeric] −127 to 0
        def hear(at_ms, dbov)
          @least.clear if @heard_ms && at_ms - @heard_ms > FORGOTTEN_MS
          @heard_ms = at_ms
          if @least.empty? || at_ms - @began_ms >= STRETCH_MS
            @began_ms = at_ms
            @least << dbov
            @least.shift if @least.size > STRETCHES
          elsif dbov < @least.last
            @least[-1] = dbov
          end
        end

        # @return [Float] dBov
        def dbov
          return FIRST if @least.empty?

          (@least.min + BIAS_DB).clamp(LOWEST, @least.size < STRETCHES ? FIRST_HIGHEST : HIGHEST)
        end
      end
    end
  end
end
