# frozen_string_literal: true

require "zlib"
require_relative "../palette/colour"

module Bavard
  module Core
    module Contrast
      # The colour a person's name is drawn in: theirs where the platform gave one, else one of our own that is the
      # same every time, in both cases moved in lightness as little as it takes to be readable on the ground.
      #
      #   names = NameColour.new("#10151a")
      #   names.for("3/mudlark7", "#1111aa")   # => "#7d7dff"
      class NameColour
        READABLE_RATIO = 4.5
        OWN_CHROMA = 0.13
        REMEMBERED = 4000
        # Of people to whom their platform gives none: as many as can be told apart, so that a crowd costs no more than a few.
        OWN_HUES = 360
        # Halvings of the way to white or black: finer than eight bits can show.
        STEPS = 9

        MOST_GROUNDS = 64

        # The same one for the same ground, so that what was worked out once is known wherever names stand on it.
        #
        # @param ground [String] "#rrggbb"
        # @return [NameColour]
        def self.on(ground)
          @on = nil if @on && @on.size > MOST_GROUNDS
          (@on ||= {})[ground] ||= new(ground)
        end

        # @param ground [String] "#rrggbb" behind the name
        # @param ratio [Float] the least contrast ratio wanted
        def initialize(ground, ratio: READABLE_RATIO)
          @ground = Palette::Colour.parse(ground)
          @ratio = ratio
          @known = {}
        end

        # @param person_key [String] the same for the same person
        # @param given [String, nil] the platform's colour, "#rrggbb"
        # @return [String] "#rrggbb"
        def for(person_key, given)
          @known.clear if @known.size > REMEMBERED
          return @known[given] ||= readable(Palette::Colour.parse(given) || own(NameColour.hue(person_key))).to_s if given

          hue = NameColour.hue(person_key)
          @known[hue] ||= readable(own(hue)).to_s
        end

        # @return [Integer] of a person's own colour, in degrees: the same every time
        def self.hue(person_key) = Zlib.crc32(person_key) % OWN_HUES

        private

        def own(hue) = Palette::Colour.oklch(dark_ground? ? 0.8 : 0.48, OWN_CHROMA, hue * Math::PI / 180)

        def readable(colour)
          return colour if enough?(colour)

          lightness, chroma, hue = colour.oklch
          reach = dark_ground? ? 1.0 : 0.0
          least(lightness, reach) { |tried| Palette::Colour.oklch(tried, chroma, hue) }
        end

        # Bisects toward the far end for the lightness nearest to the given one that is enough.
        def least(from, reach)
          best = yield(reach)
          STEPS.times do
            middle = (from + reach) / 2
            tried = yield(middle)
            if enough?(tried)
              best = tried
              reach = middle
            else
              from = middle
            end
          end
          best
        end

        def enough?(colour)
          colour.drawn.contrast_ratio(@ground) >= @ratio
        end

        # Whether white is the readable end on this ground.
        def dark_ground?
          @dark_ground = @ground.luminance < 0.179 if @dark_ground.nil?
          @dark_ground
        end
      end
    end
  end
end
