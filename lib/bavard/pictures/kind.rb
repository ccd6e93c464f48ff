# frozen_string_literal: true

module Bavard
  module Pictures
    # What kind of picture some bytes are, by what they begin with. What a file is called counts for nothing.
    module Kind
      PNG = "\x89PNG\r\n\x1A\n".b.freeze
      # Before anything of an SVG: a byte order mark, blanks, comments, an XML declaration, a doctype.
      SVG = /\A(?:\xEF\xBB\xBF)?(?:\s|<\?xml.{0,300}?\?>|<!--.{0,4000}?-->|<!DOCTYPE.{0,1000}?>)*<svg[\s>]/nm
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

        :svg if head.match?(SVG)
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

      private_class_method :png, :avif
    end
  end
end
