# frozen_string_literal: true

require_relative "../../cues/goal"
require_relative "../../cues/tally"
require_relative "words"

module Bavard
  module Core
    module Pieces
      # Something that everybody works towards: a count or an amount on its way.
      module GoalPiece
        extend WordsPiece

        KEY = "goal"
        LABEL = "Goal"
        ICON = "flag"
        LARGEST = 1_000_000_000
        FORMS_DRAWN = %w[line ring jar steps tally shape words].freeze
        STEP_FORMS = %w[round upright square slanted].freeze

        # Faces by what it has come to: at first, from the first, second and third milestone on, and at the end.
        FACES = %w[face face_1 face_2 face_3 face_reached].freeze
        FACE_LABELS = ["face", "face from the 1st milestone on", "face from the 2nd on", "face from the 3rd on", "face once it is reached"].freeze
        FACE_PLACES = %w[left right above].freeze
        FACED = FACES.zip(FACE_LABELS).map { |name, label| Fields::Property.file(name, label) }.freeze

        CONTENT = [
          Fields::Property.text("title", "title ({value}, {to}, {left} stand for numbers)", 120, "On the way to {to}"),
          Fields::Property.choice("counted", "counted", Cues::Tally::COUNTED.keys, "followers"),
          Fields::Property.text("unit", "currency or unit", 40, "EUR"),
          Fields::Property.some("feeds", "on chats (none: all)", nil, []),
          Fields::Property.choice("since", "since the beginning of", Cues::Goal::SPANS, "broadcast"),
          Fields::Property.text("starts", "its own start (as 18:30, or 2026-12-01 18:30)", 16),
          Fields::Property.number("from", "from", 0..LARGEST, 0),
          Fields::Property.number("to", "to", 0..LARGEST, 60),
          Fields::Property.number("already", "that is there already", 0..LARGEST, 0),
          Fields::Property.switch("falls", "it falls", false),
          Fields::Property.text("until", "until (as 18:30, or 2026-12-24 18:30)", 16),
          Fields::Property.text("milestones", "milestones, in %", 60, "25, 50, 75"),
          Fields::Property.text("reached", "words once it is reached", 120, "Reached, thank you all"),
          Fields::Property.switch("anew", "begins anew after each broadcast", false),
          *FACED
        ].freeze
        DRAWN = [
          Fields::Property.choice("drawn", "drawn as", FORMS_DRAWN, "line"),
          Fields::Property.choice("figures", "figures", %w[both value percent none], "both"),
          Fields::Property.colour("goal_colour", "colour of what is done", "house:accent"),
          Fields::Property.colour("rest_colour", "colour of what is left", "house:soft"),
          Fields::Property.number("thick", "thickness", 5..200, 34, unit: "%"),
          *Look::PlatePattern.of("goal", "done part"),
          Fields::Property.number("steps", "steps or marks", 2..60, 20),
          Fields::Property.choice("step_form", "steps are", STEP_FORMS, "round"),
          Fields::Property.file("goal_shape", "own shape (a picture that is clear around it)"),
          Fields::Property.number("goal_shape_size", "height of the shape", 100..2000, 420, unit: "%"),
          Fields::Property.choice("goal_fills", "it fills", %w[upward across], "upward"),
          Fields::Property.number("face_size", "size of the face", 50..1500, 300, unit: "%"),
          Fields::Property.choice("face_place", "face stands", FACE_PLACES, "left")
        ].freeze
        BEGINS = [
          Fields::Property.number("plate_opacity", "plate opacity", 0..100, 78, unit: "%"),
          Fields::Property.number("text_size_px", "text size", 8..400, 28, unit: "px"),
          Fields::Property.choice("plate_for", "plate", %w[text rows piece none], "piece")
        ].freeze
        LOOK = (WordsPiece.look(*BEGINS) + DRAWN).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
