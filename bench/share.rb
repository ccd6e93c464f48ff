# frozen_string_literal: true

module Bench
  # Of times that were measured: within what a share of them lies.
  module Share
    module_function

    # @param took [Array<Float>] milliseconds, sorted
    # @param share [Float] such as 0.99
    # @return [Float] rounded up to the next that was measured; infinite where nothing was
    def at(took, share)
      took.empty? ? Float::INFINITY : took[((took.size - 1) * share).ceil].round(1)
    end
  end
end
