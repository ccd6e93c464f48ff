# frozen_string_literal: true

module Bavard
  module Pictures
    # How much one picture may be.
    module Bounds
      LARGEST_BYTES = 8 * 1024 * 1024
      LARGEST_BYTES_FOR = {"emote" => LARGEST_BYTES, "stage" => 48 * 1024 * 1024, "figure" => 48 * 1024 * 1024, "grid" => LARGEST_BYTES}.freeze
      # How long one may take, in seconds of a processor.
      WITHIN_S = {"emote" => 12, "stage" => 12, "figure" => 12, "grid" => 12}.freeze
      LONGEST_SIDE_PX = 4096
      MOST_FRAMES = 300
      # Of all frames together: of what a host brings, and of what comes from anywhere.
      MOST_PIXELS = {"stage" => 300_000_000, "figure" => 300_000_000}.freeze
      MOST_PIXELS_OTHERWISE = 120_000_000
      # What a host brings may take so much longer for each million pixels of all its frames (0.22 s here, measured).
      MORE_WITHIN_S = {"stage" => 0.5, "figure" => 0.5}.freeze
      # Heights that are made: what one emote is at 1×, 2× and 4×, and twice as high as it flies by itself.
      HEIGHTS_PX = {"1" => 28, "2" => 56, "4" => 112, "8" => 320}.freeze
      # What a small picture has no use for: where it is not there, the next smaller is as large.
      ONLY_OF_LARGE = %w[8].freeze
      # And of what stands on a stage: for lists, and as large as it may be drawn.
      STAGE_HEIGHTS_PX = {"1" => 120, "2" => 540, "4" => 2160}.freeze
      # And of people and what cues show, which stand among other things.
      FIGURE_HEIGHTS_PX = {"1" => 120, "2" => 240, "4" => 640}.freeze
      # Patches of a picture on its longer side.
      GRID_PX = 160
      PURPOSES = {"emote" => HEIGHTS_PX, "stage" => STAGE_HEIGHTS_PX, "figure" => FIGURE_HEIGHTS_PX, "grid" => {"1" => 120}}.freeze
      # For what the colours are wanted too.
      GRIDDED = %w[stage grid].freeze
      # Wider than this many heights it is a banner, and is fitted to that width.
      WIDEST_RATIO = 6

      module_function

      # @param pixels [Integer] of all frames together
      # @return [Float] seconds of a processor
      def within_s(purpose, pixels) = MORE_WITHIN_S.fetch(purpose, 0) * pixels.clamp(0, most_pixels(purpose)) / 1_000_000

      def most_pixels(purpose) = MOST_PIXELS.fetch(purpose, MOST_PIXELS_OTHERWISE)

      # @return [String, nil] what is too much, in words
      def against(width, height, frames, purpose = "emote")
        return "it is #{width} × #{height} pixels; #{LONGEST_SIDE_PX} is the longest side" if [width, height].max > LONGEST_SIDE_PX
        return "it has #{frames} frames; #{MOST_FRAMES} is the most" if frames > MOST_FRAMES
        return "its frames together have too many pixels" if width * height * frames > most_pixels(purpose)

        "it has no size" if width < 1 || height < 1
      end
    end
  end
end
