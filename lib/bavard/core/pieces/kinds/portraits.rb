# frozen_string_literal: true

require_relative "../piece_kind"

module Bavard
  module Core
    module Pieces
      # People of the cast as pictures that change as they talk: one of them, or a row of all who are there.
      module PortraitsPiece
        extend PieceKind

        KEY = "portraits"
        LABEL = "Portraits"
        ICON = "drama"

        CONTENT = [
          Fields::Property.text("room", "room", 20),
          Fields::Property.text("person", "person (none: a row of all)", 20),
          Fields::Property.switch("absent", "also while not in the room", false),
          Fields::Property.switch("talking_only", "only while talking", false),
          Fields::Property.switch("host_first", "the host first", true),
          Fields::Property.number("at_most", "places", 1..20, 6),
          Fields::Property.number("dims_after_s", "dimmed once the service is silent for", 1..3600, 20, unit: "s")
        ].freeze
        LOOK = [
          Fields::Property.number("figure", "height of a figure", 5..100, 100, unit: "%"),
          Fields::Property.choice("sized", "figures are", %w[equal own], "equal"),
          Fields::Property.switch("mirrored", "mirrored", false),
          Fields::Property.choice("align", "row aligned", %w[start centre end], "centre"),
          Fields::Property.number("gap", "gap between figures", -50..200, 6, unit: "%"),
          Fields::Property.choice("swap", "pictures change", %w[fade cut], "fade"),
          Fields::Property.number("swap_ms", "changing takes", 0..1000, 90, unit: "ms"),
          Fields::Property.number("least_ms", "each picture stays", 0..2000, 160, unit: "ms"),
          Fields::Property.number("bounce", "bouncing with loudness", 0..40, 5, unit: "%"),
          Fields::Property.number("quiet_opacity", "opacity of who is silent", 10..100, 100, unit: "%"),
          Fields::Property.switch("blinks", "blinking now and then", true)
        ].freeze
        OWN = (CONTENT + LOOK).freeze
      end
    end
  end
end
