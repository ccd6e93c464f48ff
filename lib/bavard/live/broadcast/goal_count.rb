# frozen_string_literal: true

require_relative "../../core/cues/goal"
require_relative "tallies"

module Bavard
  module Live
    # How much was counted for one goal: from its own start or that of a span, until now or until its end.
    class GoalCount
      # @param piece [Hash] a goal
      # @param tallies [Tallies]
      # @param now_ms [Integer, nil]
      # @param shown_ms [Integer] a time of the day alone is meant for the day of this
      def initialize(piece, tallies, now_ms, shown_ms)
        @piece = piece
        @tallies = tallies
        @now_ms = now_ms
        @shown_ms = shown_ms
        @asked = Tallies::Asked.by(piece)
      end

      # @return [Integer, Float] in whole units
      def value
        return @tallies.value_since(starts_ms, @asked, over_ms) if own_start? && begun?
        return 0 if own_start?

        over_ms ? @tallies.value_until(span, @asked, over_ms) : @tallies.value(span, @asked)
      end

      # @return [Integer, Float] without what was there before Bavard counted
      def come = own_start? ? value : @asked.of(@tallies[span])

      # @return [Integer] from when on that came
      def from_ms = own_start? ? [starts_ms, @now_ms].min : @tallies.counted_from(span, @now_ms)

      private

      # Where its own start cannot be read, the broadcast's counts.
      def own_start? = @piece["since"] == "start" && !starts_ms.nil?
      def span = @piece["since"] == "start" ? "broadcast" : @piece["since"]
      def begun? = @now_ms.nil? || starts_ms <= @now_ms
      def starts_ms = @starts_ms ||= ms(@piece["starts"].to_s)

      # @return [Integer, nil] when it ended, once it has
      def over_ms
        ends_ms = @ends_ms ||= ms(@piece["until"].to_s)
        ends_ms if ends_ms && @now_ms && @now_ms >= ends_ms
      end

      def ms(text)
        year, month, day, hour, minute = Core::Cues::Goal.until(text) || return
        today = Time.at(@shown_ms / 1000)
        Time.new(year || today.year, month || today.month, day || today.day, hour || 0, minute || 0).to_i * 1000
      rescue ArgumentError # a thirteenth month
        nil
      end
    end
  end
end
