# frozen_string_literal: true

require_relative "../../cues/event"
require_relative "../../look/motion"
require_relative "words"

module Bavard
  module Core
    module Pieces
      # Where cues play: the words of what happened, with a picture, one after another.
      module AlertsPiece
        extend WordsPiece

        KEY = "alerts"
        LABEL = "Alerts"
        ICON = "bell-ring"

        CONTENT = [
          Fields::Property.some("kinds", "for (none: all)", Cues::KINDS.keys, []),
          Fields::Property.choice("their_message", "their message", %w[shown none], "shown")
        ].freeze
        # Parts that can have a ground of their own.
        PLATED = %w[name amount message].freeze
        # Set apart from the sentence.
        PARTS = [
          *Look::TypeSettings.of("name", "name", defaults: {"weight" => 800, "colour" => "house:accent"}),
          *Look::TypeSettings.of("amount", "amount", defaults: {"weight" => 800, "colour" => "house:accent"}),
          *Look::TypeSettings.of("message", "message", defaults: {"size" => 62, "weight" => 500}),
          *PLATED.flat_map { |part| Look::PlateSettings.of("#{part}_plate", "#{part}’s plate", WordsPiece::SMALL_PLATE) },
          Fields::Property.number("picture_size", "size of the picture", 50..2000, 360, unit: "%")
        ].freeze
        BEGINS = [
          Fields::Property.number("text_size_px", "text size", 8..400, 54, unit: "px"),
          Fields::Property.choice("text_align", "text aligned", %w[start centre end], "centre"),
          Fields::Property.number("plate_opacity", "plate opacity", 0..100, 78, unit: "%"),
          Fields::Property.number("plate_padding_x", "plate padding at the sides", 0..300, 70, unit: "%"),
          Fields::Property.number("plate_padding_y", "plate padding above and below", 0..300, 40, unit: "%")
        ].freeze
        # Sounds of ours, for cues that have none of their own.
        CHIMES = %w[none reed knock key ring swell tone tick bubble].freeze
        CHIME = Fields::Property.choice("chime", "sound where a cue has none", CHIMES, "none")
        LOOK = (WordsPiece.look(*BEGINS) + PARTS + Look::Motion.properties + [CHIME]).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
