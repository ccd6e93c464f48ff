# frozen_string_literal: true

module Bavard
  module Core
    module Flurry
      # One emote on its way: everything a page needs to play it.
      #
      # id:: of this flight; line_id:: whose line it came with, or nil; emote:: [text, picture, ratio, moves]
      # size_px:: its height; length_ms:: until it is gone; wait_ms:: before it begins; depth:: 0 near to 1 far
      # points:: Ways::Point in the piece; spin:: degrees in all; people:: how many sent it, or nil; scale:: how much larger that makes it
      # grows_ms:: how long it grows from nothing, or nil: it comes in as large as it is
      Flight = Struct.new(:id, :line_id, :emote, :size_px, :length_ms, :wait_ms, :depth, :points, :spin, :people, :scale, :grows_ms,
        keyword_init: true) do
        # @return [Array] as a page takes it: points as share in thousandths, x and y in pixels, degrees
        def card
          path = points.map { |point| [(point.share * 1000).round, point.x.round, point.y.round, (point.turn + (spin * point.share)).round] }
          {i: id, l: line_id, e: emote, h: size_px.round, ms: length_ms, w: wait_ms, z: depth.round(2), p: path, n: people, s: scale,
           g: grows_ms}.compact
        end

        # @return [Integer] when it is over, from the moment it was made
        def whole_ms = wait_ms + length_ms
      end
    end
  end
end
