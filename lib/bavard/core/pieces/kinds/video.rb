# frozen_string_literal: true

require_relative "../piece_kind"

module Bavard
  module Core
    module Pieces
      # A film of the host's own.
      module VideoPiece
        extend PieceKind

        KEY = "video"
        LABEL = "Video"
        ICON = "film"

        CONTENT = [
          Fields::Property.file("film", "film", "film"),
          Fields::Property.switch("again", "played again and again", true),
          Fields::Property.number("loudness", "loudness", 0..100, 0, unit: "%")
        ].freeze
        LOOK = [
          Fields::Property.choice("fit", "picture drawn", %w[whole filling stretched], "whole"),
          Fields::Property.number("round", "rounding", 0..50, 0, unit: "%")
        ].freeze
        OWN = (CONTENT + LOOK).freeze
      end
    end
  end
end
