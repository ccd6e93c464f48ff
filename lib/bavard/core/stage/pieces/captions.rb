# frozen_string_literal: true

require_relative "../../look/motion"
require_relative "words"

module Bavard
  module Core
    module Stage
      # Lines of text to what is said: from a WebVTT file, or from whoever posts them, such as a speech recogniser.
      module CaptionsPiece
        extend WordsPiece

        KEY = "captions"
        LABEL = "Captions"
        ICON = "captions"

        CONTENT = [
          Property.choice("source", "from", %w[address file], "address"),
          Property.number("at_most", "lines at most", 1..4, 2),
          Property.number("delay_ms", "shown later by", 0..30_000, 0, unit: "ms"),
          Property.number("reading_speed", "characters read", 6..40, 15, unit: "/s"),
          Property.number("least_s", "stays at least", 0.5..10, 1.5, unit: "s", digits: 1),
          Property.number("longest_s", "stays at most", 1..30, 7, unit: "s", digits: 1)
        ].freeze
        BEGINS = [
          Property.number("plate_opacity", "plate opacity", 0..100, 84, unit: "%"),
          Property.number("text_size_px", "text size", 8..400, 42, unit: "px"),
          Property.choice("text_align", "text aligned", %w[start centre end], "centre"),
          Property.choice("text_upright", "text stands", %w[top middle bottom], "bottom"),
          Property.choice("plate_for", "plate", %w[text rows piece none], "rows")
        ].freeze
        LOOK = (WordsPiece.look(*BEGINS) + Look::Motion.properties).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
