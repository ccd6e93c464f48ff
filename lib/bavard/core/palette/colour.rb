# frozen_string_literal: true

module Bavard
  module Core
    module Palette
      # An opaque sRGB colour, with what is computed from it.
      #
      #   Colour.parse("#f3b634").contrast_ratio(Colour.parse("#10151a"))   # => 10.1
      class Colour
        HEX = /\A#(?:\h{6}|\h{3})\z/

        # Channels from 0.0 to 1.0.
        attr_reader :red, :green, :blue

        # @param text [String, nil] "#rgb" or "#rrggbb" in any case
        # @return [Colour, nil] nil where it is no colour
        def self.parse(text)
          return unless text.is_a?(String) && text.match?(HEX)

          number = normal(text)[1..].hex
          new((number >> 16) / 255.0, ((number >> 8) & 255) / 255.0, (number & 255) / 255.0)
        end

        # @param text [String, nil] as for {parse}
        # @return [String, nil] "#rrggbb" in lower case, without the cost of a Colour
        def self.normal(text)
          return unless text.is_a?(String) && text.match?(HEX)

          text = text.downcase
          text.length == 4 ? text.gsub(/\h/) { |digit| digit * 2 } : text
        end

        # From OKLCH (Björn Ottosson, "A perceptual color space for image processing", 2020; CSS Color 4 §9).
        # What lies outside sRGB is brought in by lowering the chroma, lightness and hue kept.
        #
        # @param lightness [Float] 0.0 to 1.0
        # @param chroma [Float] 0.0 to about 0.37
        # @param hue [Float] radians
        def self.oklch(lightness, chroma, hue)
          channels = nil
          chroma = 0.0 unless lightness.between?(0.001, 0.999)
          12.times do
            channels = Oklab.to_srgb(lightness, chroma * Math.cos(hue), chroma * Math.sin(hue))
            break if channels.all? { |channel| channel.between?(-0.0005, 1.0005) }

            chroma *= 0.85
          end
          new(*channels.map { |channel| channel.clamp(0.0, 1.0) })
        end

        def initialize(red, green, blue)
          @red = red
          @green = green
          @blue = blue
        end

        # @return [Colour] as it is drawn, with eight bits a channel
        def drawn
          Colour.new((red * 255).round / 255.0, (green * 255).round / 255.0, (blue * 255).round / 255.0)
        end

        # @param behind [Colour]
        # @param opacity [Float] of this one, 0.0 to 1.0
        # @return [Colour] what is seen of both (source-over, CSS Compositing 1 §5.1)
        def over(behind, opacity)
          pairs = [[red, behind.red], [green, behind.green], [blue, behind.blue]]
          Colour.new(*pairs.map { |ours, theirs| (ours * opacity) + (theirs * (1 - opacity)) })
        end

        # @return [Array(Float, Float, Float)] lightness, chroma, hue in radians
        def oklch
          lightness, a, b = Oklab.from_srgb(red, green, blue)
          [lightness, Math.hypot(a, b), Math.atan2(b, a)]
        end

        # Relative luminance, WCAG 2.2.
        def luminance
          @luminance ||= (0.2126 * linear(red)) + (0.7152 * linear(green)) + (0.0722 * linear(blue))
        end

        # Contrast ratio, WCAG 2.2 §1.4.3: from 1.0 (none) to 21.0 (black on white).
        def contrast_ratio(other)
          lighter, darker = [luminance, other.luminance].minmax.reverse
          (lighter + 0.05) / (darker + 0.05)
        end

        # @return [String] "#rrggbb"
        def to_s
          format("#%02x%02x%02x", *[red, green, blue].map { |channel| (channel * 255).round })
        end

        def linear(channel)
          Oklab.linear(channel)
        end
        private :linear
      end

      # Between gamma-coded sRGB and OKLab.
      module Oklab
        module_function

        def linear(channel)
          channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055)**2.4
        end

        def gamma(channel)
          return 12.92 * channel if channel <= 0.0031308

          (1.055 * (channel**(1 / 2.4))) - 0.055
        end

        def from_srgb(red, green, blue)
          r, g, b = [red, green, blue].map { |channel| linear(channel) }
          l = Math.cbrt((0.4122214708 * r) + (0.5363325363 * g) + (0.0514459929 * b))
          m = Math.cbrt((0.2119034982 * r) + (0.6806995451 * g) + (0.1073969566 * b))
          s = Math.cbrt((0.0883024619 * r) + (0.2817188376 * g) + (0.6299787005 * b))
          [(0.2104542553 * l) + (0.7936177850 * m) - (0.0040720468 * s),
            (1.9779984951 * l) - (2.4285922050 * m) + (0.4505937099 * s),
            (0.0259040371 * l) + (0.7827717662 * m) - (0.8086757660 * s)]
        end

        def to_srgb(lightness, a, b)
          l = (lightness + (0.3963377774 * a) + (0.2158037573 * b))**3
          m = (lightness - (0.1055613458 * a) - (0.0638541728 * b))**3
          s = (lightness - (0.0894841775 * a) - (1.2914855480 * b))**3
          [(4.0767416621 * l) - (3.3077115913 * m) + (0.2309699292 * s),
            (-1.2684380046 * l) + (2.6097574011 * m) - (0.3413193965 * s),
            (-0.0041960863 * l) - (0.7034186147 * m) + (1.7076147010 * s)].map { |channel| gamma(channel) }
        end
      end
    end
  end
end
