# frozen_string_literal: true

module Bavard
  module Core
    # Parts of a text by code points, of which many are asked for: Ruby counts those of UTF-8 from the beginning each time.
    #
    #   letters = CodePoints.of("é 🦆 wren")
    #   letters.part(2, 1)   # => "🦆"
    class CodePoints
      # @return [Integer]
      attr_reader :length

      def self.of(text) = new(text)

      # @param text [String] UTF-8
      def initialize(text)
        @letters = text.ascii_only? ? text : text.encode(Encoding::UTF_32LE)
        @length = @letters.length
      end

      # @return [String] UTF-8
      def part(from, length) = @letters[from, length].encode(Encoding::UTF_8)

      # @return [String] from there on
      def rest(from) = part(from, length - from)
    end
  end
end
