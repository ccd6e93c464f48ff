# frozen_string_literal: true

require_relative "words"

module Bavard
  module Core
    module Pieces
      # Words that stand.
      module TextPiece
        extend WordsPiece

        KEY = "text"
        LABEL = "Text"
        ICON = "type"
        LONGEST = 2000

        CONTENT = [Fields::Property.text("words", "words", LONGEST, "Words of your own")].freeze
        LOOK = WordsPiece::LOOK
        FORMED = WordsPiece::FORMED
        OWN = (CONTENT + LOOK + WordsPiece::FORMS).freeze
      end
    end
  end
end
