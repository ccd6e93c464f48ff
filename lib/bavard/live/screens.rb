# frozen_string_literal: true

require_relative "screen"

module Bavard
  module Live
    # The screens that show one stage's links just now. Belongs to its show's thread.
    class Screens
      def initialize
        @screens = {}
      end

      def opened(connection, now_ms)
        @screens[connection.id] = Screen.new(connection.id, from: connection.env["REMOTE_ADDR"], now_ms:)
      end

      # @return [Boolean] whether what it says can be read
      # @yieldparam line_id, at_ms, words of a line it painted: which, when, and how people know the screen
      def heard(connection, text, now_ms)
        screen = @screens[connection.id] or return true
        screen.hear(text, now_ms) { |line_id, at_ms| yield line_id, at_ms, screen.words if block_given? }
      end

      def closed(connection)
        @screens.delete(connection.id)
      end

      # @param document [Hash] what is on air
      # @return [Array<Hash>] for the Air page
      def told(document, revision, now_ms)
        @screens.each_value.map { |screen| screen.told(document, revision, now_ms) }
      end
    end
  end
end
