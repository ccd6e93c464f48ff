# frozen_string_literal: true

require_relative "../piece_kind"

module Bavard
  module Core
    module Pieces
      # Room that is kept for the camera or the game: draws nothing, and others fit to it.
      module SpacePiece
        extend PieceKind

        KEY = "space"
        LABEL = "Space"
        ICON = "camera"

        LOOK = [].freeze
        OWN = [Fields::Property.choice("kept_for", "kept for", %w[camera game something], "camera")].freeze
      end
    end
  end
end
