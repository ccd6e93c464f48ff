# frozen_string_literal: true

require_relative "../piece_kind"

module Bavard
  module Core
    module Pieces
      # A picture of the host's own, or several in turn.
      module PicturePiece
        extend PieceKind

        KEY = "picture"
        LABEL = "Picture"
        ICON = "image"
        SECONDS = (0.5..3600.0)
        MOST = 40

        CONTENT = [
          Fields::Property.rows("pictures", "pictures", [
            Fields::Property.file("file", "picture"), Fields::Property.number("seconds", "seconds", SECONDS, 8, unit: "s", digits: 1)
          ], MOST)
        ].freeze
        LOOK = [
          Fields::Property.choice("fit", "picture drawn", %w[whole filling stretched exact], "whole"),
          Fields::Property.number("round", "rounding", 0..50, 0, unit: "%"),
          Fields::Property.choice("change", "change of pictures", %w[fade cut], "fade")
        ].freeze
        OWN = (CONTENT + LOOK).freeze
      end
    end
  end
end
