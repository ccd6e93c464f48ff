# frozen_string_literal: true

module Bavard
  module Live
    # What each rule did in the last hour, minute by minute, and when it last mattered.
    class RuleCounts
      MINUTE_MS = 60_000
      MINUTES = 60

      def initialize
        @minutes = []
        @last = {}
      end

      # @param rules [Array<String>] ids
      # @param times [Integer] how often
      def count(at_ms, rules, times = 1)
        minute = at_ms / MINUTE_MS
        @minutes << [minute, Hash.new(0)] if @minutes.empty? || @minutes.last[0] < minute
        rules.each do |rule|
          @minutes.last[1][rule] += times
          @last[rule] = at_ms
        end
      end

      # @return [Hash{String => Hash}] by rule: hour and last (Unix milliseconds)
      def at(now_ms)
        first = (now_ms / MINUTE_MS) - MINUTES
        @minutes.shift while @minutes.any? && @minutes.first[0] <= first
        @last.to_h { |rule, last| [rule, {hour: @minutes.sum { |_, counts| counts.fetch(rule, 0) }, last:}] }
      end
    end
  end
end
