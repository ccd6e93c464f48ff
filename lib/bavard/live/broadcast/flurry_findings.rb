# frozen_string_literal: true

module Bavard
  module Live
    # Why emotes that a cue promises do not fly, in words, for whoever looks at the sheet.
    class FlurryFindings
      NO_PIECE = "no emotes fly: no stage has a flurry on air that takes those of cues. Add one on the Stage"
      NO_EMOTES = "only emotes of a message fly: you have none of your own yet. Bring some under Dress"

      # @param wardrobe [Wardrobe]
      # @param desks [Enumerable<StageDesk>]
      def initialize(wardrobe, desks)
        @wardrobe = wardrobe
        @piece = desks.any?(&:flies_for_cues?)
      end

      # @param cues [Array<Hash>]
      # @return [Array<Array(String, String)>] ids of cues, and why
      def of(cues)
        cues.select { |cue| cue["on"] && cue["flurry_count"].positive? }.flat_map { |cue| whys(cue).map { |why| [cue["id"], why] } }
      end

      private

      def whys(cue)
        return [NO_PIECE] unless @piece

        named = cue["flurry_emotes"].split
        unknown = named.reject { |code| @wardrobe.emotes.contenders(code).any? }
        return ["#{unknown.first(3).join(", ")} cannot fly: no shelf has it"] if unknown.any?

        named.any? || @wardrobe.size.positive? ? [] : [NO_EMOTES]
      end
    end
  end
end
