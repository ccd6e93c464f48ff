# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # What stands in one chat piece at a given time.
      #
      # It remembers more lines than it shows, so that a change of its settings applies at once to what is already
      # there, and so that the same lines given again after a restart stand again with the time they had left.
      # A line that is away (see {Line#away?}) keeps its place in the count: nothing older comes back in its stead.
      #
      #   timeline = Timeline.new(Settings.new(8, 12_000, 2))
      #   timeline.add(line)
      #   timeline.advance(now_ms)   # => Change with what came in and what went out since the last call
      class Timeline
        # at_most:: lines standing at once
        # stay_ms:: how long each stands, or nil for good
        # keep_last:: how many of the newest stay even when their time is over
        # reading_speed:: letters read a second, where each stands as long as it takes to read; else nil
        Settings = Struct.new(:at_most, :stay_ms, :keep_last, :reading_speed) do
          # @param line [Line]
          # @return [Integer, nil] how long it stands
          def stay_of(line)
            reading_speed ? self.class.reading_ms(line.text.length, reading_speed) : stay_ms
          end
        end

        # How long a line takes to be noticed and read, however short it is.
        class Settings
          SHORTEST_READ_MS = 3000
          NOTICED_MS = 1500

          # @param letters [Integer] of its text
          # @param speed [Numeric] letters a second
          # @return [Integer]
          def self.reading_ms(letters, speed)
            [SHORTEST_READ_MS, NOTICED_MS + (letters * 1000 / speed)].max
          end
        end

        # in_lines:: lines that began to stand, oldest first; out_lines:: lines that stand no longer
        Change = Struct.new(:in_lines, :out_lines) do
          def empty? = in_lines.empty? && out_lines.empty?
          def out_ids = out_lines.map(&:id)
        end

        NO_CHANGE = Change.new([].freeze, [].freeze).freeze
        REMEMBERED = 256

        attr_accessor :settings
        attr_reader :standing

        # @param settings [Settings]
        # @param lines [Array<Line>] what was said before, oldest first
        # @param standing [Array<Line>] what stood before, where this one takes another's place
        def initialize(settings, lines = [], standing: [])
          @settings = settings
          @lines = lines.last(REMEMBERED)
          @known = @lines.to_h { |line| [line.id, line] }
          @standing = standing
        end

        # Lines stand in the order of the times they were said: what is told again from history finds its place.
        #
        # @param line [Line] counted once, however often it comes; where it comes as another one, that one counts
        def add(line)
          return if @known[line.id].equal?(line)

          @lines.reject! { |other| other.id == line.id } if @known.key?(line.id)
          @known[line.id] = line
          later = @lines.any? && @lines.last.shown_at_ms > line.shown_at_ms &&
            @lines.index { |other| other.shown_at_ms > line.shown_at_ms }
          later ? @lines.insert(later, line) : @lines << line
          @known.delete(@lines.shift.id) if @lines.size > REMEMBERED
        end

        # @return [Boolean] whether it remembers the line, standing or not
        def known?(line_id) = @known.key?(line_id)

        # @return [Array<Line>] all it remembers, oldest first
        def remembered = @lines.dup

        # Takes everything away.
        def clear
          @lines.clear
          @known.clear
        end

        # @param now_ms [Integer]
        # @return [Change] since the last call
        def advance(now_ms)
          before = @standing
          @standing = standing_at(now_ms)
          return NO_CHANGE if same?(before, @standing)

          Change.new(others_than(before, @standing), others_than(@standing, before))
        end

        # @return [Integer, nil] when the next line leaves by itself, if no other comes
        def next_due_ms
          return unless @settings.stay_ms || @settings.reading_speed

          kept = @lines.last(@settings.keep_last)
          @standing.filter_map { |line| line.shown_at_ms + @settings.stay_of(line) unless kept.any? { |last| last.id == line.id } }.min
        end

        private

        def same?(some, others)
          return false unless some.size == others.size

          at = some.size
          at -= 1 while at.positive? && some[at - 1].equal?(others[at - 1])
          at.zero?
        end

        # @return [Array<Line>] of those, whose ids none of the known have: a few at most, so that no table of them is worth its while
        def others_than(known, lines)
          ids = known.map(&:id)
          lines.reject { |line| ids.include?(line.id) }
        end

        # Asked for with every frame: where all stay equally long, one comparison a line is enough.
        def standing_at(now_ms)
          kept_from = @lines.size - @settings.keep_last
          since_ms = @settings.reading_speed || @settings.stay_ms.nil? ? nil : now_ms - @settings.stay_ms
          at = [@lines.size - @settings.at_most, 0].max - 1
          standing = []
          while (line = @lines[at += 1])
            standing << line if !line.away? && (at >= kept_from || (since_ms ? line.shown_at_ms > since_ms : in_time?(line, now_ms)))
          end
          standing
        end

        def in_time?(line, now_ms)
          stay_ms = @settings.stay_of(line)
          stay_ms.nil? || now_ms < line.shown_at_ms + stay_ms
        end
      end
    end
  end
end
