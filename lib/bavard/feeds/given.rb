# frozen_string_literal: true

require "json"
require "time"
require_relative "../core/amount"
require_relative "../core/intake"
require_relative "../core/palette/colour"

module Bavard
  module Feeds
    # Reads plain data that a platform sent, trusting none of it: what is not of the kind that is asked for is nil.
    module Given
      LONGEST_ID = 200
      LONGEST_NAME = 200
      LONGEST_TEXT = 16_000
      LONGEST_ADDRESS = 2000
      MOST_BADGES = 12
      LATEST_MS = 10**14
      # Bytes that no text of ours holds.
      NOT_TEXT = "\0"

      DEEPEST = 20
      # In JSON: a backslash, a pair of surrogates, or half of one.
      ESCAPED = /\\\\|\\u[dD][89abAB]\h\h\\u[dD][c-fC-F]\h\h|\\u[dD][89a-fA-F]\h\h/
      HALF_BYTES = 6

      module_function

      # What can be read of it: half a character costs that character, and not all that is said beside it.
      #
      # @param text [String] bytes
      # @return [Object]
      # @raise [JSON::ParserError]
      def json(text)
        text = text.dup.force_encoding(Encoding::UTF_8).scrub
        JSON.parse(text, max_nesting: DEEPEST)
      rescue JSON::ParserError
        whole = text.gsub(ESCAPED) { |found| found.bytesize == HALF_BYTES ? "\\ufffd" : found }
        raise if whole == text

        JSON.parse(whole, max_nesting: DEEPEST)
      end

      def text(value, longest = LONGEST_TEXT)
        value.delete(NOT_TEXT)[0, longest] if value.is_a?(String) && !value.empty?
      end

      def id(value)
        value = value.to_s if value.is_a?(Integer)
        text(value, LONGEST_ID)
      end

      def name(value) = text(value, LONGEST_NAME)
      # A JSON object; a module whose own hash wants something to be given can stand in no Hash.
      def object(value) = value.is_a?(Hash) ? value : {}
      def list(value) = value.is_a?(Array) ? value : []
      def whole(value) = (value if value.is_a?(Integer) && value.between?(0, 10**12))
      def colour(value) = Core::Palette::Colour.normal(value)

      # @return [String, nil] an address of the web
      def address(value)
        value if value.is_a?(String) && value.length <= LONGEST_ADDRESS && value.match?(%r{\Ahttps?://[^\s"<>\\]+\z})
      end

      # @return [Integer, nil] Unix milliseconds, from ISO 8601
      def time_ms(value)
        (Time.iso8601(value).to_r * 1000).to_i if value.is_a?(String)
      rescue ArgumentError
        nil
      end

      # @return [Symbol, nil] one of Core::EVENTS
      def event(value)
        Core::EVENTS.find { |what| what.to_s == value }
      end
    end
  end
end
