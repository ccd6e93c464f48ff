# frozen_string_literal: true

require_relative "../core/cues/goal"

module Bavard
  module Live
    # The goals of a document, and what of them is new to the page.
    class CountedPieces
      KINDS = %w[goal].freeze

      attr_reader :told

      # @param tallies [#call, nil] gives the show's Tallies
      def initialize(tallies)
        @tallies = tallies
        @pieces = []
        @told = {}
      end

      def play(document)
        @pieces = document["pieces"].select { |piece| KINDS.include?(piece["kind"]) && !piece["hidden"] }
        @told = {}
        @seen = nil
      end

      def changed? = @pieces.any? && !tallies.nil? && @seen != tallies.revision

      # @return [Hash{String => Hash}] by piece
      def changes
        return {} unless changed?

        @seen = tallies.revision
        now = @pieces.to_h { |piece| [piece["id"], Core::Cues::Goal.of(piece, tallies[piece["since"]].value(piece["counted"], piece["unit"]))] }
        now.reject { |id, goal| @told[id] == goal }.tap { @told = now }
      end

      private

      def tallies = @tallies&.call
    end
  end
end
