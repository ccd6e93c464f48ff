# frozen_string_literal: true

require_relative "../look/plate_hand"
require_relative "../look/plate_settings"
require_relative "../look/type_settings"

module Bavard
  module Core
    module Style
      # What a voices piece is drawn with, as custom properties and words for its element.
      module VoicesCss
        CHOICES = %w[names name_place name_colour faces sign sign_colour_by plate_for arranged align more].freeze
        SIDES = {"start" => "flex-start", "centre" => "center", "end" => "flex-end"}.freeze

        module_function

        # @param piece [Hash] with the show's colours and faces in place of their names
        # @return [Hash{String => String}]
        def from(piece)
          share = ->(name) { Look::PlateSettings.share(piece[name]) }
          em = ->(name) { "#{share[name]}em" }
          {**Look::TypeSettings.css("text", piece), **Look::PlateSettings.css("plate", piece), **Look::PlateHand.css(piece),
            "--line-spacing" => share["text_line_spacing"]}.merge(
              "--face-size" => piece["faces"] == "shown" ? em["face_size"] : "0em", "--face-round" => "#{piece["face_round"]}%",
              "--mark-size" => em["mark_size"], "--sign" => piece["sign_colour"], "--sign-size" => em["sign_size"],
              "--quiet" => share["quiet_opacity"], "--gap" => em["gap"], "--name-width" => em["name_width"],
              "--columns" => piece["columns"].to_s, "--align" => SIDES.fetch(piece["align"])
            )
        end

        # @return [Hash] for data attributes
        def choices(piece) = piece.slice(*CHOICES).merge(Look::PlateHand.choices(piece))
      end
    end
  end
end
