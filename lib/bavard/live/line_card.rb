# frozen_string_literal: true

module Bavard
  module Live
    # A line as it goes to a page: plain data, drawn there with text nodes only, so that nothing a viewer writes is ever
    # read as markup.
    #
    # i: id, t: the time it stands by, n: name, c: the name's colour, k: kind, m: [shape, colour] of its feed,
    # f: fragments, o: origin where it is not a feed
    module LineCard
      module_function

      # @param line [Core::Chat::Line]
      # @param colour [String] "#rrggbb"
      # @param mark [Array(String, String)]
      # @return [Hash]
      def of(line, colour, mark)
        card = {i: line.id, t: line.shown_at_ms, n: line.person.display_name, c: colour, k: line.kind, m: mark, f: line.fragments}
        card[:o] = line.origin unless line.origin == :feed
        card
      end
    end
  end
end
