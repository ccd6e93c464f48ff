# frozen_string_literal: true

module Bench
  # How much of the machine others took while the block ran.
  module Steal
    module_function

    # @return [Array(Object, Float)] what the block gave, and the steal in percent (from /proc/stat)
    def around
      before = ticks
      given = yield
      after = ticks
      total = after.sum - before.sum
      [given, total.zero? ? 0.0 : (after[7] - before[7]) * 100.0 / total]
    end

    def ticks
      File.foreach("/proc/stat").first.split.drop(1).map(&:to_i)
    end
  end
end
