# frozen_string_literal: true

require_relative "../../core/chat/line"
require_relative "script"

module Bavard
  module Live
    # A script being played into one stage's draft: at its own pace or another, held, step by step, or from any moment on.
    class Rehearsal
      # Of the lines before a moment, as many as a piece may hold.
      MOST_BEFORE = 60

      # @return [Array(String, String)] the mark of whoever says it
      def self.mark(login) = Script::MARKS[Script.voice(login)]

      attr_reader :script

      # @param script [Script]
      # @param rate [Integer, nil] lines a minute, in the place of its own pace
      def initialize(script, now_ms, rate: nil)
        @script = script
        @rate = rate&.clamp(Script::RATES)
        @round = 0
        @next = 0
        @began_ms = now_ms
      end

      # @return [Integer, nil] when the next line comes; nil while it is held or over
      def due_ms
        @began_ms + script.at(@next, @rate) unless held? || over?
      end

      # @return [Core::Chat::Line, nil] the next line, once it is due
      def line(now_ms, ids)
        due = due_ms
        next_line(now_ms, ids) if due && now_ms >= due
      end

      # One line more, and held there.
      #
      # @return [Core::Chat::Line, nil]
      def step(now_ms, ids)
        return if over?

        line = next_line(now_ms, ids)
        @held_ms = over? ? @held_ms : script.at(@next, @rate)
        line
      end

      def hold(now_ms)
        @held_ms = position_ms(now_ms) unless held?
      end

      def go_on(now_ms)
        return unless held?

        @began_ms = now_ms - @held_ms
        @held_ms = nil
      end

      # To a moment: what was said up to it, as long ago as it would be.
      #
      # @return [Array<Core::Chat::Line>] the same lines every time
      def go_to(ms, now_ms, ids)
        ms = ms.clamp(0, script.length_at(@rate) - 1)
        @next = (0...script.steps.size).bsearch { |index| script.at(index, @rate) > ms } || script.steps.size
        held? ? @held_ms = ms : @began_ms = now_ms - ms
        from = [@next - MOST_BEFORE, 0].max
        (from...@next).map { |index| made(index, now_ms - (ms - script.at(index, @rate)), ids, now_ms) }.tap { wrap }
      end

      # @param rate [Integer, nil]
      def rate_to(rate, now_ms)
        was_held = held?
        hold(now_ms)
        share = @held_ms.fdiv([script.length_at(@rate), 1].max)
        @rate = rate&.clamp(Script::RATES)
        @held_ms = [(share * script.length_at(@rate)).round, script.at(@next, @rate)].min
        go_on(now_ms) unless was_held
      end

      def held? = !@held_ms.nil?
      def over? = @next >= script.steps.size

      # @return [Integer] lines a minute
      def per_minute = @rate || script.per_minute

      # @return [Hash] for the Stage's transport
      def report(now_ms)
        {key: script.key, held: held?, at: position_ms(now_ms), length: script.length_at(@rate), rate: @rate, per_minute:, next: @next,
         steps: script.steps.size}
      end

      private

      def position_ms(now_ms) = @held_ms || (now_ms - @began_ms).clamp(0, script.length_at(@rate))

      def next_line(now_ms, ids)
        line = made(@next, now_ms, ids, now_ms)
        @next += 1
        wrap
        line
      end

      # From the beginning again, unless it is played once.
      def wrap
        return unless over? && !script.once?

        @next = 0
        @began_ms += script.length_at(@rate)
        @held_ms = 0 if held?
      end

      def made(index, said_ms, ids, now_ms)
        what = script.steps[index].what
        kind = what.is_a?(Core::Happened) ? :event : :line
        Core::Chat::Line.from(Core::Intake.new(kind, nil, nil, nil, said_ms, what), id: ids.next(now_ms), origin: :rehearsal)
      end
    end
  end
end
