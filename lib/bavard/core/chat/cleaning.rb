# frozen_string_literal: true

require_relative "../code_points"

module Bavard
  module Core
    module Chat
      # Takes out of a text what cannot be shown, and keeps offsets into it right.
      module Cleaning
        # Longest text taken in, in code points; no platform we can read sends more in one line.
        LONGEST = 8191
        # Controls that draw nothing and are not part of any script or emoji; tab becomes a space.
        UNPRINTED = /[\u0000-\u001F\u007F-\u009F\u2028\u2029\uFFF9-\uFFFB]/
        # What draws something: neither space nor one of the many signs of Unicode that stand for nothing (Default_Ignorable_Code_Point).
        SEEN = /[^\p{DI}\p{Space}\p{Cc}\u2800]/
        # Whoever has no name that can be seen is still somebody.
        NAMELESS = "…"

        module_function

        # @return [String]
        def text(given)
          cut(printed(given)).strip
        end

        # @param candidates [Array<String, nil>] what somebody may go by, the best first
        # @return [String] the first of which something can be seen
        def name(*candidates, nobody: NAMELESS)
          candidates.each do |given|
            name = text(given) if given
            return name if name && seen?(name)
          end
          nobody
        end

        # @param text [String]
        # @return [Boolean] whether something of it can be seen; mostly its first sign tells
        def seen?(text)
          first = text.getbyte(0)
          (first && first > 32 && first < 127) || text.match?(SEEN)
        end

        # @param ranges [Array<Array(Integer, Integer, Object)>] offset, length and what is there, in order, in code points
        # @return [Array(String, Array)] the text, and the ranges where they lie now
        def with_ranges(given, ranges)
          cleaned, moved = without_unprinted(given, ranges)
          finished = cut(cleaned).rstrip
          finished = finished.lstrip if ranges.empty?
          longest = finished.length
          [finished, moved.select { |from, length, _| length.positive? && from + length <= longest }]
        end

        def without_unprinted(given, ranges)
          letters = CodePoints.of(given)
          cleaned = String.new(encoding: Encoding::UTF_8)
          position = reached = 0
          moved = ranges.map do |from, length, what|
            before = printed(letters.part(position, from - position))
            before = before.lstrip if cleaned.empty?
            position = from + length
            code = printed(letters.part(from, length))
            cleaned << before << code
            reached += before.length + code.length
            [reached - code.length, code.length, what]
          end
          [cleaned << printed(letters.rest(position)), moved]
        end

        def printed(given)
          given.match?(UNPRINTED) ? given.tr("\t", " ").gsub(UNPRINTED, "") : given
        end

        def cut(given)
          given.length > LONGEST ? given[0, LONGEST] : given
        end

        private_class_method :without_unprinted, :printed, :cut
      end
    end
  end
end
