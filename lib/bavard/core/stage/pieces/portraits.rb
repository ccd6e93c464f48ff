# frozen_string_literal: true

require_relative "../piece_kind"

module Bavard
  module Core
    module Stage
      # People of the cast as pictures that change as they talk: one of them, or a row of all who are there.
      module PortraitsPiece
        extend PieceKind

        KEY = "portraits"
        LABEL = "Portraits"
        ICON = "drama"

        CONTENT = [
          Property.text("room", "room", 20),
          Property.text("person", "person (none: a row of all)", 20),
          Property.switch("absent", "also while not in the room", false),
          Property.switch("talking_only", "only while talking", false),
          Property.switch("host_first", "the host first", true),
          Property.number("at_most", "places", 1..20, 6),
          Property.number("dims_after_s", "dimmed once the service is silent for", 1..3600, 20, unit: "s")
        ].freeze
        LOOK = [
          Property.number("figure", "height of a figure", 5..100, 100, unit: "%"),
          Property.choice("sized", "figures are", %w[equal own], "equal"),
          Property.switch("mirrored", "mirrored", false),
          Property.choice("align", "row aligned", %w[start centre end], "centre"),
          Property.number("gap", "gap between figures", -50..200, 6, unit: "%"),
          Property.choice("swap", "pictures change", %w[fade cut], "fade"),
          Property.number("swap_ms", "changing takes", 0..1000, 90, unit: "ms"),
          Property.number("least_ms", "each picture stays", 0..2000, 160, unit: "ms"),
          Property.number("bounce", "bouncing with loudness", 0..40, 5, unit: "%"),
          Property.number("quiet_opacity", "opacity of who is silent", 10..100, 100, unit: "%"),
          Property.switch("blinks", "blinking now and then", true)
        ].freeze
        OWN = (CONTENT + LOOK).freeze
      end
    end
  end
end
