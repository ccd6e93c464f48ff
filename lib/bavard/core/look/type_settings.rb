# frozen_string_literal: true

require_relative "../palette/faces"
require_relative "letter_shadow"
require_relative "part_properties"

module Bavard
  module Core
    module Look
      # How text is set: the same settings for every part of every piece, each under the part's own name.
      #
      #   TypeSettings.of("time", "time")           # => [Property "time_face", Property "time_size" …]
      #   TypeSettings.css("time", piece)           # => {"--time-face" => …, "--time-size" => "0.8em" …}
      #
      # The text itself has a size in pixels; other parts have theirs in percent of it, and may take its face.
      module TypeSettings
        CASES = %w[typed upper lower].freeze
        # What is drawn below letters: [how, how thick, how far from them], a line in their own colour.
        UNDERLINES = {"line" => ["solid currentcolor", "0.06em", "0.16em"], "marker" => ["solid", "0.42em", "-0.26em"],
                      "waves" => ["wavy", "0.08em", "0.14em"], "dots" => ["dotted", "0.14em", "0.16em"]}.freeze
        # Round an outline's way round a letter.
        AROUND = (0...16).map { |step| [Math.cos(step * Math::PI / 8).round(3), Math.sin(step * Math::PI / 8).round(3)] }.freeze
        INNER = AROUND.each_slice(2).map(&:first).freeze

        module_function

        # @param part [String] prefix of the names
        # @param label [String] how the part is called
        # @param main [Boolean] whether it is the text the sizes of others go by
        # @param colour [Boolean] whether it has a colour of its own
        # @param defaults [Hash] by name without the part
        # @return [Array<Property>]
        def of(part, label, main: false, colour: true, defaults: {})
          build = PartProperties.new(part, label, defaults)
          made = size(build, main) + letters(build) + around(build)
          colour ? made << build.colour("colour", "colour", "house:ink") : made
        end

        def size(build, main)
          return [build.face("face", "face", "house:text"), build.number("size_px", "size", 8..400, 25, unit: "px")] if main

          [build.face("face", "face", "", inherit: true), build.number("size", "size", 30..300, 100, unit: "%")]
        end

        def letters(build)
          [build.number("weight", "weight", 100..900, 500), build.number("stretch", "width of letters", 50..200, 100, unit: "%"),
            build.number("letter_spacing", "letter spacing", -10..100, 0, unit: "%"), build.choice("case", "letters", CASES),
            build.switch("underline", "underlined"), build.choice("underline_form", "underlined by", UNDERLINES.keys),
            build.colour("underline_colour", "colour of what underlines it", "house:accent")]
        end

        def around(build)
          [build.number("outline_px", "outline", 0..12, 0, unit: "px", digits: 1), build.colour("outline_colour", "outline colour", "#000000"),
            build.number("shadow_opacity", "shadow opacity", 0..100, 0, unit: "%"),
            build.number("shadow_x_px", "shadow to the right", -40..40, 0, unit: "px"),
            build.number("shadow_y_px", "shadow downward", -40..40, 1, unit: "px"),
            build.number("shadow_blur_px", "shadow blur", 0..60, 6, unit: "px"), build.colour("shadow_colour", "shadow colour", "#000000")]
        end

        # @param piece [Hash] with the show's colours and faces in place of their names
        # @return [Hash{String => String}] custom properties
        def css(part, piece)
          face = piece["#{part}_face"]
          css = {"--#{part}-weight" => Palette::Faces.weight(face.empty? ? piece["text_face"] : face, piece["#{part}_weight"]).to_s,
                 "--#{part}-stretch" => "#{piece["#{part}_stretch"]}%", "--#{part}-spacing" => "#{piece["#{part}_letter_spacing"] / 100.0}em",
                 "--#{part}-case" => {"typed" => "none", "upper" => "uppercase", "lower" => "lowercase"}[piece["#{part}_case"]],
                 **underline(part, piece), "--#{part}-around" => shadow(part, piece)}
          css["--#{part}-face"] = face.empty? ? "inherit" : Palette::Faces.css(face)
          css["--#{part}-size"] = piece.key?("#{part}_size_px") ? "#{piece["#{part}_size_px"]}px" : "#{piece["#{part}_size"] / 100.0}em"
          css["--#{part}-colour"] = piece["#{part}_colour"] if piece["#{part}_colour"].start_with?("#")
          css
        end

        def underline(part, piece)
          return {"--#{part}-underline" => "none"} unless piece["#{part}_underline"]

          form = piece["#{part}_underline_form"]
          how, thick, away = UNDERLINES.fetch(form)
          ink = form == "line" ? how : "#{how} #{piece["#{part}_underline_colour"]}"
          {"--#{part}-underline" => "underline #{ink} #{thick}", "--#{part}-underline-away" => away,
           "--#{part}-underline-ink" => form == "line" ? "auto" : "none"}
        end

        # An outline is many shadows round the letter: a stroke would eat into the letter where the broadcast software's
        # browser is some years old.
        #
        # @return [String] for text-shadow
        def shadow(part, piece)
          shadows = outline(piece["#{part}_outline_px"], piece["#{part}_outline_colour"]) + LetterShadow.new(piece, part).css
          shadows.empty? ? "none" : shadows.join(",")
        end

        def outline(width_px, colour)
          return [] unless width_px.positive?

          (width_px > 1.5 ? AROUND : INNER).map { |x, y| "#{(x * width_px).round(2)}px #{(y * width_px).round(2)}px 0 #{colour}" }
        end

        private_class_method :size, :letters, :around, :underline, :shadow, :outline
      end
    end
  end
end
