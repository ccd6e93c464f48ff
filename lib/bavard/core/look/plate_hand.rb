# frozen_string_literal: true

require_relative "../fields/property"
require_relative "plate_pattern"
require_relative "plate_settings"
require_relative "plate_shape"

module Bavard
  module Core
    module Look
      # What makes the ground of a whole piece look made by hand, beside its colour, corners, edge and shadow: its outline,
      # what is printed on it, how it hangs and by what, and a frame of the host's own around it.
      #
      #   PlateHand.css(piece)   # => {"--plate-turn" => "1.5deg", "--plate-clip" => "polygon(…)" …}
      module PlateHand
        # What it takes above the plate, in em.
        HELD_ROOM = {"tape" => 0.4, "string" => 1.0, "pin" => 0.35}.freeze
        HELD_BY = ["nothing", *HELD_ROOM.keys].freeze
        # Beyond that, a blur is hardly seen.
        SEEN_OF_BLUR = 0.5
        # Of the piece's side, however far something reaches: words come first.
        MOST_INSET = 0.12
        TURN = (-12..12)

        module_function

        # @return [Array<Property>] that every ground of a piece has
        def ground
          [*PlateShape.properties, *PlatePattern.of("plate", "plate"),
            Fields::Property.file("plate_frame", "own frame (a picture in nine parts)"),
            Fields::Property.number("plate_frame_part", "part of the picture that is frame", 1..49, 30, unit: "%"),
            Fields::Property.number("plate_frame_width", "width of the frame", 10..400, 60, unit: "%")]
        end

        # @return [Array<Property>] of a piece that hangs as a whole
        def hung
          [turn, Fields::Property.choice("plate_held_by", "held by", HELD_BY, "nothing"),
            Fields::Property.colour("plate_held_colour", "colour of what holds it", "house:accent")]
        end

        # @return [Property]
        def turn = Fields::Property.number("plate_turn", "turn of the plate", TURN, 0, unit: "°", digits: 1)

        # @param piece [Hash] as it is drawn
        # @return [Hash{String => String}]
        def css(piece)
          {**PlatePattern.css("plate", piece), **PlateShape.css(piece), **frame(piece), **hanging(piece), **padding(piece)}
        end

        # @param piece [Hash]
        # @return [Hash] for data attributes
        def choices(piece)
          {"plate_drawn" => PlateShape.shaped?(piece) ? "shaped" : "boxed"}.merge(piece.slice("plate_held_by"))
        end

        # How far text stands from the plate's edge.
        #
        # @param piece [Hash]
        # @return [Array(Float, Float, Float, Float)] in em: above, at the end, below, at the start
        def padding_em(piece)
          down, across = piece.values_at("plate_padding_y", "plate_padding_x").map { |percent| percent / 100.0 }
          PlateShape.room(piece).zip([down, across, down, across]).map { |room, padding| (room + padding).round(3) }
        end

        # A shape needs more than is set.
        def padding(piece)
          return {} unless PlateShape.shaped?(piece)

          {"--plate-padding" => padding_em(piece).map { |em| "#{em.to_s.delete_suffix(".0")}em" }.join(" ")}
        end

        def hanging(piece)
          return {} unless piece.key?("plate_turn")

          held = held(piece)
          {**(piece["plate_turn"].zero? ? {} : {"--plate-turn" => "#{piece["plate_turn"]}deg"}),
           **(held ? {"--plate-held" => piece["plate_held_colour"]} : {}), **inset(piece, held)}
        end

        def held(piece)
          piece["plate_held_by"] if HELD_ROOM.key?(piece["plate_held_by"]) && !%w[none rows].include?(piece["plate_for"])
        end

        # A shadow that the piece has no room for would be cut off at its edges: it is as much smaller as it takes.
        #
        # @param piece [Hash] as it is drawn
        # @return [Hash]
        def shaded_within(piece)
          most = piece.values_at("height", "width", "height", "width").map { |px| px * MOST_INSET }
          share = shaded(piece).zip(most).filter_map { |reach, room| room / reach if reach > room }.min or return piece

          piece.merge(%w[x y blur].to_h { |name| ["plate_shadow_#{name}", (piece["plate_shadow_#{name}"] * share).round(1)] })
        end

        # So that no corner of what is turned, no shadow and nothing that holds it is cut off at the piece's edge.
        def inset(piece, held)
          down, across = turned(piece)
          up, right, low, left = shaded(piece)
          above = held ? HELD_ROOM.fetch(held) * piece["text_size_px"] : 0
          most = piece.values_at("height", "width").map { |px| px * MOST_INSET }.cycle
          sides = [[down + up, above].max, across + right, down + low, across + left].map { |px| px.clamp(0, most.next).ceil }
          sides.all?(&:zero?) ? {} : {"--plate-inset" => sides.map { |px| "#{px}px" }.join(" ")}
        end

        # How far the shadow reaches, in pixels: above, at the end, below, at the start.
        def shaded(piece)
          return [0, 0, 0, 0] if piece["plate_shadow_opacity"].zero?

          soft, right, low = %w[blur x y].map { |name| piece["plate_shadow_#{name}"] * piece["text_size_px"] / 100.0 }
          soft *= SEEN_OF_BLUR
          [soft - low, soft + right, soft + low, soft - right]
        end

        # By so much its corners reach further, above and below, and at the sides.
        def turned(piece)
          sine = Math.sin(piece["plate_turn"].abs * Math::PI / 180)
          piece.values_at("width", "height").map { |px| px * sine / 2 }
        end

        # In the place of the edge.
        def frame(piece)
          return {} unless piece["plate_frame"]

          part = "#{piece["plate_frame_part"]}%"
          width = "#{PlateSettings.share(piece["plate_frame_width"])}em"
          {"--plate-frame" => "url(/pictures/#{piece["plate_frame"]}-4.webp) #{part} fill / #{width} / 0 round"}
        end

        private_class_method :padding, :hanging, :held, :inset, :shaded, :turned, :frame
      end
    end
  end
end
