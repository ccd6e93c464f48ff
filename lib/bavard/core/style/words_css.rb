# frozen_string_literal: true

require_relative "../look/plate_hand"
require_relative "../look/plate_settings"
require_relative "../look/type_settings"

module Bavard
  module Core
    module Style
      # The settings of a piece that shows words, as custom properties and words of the air page's style sheet.
      module WordsCss
        CHOICES = %w[text_align text_upright plate_for turn too_long].freeze

        module_function

        # @param piece [Hash] as it is drawn
        # @return [Hash{String => String}]
        def from(piece)
          piece = Look::PlateHand.shaded_within(piece)
          {**Look::TypeSettings.css("text", piece), **Look::PlateSettings.css("plate", piece), **Look::PlateHand.css(piece),
            "--line-spacing" => Look::PlateSettings.share(piece["text_line_spacing"]),
            **(piece.key?("picture_size") ? {"--picture-size" => "#{Look::PlateSettings.share(piece["picture_size"])}em"} : {})}
        end

        # @return [Hash{String => String}]
        def choices(piece) = piece.slice(*CHOICES).merge(Look::PlateHand.choices(piece))
      end
    end
  end
end
