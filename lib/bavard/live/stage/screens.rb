# frozen_string_literal: true

require_relative "screen"

module Bavard
  module Live
    # The screens that show one stage's links just now. Belongs to its show's thread.
    class Screens
      def initialize
        @screens = {}
      end

      # @param connection [Relay::Connection] of a page that shows the stage
      def opened(connection, now_ms)
        @screens[connection.id] = Screen.new(connection.id, from: connection.env["REMOTE_ADDR"], now_ms:)
      end

      # @return [Boolean] whether what it says can be read
      # @yieldparam line_id, at_ms, screen of a line it painted: which, when, and the Screen
      def heard(connection, text, now_ms)
        screen = @screens[connection.id] or return true
        screen.hear(text, now_ms) { |line_id, at_ms| yield line_id, at_ms, screen if block_given? }
      end

      # @return [Boolean] whether it said just now that it cannot play a sound
      def silent?(connection) = !@screens[connection.id]&.silent.nil?

      # @param connection [Relay::Connection]
      # @return [Screen, nil] that is gone
      def closed(connection) = @screens.delete(connection.id)

      # @param connection [Relay::Connection]
      # @return [Screen, nil]
      def [](connection) = @screens[connection.id]

      # @return [Array<Screen>] the one that is open longest first
      def all = @screens.values

      # @param document [Hash] what is on air
      # @return [Array<Hash>] for the Air page
      def cards(document, revision, now_ms)
        @screens.each_value.map { |screen| screen.card(document, revision, now_ms) }
      end
    end
  end
end
