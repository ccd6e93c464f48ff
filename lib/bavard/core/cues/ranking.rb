# frozen_string_literal: true

module Bavard
  module Core
    module Cues
      # The people who stand foremost by one figure: who did something last, the largest single one, how often, or worth how much
      # in all. Each of these only ever grows, so that only the foremost need to be kept in order, however many people there are.
      class Ranking
        # More than any piece shows, for some names may not be seen.
        KEPT = 300

        # @param kinds [Array<String>] of events
        # @param figure [Symbol] of a Standings::Entry: last_ms, largest, times or worth
        # @param unit [String, nil] currency or the platform's own; nil: all
        def initialize(kinds, figure, unit = nil)
          @kinds = kinds
          @figure = figure
          @unit = unit
          @people = {}
          @foremost = []
        end

        # @param entries [Enumerable<Standings::Entry>] what everybody did so far
        # @return [self]
        def fill(entries)
          entries.each { |entry| merged(entry) if counts?(entry) }
          @foremost = @people.values.min(KEPT) { |one, other| before?(one, other) ? -1 : 1 }
          self
        end

        # @param entry [Standings::Entry] what somebody did
        def count(entry)
          place(merged(entry)) if counts?(entry)
        end

        # @return [Array<Standings::Entry>] each of one person, of all kinds and units together, the foremost first
        def to_a = @foremost

        private

        def counts?(entry) = @kinds.include?(entry.kind) && (@unit.nil? || entry.unit == @unit) && !entry[@figure].nil?

        def merged(entry)
          known = @people[entry.login] or return @people[entry.login] = entry.dup
          known.tap { known.absorb(entry) }
        end

        def place(one)
          @foremost.delete_if { |other| other.equal?(one) }
          return if @foremost.size >= KEPT && before?(@foremost.last, one)

          @foremost.insert(@foremost.bsearch_index { |other| before?(one, other) } || @foremost.size, one)
          @foremost.pop if @foremost.size > KEPT
        end

        def before?(one, other)
          one[@figure] == other[@figure] ? one.login < other.login : one[@figure] > other[@figure]
        end
      end
    end
  end
end
