# frozen_string_literal: true

require_relative "../look/plate_hand"
require_relative "../palette/faces"
require_relative "rows"

module Bavard
  module Core
    module Reading
      # How high a line of chat stands in a piece, by its settings and the widths of its words. Follows what assets/css/
      # lines.css does with the same settings; a test compares both in every shipped face.
      class ChatMeasure
        # Around the parts of a line, in em, as the style sheet has them.
        MARK_MARGIN = 0.34
        BADGE_MARGIN = 0.22
        AVATAR_MARGIN = 0.3
        TIME_MARGIN = 0.45
        NAME_MARGIN = 0.3
        TAIL = 0.5
        COLUMN_GAP = 0.6
        ROOM = 0.5
        # As wide as times are.
        TIME_WORDS = {"minutes" => "00:00", "seconds" => "00:00:00", "age" => "10 min"}.freeze

        # @param piece [Hash] a chat piece as it is drawn
        # @param type [TypeCase]
        def initialize(piece, type)
          @piece = piece
          @type = type
          @size = piece["text_size_px"].to_f
        end

        # @return [Float] in pixels, with its share of the gap
        def height(line, name: line.person.display_name)
          rows = text_rows(line, name)
          (rows * row_px) + head_px + frame_px + (em("gap") * @size)
        end

        # @return [Float] of a text or name, in pixels
        def width(part, text)
          size = part_px(part)
          text = cased(part, text)
          spacing = text.length * em("#{part}_letter_spacing") * size
          (@type.width(family(part), weight(part), text, @piece["#{part}_stretch"]) * size) + spacing
        end

        # @return [Float] room for text beside what is around it, in pixels
        def row_width
          inner = @piece["width"] - (2 * room_px) - padding(1, 3) - edge("start", "end")
          @piece["name_place"] == "column" ? inner - ([em("name_column") * @size, inner / 2].min + (COLUMN_GAP * @size)) : inner
        end

        private

        def text_rows(line, name)
          first = @piece["name_place"] == "line" ? before_text(line, name) : 0.0
          Rows.new(row_width) { |text| width("text", text) }.count(line.text, first:)
        end

        def row_px = @size * em("text_line_spacing")

        # Above the text, names take a row of their own.
        def head_px
          @piece["name_place"] == "above" && @piece["names"] == "shown" ? [part_px("name"), @size].max * em("text_line_spacing") : 0.0
        end

        def frame_px
          around = @piece["plate_for"] == "line" ? padding(0, 2) + edge("top", "bottom") : 0.0
          around + (@piece["plate_tail"] == "none" ? 0.0 : TAIL * @size)
        end

        # Whatever stands before the text in its first row.
        def before_text(line, name)
          before = @piece["parts"].take_while { |part| part != "text" }
          before.sum { |part| part_width(part, line, name) }
        end

        def part_width(part, line, name)
          case part
          when "mark" then shown("marks") * (em("mark_size") + MARK_MARGIN) * @size
          when "avatar" then shown("avatars") * (em("avatar_size") + AVATAR_MARGIN) * @size
          when "badges" then shown("badges") * line.person.badges.size * (em("badge_size") + BADGE_MARGIN) * @size
          when "time" then shown("times") * time_width
          else shown("names") * (width("name", name) + name_around)
          end
        end

        def time_width = width("time", TIME_WORDS.fetch(@piece["time_form"])) + ((TIME_MARGIN + plated("time")) * part_px("time"))
        def name_around = (NAME_MARGIN + plated("name")) * part_px("name")

        # What a part's own plate adds at its sides, in em of the part.
        def plated(part) = @piece["#{part}_plate_opacity"].positive? ? 2 * em("#{part}_plate_padding_x") : 0

        def shown(which) = @piece[which] == "shown" ? 1 : 0
        def em(name) = @piece[name] / 100.0

        # Of the text's distance from its plate's edge, as much as is at these sides: above, at the end, below, at the start.
        def padding(*sides)
          %w[line rows].include?(@piece["plate_for"]) ? Look::PlateHand.padding_em(@piece).values_at(*sides).sum * @size : 0.0
        end

        def room_px
          each = %w[line rows].include?(@piece["plate_for"])
          each && (@piece["line_turn"].positive? || @piece["plate_shadow_opacity"].positive?) ? ROOM * @size : 0.0
        end

        # Of the plate's border, as much as is at these sides.
        def edge(*sides)
          return 0.0 if @piece["plate_for"] != "line" || Look::PlateShape.shaped?(@piece)

          width = em("plate_border") * @size
          return 2 * width if @piece["plate_border_side"] == "around"

          sides.include?(@piece["plate_border_side"]) ? width : 0.0
        end

        def part_px(part) = part == "text" ? @size : @size * em("#{part}_size")

        def family(part)
          face = @piece["#{part}_face"].empty? ? @piece["text_face"] : @piece["#{part}_face"]
          Palette::Faces.family(face)
        end

        def weight(part)
          face = @piece["#{part}_face"].empty? ? @piece["text_face"] : @piece["#{part}_face"]
          Palette::Faces.weight(face, @piece["#{part}_weight"])
        end

        def cased(part, text)
          case @piece["#{part}_case"]
          when "upper" then text.upcase
          when "lower" then text.downcase
          else text
          end
        end
      end
    end
  end
end
