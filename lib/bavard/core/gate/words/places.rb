# frozen_string_literal: true

require "strscan"

module Bavard
  module Core
    module Gate
      # Where a pattern is found in a text, in code points. They are counted once, from left to right, so that it takes as long as the text
      # is, whatever it is written in.
      module Places
        # match:: what stands there; from, to:: code points; part:: the pattern's first group, or nil
        Place = Struct.new(:match, :from, :to, :part)

        module_function

        # @param text [String] UTF-8
        # @param pattern [Regexp]
        # @return [Array<Place>] from left to right, none over another
        def of(text, pattern)
          scanner = StringScanner.new(text, fixed_anchor: true)
          found = []
          from = counted = 0
          while scanner.search_full(pattern, true, false)
            match = scanner.matched
            begins = scanner.pos - scanner.matched_size
            from += text.byteslice(counted, begins - counted).length
            counted = begins
            found << Place.new(match, from, from + match.length, part_of(scanner, pattern))
            break if match.empty? && scanner.getch.nil?
          end
          found
        end

        # @param list [Array] of something for each code point
        # @param places [Array<Place>]
        # @return [Array] the list where one code point stands in each of the places instead
        def kept(list, places)
          position = 0
          found = places.flat_map do |place|
            list[position..place.from].tap { position = place.to }
          end
          found.concat(list[position..])
        end

        def part_of(scanner, pattern) = pattern.names.empty? && scanner.size > 1 ? scanner[1] : nil
        private_class_method :part_of
      end
    end
  end
end
