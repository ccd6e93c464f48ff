# frozen_string_literal: true

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
          written = +""
          position = 0
          edits.each do |edit|
            written << text[position...edit.from] << edit.instead
            position = edit.to
          end
          written << text[position..]
          Shown.new(written.strip, moved(placed, edits, written))
        end

        def apart(edits)
          taken = []
          edits.each { |edit| taken << edit if taken.none? { |other| edit.from < other.to && other.from < edit.to } }
          taken.sort_by(&:from)
        end

        def moved(placed, edits, written)
          lead = written.length - written.lstrip.length
          placed.filter_map do |from, length, address|
            next if edits.any? { |edit| edit.from < from + length && from < edit.to }

            shift = edits.sum { |edit| edit.to <= from ? edit.instead.length - (edit.to - edit.from) : 0 }
            [from + shift - lead, length, address]
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
        private_class_method :apart, :moved, :whole_clusters
      end
    end
  end
end
