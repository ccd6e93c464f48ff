# frozen_string_literal: true

require_relative "../../error"

module Bavard
  module Core
    module Contrast
      # A picture of a broadcast as a coarse grid of colours, and which of them lie behind a piece.
      #
      #   patches = Patches.read(bytes)
      #   patches.under([67, 438, 795, 585], on: [1920, 1080])   # => [Patch with red, green, blue and its place …]
      class Patches
        # red, green, blue:: 0 to 255; x, y, width, height:: on the stage, in pixels, of one of them; many:: how many are of this
        # colour
        Patch = Struct.new(:red, :green, :blue, :x, :y, :width, :height, :many) do
          def rgb = [red, green, blue]
        end
        # Bits of a channel that do not tell colours apart here.
        FINE_BITS = 3
        HEAD_BYTES = 4
        CHANNELS = 3

        # @param bytes [String] width and height as 16-bit numbers, then red, green and blue of each patch
        # @return [Patches]
        # @raise [Bavard::Error]
        def self.read(bytes)
          width, height = bytes.unpack("nn")
          patches = height ? width * height : 0
          raise Error, "That is no grid of a picture." unless patches.positive? && bytes.bytesize == HEAD_BYTES + (patches * CHANNELS)

          new(width, height, bytes.byteslice(HEAD_BYTES..).bytes)
        end

        attr_reader :width, :height

        # @param channels [Array<Integer>] row by row
        def initialize(width, height, channels)
          @width = width
          @height = height
          @channels = channels
        end

        # The picture covers the stage, as it does in the editor: as small as it can be, and cut off evenly. Patches of about the
        # same colour are told as one: there are thousands, and a live show goes on in the same process.
        #
        # @param box [Array<Numeric>] x, y, width and height of a piece, in pixels of the stage
        # @param on [Array(Numeric, Numeric)] width and height of the stage
        # @return [Array<Patch>] none where the piece stands outside of the stage
        def under(box, on:)
          x, y, across, down = box
          scale = [on[0].fdiv(width), on[1].fdiv(height)].max
          left = (on[0] - (width * scale)) / 2
          top = (on[1] - (height * scale)) / 2
          columns = touched(x, x + across, left, scale, on[0])
          counts = counted(columns, touched(y, y + down, top, scale, on[1]))
          counts.map { |at, count| patch(at, left, top, scale, count) }
        end

        private

        # @return [Range] of columns or rows that are touched, within the stage
        def touched(from, to, start, scale, limit)
          low = from.clamp(0, limit)
          high = to.clamp(0, limit)
          high > low ? (((low - start) / scale).floor..((high - start - 0.001) / scale).floor) : (0...0)
        end

        # @return [Array<Array(Integer, Integer)>] the first place of each colour, and how many have it
        def counted(columns, rows)
          found = {}
          rows.each do |row|
            columns.each do |column|
              at = (row * width) + column
              entry = found[keys[at]]
              entry ? entry[1] += 1 : found[keys[at]] = [at, 1]
            end
          end
          found.values
        end

        # One number for each colour that is told apart.
        def keys
          @keys ||= @channels.each_slice(CHANNELS).map do |red, green, blue|
            ((red >> FINE_BITS) << 10) | ((green >> FINE_BITS) << 5) | (blue >> FINE_BITS)
          end
        end

        def patch(at, left, top, scale, count)
          row, column = at.divmod(width)
          Patch.new(*@channels[at * CHANNELS, CHANNELS], left + (column * scale), top + (row * scale), scale, scale, count)
        end
      end
    end
  end
end
