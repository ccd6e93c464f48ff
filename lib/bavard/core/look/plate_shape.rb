# frozen_string_literal: true

require_relative "../fields/property"
require_relative "plate_settings"
require_relative "shape_outlines"

module Bavard
  module Core
    module Look
      # The outline of a plate: worked out here for whatever size the plate turns out to have on the page, where only the
      # text knows how large it is.
      #
      #   PlateShape.css(piece)   # => {"--plate-clip" => "polygon(min(0.4em, 50%) 0%, …)" …}
      #
      # An outline is a list of points. Each has two coordinates, across and down, of [part, em]: a part of the plate's
      # length from its beginning, and so many em further in from the side it lies at. Whatever lies in from a side goes to
      # the middle and no further, so that no outline crosses itself, however small the plate.
      module PlateShape
        PLAIN = "rounded"
        SHAPES = [PLAIN, *ShapeOutlines::ALL.keys].freeze
        HALF = 0.5
        # Rows of text are grounds of their own, but for captions, where each is a box.
        WHOLE = %w[text piece line each all].freeze
        # Outlines that were drawn, the one asked for last at the end; the longest have 40 KB.
        MOST_KEPT = 150
        KEPT = {} # rubocop:disable Style/MutableConstant
        LOCK = Mutex.new
        private_constant :KEPT, :LOCK

        module_function

        # @return [Array<Property>]
        def properties
          [Fields::Property.choice("plate_shape", "plate’s shape", SHAPES, PLAIN),
            Fields::Property.number("plate_shape_size", "depth of the shape", 10..300, 45, unit: "%")]
        end

        # @param piece [Hash]
        # @return [Boolean] whether its ground has an outline of its own, and is drawn
        def shaped?(piece)
          piece["plate_shape"] != PLAIN && (WHOLE.include?(piece["plate_for"]) || (piece["plate_for"] == "rows" && piece["kind"] == "captions"))
        end

        # What the outline takes of a plate at its sides, so that text stands inside it.
        #
        # @param piece [Hash]
        # @return [Array(Float, Float, Float, Float)] in em: above, at the end, below, at the start
        def room(piece)
          return [0.0, 0.0, 0.0, 0.0] unless shaped?(piece)

          depth = piece["plate_shape_size"] / 100.0
          edge = piece["plate_border"] / 100.0
          ShapeOutlines::ALL.fetch(piece["plate_shape"]).room(depth).map { |em| (em + edge).round(3) }
        end

        # @param shape [String]
        # @param depth [Float] in em
        # @param most [Array(Float, Float)] how large a plate can get, in em
        # @return [Array<Array>] points
        def points(shape, depth, most) = ShapeOutlines::ALL.fetch(shape).points(depth, most)

        # @param point [Array] of {points}
        # @param size [Array(Float, Float)] of a plate, in em
        # @return [Array(Float, Float)] where it lies, in em from the plate's upper left corner
        def at(point, size)
          point.zip(size).map do |(part, em), length|
            middle = length * HALF
            case part
            when 0 then [em, middle].min
            when 1 then [length - em, middle].max
            else ((part * length) + em).clamp(0, length)
            end
          end
        end

        # @param piece [Hash] as it is drawn
        # @return [Hash{String => String}] nothing where the plate has no outline of its own
        def css(piece)
          return {} unless shaped?(piece)

          drawn = kept(piece["plate_shape"], piece["plate_shape_size"] / 100.0, piece["plate_border"] / 100.0, most(piece))
          {"--plate-border" => "0", "--plate-round" => "0", "--plate-shadow" => "none", "--plate-drop" => drop(piece), **drawn}
        end

        # Both forms of a piece have the same outline, and what is put on was shown in the gallery before: drawn once.
        def kept(*outline)
          LOCK.synchronize { KEPT[outline] = KEPT.delete(outline) if KEPT.key?(outline) } ||
            drawn(*outline).freeze.tap do |made|
              LOCK.synchronize do
                KEPT[outline] = made
                KEPT.shift if KEPT.size > MOST_KEPT
              end
            end
        end

        def drawn(shape, depth, edge, most)
          outline = points(shape, depth, most)
          fill = edge.zero? ? outline : inward(outline, edge)
          {"--plate-clip" => polygon(fill), **(edge.zero? ? {} : ring(outline, fill))}
        end

        def most(piece) = piece.values_at("width", "height").map { |px| px.fdiv(piece["text_size_px"]) }

        # Between both outlines.
        def ring(outline, fill)
          {"--plate-ring" => polygon([*outline, outline.first, fill.first, *fill.reverse]), "--plate-ring-drawn" => '""'}
        end

        # The same outline of a plate that is smaller by an edge all around.
        def inward(outline, edge)
          outline.map do |point|
            point.map { |part, em| [part, part.is_a?(Integer) ? em + edge : em + (edge * (1 - (2 * part)))] }
          end
        end

        def polygon(points)
          "polygon(#{points.map { |point| point.map { |coordinate| written(*coordinate) }.join(" ") }.join(", ")})"
        end

        def written(part, em)
          em = em.round(3)
          share = "#{(part * 100).round(2).to_s.delete_suffix(".0")}%"
          return share if em.zero?

          case part
          when 0 then "min(#{em}em, 50%)"
          when 1 then "max(100% - #{em}em, 50%)"
          else "clamp(0%, #{share} + #{em}em, 100%)"
          end
        end

        def drop(piece)
          return "none" unless piece["plate_shadow_opacity"].positive?

          offsets = %w[x y blur].map { |name| "#{piece["plate_shadow_#{name}"] / 100.0}em" }
          # A filter's blur goes out twice as far as a box's of the same length.
          offsets[2] = "#{piece["plate_shadow_blur"] / 200.0}em"
          colour = "#{PlateSettings.rgb(piece["plate_shadow_colour"])} / #{PlateSettings.share(piece["plate_shadow_opacity"])}"
          "drop-shadow(#{offsets.join(" ")} rgb(#{colour}))"
        end

        private_class_method :kept, :drawn, :most, :ring, :inward, :polygon, :written, :drop
      end
    end
  end
end
