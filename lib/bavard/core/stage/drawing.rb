# frozen_string_literal: true

module Bavard
  module Core
    module Stage
      # How a stage of one size is drawn in a window of another, and what to say about it.
      #
      #   Drawing.new(1920, 1080, 640, 360).words(25)   # => "drawn at 640 × 360, so 25 px text shows at 8 px"
      class Drawing
        # Differences of this many pixels are a matter of rounding.
        SLACK_PX = 2

        # All in pixels; drawn_* is what the screen reports.
        def initialize(width_px, height_px, drawn_width_px, drawn_height_px)
          @width_px = width_px
          @height_px = height_px
          @drawn_width_px = drawn_width_px
          @drawn_height_px = drawn_height_px
        end

        # @return [Float] how much larger than set everything is drawn
        def ratio
          [@drawn_width_px.fdiv(@width_px), @drawn_height_px.fdiv(@height_px)].min
        end

        def right?
          (@drawn_width_px - @width_px).abs <= SLACK_PX && (@drawn_height_px - @height_px).abs <= SLACK_PX
        end

        # @param text_px [Integer, nil] the size of the text on this stage
        # @return [String] what is so
        def words(text_px = nil)
          return "drawn at its true size" if right?
          return "has no size: it is hidden or shrunk to nothing" if ratio <= 0

          size = "drawn at #{@drawn_width_px} × #{@drawn_height_px}"
          text_px ? "#{size}, so #{text_px} px text shows at #{(text_px * ratio).round} px" : size
        end

        # @return [String, nil] what to change
        def advice
          return if right?

          "Set width #{@width_px} and height #{@height_px} in the source’s own settings instead of pulling its corners."
        end
      end
    end
  end
end
