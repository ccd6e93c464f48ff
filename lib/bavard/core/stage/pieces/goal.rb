# frozen_string_literal: true

require_relative "../../cues/tally"
require_relative "words"

module Bavard
  module Core
    module Stage
      # Something that everybody works towards: a count or an amount on its way.
      module GoalPiece
        extend WordsPiece

        KEY = "goal"
        LABEL = "Goal"
        ICON = "flag"
        LARGEST = 1_000_000_000
        FORMS_DRAWN = %w[line ring jar words].freeze

        CONTENT = [
          Property.text("title", "title", 120, "Nest boxes for the east bank"),
          Property.choice("counted", "counted", Cues::Tally::COUNTED.keys, "followers"),
          Property.text("unit", "currency or unit", 40, "EUR"),
          Property.choice("since", "since the beginning of", %w[broadcast day month ever], "broadcast"),
          Property.number("from", "from", 0..LARGEST, 0),
          Property.number("to", "to", 0..LARGEST, 60),
          Property.number("already", "that is there already", 0..LARGEST, 0),
          Property.switch("falls", "it falls", false),
          Property.text("until", "until (as 18:30, or 2026-12-24 18:30)", 16),
          Property.text("reached", "words once it is reached", 120, "Reached, thank you all")
        ].freeze
        DRAWN = [
          Property.choice("drawn", "drawn as", FORMS_DRAWN, "line"),
          Property.choice("figures", "figures", %w[both value percent none], "both"),
          Property.colour("goal_colour", "colour of what is done", "house:accent"),
          Property.colour("rest_colour", "colour of what is left", "house:soft"),
          Property.number("thick", "thickness", 5..200, 34, unit: "%")
        ].freeze
        BEGINS = [
          Property.number("plate_opacity", "plate opacity", 0..100, 78, unit: "%"),
          Property.number("text_size_px", "text size", 8..400, 28, unit: "px"),
          Property.choice("plate_for", "plate", %w[text rows piece none], "piece")
        ].freeze
        LOOK = (WordsPiece.look(*BEGINS) + DRAWN).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
