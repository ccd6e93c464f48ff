# frozen_string_literal: true

require_relative "../../error"
require_relative "../pieces/pieces"

module Bavard
  module Core
    module Stage
      # What becomes of the pieces when their stage takes another size.
      module Resizing
        HOWS = %w[scale keep].freeze

        module_function

        # @param size [Hash] width and height, those that change
        # @param how [String] "scale": everything grows with it; "keep": everything keeps its size and its distance to the
        #   edges it is nearest to
        # @return [Array<Hash>] edits
        # @raise [Bavard::Error]
        def edits(document, size, how)
          raise Error.new("What is on the stage can scale or keep its size.", field: "how", value: how) unless HOWS.include?(how)

          after = document.slice("width", "height").merge(size)
          document["pieces"].map do |piece|
            values = how == "scale" ? scaled(piece, document, after) : kept(piece, document, after)
            {"do" => "set", "piece" => piece["id"], "values" => values}
          end
        end

        def scaled(piece, before, after)
          across = after["width"].fdiv(before["width"])
          down = after["height"].fdiv(before["height"])
          place = {"x" => piece["x"] * across, "width" => piece["width"] * across, "y" => piece["y"] * down, "height" => piece["height"] * down}
          lengths = piece.keys.grep(/_px\z/).to_h { |name| [name, piece[name] * [across, down].min] }
          within(piece, place.merge(lengths))
        end

        def kept(piece, before, after)
          within(piece, %w[x y].zip(%w[width height]).to_h do |from, extent|
            [from, anchored(piece[from], piece[extent], before[extent], after[extent])]
          end)
        end

        # Nearest to the beginning, to the end, or in the middle.
        def anchored(from, extent, before, after)
          behind = before - from - extent
          return from if from <= behind / 2.0
          return after - behind - extent if behind <= from / 2.0

          from + ((after - before) / 2.0)
        end

        # Never beyond what a property can be.
        def within(piece, values)
          properties = Pieces.kind(piece["kind"]).properties
          values.to_h do |name, value|
            bounds = properties.fetch(name).field
            [name, value.clamp(bounds[:min], bounds[:max]).round(bounds[:digits])]
          end
        end

        private_class_method :scaled, :kept, :anchored, :within
      end
    end
  end
end
