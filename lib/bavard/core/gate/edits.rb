# frozen_string_literal: true

require_relative "../code_points"

module Bavard
  module Core
    module Gate
      # Characters from:: up to to:: (left out), in code points, that are written otherwise.
      Edit = Struct.new(:from, :to, :instead)
      # A line's text as it goes on the picture, with the emotes its platform placed in it, where they lie now; name:: how its
      # person is called there, where that is otherwise.
      Shown = Struct.new(:text, :placed, :name)

      # Puts edits into a text.
      module Edits
        # A letter that is covered.
        COVER = "●"
        COVERED = /[\p{L}\p{N}\p{M}\p{S}@!*#(]/

        module_function

        # Covers what stands there: a mark for each grapheme cluster (UAX #29) that is drawn; what only tore the word apart
        # goes with it.
        #
        # @param letters [Integer, nil] how many there are, where that is known
        # @return [Edit]
        def cover(text, from, to, letters: nil)
          from, to = whole_clusters(text, from, to)
          letters ||= text[from...to].grapheme_clusters.count { |cluster| cluster.match?(COVERED) }
          Edit.new(from, to, COVER * [letters, 1].max)
        end

        # @param edits [Array<Edit>] where two overlap, the first in the list counts
        # @param placed [Array] offset, length, address
        # @return [Shown]
        def apply(text, edits, placed = [])
          edits = apart(edits)
          letters = CodePoints.of(text)
          written = +""
          position = 0
          edits.each do |edit|
            written << letters.part(position, edit.from - position) << edit.instead
            position = edit.to
          end
          written << letters.rest(position)
          Shown.new(written.strip, moved(placed, edits, written))
        end

        # @return [Array<Edit>] from left to right
        def apart(edits)
          edits.each_with_object([]) do |edit, taken|
            at = taken.bsearch_index { |other| other.from >= edit.from } || taken.size
            taken.insert(at, edit) if free?(taken, at, edit)
          end
        end

        # @param at [Integer] where it would stand among those
        def free?(taken, at, edit)
          return false if at.positive? && taken[at - 1].to > edit.from

          at += 1 while taken[at] && taken[at].from < edit.to && taken[at].to <= edit.from
          taken[at].nil? || taken[at].from >= edit.to
        end

        # Both from left to right: each edit is passed once.
        def moved(placed, edits, written)
          shift = written.lstrip.length - written.length
          at = 0
          placed.filter_map do |from, length, address|
            while edits[at] && edits[at].to <= from
              shift += edits[at].instead.length - (edits[at].to - edits[at].from)
              at += 1
            end
            [from + shift, length, address] unless edits[at] && edits[at].from < from + length
          end
        end

        # No grapheme cluster is cut in two.
        def whole_clusters(text, from, to)
          return [from, to] if text.ascii_only?

          begins = 0
          first = last = nil
          text.each_grapheme_cluster do |cluster|
            ends = begins + cluster.length
            first ||= begins if ends > from
            last = ends if begins < to
            break if begins >= to

            begins = ends
          end
          [first || from, last || to]
        end
        private_class_method :apart, :free?, :moved, :whole_clusters
      end
    end
  end
end
