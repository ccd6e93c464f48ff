# frozen_string_literal: true

require_relative "rehearsal"

module Bavard
  module Live
    # Where a script is rehearsed in one stage's draft. The draft's own clock stands while the rehearsal is held, and is
    # behind by as long afterwards. Belongs to its show's thread.
    class RehearsalRoom
      # @return [Rehearsal, nil]
      attr_reader :rehearsal

      # @param draft [Playout]
      # @param ids [LineIds]
      # @yieldparam line [Core::Chat::Line] before it is drawn; gives it as it is shown, or nil
      def initialize(draft, ids, &judge)
        @draft = draft
        @ids = ids
        @judge = judge
        @lag_ms = 0
      end

      # @param script [Script, nil] nil: no longer
      # @param rate [Integer, nil] lines a minute, in the place of its own pace
      def play(script, now_ms, rate: nil)
        clock_stands(nil, 0)
        @rehearsal = script && Rehearsal.new(script, now_ms, rate:)
      end

      # @param how [String] "hold", "step" (one line more, held there) or "on"
      def hold(how, now_ms)
        return unless rehearsal

        case how
        when "hold" then stand(now_ms)
        when "step" then step(now_ms)
        else go_on(now_ms)
        end
      end

      # To a moment of the script: the draft as it would be then, the same every time.
      def go_to(ms, now_ms)
        return unless rehearsal

        @draft.clear
        rehearsal.go_to(ms, lines_ms(now_ms), @ids).each { |line| show(line) }
      end

      # Another pace, or its own (nil).
      def rate_to(rate, now_ms) = rehearsal&.rate_to(rate, lines_ms(now_ms))

      # @return [Integer] lines a minute
      def per_minute = rehearsal&.per_minute || 0

      def advance(now_ms)
        at_ms = lines_ms(now_ms)
        while rehearsal && (line = rehearsal.line(at_ms, @ids))
          show(line)
        end
        @rehearsal = nil if rehearsal&.over?
      end

      # @return [Integer, nil]
      def due_ms
        due = rehearsal&.due_ms
        due && (due + @lag_ms)
      end

      # @return [Hash, nil] for the Stage's transport
      def report(now_ms) = rehearsal&.report(lines_ms(now_ms))

      private

      # What time it is for the draft's lines.
      def lines_ms(now_ms) = @held_at_ms || (now_ms - @lag_ms)

      def stand(now_ms)
        clock_stands(lines_ms(now_ms), @lag_ms)
        rehearsal.hold(@held_at_ms)
      end

      def step(now_ms)
        stand(now_ms)
        line = rehearsal.step(@held_at_ms, @ids)
        show(line) if line
      end

      def go_on(now_ms)
        return unless @held_at_ms

        rehearsal.go_on(@held_at_ms)
        clock_stands(nil, now_ms - @held_at_ms)
      end

      # @param held_at_ms [Integer, nil]
      def clock_stands(held_at_ms, lag_ms)
        @draft.held_at_ms = @held_at_ms = held_at_ms
        @draft.lag_ms = @lag_ms = lag_ms
      end

      def show(line)
        shown = @judge.call(line)
        @draft.add(shown) if shown
      end
    end
  end
end
