# frozen_string_literal: true

module Bavard
  module Core
    module Reading
      # How many rows text takes in a box, broken as a page breaks it: between words, and within one only where it is
      # longer than a row.
      #
      #   Rows.new(300.0) { |text| width_in_px_of(text) }.count("a text of some length", first: 120.0)   # => 2
      class Rows
        # @param width [Float] of a row, in pixels
        # @yieldparam text [String]
        # @yieldreturn [Float] how wide it is, in pixels
        def initialize(width, &measure)
          @width = [width, 1.0].max
          @measure = measure
        end

        # @param first [Float] what stands before it in its first row
        # @return [Integer]
        def count(text, first: 0.0)
          rows = 1 + (first / @width).floor
          at = first % @width
          space = @measure.call(" ")
          text.split(/(?<=[ -])|\n/).each do |word|
            wide = @measure.call(word.delete_suffix(" "))
            rows, at = wide > @width ? broken(word, rows, at) : placed(wide, rows, at)
            at += space if word.end_with?(" ")
          end
          rows
        end

        private

        def placed(wide, rows, at)
          at + wide > @width + 0.01 && at.positive? ? [rows + 1, wide] : [rows, at + wide]
        end

        # Longer than a row: begins a row of its own, and is broken wherever a row ends.
        def broken(word, rows, at)
          rows += 1 if at.positive?
          word.each_grapheme_cluster.reduce([rows, 0.0]) do |(row, reached), letter|
            wide = @measure.call(letter)
            reached + wide > @width + 0.01 ? [row + 1, wide] : [row, reached + wide]
          end
        end
      end
    end
  end
end
