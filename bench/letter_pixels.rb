# frozen_string_literal: true

require "vips"

module Bench
  # What lies around letters, by the pixels of two pictures: one with letters in a colour that is nowhere else, one without letters.
  # A letter's ground is all that is near it, as bright as it is on the average (WCAG 2.2 §1.4.3, relative luminance).
  class LetterPixels
    # So far from a letter its ground counts.
    NEAR_PX = 2
    SIDE = (2 * NEAR_PX) + 1
    # How wide a letter is, in parts of its row; and of its ground, what it takes to say something about it.
    LETTER_SHARE = 0.5
    LEAST_PIXELS = 30
    # A difference by which a letter is told from its ground, of 255.
    DRAWN = 40
    LINEAR = Array.new(256) { |value| (one = value / 255.0) <= 0.04045 ? one / 12.92 : ((one + 0.055) / 1.055)**2.4 }.freeze
    SHARES = [0.2126, 0.7152, 0.0722].freeze

    # @param written [Vips::Image]
    # @param bare [Vips::Image]
    def initialize(written, bare)
      @written = written
      @bright = bare.maplut(Vips::Image.new_from_array([LINEAR])).recomb(Vips::Image.new_from_array([SHARES]))
      @mask = (written - bare).abs.bandbool(:or).relational_const(:more, [DRAWN])
    end

    # @param colour [Array(Numeric, Numeric, Numeric)] of the letters, 0 to 255
    # @param box [Array(Numeric, Numeric, Numeric, Numeric)] left, top, width, height of a row of text
    # @return [Float, nil] the contrast with the ground of the letter that stands worst; nil where no letter is drawn
    def ratio(colour, box)
      crop = inside(box)
      return unless crop.last(2).all?(&:positive?)

      mask = @mask.crop(*crop)
      near = mask.rank(SIDE, SIDE, (SIDE * SIDE) - 1) & mask.invert
      written = colour.zip(SHARES).sum { |value, share| LINEAR[value.round] * share }
      grounds(@bright.crop(*crop), near, (crop.last * LETTER_SHARE).ceil).map { |ground| contrast(ground, written) }.min
    end

    private

    def inside(box)
      left, top, width, height = box.map(&:round)
      left, top = [left, top].map { |one| [one - NEAR_PX, 0].max }
      [left, top, [width + (2 * NEAR_PX), @written.width - left].min, [height + (2 * NEAR_PX), @written.height - top].min]
    end

    # @return [Array<Float>] of each stretch that is as wide as a letter and has letters, how bright the ground beside them is
    def grounds(bright, near, wide)
      columns = bright.to_a.flatten.zip(near.to_a.flatten).each_slice(bright.width).to_a.transpose
      columns.each_slice(wide).filter_map do |some|
        beside = some.flatten(1).filter_map { |value, counts| value if counts.positive? }
        beside.sum / beside.size if beside.size >= LEAST_PIXELS
      end
    end

    def contrast(*both) = (both.max + 0.05) / (both.min + 0.05)
  end
end
