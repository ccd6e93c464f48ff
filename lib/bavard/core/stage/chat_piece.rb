# frozen_string_literal: true

require_relative "../chat/timeline"
require_relative "property"

module Bavard
  module Core
    module Stage
      # The piece that shows chat: what can be set about it, and what follows from that.
      module ChatPiece
        KIND = "chat"
        LABEL = "Chat"
        # Family and the weights it has. All are shipped.
        FACES = {
          "Atkinson Hyperlegible Next" => 200..800,
          "Bricolage Grotesque" => 200..800,
          "Archivo" => 100..900,
          "Fraunces" => 100..900,
          "Bitter" => 100..900,
          "Playpen Sans" => 100..800,
          "Courier Prime" => 400..400,
          "Anton" => 400..400
        }.freeze
        SMALLEST_PX = 16
        LARGEST_PX = 7680

        PLACE = [
          Property.number("x", "distance from the left", -LARGEST_PX..LARGEST_PX, 0, unit: "px"),
          Property.number("y", "distance from the top", -LARGEST_PX..LARGEST_PX, 0, unit: "px"),
          Property.number("width", "width", SMALLEST_PX..LARGEST_PX, 600, unit: "px"),
          Property.number("height", "height", SMALLEST_PX..LARGEST_PX, 400, unit: "px")
        ].freeze
        STYLE = [
          Property.choice("face", "face", FACES.keys, "Atkinson Hyperlegible Next"),
          Property.number("size_px", "text size", 8..200, 25, unit: "px"),
          Property.number("weight", "weight", 100..900, 500),
          Property.colour("text_colour", "text colour", "#ffffff"),
          Property.choice("name_colour", "name colour", %w[theirs one], "theirs"),
          Property.colour("one_name_colour", "one colour for names", "#f3b634"),
          Property.colour("plate_colour", "plate colour", "#10151a"),
          Property.number("plate_opacity", "plate opacity", 0..100, 72, unit: "%"),
          Property.choice("newest", "newest line", %w[bottom top], "bottom")
        ].freeze
        TIMING = [
          Property.number("at_most", "lines kept", 1..50, 9),
          Property.stay("stay_ms", "seconds shown", 3000..3_600_000, 14_000),
          Property.number("keep_last", "lines that always stay", 0..50, 0)
        ].freeze
        PROPERTIES = (PLACE + STYLE + TIMING).to_h { |property| [property.name, property] }.freeze

        module_function

        # @param id [String]
        # @param values [Hash] some properties, as given
        # @return [Hash] a whole piece
        # @raise [Bavard::Error]
        def build(id, values = {})
          defaults = PROPERTIES.transform_values(&:default)
          {"id" => id, "kind" => KIND}.merge(defaults, read(values))
        end

        # @param values [Hash] some properties, as given
        # @return [Hash] the same as a document keeps them
        # @raise [Bavard::Error] naming the first that does not fit
        def read(values)
          values.to_h do |name, given|
            property = PROPERTIES[name] || raise(Error.new("A chat piece has no “#{name}”.", field: name, value: given))
            [name, property.read(given)]
          end
        end

        # @return [Chat::Timeline::Settings]
        def timeline_settings(piece)
          Chat::Timeline::Settings.new(piece["at_most"], piece["stay_ms"], piece["keep_last"])
        end

        # A weight the face has.
        def weight(piece)
          piece["weight"].clamp(FACES.fetch(piece["face"]))
        end
      end
    end
  end
end
