# frozen_string_literal: true

require_relative "../palette/colour"
require_relative "ground"
require_relative "patches"

module Bavard
  module Core
    module Contrast
      # How well the words of a piece stand out from what is behind them (WCAG 2.2 §1.4.3), as they are drawn: over the
      # picture, the plate that lets some of it through, the outline and the shadow round the letters.
      #
      #   legibility = Legibility.new(piece, patches)
      #   legibility.worst.ratio   # => 4.6
      #   legibility.worst.part    # => "name"
      #   legibility.word          # => "good"
      class Legibility
        LEAST_RATIO = 4.5
        # Large text needs less (WCAG 2.2 §1.4.3): 24 px, or 18.66 px where it is bold.
        LARGE_RATIO = 3.0
        APART = %w[name amount message].freeze
        # Where there is no picture: the worse of black and white.
        ANYTHING = [[0, 0, 0], [255, 255, 255]].map { |rgb| Patches::Patch.new(*rgb, 0, 0, 0, 0, 1) }.freeze
        # The worst place of all: ratio, which part, and the patch behind it.
        Worst = Struct.new(:ratio, :part, :patch)

        # @param piece [Hash] a piece with words, as it is drawn
        # @param patches [Array<Patches::Patch>] behind it
        # @param people [Array<Array(String, String)>] colours of names and of their plates, as they are drawn
        def initialize(piece, patches = ANYTHING, people: [])
          @piece = piece
          @patches = patches.empty? ? ANYTHING : patches
          @people = people
        end

        # @return [Worst]
        def worst
          @worst ||= parts.map { |part, colours| worst_of(part, colours) }.min_by(&:ratio)
        end

        # @return [Float] the ratio half of the text's patches have at least
        def usual
          grounds = parts["text"].map { |_, plate| Ground.new(@piece, "text", plate:) }
          written = Palette::Colour.parse(@piece["text_colour"])
          ratios = @patches.map { |patch| [grounds.map { |ground| ground.ratio(written, patch.rgb) }.min, patch.many] }.sort_by(&:first)
          half = @patches.sum(&:many) / 2
          ratios.find { |_, count| (half -= count).negative? }.first
        end

        def enough? = worst.ratio >= LEAST_RATIO

        # @return [String] good, fair or poor
        def word
          return "good" if enough?

          worst.ratio >= LARGE_RATIO ? "fair" : "poor"
        end

        private

        # Each part that is shown, with the colours it can have.
        def parts
          parts = {"text" => [[@piece["text_colour"], nil]]}
          return parts.merge(set_apart) unless @piece["kind"] == "chat"

          parts["name"] = names if @piece["names"] == "shown"
          parts["time"] = [[@piece["time_colour"], nil]] if @piece["times"] == "shown"
          parts["text"] = @people.map { |_, plate| [@piece["text_colour"], plate] }.uniq if @people.any?
          parts
        end

        # What alerts and the like set apart from their sentence, each in a colour of its own.
        def set_apart
          APART.to_h { |part| [part, @piece["#{part}_colour"].to_s] }.select { |_, colour| colour.start_with?("#") }
            .transform_values { |colour| [[colour, nil]] }
        end

        def names
          return [[@piece["one_name_colour"], nil]] if @people.empty?

          @piece["name_plate_by"] == "theirs" ? @people.map { |name, _| [Ground::INK, name] } : @people
        end

        def worst_of(part, colours)
          colours.map do |colour, plate|
            ground = Ground.new(@piece, part, plate:)
            written = Palette::Colour.parse(colour)
            patch = @patches.min_by { |one| ground.ratio(written, one.rgb) }
            Worst.new(ground.ratio(written, patch.rgb), part, patch)
          end.min_by(&:ratio)
        end
      end
    end
  end
end
