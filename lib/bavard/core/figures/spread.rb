# frozen_string_literal: true

module Bavard
  module Core
    # How many numbers are told at once.
    module Figures
      # Times in bars of the same width, with the half of them and ninety-nine in a hundred.
      #
      #   Spread.of([12, 40, 41])   # => a Spread with half_ms 40
      #
      # lines:: how many there were; step_ms:: how wide a bar is; bars:: how many times in each, from 0 on; beyond:: how many are longer than
      # the last bar; half_ms, most_ms:: within which one in two, and ninety-nine in a hundred, were
      Spread = Struct.new(:lines, :step_ms, :bars, :beyond, :half_ms, :most_ms)

      # See above.
      class Spread
        BARS = 40
        STEPS_MS = [5, 10, 20, 50, 100, 250, 500, 1000, 2000].freeze
        # A hundredth of them may lie beyond, and some room stays beside the rest.
        ROOM = 1.2

        # @param sorted [Array<Integer>] milliseconds, shortest first
        # @return [Spread]
        def self.of(sorted)
          most = at(sorted, 99)
          step = STEPS_MS.find { |one| one * BARS >= most * ROOM } || STEPS_MS.last
          bars = Array.new(BARS, 0)
          sorted.each { |ms| bars[ms / step] += 1 if ms < step * BARS }
          new(sorted.size, step, bars, sorted.count { |ms| ms >= step * BARS }, at(sorted, 50), most)
        end

        # The nearest rank.
        def self.at(sorted, percent) = sorted.empty? ? 0 : sorted[(sorted.size * percent / 100.0).ceil - 1]
        private_class_method :at
      end
    end
  end
end
