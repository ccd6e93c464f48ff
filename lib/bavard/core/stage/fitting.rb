# frozen_string_literal: true

require_relative "../../error"
require_relative "../pieces/piece_kind"

module Bavard
  module Core
    module Stage
      # A piece that takes its place from a space: inside it, beside it, around it, or tucked behind it so that what is in
      # it slides out.
      module Fitting
        HOWS = %w[inside beside around tucked].freeze
        # of the stage's smaller side
        MARGIN = 0.022
        # how much of a tucked piece is out of sight
        TUCKED = 0.12
        # How lines come out to the right, and how to the left.
        OUT_TO = {true => "wade", false => "glide"}.freeze

        module_function

        # @param piece [Hash]
        # @param space [Hash] the piece it fits to
        # @return [Hash] the piece's new values
        # @raise [Bavard::Error]
        def values(piece, space, how, document)
          raise Error.new("A piece fits #{HOWS.join(", ")}.", field: "how", value: how) unless HOWS.include?(how)
          raise Error.new("A piece does not fit to itself.", field: "to", value: space["id"]) if piece["id"] == space["id"]

          margin = (document.values_at("width", "height").min * MARGIN).round
          box = send(how, piece, space, document, margin)
          box.merge("width" => [box["width"], Pieces::PieceKind::SMALLEST_PX].max, "height" => [box["height"], Pieces::PieceKind::SMALLEST_PX].max)
        end

        def inside(_piece, space, _document, _margin) = space.slice(*Pieces::PieceKind::PLACE_NAMES)

        def around(_piece, space, _document, margin)
          {"x" => space["x"] - margin, "y" => space["y"] - margin,
           "width" => space["width"] + (2 * margin), "height" => space["height"] + (2 * margin)}
        end

        # On the side where there is more room, as wide as it is if that fits.
        def beside(piece, space, document, margin)
          left = space["x"] - (2 * margin)
          right = document["width"] - space["x"] - space["width"] - (2 * margin)
          width = piece["width"].clamp(0, [left, right, 0].max)
          x = right >= left ? space["x"] + space["width"] + margin : space["x"] - margin - width
          {"x" => x, "y" => space["y"], "width" => width, "height" => space["height"]}
        end

        # Beside it, but with its edge under the camera's; lines come out from there.
        def tucked(piece, space, document, margin)
          box = beside(piece, space, document, margin)
          under = (space["width"] * TUCKED).round
          rightward = box["x"] > space["x"]
          x = rightward ? space["x"] + space["width"] - under : box["x"] + margin
          box = box.merge("x" => x, "width" => box["width"] + under, "side" => "behind")
          piece.key?("motion_in") ? box.merge("motion_in" => OUT_TO.fetch(rightward)) : box
        end

        private_class_method :inside, :around, :beside, :tucked
      end
    end
  end
end
