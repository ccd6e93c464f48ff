# frozen_string_literal: true

require_relative "part_properties"

module Bavard
  module Core
    module Look
      # The ground behind a line or a part of it, each setting under the part's own name. Lengths go by the text's size, so
      # that a look stays itself at any size.
      #
      #   PlateSettings.of("plate", "plate")    # => [Property "plate_colour", …]
      #   PlateSettings.css("plate", piece)     # => {"--plate-rgb" => "16 21 26", "--plate-padding" => "0.2em 0.5em" …}
      module PlateSettings
        GRADIENTS = %w[none across down slanted].freeze
        ANGLES = {"across" => 90, "down" => 180, "slanted" => 135}.freeze
        SIDES = %w[around start end top bottom].freeze
        TAILS = %w[none start end turn].freeze
        # of the text's size
        PERCENT = 100.0

        module_function

        # @return [Array<Property>]
        def of(part, label, defaults = {})
          build = PartProperties.new(part, label, defaults)
          colours(build) + corners(build) + edge(build) + shadow(build)
        end

        def colours(build)
          [build.colour("colour", "colour", "house:ground"), build.percent("opacity", "opacity", 0..100, 0),
            build.choice("gradient", "gradient", GRADIENTS), build.colour("to_colour", "second colour", "house:ground"),
            build.percent("to_opacity", "opacity at the end", 0..100, 0)]
        end

        def corners(build)
          [build.percent("padding_x", "padding at the sides", 0..300, 50), build.percent("padding_y", "padding above and below", 0..300, 22),
            build.percent("round_top_start", "rounding, top left", 0..300, 32), build.percent("round_top_end", "rounding, top right", 0..300, 32),
            build.percent("round_bottom_end", "rounding, bottom right", 0..300, 32),
            build.percent("round_bottom_start", "rounding, bottom left", 0..300, 32)]
        end

        def edge(build)
          [build.percent("border", "border", 0..100, 0), build.colour("border_colour", "border colour", "house:accent"),
            build.choice("border_side", "border at", SIDES)]
        end

        def shadow(build)
          [build.percent("shadow_x", "shadow to the right", -200..200, 0), build.percent("shadow_y", "shadow downward", -200..200, 12),
            build.percent("shadow_blur", "shadow blur", 0..300, 50), build.percent("shadow_opacity", "shadow opacity", 0..100, 0),
            build.colour("shadow_colour", "shadow colour", "#000000")]
        end

        # @param piece [Hash] with the show's colours in place of their names
        # @return [Hash{String => String}]
        def css(part, piece)
          value = ->(name) { piece["#{part}_#{name}"] }
          {"--#{part}-rgb" => rgb(value["colour"]), "--#{part}-opacity" => share(value["opacity"]), **gradient_css(part, value),
           "--#{part}-padding" => "#{em(value["padding_y"])} #{em(value["padding_x"])}",
           "--#{part}-round" => %w[top_start top_end bottom_end bottom_start].map { |corner| em(value["round_#{corner}"]) }.join(" "),
           "--#{part}-border" => borders(value), "--#{part}-border-colour" => value["border_colour"],
           "--#{part}-shadow" => shadow_css(value)}
        end

        # @return [String] "16 21 26", as rgb() takes it
        def rgb(colour) = colour[1..].scan(/../).map(&:hex).join(" ")

        # @return [String] "0.72"
        def share(percent) = (percent / PERCENT).to_s

        # Only where there is one: without, the page draws the one colour.
        def gradient_css(part, value)
          return {} if value["gradient"] == "none"

          {"--#{part}-angle" => "#{ANGLES[value["gradient"]]}deg", "--#{part}-to-rgb" => rgb(value["to_colour"]),
           "--#{part}-to-opacity" => share(value["to_opacity"])}
        end

        def borders(value)
          width = em(value["border"])
          case value["border_side"]
          when "start" then "0 0 0 #{width}"
          when "end" then "0 #{width} 0 0"
          when "top" then "#{width} 0 0 0"
          when "bottom" then "0 0 #{width} 0"
          else width
          end
        end

        def shadow_css(value)
          return "none" unless value["shadow_opacity"].positive?

          offsets = %w[x y blur].map { |name| em(value["shadow_#{name}"]) }
          "#{offsets.join(" ")} rgb(#{rgb(value["shadow_colour"])} / #{share(value["shadow_opacity"])})"
        end

        def em(percent) = "#{(percent / PERCENT).to_s.delete_suffix(".0")}em"

        private_class_method :colours, :corners, :edge, :shadow, :gradient_css, :borders, :shadow_css, :em
      end
    end
  end
end
