# frozen_string_literal: true

require_relative "../../look/motion"
require_relative "words"

module Bavard
  module Core
    module Pieces
      # Lines of text to what is said: from a WebVTT file, or from whoever posts them, such as a speech recogniser.
      module CaptionsPiece
        extend WordsPiece

        KEY = "captions"
        LABEL = "Captions"
        ICON = "captions"

        CONTENT = [
          Fields::Property.choice("source", "from", %w[address file], "address"),
          Fields::Property.number("at_most", "lines at most", 1..4, 2),
          Fields::Property.number("delay_ms", "shown later by", 0..30_000, 0, unit: "ms"),
          Fields::Property.number("reading_speed", "characters read", 6..40, 15, unit: "/s"),
          Fields::Property.number("least_s", "stays at least", 0.5..10, 1.5, unit: "s", digits: 1),
          Fields::Property.number("longest_s", "stays at most", 1..30, 7, unit: "s", digits: 1)
        ].freeze
        BEGINS = [
          Fields::Property.number("plate_opacity", "plate opacity", 0..100, 84, unit: "%"),
          Fields::Property.number("text_size_px", "text size", 8..400, 42, unit: "px"),
          Fields::Property.choice("text_align", "text aligned", %w[start centre end], "centre"),
          Fields::Property.choice("text_upright", "text stands", %w[top middle bottom], "bottom"),
          Fields::Property.choice("plate_for", "plate", %w[text rows piece none], "rows")
        ].freeze
        LOOK = (WordsPiece.look(*BEGINS) + Look::Motion.properties).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
