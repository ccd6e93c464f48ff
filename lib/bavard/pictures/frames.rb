# frozen_string_literal: true

require "vips"
require_relative "bounds"
require_relative "kind"
require_relative "moving"

module Bavard
  module Pictures
    # The frames of a picture, one after the other: a large moving one is never in memory as a whole.
    #
    # count, width, height:: of them, known before any is read; each:: gives each as an image in sRGB with alpha
    class Frames
      include Enumerable

      # What is wrong with a picture, in words that go on after "it".
      class Refused < StandardError
      end

      attr_reader :count, :width, :height

      # @param bytes [String]
      # @param drawn_px [Integer] the largest height that is wanted
      # @param purpose [String] of Bounds::PURPOSES
      # @raise [Refused]
      def self.of(bytes, kind, drawn_px, purpose)
        case kind
        when :svg then new([svg(bytes, drawn_px)], purpose)
        when :apng, :moving_avif then Moving.new(bytes, kind, purpose)
        else several(bytes, purpose)
        end
      end

      # The header alone says how many there are; only then are they read, in their order.
      def self.several(bytes, purpose)
        head = Vips::Image.new_from_buffer(bytes, "")
        count = head.get_typeof("n-pages").zero? ? 1 : head.get("n-pages")
        return new([head], purpose) if count == 1

        refuse(head.width, head.height, count, purpose)
        new(Vips::Image.new_from_buffer(bytes, "", n: -1, access: :sequential), purpose)
      end

      # Drawn at the largest size that is wanted: an SVG has no pixels of its own.
      def self.svg(bytes, drawn_px)
        plain = Vips::Image.svgload_buffer(bytes)
        raise Refused, "it has no size" if plain.height < 1 || plain.width < 1

        scale = [drawn_px.fdiv(plain.height), [drawn_px * Bounds::WIDEST_RATIO, Bounds::LONGEST_SIDE_PX].min.fdiv(plain.width)].min
        Vips::Image.svgload_buffer(bytes, scale: scale.clamp(0.0001, 1000.0))
      end

      def self.refuse(width, height, count, purpose)
        words = Bounds.against(width, height, count, purpose) and raise Refused, words
      end

      # @param image [Vips::Image] in sRGB or not
      # @return [Vips::Image] in sRGB with alpha
      def self.plain(image)
        image = image.colourspace(:srgb) unless image.interpretation == :srgb
        image = image.cast(:uchar) unless image.format == :uchar
        image.has_alpha? ? image : image.bandjoin(255)
      end

      private_class_method :svg, :several

      # @param images [Array<Vips::Image>, Vips::Image] one, or all below each other
      def initialize(images, purpose)
        @images = images
        one = images.is_a?(Array) ? images.first : images
        @height = images.is_a?(Array) ? one.height : one.get("page-height")
        @width = one.width
        @count = one.height / @height
        Frames.refuse(@width, @height, @count, purpose)
      end

      # @return [Array<Integer>, nil] milliseconds
      def delays = (@images.get("delay") if several? && !@images.get_typeof("delay").zero?)

      def loops = several? && !@images.get_typeof("loop").zero? ? @images.get("loop") : 0

      def each
        return yield Frames.plain(@images.first.autorot) unless several?

        @count.times { |number| yield Frames.plain(@images.crop(0, number * @height, @width, @height).copy_memory) }
      end

      private

      def several? = !@images.is_a?(Array)
    end
  end
end
