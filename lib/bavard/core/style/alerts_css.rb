# frozen_string_literal: true

require_relative "../pieces/kinds/alerts"
require_relative "part_plates"
require_relative "words_css"

module Bavard
  module Core
    module Style
      # What alerts are drawn with: words like any others, and the parts of them that are set apart.
      module AlertsCss
        PARTS = %w[name amount message].freeze

        module_function

        # @param piece [Hash] with the show's colours and faces in place of their names
        # @return [Hash{String => String}]
        def from(piece)
          css = WordsCss.from(piece).merge(PartPlates.css(Pieces::AlertsPiece::PLATED, piece))
          PARTS.reduce(css) { |made, part| made.merge(Look::TypeSettings.css(part, piece)) }
        end

        # @return [Hash] for data attributes
        def choices(piece) = WordsCss.choices(piece).merge(piece.slice("their_message"))
      end
    end
  end
end
