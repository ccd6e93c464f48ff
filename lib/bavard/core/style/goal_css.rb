# frozen_string_literal: true

require_relative "../look/plate_pattern"
require_relative "../look/plate_settings"
require_relative "words_css"

module Bavard
  module Core
    module Style
      # What goals are drawn with.
      module GoalCss
        # Of what is left, so much is seen.
        REST = "38%"

        module_function

        # @param piece [Hash] with the show's colours and faces in place of their names
        # @return [Hash{String => String}]
        def from(piece)
          WordsCss.from(piece).merge("--done" => piece["goal_colour"], "--rest" => "rgb(#{Look::PlateSettings.rgb(piece["rest_colour"])} / #{REST})",
            "--thick" => Look::PlateSettings.share(piece["thick"]), "--face-size" => "#{Look::PlateSettings.share(piece["face_size"])}em",
            **Look::PlatePattern.css("goal", piece), **shape(piece))
        end

        # A picture of the host's own: what of it is opaque is the shape.
        def shape(piece)
          return {} unless piece["goal_shape"]

          {"--goal-shape" => "url(/pictures/#{piece["goal_shape"]}-4.webp)", "--shape-size" => "#{Look::PlateSettings.share(piece["goal_shape_size"])}em"}
        end

        # @return [Hash] for data attributes
        def choices(piece) = WordsCss.choices(piece).merge(piece.slice("drawn", "step_form", "goal_fills", "face_place"))

        private_class_method :shape
      end
    end
  end
end
