# frozen_string_literal: true

require_relative "../look/letter_shadow"
require_relative "../palette/colour"

module Bavard
  module Core
    module Contrast
      # What lies right behind the letters of one part of a piece: the picture, the plate over it, then the shadow and the
      # outline round each letter.
      #
      # An outline covers as much of what a letter stands against as it is wide against the letter's own stroke, an estimate; a shadow
      # as much as is left of it beside the letter, after its offset and blur (`Look::LetterShadow`). `bin/bench legible` compares both
      # with the pixels that a browser draws.
      class Ground
        # What is written on a plate of a name's own colour.
        INK = "#10151a"
        # Relative luminance of a channel, WCAG 2.2, for each value it can have.
        LINEAR = (0..255).map { |value| Palette::Oklab.linear(value / 255.0) }.freeze
        # The width of an outline that hides the ground, in parts of the text's size.
        FULL_OUTLINE = 0.06

        # @param piece [Hash] as it is drawn
        # @param part [String] text, name or time
        # @param plate [String, nil] the plate's colour, where it is a person's own
        def initialize(piece, part, plate: nil)
          over = [*own_plate(piece, part, plate), shadow_layer(piece, part), outline_layer(piece, part)]
          inks = [nil, *printed(piece)]
          @grounds = plate_layers(piece, plate).product(inks).map { |layers| (layers.compact + over).select { |_, opacity| opacity.positive? } }
        end

        # @param written [Colour] of the letters
        # @param picture [Array(Integer, Integer, Integer)] behind all, 0 to 255
        # @return [Float] contrast ratio
        def ratio(written, picture)
          @grounds.map { |layers| contrast(written.luminance, luminance(picture, layers)) }.min
        end

        private

        def contrast(*both) = (both.max + 0.05) / (both.min + 0.05)

        def luminance(picture, layers)
          red, green, blue = layers.reduce(picture) do |(r, g, b), ((lr, lg, lb), opacity)|
            rest = 1 - opacity
            [(lr * opacity) + (r * rest), (lg * opacity) + (g * rest), (lb * opacity) + (b * rest)]
          end
          (0.2126 * LINEAR[red.round]) + (0.7152 * LINEAR[green.round]) + (0.0722 * LINEAR[blue.round])
        end

        # A gradient counts as its thinner end.
        def plate_layers(piece, plate)
          return [[[0, 0, 0], 0.0]] if piece["plate_for"] == "none"

          ends = piece["plate_gradient"] == "none" ? %w[plate_opacity] : %w[plate_opacity plate_to_opacity]
          opacity = piece.values_at(*ends).min
          own = plate if %w[person feed].include?(piece["plate_by"])
          colours = own ? [own] : [piece["plate_colour"], *(piece["plate_other_colour"] if piece["plate_by"] == "turn")]
          colours.map { |colour| [rgb(colour), opacity / 100.0] }
        end

        # A pattern lies under some letters and not under others.
        def printed(piece)
          return [] if piece["plate_for"] == "none" || [nil, "none"].include?(piece["plate_pattern"])

          [[rgb(piece["plate_pattern_colour"]), piece["plate_pattern_opacity"] / 100.0]]
        end

        # Of the part alone, over the line's.
        def own_plate(piece, part, plate)
          opacity = piece["#{part}_plate_opacity"].to_i
          return [] unless opacity.positive?

          theirs = part == "name" && piece["name_plate_by"] == "theirs" && plate
          [[rgb(theirs ? plate : piece["#{part}_plate_colour"]), opacity / 100.0]]
        end

        def shadow_layer(piece, part)
          seen = Look::LetterShadow.new(piece, part).seen
          seen.positive? ? [rgb(piece["#{part}_shadow_colour"]), seen] : [[0, 0, 0], 0.0]
        end

        def outline_layer(piece, part)
          width = piece["#{part}_outline_px"].to_f
          [rgb(piece["#{part}_outline_colour"]), (width / (piece["text_size_px"] * FULL_OUTLINE)).clamp(0.0, 1.0)]
        end

        def rgb(colour) = colour[1..].scan(/../).map(&:hex)
      end
    end
  end
end
