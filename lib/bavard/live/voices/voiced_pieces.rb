# frozen_string_literal: true

require_relative "../../core/pieces/pieces"
require_relative "played_voices"

module Bavard
  module Live
    # The pieces of a document that show voice rooms, and what of them is new to the page.
    class VoicedPieces
      # Told instead of the show's own rooms, or nil.
      attr_reader :rehearsed

      # @param shared [Playout::Shared]
      def initialize(shared)
        @shared = shared
        @pieces = {}
      end

      # @param fresh [Hash{String => true}] ids of pieces that are other ones than before
      def play(document, fresh)
        voiced = document["pieces"].select { |piece| Core::Pieces::VOICED.include?(piece["kind"]) && !piece["hidden"] }
        @pieces = voiced.to_h do |piece|
          known = @pieces[piece["id"]]
          known.play(piece, document["house"]) if known && fresh[piece["id"]]
          [piece["id"], known || PlayedVoices.new(piece, document["house"], @shared)]
        end
        @loud = @pieces.each_value.any?(&:loud?)
        @seen = nil
      end

      def rehearsed=(voices)
        @seen = nil unless @rehearsed.equal?(voices)
        @rehearsed = voices
      end

      # @return [Boolean] whether somebody may have to be drawn otherwise
      def changed? = @pieces.any? && !voices.nil? && (@seen.nil? || @seen != revision)

      # @return [Hash{String => Hash}] by piece
      def changes(now_ms)
        return {} unless changed?

        @seen = revision
        @pieces.each_with_object({}) do |(id, piece), changes|
          change = piece.change(voices, now_ms) and changes[id] = change
        end
      end

      # @return [Hash{String => Hash}] as the page has it
      def for_frame = @pieces.transform_values(&:told).compact

      # @return [Array<String>, nil] of a voices piece
      def names_in(piece_id) = @pieces[piece_id]&.names(voices)

      private

      def voices = @rehearsed || @shared.voices&.call

      def revision = @loud ? [voices.revision, voices.heard] : voices.revision
    end
  end
end
