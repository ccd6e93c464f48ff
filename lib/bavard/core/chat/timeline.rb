# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # What stands in one chat piece at a given time.
      #
      # It remembers more lines than it shows, so that a change of its settings applies at once to what is already
      # there, and so that the same lines given again after a restart stand again with the time they had left.
      # A line that was pulled keeps its place in the count: nothing older comes back in its stead.
      #
      #   timeline = Timeline.new(Settings.new(8, 12_000, 2))
      #   timeline.add(line)
      #   timeline.advance(now_ms)   # => Change with what came in and what went out since the last call
      class Timeline
        # at_most:: lines standing at once
        # stay_ms:: how long each stands, or nil for good
        # keep_last:: how many of the newest stay even when their time is over
        Settings = Struct.new(:at_most, :stay_ms, :keep_last)

        # in_lines:: lines that began to stand, oldest first; out_ids:: ids of lines that stand no longer
        Change = Struct.new(:in_lines, :out_ids) do
          def empty?
            in_lines.empty? && out_ids.empty?
          end
        end

        REMEMBERED = 256

        attr_accessor :settings
        attr_reader :standing

        # @param settings [Settings]
        # @param lines [Array<Line>] what was said before, oldest first
        def initialize(settings, lines = [])
          @settings = settings
          @lines = lines.last(REMEMBERED)
          @known = @lines.to_h { |line| [line.id, true] }
          @pulled = {}
          @standing = []
        end

        # Lines stand in the order of the times they were said: what is told again from history finds its place.
        #
        # @param line [Line] counted once, however often it comes
        def add(line)
          return if @known.key?(line.id)

          @known[line.id] = true
          later = @lines.any? && @lines.last.shown_at_ms > line.shown_at_ms &&
            @lines.index { |other| other.shown_at_ms > line.shown_at_ms }
          later ? @lines.insert(later, line) : @lines << line
          forget(@lines.shift) if @lines.size > REMEMBERED
        end

        # Takes a line away for good.
        def pull(line_id)
          @pulled[line_id] = true
        end

        # Takes away all lines for which the block is true, from now back.
        def pull_where
          @lines.each { |line| @pulled[line.id] = true if yield(line) }
        end

        # Takes everything away.
        def clear
          @lines.clear
          @known.clear
          @pulled.clear
        end

        # Other settings for what already stands; the next {#advance} tells what changes.

        # @param now_ms [Integer]
        # @return [Change] since the last call
        def advance(now_ms)
          before = @standing
          @standing = standing_at(now_ms)
          return Change.new([], []) if before == @standing

          known = before.to_h { |line| [line.id, true] }
          stay = @standing.to_h { |line| [line.id, true] }
          Change.new(@standing.reject { |line| known[line.id] }, before.reject { |line| stay[line.id] }.map(&:id))
        end

        # @return [Integer, nil] when the next line leaves by itself, if no other comes
        def next_due_ms
          return unless @settings.stay_ms

          leaving = @standing.reject { |line| kept?(line) }
          leaving.map { |line| line.shown_at_ms + @settings.stay_ms }.min
        end

        private

        def standing_at(now_ms)
          counted = @lines.last(@settings.at_most)
          counted.each_with_index.filter_map do |line, index|
            next if @pulled[line.id]

            line if counted.size - index <= @settings.keep_last || in_time?(line, now_ms)
          end
        end

        def in_time?(line, now_ms)
          @settings.stay_ms.nil? || now_ms < line.shown_at_ms + @settings.stay_ms
        end

        def kept?(line)
          @lines.last(@settings.keep_last).any? { |last| last.id == line.id }
        end

        def forget(line)
          @known.delete(line.id)
          @pulled.delete(line.id)
        end
      end
    end
  end
end
