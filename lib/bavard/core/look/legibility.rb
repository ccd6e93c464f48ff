# frozen_string_literal: true

require_relative "colour"

module Bavard
  module Core
    module Look
      # How well a piece's text stands out from its plate (WCAG 2.2 §1.4.3), whatever is behind a plate that lets it
      # through: the worse of what black and white behind it give.
      #
      #   Legibility.new(piece).words   # => "Text on its plate: 7.4 : 1 at worst"
      class Legibility
        LEAST_RATIO = 4.5
        BEHIND = [Colour.parse("#000000"), Colour.parse("#ffffff")].freeze

        # @param piece [Hash] a chat piece
        def initialize(piece)
          @text = Colour.parse(piece["text_colour"])
          @plate = Colour.parse(piece["plate_colour"])
          @opacity = piece["plate_opacity"] / 100.0
        end

        # @return [Float] from 1.0 to 21.0
        def worst_ratio
          BEHIND.map { |behind| @text.contrast_ratio(@plate.over(behind, @opacity)) }.min
        end

        # @return [String]
        def words
          # Never told better than it is: 4.49 is not 4.5.
          said = "Text on its plate: #{worst_ratio.floor(1)} : 1 at worst"
          worst_ratio < LEAST_RATIO ? "#{said}, hard to read over some pictures; #{LEAST_RATIO} is the least" : said
        end
      end
    end
  end
end
