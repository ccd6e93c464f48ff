# frozen_string_literal: true

module Bavard
  module Live
    # Counts what becomes of a show's lines. Told by a {LineBook}.
    class LineFigures
      ON_THEIR_WAY = %i[held queued].freeze

      # @param show_id [Integer]
      # @param figures [Figures] of the show
      # @param meters [Meters] of the house
      def initialize(show_id, figures, meters)
        @show_id = show_id
        @figures = figures
        @meters = meters
      end

      def came(kept, now_ms)
        return if kept.state.taken?

        @figures.count(kept.line.arrived_at_ms, dropped: kept.verdict.drop?, aired: kept.state.name == :aired)
        @meters.line(kept.verdict.action)
        @meters.sent_after(@show_id, now_ms - kept.line.arrived_at_ms) if kept.state.name == :aired
      end

      def moved(_kept, event, from, now_ms)
        @meters.pulled(@show_id) if event == :pull
        @figures.aired(now_ms) if event == :air && ON_THEIR_WAY.include?(from)
      end

      def edited(_kept) = nil
      def forgot(_kept) = nil
    end
  end
end
