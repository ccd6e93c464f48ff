# frozen_string_literal: true

require_relative "../core/stage/document"
require_relative "../core/stage/starts"

module Bavard
  module Web
    # What the Stage's inspector shows of each kind of piece: its parts, the properties of each in groups, and how their
    # values read. What may be set, and to what, is the core's.
    module StageSheet
      LETTERS = %w[face size_px size weight colour].freeze
      MORE_LETTERS = %w[case underline stretch letter_spacing].freeze
      AROUND = %w[outline_px outline_colour shadow_opacity shadow_x_px shadow_y_px shadow_blur_px shadow_colour].freeze
      GROUND = %w[colour opacity gradient to_colour to_opacity padding_x padding_y].freeze
      EDGE = %w[round_top_start round_top_end round_bottom_end round_bottom_start border border_side border_colour].freeze
      SHADOW = %w[shadow_opacity shadow_x shadow_y shadow_blur shadow_colour].freeze

      # How values read where the value itself is not the word.
      WORDS = {
        "shown" => "Shown", "none" => "None", "theirs" => "Theirs", "one" => "One", "person" => "Per person", "line" => "Per line",
        "feed" => "Per feed", "role" => "Per role", "typed" => "As typed", "upper" => "UPPER", "lower" => "lower", "login" => "As they sign in",
        "spoken" => "As it is said", "minutes" => "07:24", "seconds" => "07:24:05", "age" => "3 min", "rows" => "Each row", "all" => "One for all",
        "turn" => "In turn", "stack" => "Standing", "ticker" => "Running by", "time" => "A set time", "reading" => "To be read", "full" => "Full",
        "ring" => "Ring", "said" => "Lines", "action" => "Actions", "reply" => "Replies", "paid" => "Paid lines", "follow" => "Follows",
        "subscription" => "Subscriptions", "renewal" => "Renewals", "gift" => "Gifts", "tip" => "Tips", "purchase" => "Purchases",
        "visit" => "Visits", "own" => "The host’s own", "everyone" => "Everyone", "text" => "The text", "piece" => "The piece"
      }.freeze
      # The same value may read otherwise for one property.
      OWN_WORDS = {
        "name_form" => {"shown" => "As it is shown"},
        "plate_for" => {"line" => "Each line"},
        "name_plate_by" => {"one" => "One colour", "theirs" => "The name’s"}, "plate_by" => {"one" => "One colour"},
        "name_colour" => {"one" => "One"}, "line_sides" => {"one" => "One side"},
        "clock" => {"time" => "Time of day", "until" => "Until a time", "length" => "For a length", "stopwatch" => "Stopwatch"},
        "newest" => {"bottom" => "Bottom", "top" => "Top", "left" => "Left", "right" => "Right"},
        "shown" => {"talking" => "Only who talks", "lately" => "Who talked lately", "last" => "The last to talk"},
        "order" => {"fixed" => "As they came", "name" => "By name", "talked" => "Who talked last"},
        "names" => {"none" => "Not shown", "full" => "In full", "cut" => "Cut where long", "first" => "First word", "own" => "Your short one"},
        "name_place" => {"line" => "In line", "over" => "Over the face"},
        "arranged" => {"upright" => "One below another", "level" => "Side by side", "grid" => "Grid", "arc" => "On an arc"},
        "sign" => {"dimming" => "Others grow dim", "none" => "None"}, "sign_colour_by" => {"person" => "Each their own", "one" => "One colour"},
        "since" => {"broadcast" => "The broadcast", "day" => "The day", "month" => "The month", "ever" => "All time"},
        "drawn" => {"words" => "Words alone"}, "figures" => {"both" => "6 of 60", "percent" => "10 %"},
        "ways" => {"fall" => "Falling", "rise" => "Rising", "drift" => "Drifting across", "rebound" => "Off the edges", "swing" => "Swinging in",
                   "circle" => "Circling", "pile" => "Piling up", "burst" => "Out of a point", "fountain" => "Up and outwards"},
        "sized" => {"equal" => "Equally high", "own" => "As their pictures are"},
        "code" => {"none" => "None", "room" => "The room’s link", "own" => "Your own link"},
        **%w[marks badges avatars emotes times faces more their_message title picture count].to_h { |part| [part, {"none" => "Not shown"}] }
      }.freeze

      # What is of no use until something else is set: ending of a name => ending of what decides on it, and to what it must
      # be set (:some: more than nothing).
      # Where the choices of a text come from: the show's voice rooms, its cast.
      FROM = {"room" => "rooms", "person" => "cast", "shelves" => "shelves"}.freeze

      NEEDS = {
        "_to_colour" => ["_gradient", %w[across down slanted]], "_to_opacity" => ["_gradient", %w[across down slanted]],
        "_outline_colour" => ["_outline_px", :some], "_shadow_x_px" => ["_shadow_opacity", :some], "_shadow_y_px" => ["_shadow_opacity", :some],
        "_shadow_blur_px" => ["_shadow_opacity", :some], "_shadow_colour" => ["_shadow_opacity", :some], "_shadow_x" => ["_shadow_opacity", :some],
        "_shadow_y" => ["_shadow_opacity", :some], "_shadow_blur" => ["_shadow_opacity", :some], "_border_colour" => ["_border", :some],
        "_border_side" => ["_border", :some], "one_name_colour" => ["name_colour", %w[one role]], "name_column" => ["name_place", %w[column]],
        "plate_rule_colour" => ["plate_ruled", [true]], "ticker_speed" => ["flow", %w[ticker]], "separator" => ["flow", %w[ticker]],
        "reading_speed" => ["stay_by", %w[reading]], "stay_ms" => ["stay_by", %w[time]], "avatar_size" => ["avatars", %w[shown]],
        "avatar_round" => ["avatars", %w[shown]], "time_form" => ["times", %w[shown]], "badge_size" => ["badges", %w[shown]],
        "mark_form" => ["marks", %w[shown]], "mark_size" => ["marks", %w[shown]], "line_sides" => ["flow", %w[stack]],
        "file_name" => ["source", %w[file]], "until" => ["clock", %w[until]], "minutes" => ["clock", %w[length]],
        "lately_s" => ["shown", %w[lately]], "columns" => ["arranged", %w[grid]], "arc_degrees" => ["arranged", %w[arc]],
        "sign_colour" => ["sign_colour_by", %w[one]], "sign_size" => ["sign", %w[guillemets ring lift glow bar]], "face_size" => ["faces", %w[shown]],
        "face_round" => ["faces", %w[shown]], "name_width" => ["names", %w[cut first own]], "link" => ["code", %w[own]],
        "swap_ms" => ["swap", %w[fade]], "unit" => ["counted", %w[worth]], "clock_form" => ["clock", %w[time]], "after" => ["clock", %w[until length]]
      }.freeze

      module_function

      # @return [Hash] by kind: label, icon, fields by name, parts
      def kinds
        @kinds ||= Core::Stage::Pieces::KINDS.transform_values do |kind|
          {label: kind::LABEL, icon: kind::ICON, fields: kind.properties.transform_values { |property| field(property) }, parts: parts(kind)}
        end
      end

      # @return [Array<Hash>] key, label and groups of each part, in the order of the specimen
      def parts(kind)
        parts = {"chat" => chat_parts, "voices" => voices_parts}[kind::KEY] || others(kind)
        parts.map do |key, label, *groups|
          {key:, label:, groups: groups.map { |title, names| {title:, names: names & kind.properties.keys} }}
        end
      end

      def chat_parts
        [
          ["avatar", "Avatar", [nil, %w[avatars avatar_size avatar_round]]],
          ["time", "Time", [nil, ["times", "time_form", *of("time", LETTERS)]], *more_type("time"), *own_plate("time")],
          ["badges", "Badges", [nil, %w[badges badge_size marks mark_form mark_size]]],
          ["name", "Name", [nil, ["names", "name_colour", "one_name_colour", "name_place", "name_column", *of("name", LETTERS), "name_form"]],
            *more_type("name"), *own_plate("name", %w[name_plate_by])],
          ["text", "Text", [nil, [*of("text", LETTERS), "text_line_spacing", "text_align"]], *more_type("text"), *own_plate("text")],
          ["emotes", "Emotes", [nil, %w[emotes emote_size emotes_alone emote_motion]]],
          ["plate", "Plate", [nil, ["plate_for", "plate_width", "plate_by", *of("plate", GROUND)]], *more_plate,
            ["Tail, rules, turn", %w[plate_tail line_sides line_turn plate_ruled plate_rule_colour]]],
          ["stack", "Stack", [nil, %w[flow newest stack_align gap at_most stay_by stay_ms reading_speed keep_last]],
            ["Running by", %w[ticker_speed separator]], ["Fading and depth", %w[fade tilt tilt_sideways perspective_px]]],
          ["motion", "Motion", [nil, Core::Look::Motion.properties.map(&:name)]],
          ["highlight", "Stands out", [nil, ["highlight_form", *highlights]], ["Colours by role", %w[role_colours]],
            ["Colours by person", %w[person_colours]]],
          ["intake", "Takes in", [nil, %w[kinds feeds roles]]],
          ["own", "Own CSS", [nil, %w[own_css own_markup]]]
        ]
      end

      def voices_parts
        [
          ["content", "Who", [nil, Core::Stage::VoicesPiece::CONTENT.map(&:name)]],
          ["face", "Face", [nil, %w[faces face_size face_round marks mark_size]]],
          ["name", "Name", [nil, ["names", "name_place", "name_width", "name_colour", *of("text", LETTERS), "text_line_spacing"]],
            *more_type("text")],
          ["sign", "Talking", [nil, %w[sign sign_colour_by sign_colour sign_size quiet_opacity]]],
          ["plate", "Plate", [nil, ["plate_for", *of("plate", GROUND)]], *more_plate],
          ["arranged", "Places", [nil, %w[arranged align columns arc_degrees gap]]],
          ["motion", "Motion", [nil, Core::Look::Motion.properties.map(&:name)]]
        ]
      end

      def others(kind)
        content = kind.const_defined?(:CONTENT) ? kind::CONTENT.map(&:name) : kind::OWN.map(&:name)
        look = kind::LOOK.map(&:name)
        parts = [["content", "What it shows", [nil, content + (look & %w[fit round change])]]]
        parts << ["figures", "Figures", [nil, look]] if kind::KEY == "portraits"
        parts.concat(flurry_parts) if kind::KEY == "flurry"
        return parts unless kind.properties.key?("text_size_px")

        parts << ["text", "Text", [nil, [*of("text", LETTERS), "text_align", "text_upright", "text_line_spacing", *(look & %w[picture_size])]],
          *more_type("text")]
        parts.concat(alert_parts) if kind::KEY == "alerts"
        parts << ["drawn", "Drawing", [nil, kind::DRAWN.map(&:name)]] if kind::KEY == "goal"
        parts << ["plate", "Plate", [nil, ["plate_for", *of("plate", GROUND)]], *more_plate]
      end

      def flurry_parts
        [["flight", "Flight", [nil, Core::Stage::FlurryPiece::FLIGHT.map(&:name)]], ["ceilings", "Ceilings", [nil, Core::Stage::FlurryPiece::CEILINGS.map(&:name)]]]
      end

      def alert_parts
        parts = %w[name amount message].map { |part| [part, part.capitalize, [nil, of(part, LETTERS)], *more_type(part)] }
        parts << ["motion", "Motion", [nil, Core::Look::Motion.properties.map(&:name)]]
      end

      def more_type(part) = [["Letters", of(part, MORE_LETTERS)], ["Around them", of(part, AROUND)]]

      def own_plate(part, first = [])
        plate = "#{part}_plate"
        [["Its own plate", first + of(plate, GROUND)], ["Edge of its plate", of(plate, EDGE)],
          ["Shadow of its plate", of(plate, SHADOW)]]
      end

      def more_plate = [["Corners and edge", of("plate", EDGE)], ["Shadow", of("plate", SHADOW)]]

      def field(property)
        field = property.field.merge(needs: needs(property.name), from: FROM[property.name]).compact
        return field unless field[:choices]

        field.merge(choices: field[:choices].map { |choice| [choice, words(property.name, choice)] })
      end

      def needs(name)
        ending = NEEDS.keys.select { |key| name.end_with?(key) }.max_by(&:length)
        return highlight_needs(name) unless ending
        return if !ending.start_with?("_") && name != ending

        other, values = NEEDS[ending]
        [other.start_with?("_") ? name.delete_suffix(ending) + other : other, values]
      end

      def highlight_needs(name)
        [name.delete_suffix("_colour"), [true]] if name.match?(/\Ahighlight_\w+_colour\z/)
      end

      def words(name, choice)
        OWN_WORDS.dig(name, choice) || WORDS[choice] || choice.then { |word| word[0].upcase + word[1..] }
      end

      def highlights = Core::Stage::ChatPiece::HIGHLIGHTS.flat_map { |what| ["highlight_#{what}", "highlight_#{what}_colour"] }
      def of(part, names) = names.map { |name| "#{part}_#{name}" }

      private_class_method :parts, :chat_parts, :voices_parts, :alert_parts, :flurry_parts, :others,
        :more_type, :more_plate, :own_plate, :field, :needs,
        :highlight_needs, :words, :highlights, :of
    end
  end
end
