# frozen_string_literal: true

module Bavard
  module Core
    module Look
      # The soft shadow round letters, so that its opacity is what is seen where a letter ends. A blur spreads a shadow over more than
      # its letter: what is left at the letter's edge is a fraction, the less the thinner the strokes. So a blurred shadow is drawn
      # several times over itself, as often as it takes.
      #
      #   LetterShadow.new(piece, "text").css           # => ["0px 1px 7px #0a0e12f2", …]
      #   LetterShadow.new(piece, "text").seen          # => 0.66: of the ground near a letter
      #
      # A stroke is taken for a straight bar, whose Gaussian blur is known from the error function; letters' other strokes only add to it.
      class LetterShadow
        # How thick a stroke is, in parts of the text's size.
        STROKE = 0.12
        MOST_LAYERS = 6
        # So near a letter its ground counts, in pixels.
        NEAR_PX = 1.0
        # CSS: a blur's standard deviation is half of its length.
        DEVIATION = 0.5
        # More than this would take endless layers.
        FULLEST = 0.97

        # @param piece [Hash] as it is drawn
        # @param part [String] text, name, time …
        def initialize(piece, part)
          @opacity = piece["#{part}_shadow_opacity"].to_i / 100.0
          @colour = piece["#{part}_shadow_colour"]
          @offset = piece.values_at("#{part}_shadow_x_px", "#{part}_shadow_y_px").map(&:to_f)
          @deviation = piece["#{part}_shadow_blur_px"].to_f * DEVIATION
          @stroke = piece["text_size_px"] * STROKE
        end

        # @return [Array<String>] for text-shadow; none where there is no shadow
        def css
          return [] if @opacity.zero?

          number, opacity = layers
          [format("%gpx %gpx %gpx %s%02x", *@offset, @deviation / DEVIATION, @colour, (opacity * 255).round)] * number
        end

        # @return [Float] 0 to 1, of the ground right beside a letter, on the side that the shadow turns away from
        def seen
          return 0.0 if @opacity.zero?

          number, opacity = layers
          1 - ((1 - (opacity * cover(NEAR_PX + Math.hypot(*@offset))))**number)
        end

        private

        # @return [Array(Integer, Float)] how often, and how opaque each
        def layers
          return [1, @opacity] if @deviation.zero?

          wanted = [@opacity, FULLEST].min
          edge = cover(0)
          number = (Math.log(1 - wanted) / Math.log(1 - edge)).ceil.clamp(1, MOST_LAYERS)
          [number, [(1 - ((1 - wanted)**(1.0 / number))) / edge, 1.0].min]
        end

        # @param away_px [Float] from where the letter ends
        # @return [Float] of one layer, were it opaque
        def cover(away_px)
          return away_px.zero? ? 1.0 : 0.0 if @deviation.zero?

          below(away_px + @stroke) - below(away_px)
        end

        def below(distance) = 0.5 * (1 + Math.erf(distance / (@deviation * Math.sqrt(2))))
      end
    end
  end
end
