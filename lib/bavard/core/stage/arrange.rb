# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Core
    module Stage
      # Several pieces brought into line, or spread evenly. One alone is brought into line with the stage.
      module Arrange
        # how => axis, and which part of the extent lines up: 0 its beginning, 0.5 its middle, 1 its end
        ALIGNED = {
          "left" => ["x", "width", 0], "centre" => ["x", "width", 0.5], "right" => ["x", "width", 1],
          "top" => ["y", "height", 0], "middle" => ["y", "height", 0.5], "bottom" => ["y", "height", 1]
        }.freeze
        SPREAD = {"across" => %w[x width], "down" => %w[y height]}.freeze

        module_function

        # @param pieces [Array<Hash>]
        # @param document [Hash]
        # @return [Hash{String => Hash}] new values by piece
        # @raise [Bavard::Error] where that is no way to arrange
        def boxes(pieces, how, document)
          pieces = pieces.reject { |piece| piece["locked"] }
          return aligned(pieces, document, *ALIGNED[how]) if ALIGNED.key?(how)
          return spread(pieces, *SPREAD[how]) if SPREAD.key?(how)

          raise Error.new("Pieces are arranged #{(ALIGNED.keys + SPREAD.keys).join(", ")}.", field: "how", value: how)
        end

        def aligned(pieces, document, from, extent, part)
          low, high = pieces.size == 1 ? [0, document[extent]] : edges(pieces, from, extent)
          pieces.to_h do |piece|
            [piece["id"], {from => (low + ((high - low - piece[extent]) * part)).round}]
          end
        end

        # Equal gaps between the first and the last.
        def spread(pieces, from, extent)
          return {} if pieces.size < 3

          sorted = pieces.sort_by { |piece| piece[from] + (piece[extent] / 2.0) }
          low, high = edges(pieces, from, extent)
          gap = (high - low - sorted.sum { |piece| piece[extent] }) / (sorted.size - 1).to_f
          at = low
          sorted.to_h do |piece|
            placed = [piece["id"], {from => at.round}]
            at += piece[extent] + gap
            placed
          end
        end

        def edges(pieces, from, extent)
          [pieces.map { |piece| piece[from] }.min, pieces.map { |piece| piece[from] + piece[extent] }.max]
        end

        private_class_method :aligned, :spread, :edges
      end
    end
  end
end
