# frozen_string_literal: true

require_relative "../../../core/cues/score"
require_relative "../../../core/pieces/pieces"
require_relative "../../../core/stage/starts"
require_relative "../../../core/style/piece_style"
require_relative "../../../core/style/samples"

module Bavard
  module Web
    # What the cue sheet needs to show each cue as viewers will see it: where it plays, what it looks like, and when its parts begin
    # and end.
    class CuePictures
      Alerts = Core::Pieces::AlertsPiece

      # @param cue [Hash]
      # @param sample [Hash] what happens, as it is typed
      # @return [Hash] as pages draw it
      def self.card(cue, sample = Core::Cues::Sample.for(cue))
        times = Core::Cues::Score.times(cue)
        Core::Style::Samples.cued(cue, sample).merge(times.any? ? {t: times} : {})
      end

      # @param cues [Array<Hash>]
      # @param stages [Array<Store::Stages::Stage>] of the show
      # @param sounds [Array<Store::Files::File>]
      def initialize(cues, stages, sounds)
        @cues = cues
        @stages = stages
        @sounds = sounds.to_h { |sound| [sound.id, sound.more.slice("seconds", "peaks")] }
      end

      # @return [Hash] places, and by cue which of them plays it, its card and its score; sounds by id
      def report
        {places:, plays: by_cue { |cue| playing(cue["kind"]) }, cards: by_cue { |cue| CuePictures.card(cue) }, scores: by_cue { |cue| score(cue) },
         sounds: @sounds.slice(*@cues.filter_map { |cue| cue["sound"] })}
      end

      private

      def by_cue = @cues.to_h { |cue| [cue["id"], yield(cue)] }

      # Alerts pieces of all stages; where there is none, one as it would be added.
      def places = @places ||= found_places

      # The piece that is for it, or one that is for all.
      #
      # @return [Integer] number of its place
      def playing(kind)
        places.index { |place| place[:kinds].include?(kind) } || places.index { |place| place[:kinds].empty? } || 0
      end

      def found_places
        found = @stages.flat_map do |stage|
          Core::Stage::Document.pieces_of(stage.draft, Alerts).reject { |piece| piece["hidden"] }
            .map { |piece| place(stage.draft, piece).merge(stage: stage.id, name: stage.name, backdrop: stage.backdrop) }
        end
        found.empty? ? [nowhere] : found
      end

      def nowhere
        document = Core::Stage::Document.empty
        place(document, Alerts.build("alerts1", Core::Stage::Starts.usual(Alerts::KEY, document))).merge(backdrop: "dawn")
      end

      def place(document, piece)
        style = Core::Style::PieceStyle.of(piece, document["house"]).merge("kinds" => []).except(:other)
        {kinds: piece["kinds"], chime: piece["chime"], box: [0, 0, *document.values_at("width", "height")], style:}
      end

      def score(cue)
        sound_ms = @sounds.dig(cue["sound"], "seconds")&.then { |seconds| (seconds * 1000).round }
        Core::Cues::Score.rows(cue, sound_ms:).map(&:to_a)
      end
    end
  end
end
