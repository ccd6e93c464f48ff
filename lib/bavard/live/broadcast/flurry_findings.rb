# frozen_string_literal: true

module Bavard
  module Live
    # Why emotes that a cue promises do not fly, or not all of them, in words, for whoever looks at the sheet; and what would help.
    class FlurryFindings
      NO_PIECE = "no emotes fly: no stage has a flurry on air that takes those of cues. Add one on the Stage"
      NO_EMOTES = "only emotes of a message fly: you have none of your own yet, and no platform has sent any"
      # What would help: somewhere for them to fly, some that fly, more room in the air.
      Finding = Struct.new(:why, :helps)

      # @param wardrobe [Wardrobe]
      # @param desks [Enumerable<StageDesk>]
      def initialize(wardrobe, desks)
        @wardrobe = wardrobe
        @pieces = desks.flat_map(&:flurries_for_cues)
      end

      # @param cues [Array<Hash>]
      # @return [Array<Array(String, String, String)>] ids of cues, why, and what would help: flurry, emotes or ceiling, or nil
      def of(cues)
        cues.select { |cue| cue["on"] && cue["flurry_count"].positive? }.flat_map do |cue|
          findings(cue).map { |finding| [cue["id"], *finding] }
        end
      end

      private

      def findings(cue)
        return [Finding.new(NO_PIECE, "flurry")] if @pieces.empty?

        [emotes(cue), room(cue["flurry_count"])].compact
      end

      def emotes(cue)
        named = cue["flurry_emotes"].split
        unknown = named.reject { |code| @wardrobe.called(code) }
        return Finding.new("#{unknown.first(3).join(", ")} cannot fly: no shelf has it") if unknown.any?

        Finding.new(NO_EMOTES, "emotes") if named.empty? && @wardrobe.flown.empty?
      end

      # However many a cue lets go, a piece has its ceilings.
      def room(many)
        most = @pieces.map { |piece| piece.values_at("at_once", "per_minute").min }.max
        Finding.new("#{most} of #{many} fly: more are not on the way at once", "ceiling") if most < many
      end
    end
  end
end
