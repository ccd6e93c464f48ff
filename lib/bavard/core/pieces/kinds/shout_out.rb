# frozen_string_literal: true

require_relative "../../cues/command"
require_relative "../../look/motion"
require_relative "words"

module Bavard
  module Core
    module Pieces
      # A fellow host's card: who they are, what they last showed, and one of their clips.
      module ShoutOutPiece
        extend WordsPiece

        KEY = "shout_out"
        LABEL = "Shout-out"
        ICON = "handshake"
        LONGEST_S = 120

        CONTENT = [
          Fields::Property.text("title", "title", 120, "Go and see"),
          Fields::Property.number("length_s", "length", 2..LONGEST_S, 12, unit: "s", digits: 1),
          Fields::Property.switch("on_visit", "when they come to visit", true),
          Fields::Property.text("command", "by the line, then their name", 40, "!hello"),
          Fields::Property.some("may", "of (none: host and moderators)", Cues::Command::ROLES, []),
          Fields::Property.number("cool_down_s", "the same not again within", 0..86_400, 300, unit: "s"),
          Fields::Property.choice("picture", "picture", %w[shown none], "shown"),
          Fields::Property.choice("last_shown", "what they last showed", %w[shown none], "shown"),
          Fields::Property.choice("followers", "how many follow them", %w[shown none], "shown"),
          Fields::Property.choice("clip", "clip", %w[first any none], "any"),
          Fields::Property.number("volume", "its volume (0: without sound)", 0..100, 0, unit: "%")
        ].freeze
        BEGINS = [
          Fields::Property.number("plate_opacity", "plate opacity", 0..100, 84, unit: "%"),
          Fields::Property.number("text_size_px", "text size", 8..400, 30, unit: "px"),
          Fields::Property.choice("plate_for", "plate", %w[text rows piece none], "piece"),
          Fields::Property.number("plate_padding_x", "plate padding at the sides", 0..300, 60, unit: "%"),
          Fields::Property.number("plate_padding_y", "plate padding above and below", 0..300, 50, unit: "%")
        ].freeze
        PARTS = [*Look::TypeSettings.of("name", "name", defaults: {"size" => 130, "weight" => 800, "colour" => "house:accent"}),
          *Look::PlateSettings.of("name_plate", "name’s plate", WordsPiece::SMALL_PLATE)].freeze
        LOOK = (WordsPiece.look(*BEGINS) + PARTS + Look::Motion.properties).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (CONTENT + LOOK + TwoForms.properties(FORMED)).freeze
      end
    end
  end
end
