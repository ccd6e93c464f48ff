# frozen_string_literal: true

require_relative "../../look/motion"
require_relative "../../look/plate_hand"
require_relative "../../look/plate_settings"
require_relative "../../look/type_settings"
require_relative "../../voice/room"
require_relative "../piece_kind"
require_relative "../two_forms"

module Bavard
  module Core
    module Pieces
      # The people of a voice room, and who of them talks.
      module VoicesPiece
        extend PieceKind
        extend TwoForms

        KEY = "voices"
        LABEL = "Voices"
        ICON = "mic"
        MARKS = Voice::MARKS.map(&:to_s).freeze
        SIGNS = %w[guillemets ring lift glow bar waves pen dimming none].freeze

        CONTENT = [
          Fields::Property.text("room", "room", 20),
          Fields::Property.choice("shown", "shown are", %w[everyone talking lately last], "everyone"),
          Fields::Property.number("lately_s", "talked within", 1..600, 20, unit: "s"),
          Fields::Property.choice("order", "order", %w[fixed name talked], "fixed"),
          Fields::Property.switch("host_first", "the host first", true),
          Fields::Property.number("at_most", "places", 1..60, 8),
          Fields::Property.choice("more", "how many more", %w[shown none], "shown"),
          Fields::Property.text("when_empty", "words where nobody is", 80),
          Fields::Property.number("dims_after_s", "dimmed once the service is silent for", 1..3600, 20, unit: "s")
        ].freeze
        NAME = [
          Fields::Property.choice("names", "names", %w[full cut first own none], "cut"),
          Fields::Property.choice("name_place", "name’s place", %w[beside below over], "beside"),
          Fields::Property.number("name_width", "room for a name", 100..4000, 900, unit: "%"),
          Fields::Property.choice("name_colour", "name colour", %w[one person], "one"),
          *Look::TypeSettings.of("text", "name", main: true, defaults: {"size_px" => 28, "weight" => 600}),
          Fields::Property.number("text_line_spacing", "line spacing", 80..240, 120, unit: "%")
        ].freeze
        FACE = [
          Fields::Property.choice("faces", "faces", %w[shown none], "shown"),
          Fields::Property.number("face_size", "size of faces", 60..1200, 190, unit: "%"),
          Fields::Property.number("face_round", "rounding of faces", 0..50, 30, unit: "%"),
          Fields::Property.some("marks", "marks", MARKS, MARKS),
          Fields::Property.number("mark_size", "size of marks", 20..300, 84, unit: "%")
        ].freeze
        SIGN = [
          Fields::Property.choice("sign", "sign of talking", SIGNS, "guillemets"),
          Fields::Property.choice("sign_colour_by", "sign coloured", %w[person one], "person"),
          Fields::Property.colour("sign_colour", "colour of the sign", "house:accent"),
          Fields::Property.number("sign_size", "size of the sign", 2..100, 18, unit: "%"),
          Fields::Property.number("quiet_opacity", "opacity of who is silent", 10..100, 100, unit: "%")
        ].freeze
        PLATE = [
          Fields::Property.choice("plate_for", "plate", %w[each all none], "each"),
          *Look::PlateSettings.of("plate", "plate", {"opacity" => 72, "padding_x" => 40, "padding_y" => 28, "round_top_start" => 70,
                                                    "round_top_end" => 70, "round_bottom_end" => 70, "round_bottom_start" => 70}),
          *Look::PlateHand.ground, Look::PlateHand.turn
        ].freeze
        ARRANGED = [
          Fields::Property.choice("arranged", "people stand", %w[upright level grid arc], "upright"),
          Fields::Property.choice("align", "aligned", %w[start centre end], "start"),
          Fields::Property.number("columns", "columns", 1..12, 3),
          Fields::Property.number("arc_degrees", "arc", 20..360, 140, unit: "°"),
          Fields::Property.number("gap", "gap between people", 0..400, 34, unit: "%")
        ].freeze
        LOOK = (NAME + FACE + SIGN + PLATE + ARRANGED + Look::Motion.properties).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
