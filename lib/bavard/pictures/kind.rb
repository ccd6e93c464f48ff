# frozen_string_literal: true

require "strscan"

module Bavard
  module Pictures
    # What kind of picture some bytes are, by what they begin with. What a file is called counts for nothing.
    module Kind
      PNG = "\x89PNG\r\n\x1A\n".b.freeze
      BYTE_ORDER_MARK = "\xEF\xBB\xBF".b.freeze
      # What may stand before anything of an SVG, and what ends it: an XML declaration, comments, a doctype.
      BEFORE_SVG = {"<?xml" => "?>", "<!--" => "-->", "<!DOCTYPE" => ">"}.freeze
      SVG = /<svg[\s>]/
      HEAD_BYTES = 8192
      # How APNG says that it moves: an acTL chunk before the first data.
      ANIMATION_CHUNK = "acTL".b.freeze
      DATA_CHUNK = "IDAT".b.freeze

      module_function

      # @param bytes [String]
      # @return [Symbol, nil] :png, :apng, :gif, :webp, :svg, :avif, :moving_avif, :jpeg; nil for anything else
      def of(bytes)
        head = bytes.byteslice(0, HEAD_BYTES).b
        return png(bytes) if head.start_with?(PNG)
        return :gif if head.start_with?("GIF87a", "GIF89a")
        return :jpeg if head.start_with?("\xFF\xD8\xFF".b)
        return :webp if head.start_with?("RIFF") && head.byteslice(8, 4) == "WEBP"
        return avif(head) if head.byteslice(4, 4) == "ftyp"

        :svg if svg?(head)
      end

      # Each thing before it is passed over once.
      def svg?(head)
        scanner = StringScanner.new(head.delete_prefix(BYTE_ORDER_MARK))
        loop do
          scanner.skip(/\s+/n)
          begun = BEFORE_SVG.keys.find { |sign| scanner.peek(sign.length) == sign } or return scanner.match?(SVG)
          scanner.pos += begun.length
          scanner.skip_until(Regexp.new(Regexp.escape(BEFORE_SVG.fetch(begun)), Regexp::NOENCODING)) or return false
        end
      end

      def png(bytes)
        head = bytes.byteslice(0, HEAD_BYTES).b
        animation = head.index(ANIMATION_CHUNK)
        data = head.index(DATA_CHUNK)
        animation && (data.nil? || animation < data) ? :apng : :png
      end

      def avif(head)
        brands = head.byteslice(8, [head.unpack1("N"), 64].min - 8).to_s
        return :moving_avif if brands.include?("avis")

        :avif if brands.include?("avif")
      end

      private_class_method :png, :avif, :svg?
    end
  end
end
