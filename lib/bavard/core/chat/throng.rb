# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # How many lines of one feed are taken for the picture: more than nobody can read or hold, and who floods one feed must not wash away
      # what is said on another. Of those that are too many the newest wait for room, and the others never go there.
      #
      #   throng = Throng.new
      #   throng.admit(:feed, line, now_ms)   # whether it goes on the picture now
      #   throng.advance(now_ms)             # lines that waited and go now
      #
      # Counts the time that passes between calls, as {Hold} does.
      class Throng
        # Lines that may come at once, and lines a second after that.
        BURST = 60
        PER_SECOND = 30
        # Lines that wait, of one feed.
        WAITING = 8
        # Told again from history, which has its own bounds, it has its place by when it was said.
        LATELY_MS = 5000
        LONGEST_STEP_MS = 1000
        NONE = [].freeze
        Feed = Struct.new(:room, :at_ms, :waiting)

        def initialize
          @feeds = {}
          @washed = []
        end

        # @param feed [Object] by which lines are counted
        # @param line [#id, #shown_at_ms]
        # @return [Boolean] whether there is room for it; if not, it waits
        def admit(feed, line, now_ms)
          return true if now_ms - line.shown_at_ms > LATELY_MS

          own = fill(@feeds[feed] ||= Feed.new(BURST, now_ms, []), now_ms)
          free = own.room >= 1 && own.waiting.empty?
          free ? own.room -= 1 : own.waiting << line
          @washed << own.waiting.shift if own.waiting.size > WAITING
          free
        end

        # @return [Array<Object>] lines that waited since this was last asked, and for which there never was room
        def washed
          return NONE if @washed.empty?

          @washed.tap { @washed = [] }
        end

        # @return [Array<Object>] lines that go on the picture now
        def advance(now_ms)
          @feeds.delete_if { |_, own| fill(own, now_ms).room >= BURST && own.waiting.empty? }
          @feeds.each_value.flat_map { |own| own.waiting.shift(own.room.floor).tap { |gone| own.room -= gone.size } }
        end

        # Takes away what waits and for which the block is true.
        def pull_where(&) = @feeds.each_value { |own| own.waiting.reject!(&) }

        # @return [Integer, nil] when the next one goes
        def due_ms
          @feeds.each_value.reject { |own| own.waiting.empty? }.map { |own| own.at_ms + ([1 - own.room, 0].max * 1000 / PER_SECOND).ceil }.min
        end

        private

        def fill(own, now_ms)
          passed = (now_ms - own.at_ms).clamp(0, LONGEST_STEP_MS)
          own.room = [own.room + (passed * PER_SECOND / 1000.0), BURST].min
          own.at_ms = now_ms
          own
        end
      end
    end
  end
end
