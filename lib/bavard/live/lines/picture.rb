# frozen_string_literal: true

module Bavard
  module Live
    # A show's stages, and its cue sheet, as lines get there. Belongs to its show's thread.
    class Picture
      # @param show [Show]
      def initialize(show)
        @show = show
      end

      # @param kept [LineBook::Kept]
      # @return [Core::Chat::Line] as it is to be read there
      def written(kept) = kept.line.as_shown(kept.verdict.shown, @show.wardrobe.emotes)

      # Brings a line to the stages, and what it asks for to the cue sheet.
      #
      # @param kept [LineBook::Kept]
      # @return [Symbol] :aired, :draft or :nowhere
      def show(kept)
        lane = @show.lanes[kept.lane_id] or return :nowhere
        return draft(kept.shown) if lane.feed.draft_only

        @show.happenings.cue(kept.shown)
        @show.desks.each_value.map { |desk| desk.show(kept.shown) }.any? ? :aired : :nowhere
      end

      # @return [Boolean] whether it may still be seen, or be cued
      def remembers?(line_id) = [@show.cues, @show.shout_outs, *@show.desks.each_value].any? { |one| one.remembers?(line_id) }

      private

      def draft(line)
        @show.cues.happened(line, @show.now_ms, test: :draft)
        @show.desks.each_value.map { |desk| desk.show_draft(line) }.any? ? :draft : :nowhere
      end
    end
  end
end
