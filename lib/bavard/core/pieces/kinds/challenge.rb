# frozen_string_literal: true

require_relative "../../cues/event"
require_relative "goal"

module Bavard
  module Core
    module Pieces
      # A shared amount that the community works up or down together, against time if wished.
      module ChallengePiece
        extend WordsPiece

        KEY = "challenge"
        LABEL = "Challenge"
        ICON = "target"
        COUNTABLE = (Cues::KINDS.keys - Cues::OF_PIECES).freeze

        COUNTS = [
          Fields::Property.choice("kind", "for", COUNTABLE, "follow"),
          Fields::Property.number("each", "each counts", -100_000..100_000, 1, digits: 2),
          Fields::Property.number("per_unit", "and per unit of its amount", -100_000..100_000, 0, digits: 2)
        ].freeze
        CONTENT = [
          Fields::Property.text("title", "title ({value}, {to}, {left} stand for numbers)", 120, "Reach {to} together"),
          Fields::Property.number("total", "how much", 1..GoalPiece::LARGEST, 100),
          Fields::Property.text("unit", "of what", 40, "points"),
          Fields::Property.choice("runs", "runs", %w[up down], "up"),
          Fields::Property.rows("counts", "what counts (none: follows, subscriptions, tips)", COUNTS, 12),
          Fields::Property.number("slips", "slips back a minute", 0..100_000, 0, digits: 2),
          Fields::Property.number("minutes", "within (0: no end)", 0..1440, 0, unit: "min", digits: 1),
          Fields::Property.choice("begins", "begins", ["hand", *COUNTABLE], "hand"),
          Fields::Property.choice("ends_with", "ends", ["hand", *COUNTABLE], "hand"),
          Fields::Property.text("stages", "stages on the way, in %", 60, "25, 50, 75"),
          Fields::Property.text("waits", "words before it begins", 120, "soon"),
          Fields::Property.text("reached", "words once it is reached", 120, "Done, thank you all"),
          Fields::Property.text("missed", "words where it is missed", 120, "Not this time"),
          Fields::Property.switch("anew", "begins anew after each broadcast", false),
          *GoalPiece::FACED
        ].freeze
        DRAWN = GoalPiece::DRAWN
        LOOK = GoalPiece::LOOK
        FORMED = GoalPiece::FORMED
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
