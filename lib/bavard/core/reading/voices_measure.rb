# frozen_string_literal: true

require_relative "../look/plate_hand"
require_relative "../palette/faces"

module Bavard
  module Core
    module Reading
      # How much room the people of a voice room need in a voices piece, by its settings and their names. Follows what
      # assets/css/voices.css does with the same settings; a test compares both.
      class VoicesMeasure
        # Around the parts of a seat, in em, as the style sheet has them.
        GAP = 0.5
        GUILLEMETS_GAP = 0.2
        BELOW_GAP = 0.25
        SIGN_ROOM = 0.1
        BELOW_RATIO = 1.7
        GUILLEMETS = ["«\u2009", "\u2009»"].freeze
        # Where nobody is there yet, names as long as these.
        LIKELY = %w[Odalys Ibrahim Sunniva Teo Wilhelmina].freeze

        # @param piece [Hash] as it is drawn
        # @param type [TypeCase]
        def initialize(piece, type)
          @piece = piece
          @type = type
          @size = piece["text_size_px"].to_f
        end

        # @param names [Array<String>] as they are written in it
        # @return [Hash] needs_px: [width, height]; has_px: the same of the piece; people; word: good, tight or cut
        def report(names)
          names = LIKELY if names.empty?
          names = names.first(@piece["at_most"])
          needs = size(names)
          has = @piece.values_at("width", "height")
          {needs_px: needs, has_px: has, people: names.size, word: word(needs, has)}
        end

        # @return [Array(Integer, Integer)] width and height, in pixels
        def size(names)
          widths = names.map { |name| seat_width(name) }
          around = 2 * (em("sign_size") + SIGN_ROOM) * @size
          wide, high = arranged(widths, em("gap") * @size)
          [(wide + around).ceil, (high + around).ceil]
        end

        # @return [Float] of one person, in pixels
        def seat_width(name)
          wide = @piece["name_place"] == "beside" ? beside(name) : [face, below(name)].max
          wide + padding(1, 3)
        end

        private

        def word((wide, high), (width, height))
          return "good" if wide <= width && high <= height

          @piece["names"] == "full" || high > height ? "cut" : "tight"
        end

        def arranged(widths, gap)
          case @piece["arranged"]
          when "level" then [widths.sum + (gap * (widths.size - 1)), seat_height]
          when "grid" then grid(widths, gap)
          when "arc" then [widths.max * [widths.size, 1].max / 1.6, seat_height * 2]
          else [widths.max, (seat_height * widths.size) + (gap * (widths.size - 1))]
          end
        end

        # Each column is as wide as its widest.
        def grid(widths, gap)
          columns = [@piece["columns"], widths.size].min
          wide = (0...columns).sum { |column| widths.each_slice(@piece["columns"]).filter_map { |row| row[column] }.max }
          rows = widths.size.fdiv(columns).ceil
          [wide + (gap * (columns - 1)), (seat_height * rows) + (gap * (rows - 1))]
        end

        def beside(name)
          named = name_width(name)
          [face, named.positive? ? (beside_gap * @size) + named : 0.0].sum
        end

        def beside_gap = @piece["sign"] == "guillemets" ? GUILLEMETS_GAP : GAP

        def below(name)
          @piece["name_place"] == "below" ? [name_width(name), face * BELOW_RATIO].min : 0.0
        end

        def name_width(name)
          return 0.0 if name.empty?

          wide = text_width(name)
          wide += GUILLEMETS.sum { |text| text_width(text) } if @piece["sign"] == "guillemets"
          @piece["names"] == "full" ? wide : [wide, em("name_width") * @size].min
        end

        def text_width(text)
          text = text.upcase if @piece["text_case"] == "upper"
          weight = Palette::Faces.weight(@piece["text_face"], @piece["text_weight"])
          width = @type.width(Palette::Faces.family(@piece["text_face"]), weight, text, @piece["text_stretch"])
          (width * @size) + (text.length * em("text_letter_spacing") * @size)
        end

        def seat_height
          row = em("text_line_spacing") * @size
          high = @piece["name_place"] == "below" ? face + (BELOW_GAP * @size) + row : [face, row].max
          high + padding(0, 2)
        end

        def face = @piece["faces"] == "shown" ? em("face_size") * @size : 0.0
        def padding(*sides) = @piece["plate_for"] == "each" ? Look::PlateHand.padding_em(@piece).values_at(*sides).sum * @size : 0.0
        def em(name) = @piece[name] / 100.0
      end
    end
  end
end
