# frozen_string_literal: true

require_relative "../fields/property"
require_relative "plate_settings"

module Bavard
  module Core
    module Look
      # What is printed on a ground, over its colour: drawn by gradients, so that it suits any size.
      #
      #   PlatePattern.css("plate", piece)   # => {"--plate-pattern" => "repeating-linear-gradient(…)"}
      module PlatePattern
        # By name, from a colour and the size of one repeat in em to the value of a background.
        DRAWN = {
          # One rule for each row of the text, whatever the size.
          "ruled" => lambda { |ink, _|
            row = "calc(var(--line-spacing) * 1em"
            "repeating-linear-gradient(transparent 0 #{row} - 1px), #{ink} #{row} - 1px) #{row}))"
          },
          "stripes" => ->(ink, em) { "repeating-linear-gradient(135deg, #{ink} 0 #{em / 2}em, transparent #{em / 2}em #{em}em)" },
          "pillars" => ->(ink, em) { "repeating-linear-gradient(90deg, #{ink} 0 #{em / 2}em, transparent #{em / 2}em #{em}em)" },
          "dots" => ->(ink, em) { "radial-gradient(circle, #{ink} 24%, transparent 26%) 0 0 / #{em}em #{em}em" },
          "squares" => lambda { |ink, em|
            lines = "transparent 0 calc(#{em}em - 1px), #{ink} calc(#{em}em - 1px) #{em}em"
            "repeating-linear-gradient(#{lines}), repeating-linear-gradient(90deg, #{lines})"
          }
        }.freeze
        NONE = "none"
        PATTERNS = [NONE, *DRAWN.keys].freeze

        module_function

        # @param part [String] prefix of the names
        # @return [Array<Property>]
        def of(part, label)
          [Fields::Property.choice("#{part}_pattern", "pattern of the #{label}", PATTERNS, NONE),
            Fields::Property.colour("#{part}_pattern_colour", "colour of the #{label}’s pattern", "house:accent"),
            Fields::Property.number("#{part}_pattern_opacity", "opacity of the #{label}’s pattern", 0..100, 20, unit: "%"),
            Fields::Property.number("#{part}_pattern_size", "size of the #{label}’s pattern", 10..400, 60, unit: "%")]
        end

        # @param piece [Hash] as it is drawn
        # @return [Hash{String => String}] nothing where there is none
        def css(part, piece)
          value = ->(name) { piece["#{part}_pattern#{name}"] }
          return {} if value[""] == NONE || value["_opacity"].zero?

          ink = "rgb(#{PlateSettings.rgb(value["_colour"])} / #{PlateSettings.share(value["_opacity"])})"
          {"--#{part}-pattern" => DRAWN.fetch(value[""]).call(ink, value["_size"] / 100.0)}
        end
      end
    end
  end
end
