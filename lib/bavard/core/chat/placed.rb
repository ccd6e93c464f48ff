# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # Emotes that a platform points out in a text by offsets, in a unit of its own.
      #
      # unit:: :code_points, :utf16 (code units, as JavaScript counts) or :bytes (of UTF-8)
      # ranges:: [offset, length, address of the picture] each
      Placed = Struct.new(:unit, :ranges) do
        # The same in code points, in order. What points outside of the text, into the middle of a character or over
        # another range is left out.
        #
        # @param text [String]
        # @return [Array<Array(Integer, Integer, String)>]
        def in_code_points(text)
          return Placed.apart(ranges, text.length) if unit == :code_points

          at = Placed.borders(text, unit)
          read = ranges.filter_map do |offset, length, address|
            from = at[offset]
            to = at[offset + length]
            [from, to - from, address] if from && to
          end
          Placed.apart(read, text.length)
        end
      end

      # See above.
      class Placed
        MOST = 200

        # @return [Hash{Integer => Integer}] where characters begin in that unit, to where in code points
        def self.borders(text, unit)
          offset = 0
          borders = {0 => 0}
          text.each_char.with_index(1) do |char, index|
            offset += unit == :bytes ? char.bytesize : utf16_units(char)
            borders[offset] = index
          end
          borders
        end

        def self.utf16_units(char)
          char.ord > 0xFFFF ? 2 : 1
        end

        # Those that lie inside of the text, and of those that overlap the first.
        def self.apart(ranges, length)
          free_from = 0
          ranges.first(MOST).sort_by(&:first).select do |from, count, _|
            next false unless count.positive? && from >= free_from && from + count <= length

            free_from = from + count
          end
        end
        private_class_method :utf16_units
      end
    end
  end
end
