# frozen_string_literal: true

require_relative "../fields/property"
require_relative "../palette/faces"

module Bavard
  module Core
    module Cues
      # The type a cue has of its own, over what the piece that plays it has.
      module OwnType
        AS_PIECE = "piece"
        # Parts of what a cue shows, and what their colour is called.
        PARTS = {"text" => "words", "name" => "name", "amount" => "amount", "message" => "message"}.freeze
        USUAL = {"text" => "#ffffff", "name" => "#f3b634", "amount" => "#f3b634", "message" => "#ffffff"}.freeze
        PROPERTIES = [
          Fields::Property.switch("own_type", "type of its own", false),
          Fields::Property.choice("type_face", "face", [AS_PIECE, *Palette::Faces::SHIPPED.keys], AS_PIECE),
          Fields::Property.number("type_size", "size", 30..400, 100, unit: "%"),
          Fields::Property.number("type_weight", "weight of the words", 100..900, 600),
          *PARTS.map { |part, called| Fields::Property.colour("type_#{part}_colour", "colour of the #{called}", USUAL.fetch(part)) }
        ].freeze

        module_function

        # @param cue [Hash]
        # @return [Hash{String => String}, nil] what is set on it as it plays; nil: as the piece has it
        def css(cue)
          return unless cue["own_type"]

          # A cue plays on whichever stage: the name of one stage's colour says nothing.
          colours = PARTS.keys.to_h { |part| ["--#{part}-colour", cue["type_#{part}_colour"]] }.reject { |_, colour| colour.start_with?("house:") }
          {"font-size" => "#{cue["type_size"]}%", "--text-weight" => weight(cue).to_s, **colours, **face(cue)}
        end

        def face(cue)
          return {} if cue["type_face"] == AS_PIECE

          css = Palette::Faces.css(cue["type_face"])
          PARTS.keys.to_h { |part| ["--#{part}-face", css] }.merge("font-family" => css)
        end

        def weight(cue) = Palette::Faces.weight(cue["type_face"], cue["type_weight"])
        private_class_method :face, :weight
      end
    end
  end
end
