# frozen_string_literal: true

require_relative "../../../core/stage/document"
require_relative "../../../core/stage/starts"
require_relative "../all/field_words"
require_relative "stage_words"

module Bavard
  module Web
    # What the Stage's inspector shows of each kind of piece: its parts, the properties of each in groups, and how their
    # values read. What may be set, and to what, is the core's.
    module StageSheet
      LETTERS = %w[face size_px size weight colour].freeze
      MORE_LETTERS = %w[case underline underline_form underline_colour stretch letter_spacing].freeze
      AROUND = %w[outline_px outline_colour shadow_opacity shadow_x_px shadow_y_px shadow_blur_px shadow_colour].freeze
      GROUND = %w[colour opacity gradient to_colour to_opacity padding_x padding_y].freeze
      EDGE = %w[round_top_start round_top_end round_bottom_end round_bottom_start border border_side border_colour].freeze
      OUTLINE = %w[shape shape_size pattern pattern_colour pattern_opacity pattern_size].freeze
      FRAME = %w[frame frame_part frame_width].freeze
      HUNG = %w[turn held_by held_colour].freeze
      SHADOW = %w[shadow_opacity shadow_x shadow_y shadow_blur shadow_colour].freeze

      module_function

      # @return [Hash] by kind: label, icon, fields by name, parts
      def kinds
        @kinds ||= Core::Pieces::KINDS.transform_values do |kind|
          {label: kind::LABEL, icon: kind::ICON, fields: kind.properties.transform_values { |property| field(property, kind) }, parts: parts(kind)}
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
          ["plate", "Plate", [nil, ["plate_for", "plate_width", "plate_by", "plate_other_colour", *of("plate", GROUND)]], *more_plate,
            ["Tail, sides, turn", %w[plate_tail line_sides line_turn]]],
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
          ["content", "Who", [nil, Core::Pieces::VoicesPiece::CONTENT.map(&:name)]],
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
        parts = [["content", "What it shows", [nil, content + (look & %w[fit round change chime])]]]
        parts << ["figures", "Figures", [nil, look]] if kind::KEY == "portraits"
        parts.concat(flurry_parts) if kind::KEY == "flurry"
        return parts unless kind.properties.key?("text_size_px")

        parts.concat(words_parts(kind, look))
      end

      # Of pieces that are words, their type and plate and what is special about them.
      def words_parts(kind, look)
        parts = [["text", "Text", [nil, [*of("text", LETTERS), "text_align", "text_upright", "text_line_spacing", *(look & %w[picture_size])]],
          *more_type("text")]]
        parts.concat(alert_parts) if kind::KEY == "alerts"
        parts << ["drawn", "Drawing", [nil, kind::DRAWN.map(&:name)]] if kind.const_defined?(:DRAWN)
        parts << name_part if %w[newest shout_out].include?(kind::KEY)
        parts << motion_part if %w[shout_out captions].include?(kind::KEY)
        parts << ["plate", "Plate", [nil, ["plate_for", *of("plate", GROUND)]], *more_plate]
      end

      def flurry_parts
        [["flight", "Flight", [nil, Core::Pieces::FlurryPiece::FLIGHT.map(&:name)]], ["ceilings", "Ceilings", [nil, Core::Pieces::FlurryPiece::CEILINGS.map(&:name)]]]
      end

      def alert_parts
        parts = %w[name amount message].map { |part| [part, part.capitalize, [nil, of(part, LETTERS)], *more_type(part), *own_plate(part)] }
        parts << motion_part
      end

      def name_part = ["name", "Name", [nil, of("name", LETTERS)], *more_type("name"), *own_plate("name")]
      def motion_part = ["motion", "Motion", [nil, Core::Look::Motion.properties.map(&:name)]]
      def more_type(part) = [["Letters", of(part, MORE_LETTERS)], ["Around them", of(part, AROUND)]]

      def own_plate(part, first = [])
        plate = "#{part}_plate"
        [["Its own plate", first + of(plate, GROUND)], ["Edge of its plate", of(plate, EDGE)],
          ["Shadow of its plate", of(plate, SHADOW)]]
      end

      def more_plate
        [["Shape and pattern", of("plate", OUTLINE)], ["Corners and edge", of("plate", EDGE)], ["Shadow", of("plate", SHADOW)],
          ["How it hangs", of("plate", HUNG)], ["A frame of your own", of("plate", FRAME)]]
      end

      # What depends on something that this kind has not is of use always.
      def field(property, kind)
        needs = needs(property.name)
        needs = nil unless needs && kind.properties.key?(needs.first)
        field = FieldWords.of(property) { |choice| StageWords::OWN.dig(property.name, choice) || StageWords::WORDS[choice] }
        field.merge(needs:, from: StageWords::FROM[property.name]).compact
      end

      def needs(name)
        ending = StageWords::NEEDS.keys.select { |key| name.end_with?(key) }.max_by(&:length)
        return highlight_needs(name) unless ending
        return if !ending.start_with?("_") && name != ending

        other, values = StageWords::NEEDS[ending]
        [other.start_with?("_") ? name.delete_suffix(ending) + other : other, values]
      end

      def highlight_needs(name)
        [name.delete_suffix("_colour"), [true]] if name.match?(/\Ahighlight_\w+_colour\z/)
      end

      def highlights = Core::Pieces::ChatPiece::HIGHLIGHTS.flat_map { |what| ["highlight_#{what}", "highlight_#{what}_colour"] }
      def of(part, names) = names.map { |name| "#{part}_#{name}" }

      private_class_method :parts, :chat_parts, :voices_parts, :alert_parts, :flurry_parts, :words_parts, :name_part, :motion_part, :others,
        :more_type, :more_plate, :own_plate, :field, :needs,
        :highlight_needs, :highlights, :of
    end
  end
end
