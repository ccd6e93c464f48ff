# frozen_string_literal: true

require_relative "../../chat/timeline"
require_relative "../../intake"
require_relative "../../look/motion"
require_relative "../../own_code/own_css"
require_relative "../../own_code/own_markup"
require_relative "../../look/plate_hand"
require_relative "../../look/plate_settings"
require_relative "../../look/type_settings"
require_relative "../piece_kind"
require_relative "../two_forms"

module Bavard
  module Core
    module Pieces
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
          Fields::Property.some("feeds", "feeds (none: all)", nil, []),
          Fields::Property.some("kinds", "kinds", LINE_KINDS + EVENTS.map(&:to_s), LINE_KINDS),
          Fields::Property.some("roles", "roles (none: everyone)", ROLES, [])
        ].freeze
        TEXT = [
          *Look::TypeSettings.of("text", "text", main: true),
          *Look::PlateSettings.of("text_plate", "text’s plate", SMALL_PLATE),
          Fields::Property.number("text_line_spacing", "line spacing", 80..240, 132, unit: "%"),
          Fields::Property.choice("text_align", "text aligned", %w[start centre end], "start")
        ].freeze
        NAME = [
          Fields::Property.choice("names", "names", SHOWN, "shown"),
          Fields::Property.choice("name_form", "names written", %w[shown login spoken], "shown"),
          Fields::Property.choice("name_place", "name’s place", %w[line above column], "line"),
          Fields::Property.number("name_column", "width of the names’ column", 50..1200, 500, unit: "%"),
          Fields::Property.choice("name_colour", "name colour", %w[theirs person line feed role one], "theirs"),
          Fields::Property.colour("one_name_colour", "one colour for names", "house:accent"),
          *Look::TypeSettings.of("name", "name", colour: false, defaults: {"weight" => 700}),
          *Look::PlateSettings.of("name_plate", "name’s plate", SMALL_PLATE),
          Fields::Property.choice("name_plate_by", "name’s plate coloured", %w[one theirs], "one")
        ].freeze
        SMALL = [
          Fields::Property.choice("times", "time", SHOWN, "none"),
          Fields::Property.choice("time_form", "time written", %w[minutes seconds age], "minutes"),
          *Look::TypeSettings.of("time", "time", defaults: {"size" => 76, "colour" => "house:soft"}),
          *Look::PlateSettings.of("time_plate", "time’s plate", SMALL_PLATE),
          Fields::Property.choice("marks", "feeds’ marks", SHOWN, "shown"),
          Fields::Property.choice("mark_form", "feeds’ marks drawn", %w[full ring], "full"),
          Fields::Property.number("mark_size", "size of marks", 20..200, 56, unit: "%"),
          Fields::Property.choice("badges", "badges", SHOWN, "shown"),
          Fields::Property.number("badge_size", "size of badges", 40..200, 86, unit: "%"),
          Fields::Property.choice("avatars", "avatars", SHOWN, "none"),
          Fields::Property.number("avatar_size", "size of avatars", 60..400, 120, unit: "%"),
          Fields::Property.number("avatar_round", "rounding of avatars", 0..50, 50, unit: "%"),
          Fields::Property.some("parts", "order of the parts", PARTS, PARTS, all: true)
        ].freeze
        EMOTES = [
          Fields::Property.choice("emotes", "emotes", SHOWN, "shown"),
          Fields::Property.choice("emote_motion", "moving emotes", %w[moving still], "moving"),
          Fields::Property.choice("emotes_alone", "lines of emotes only", %w[larger same], "larger"),
          Fields::Property.number("emote_size", "size of emotes", 60..400, 140, unit: "%")
        ].freeze
        PLATE = [
          Fields::Property.choice("plate_for", "plate", %w[line rows all none], "line"),
          Fields::Property.choice("plate_width", "plate’s width", %w[text piece], "text"),
          Fields::Property.choice("plate_by", "plate coloured", %w[one turn person feed], "one"),
          Fields::Property.colour("plate_other_colour", "every other plate’s colour", "house:second"),
          *Look::PlateSettings.of("plate", "plate", {"opacity" => 72}), *Look::PlateHand.ground,
          Fields::Property.choice("plate_tail", "plate’s tail", Look::PlateSettings::TAILS, "none"),
          Fields::Property.number("line_turn", "turn of lines", 0..8, 0, unit: "°", digits: 1),
          Fields::Property.choice("line_sides", "lines stand", %w[one turn], "one")
        ].freeze
        STACK = [
          Fields::Property.choice("flow", "lines go", %w[stack ticker], "stack"),
          Fields::Property.choice("newest", "newest line", %w[bottom top left right], "bottom"),
          Fields::Property.choice("stack_align", "lines aligned", %w[start centre end], "start"),
          Fields::Property.number("gap", "gap between lines", 0..300, 22, unit: "%"),
          Fields::Property.choice("separator", "between lines of a ticker", %w[guillemets dot bar none], "guillemets"),
          Fields::Property.number("ticker_speed", "speed of the ticker", 20..800, 120, unit: "px"),
          Fields::Property.number("fade", "fading toward the oldest", 0..100, 0, unit: "%"),
          Fields::Property.number("tilt", "tilt in depth", -60..60, 0, unit: "°"),
          Fields::Property.number("tilt_sideways", "turn in depth", -60..60, 0, unit: "°"),
          Fields::Property.number("perspective_px", "distance of the eye", 200..4000, 900, unit: "px")
        ].freeze
        TIMING = [
          Fields::Property.number("at_most", "lines kept", 1..50, 9),
          Fields::Property.choice("stay_by", "lines stay", %w[time reading], "time"),
          Fields::Property.stay("stay_ms", "seconds shown", 3000..3_600_000, 14_000),
          Fields::Property.number("reading_speed", "letters read a second", 4..40, 12),
          Fields::Property.number("keep_last", "lines that always stay", 0..50, 0)
        ].freeze
        HIGHLIGHT = [
          Fields::Property.choice("highlight_form", "highlight", %w[edge plate around], "edge"),
          *HIGHLIGHTS.flat_map do |what|
            [Fields::Property.switch("highlight_#{what}", "highlight #{what}", false),
              Fields::Property.colour("highlight_#{what}_colour", "colour for #{what}", "house:accent")]
          end,
          Fields::Property.rows("role_colours", "colours by role",
            [Fields::Property.choice("role", "role", ROLES - %w[everyone], "moderator"), Fields::Property.colour("colour", "colour", "house:accent")],
            10),
          Fields::Property.rows("person_colours", "colours by person",
            [Fields::Property.text("person", "who", 60), Fields::Property.colour("colour", "colour", "house:accent")], 60)
        ].freeze
        OWN_WORK = [
          Fields::Property.text("own_css", "own CSS", OwnCode::OwnCss::LONGEST),
          Fields::Property.text("own_markup", "own markup of a line", OwnCode::OwnMarkup::LONGEST)
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
          Palette::Faces.weight(piece["text_face"], piece["text_weight"])
        end
      end
    end
  end
end
