# frozen_string_literal: true

require_relative "ladder"

module Bavard
  module Core
    module Gate
      # What an edited ladder would have done otherwise with lines that came already. Both ladders look at every line anew, each
      # with a memory of its own, so that only the edit makes the difference.
      class Replay
        BARS = 60
        MOST_EXAMPLES = 60
        # change:: :off, :through or :otherwise; before, after:: actions; rule:: that decides after (or decided before)
        Example = Struct.new(:change, :at_ms, :line_id, :feed_id, :name, :text, :before, :after, :rule, :shown)

        attr_reader :lines, :off, :through, :otherwise, :examples, :bars

        # @param before [Ladder]
        # @param after [Ladder]
        # @param counted_from_id [Integer] lines before that are only remembered, as what was said before the part that is looked at
        # @yieldreturn [Memory] a new one for each ladder
        def initialize(before, after, from_ms:, to_ms:, counted_from_id: 0)
          @ladders = [[before, yield], [after, yield]]
          @from_ms = from_ms
          @counted_from_id = counted_from_id
          @span_ms = [to_ms - from_ms, 1].max
          @bars = Array.new(BARS) { [0, 0, 0] }
          @examples = Hash.new { |hash, change| hash[change] = [] }
          @lines = @off = @through = @otherwise = 0
        end

        # @param line [Chat::Line]
        def hear(line)
          sight = Sight.new(line)
          return @ladders.each { |_, memory| memory.note(sight) } if line.id < @counted_from_id

          before, after = @ladders.map { |ladder, memory| ladder.hear(line, memory, sight) }
          @lines += 1
          bar = bar(line)
          bar[0] += 1
          change = change(before, after) or return
          count(change, bar)
          examples = @examples[change]
          examples << example(change, line, before, after) if examples.size < MOST_EXAMPLES
        end

        # @return [Hash] as pages and the process that runs it exchange it
        def to_h = Replay.together([part])

        # @return [Hash] the same of a part of a time, to be put together with others
        def part = {lines:, off:, through:, otherwise:, bars:, examples: @examples.each_value.flat_map { |same| same.map(&:to_h) }}

        # @param parts [Array<Hash>] as {#part}, one after the other
        # @return [Hash] as {#to_h}
        def self.together(parts)
          sums = %i[lines off through otherwise].to_h { |what| [what, parts.sum { |part| part[what] }] }
          bars = parts.map { |part| part[:bars] }.transpose.map { |same| same.transpose.map(&:sum) }
          alike = parts.flat_map { |part| part[:examples] }.group_by { |one| one[:change].to_s }
          examples = alike.each_value.flat_map { |same| same.first(MOST_EXAMPLES) }
          {**sums, bars:, examples: examples.sort_by { |one| one.values_at(:at_ms, :line_id) }.last(MOST_EXAMPLES)}
        end

        private

        def bar(line) = @bars[((line.arrived_at_ms - @from_ms) * BARS / @span_ms).clamp(0, BARS - 1)]

        def change(before, after)
          return before.pass? ? :off : :through if before.pass? != after.pass?

          :otherwise if before.action != after.action || before.shown&.text != after.shown&.text
        end

        def count(change, bar)
          case change
          when :off
            @off += 1
            bar[1] += 1
          when :through
            @through += 1
            bar[2] += 1
          else @otherwise += 1
          end
        end

        def example(change, line, before, after)
          Example.new(change, line.arrived_at_ms, line.id, line.feed_id, line.person.display_name, line.text[0, 160], before.action, after.action,
            change == :through ? before.rule : after.rule || before.rule, after.shown&.text&.slice(0, 160))
        end
      end
    end
  end
end
