# frozen_string_literal: true

require_relative "../../cues/command"
require_relative "words"

module Bavard
  module Core
    module Pieces
      # A number that people count up and down: by a key, or by a command line in chat.
      module CounterPiece
        extend WordsPiece

        KEY = "counter"
        LABEL = "Counter"
        ICON = "hash"
        LARGEST = 1_000_000_000

        CONTENT = [
          Fields::Property.text("words", "words, with {count}", 120, "Counted: {count}"),
          Fields::Property.number("begins_at", "begins at", -LARGEST..LARGEST, 0),
          Fields::Property.text("command", "counted by the line", 40, ""),
          Fields::Property.some("may", "of (none: host and moderators)", Cues::Command::ROLES, []),
          Fields::Property.number("cool_down_s", "not again within", 0..3600, 2, unit: "s")
        ].freeze
        BEGINS = [Fields::Property.number("plate_opacity", "plate opacity", 0..100, 78, unit: "%"),
          Fields::Property.number("text_size_px", "text size", 8..400, 34, unit: "px")].freeze
        LOOK = WordsPiece.look(*BEGINS).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
