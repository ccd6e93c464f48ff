# frozen_string_literal: true

require_relative "../../chat/timeline"
require_relative "../../intake"
require_relative "../../look/motion"
require_relative "../../look/own_css"
require_relative "../../look/own_markup"
require_relative "../../look/plate_settings"
require_relative "../../look/type_settings"
require_relative "../piece_kind"
require_relative "../two_forms"

module Bavard
  module Core
    module Stage
      # The piece that shows chat: what can be set about it, and what follows from that.
      module ChatPiece
        extend PieceKind
        extend TwoForms

        KEY = "chat"
        LABEL = "Chat"
        ICON = "message-square-text"
        SHOWN = %w[shown none].freeze
        PARTS = %w[mark avatar badges time name text].freeze
        ROLES = %w[host moderator guest subscriber supporter bot everyone].freeze
        LINE_KINDS = %w[said action reply paid].freeze
        HIGHLIGHTS = %w[mentions first paid moderators].freeze

        # Parts that can have a plate of their own, and how it begins.
        PLATED = %w[name time text].freeze
        SMALL_PLATE = {"padding_x" => 20, "padding_y" => 4}.freeze

        # What it takes in.
        INTAKE = [
          Property.some("feeds", "feeds (none: all)", nil, []),
          Property.some("kinds", "kinds", LINE_KINDS + EVENTS.map(&:to_s), LINE_KINDS),
          Property.some("roles", "roles (none: everyone)", ROLES, [])
        ].freeze
        TEXT = [
          *Look::TypeSettings.of("text", "text", main: true),
          *Look::PlateSettings.of("text_plate", "text’s plate", SMALL_PLATE),
          Property.number("text_line_spacing", "line spacing", 80..240, 132, unit: "%"),
          Property.choice("text_align", "text aligned", %w[start centre end], "start")
        ].freeze
        NAME = [
          Property.choice("names", "names", SHOWN, "shown"),
          Property.choice("name_form", "names written", %w[shown login spoken], "shown"),
          Property.choice("name_place", "name’s place", %w[line above column], "line"),
          Property.number("name_column", "width of the names’ column", 50..1200, 500, unit: "%"),
          Property.choice("name_colour", "name colour", %w[theirs person line feed role one], "theirs"),
          Property.colour("one_name_colour", "one colour for names", "house:accent"),
          *Look::TypeSettings.of("name", "name", colour: false, defaults: {"weight" => 700}),
          *Look::PlateSettings.of("name_plate", "name’s plate", SMALL_PLATE),
          Property.choice("name_plate_by", "name’s plate coloured", %w[one theirs], "one")
        ].freeze
        SMALL = [
          Property.choice("times", "time", SHOWN, "none"),
          Property.choice("time_form", "time written", %w[minutes seconds age], "minutes"),
          *Look::TypeSettings.of("time", "time", defaults: {"size" => 76, "colour" => "house:soft"}),
          *Look::PlateSettings.of("time_plate", "time’s plate", SMALL_PLATE),
          Property.choice("marks", "feeds’ marks", SHOWN, "shown"),
          Property.choice("mark_form", "feeds’ marks drawn", %w[full ring], "full"),
          Property.number("mark_size", "size of marks", 20..200, 56, unit: "%"),
          Property.choice("badges", "badges", SHOWN, "shown"),
          Property.number("badge_size", "size of badges", 40..200, 86, unit: "%"),
          Property.choice("avatars", "avatars", SHOWN, "none"),
          Property.number("avatar_size", "size of avatars", 60..400, 120, unit: "%"),
          Property.number("avatar_round", "rounding of avatars", 0..50, 50, unit: "%"),
          Property.some("parts", "order of the parts", PARTS, PARTS, all: true)
        ].freeze
        EMOTES = [
          Property.choice("emotes", "emotes", SHOWN, "shown"),
          Property.choice("emote_motion", "moving emotes", %w[moving still], "moving"),
          Property.choice("emotes_alone", "lines of emotes only", %w[larger same], "larger"),
          Property.number("emote_size", "size of emotes", 60..400, 140, unit: "%")
        ].freeze
        PLATE = [
          Property.choice("plate_for", "plate", %w[line rows all none], "line"),
          Property.choice("plate_width", "plate’s width", %w[text piece], "text"),
          Property.choice("plate_by", "plate coloured", %w[one person feed], "one"),
          *Look::PlateSettings.of("plate", "plate", {"opacity" => 72}),
          Property.choice("plate_tail", "plate’s tail", Look::PlateSettings::TAILS, "none"),
          Property.switch("plate_ruled", "ruled ground", false),
          Property.colour("plate_rule_colour", "colour of the rules", "house:soft"),
          Property.number("line_turn", "turn of lines", 0..8, 0, unit: "°", digits: 1),
          Property.choice("line_sides", "lines stand", %w[one turn], "one")
        ].freeze
        STACK = [
          Property.choice("flow", "lines go", %w[stack ticker], "stack"),
          Property.choice("newest", "newest line", %w[bottom top left right], "bottom"),
          Property.choice("stack_align", "lines aligned", %w[start centre end], "start"),
          Property.number("gap", "gap between lines", 0..300, 22, unit: "%"),
          Property.choice("separator", "between lines of a ticker", %w[guillemets dot bar none], "guillemets"),
          Property.number("ticker_speed", "speed of the ticker", 20..800, 120, unit: "px"),
          Property.number("fade", "fading toward the oldest", 0..100, 0, unit: "%"),
          Property.number("tilt", "tilt in depth", -60..60, 0, unit: "°"),
          Property.number("tilt_sideways", "turn in depth", -60..60, 0, unit: "°"),
          Property.number("perspective_px", "distance of the eye", 200..4000, 900, unit: "px")
        ].freeze
        TIMING = [
          Property.number("at_most", "lines kept", 1..50, 9),
          Property.choice("stay_by", "lines stay", %w[time reading], "time"),
          Property.stay("stay_ms", "seconds shown", 3000..3_600_000, 14_000),
          Property.number("reading_speed", "letters read a second", 4..40, 12),
          Property.number("keep_last", "lines that always stay", 0..50, 0)
        ].freeze
        HIGHLIGHT = [
          Property.choice("highlight_form", "highlight", %w[edge plate around], "edge"),
          *HIGHLIGHTS.flat_map do |what|
            [Property.switch("highlight_#{what}", "highlight #{what}", false),
              Property.colour("highlight_#{what}_colour", "colour for #{what}", "house:accent")]
          end,
          Property.rows("role_colours", "colours by role",
            [Property.choice("role", "role", ROLES - %w[everyone], "moderator"), Property.colour("colour", "colour", "house:accent")], 10),
          Property.rows("person_colours", "colours by person",
            [Property.text("person", "who", 60), Property.colour("colour", "colour", "house:accent")], 60)
        ].freeze
        OWN_WORK = [
          Property.text("own_css", "own CSS", Look::OwnCss::LONGEST), Property.text("own_markup", "own markup of a line", Look::OwnMarkup::LONGEST)
        ].freeze
        LOOK = (TEXT + NAME + SMALL + EMOTES + PLATE + STACK + TIMING + Look::Motion.properties + HIGHLIGHT + OWN_WORK).freeze
        FORMED = TwoForms.formed(LOOK)
        OWN = (INTAKE + LOOK + TwoForms.properties(FORMED)).freeze

        module_function

        # @return [Chat::Timeline::Settings]
        def timeline_settings(piece)
          Chat::Timeline::Settings.new(piece["at_most"], piece["stay_ms"], piece["keep_last"],
            piece["stay_by"] == "reading" ? piece["reading_speed"] : nil)
        end

        # A weight the face has.
        def weight(piece)
          Look::Faces.weight(piece["text_face"], piece["text_weight"])
        end
      end
    end
  end
end
