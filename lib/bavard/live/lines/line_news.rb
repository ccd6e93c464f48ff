# frozen_string_literal: true

module Bavard
  module Live
    # Tells whoever shows a show's lines what becomes of them: lanes and the host's pages, prompters, stages, and what plays because of a
    # line. Told by a {LineBook}.
    class LineNews
      # @param show [Show]
      # @param report [DeskReport]
      def initialize(show, report)
        @show = show
        @report = report
      end

      def came(kept, now_ms)
        lane = @show.lanes[kept.lane_id] or return
        lane.note(kept)
        card = lane.card(kept)
        lane.thin(now_ms) if kept.state.name == :queued
        @report.line(card, lane.id)
        @show.prompter.line(kept, card)
      end

      def moved(kept, _event, from, _now_ms)
        @show.prompter.moved(kept, from)
        @report.touch
        return if Core::Moderation::LineState::COMING.include?(from) && !kept.state.taken?

        @show.desks.each_value { |desk| desk.moved(kept.shown || kept.line) }
        took_away(kept) if kept.state.taken?
      end

      def edited(kept)
        @show.prompter.redraw { |line| line.id == kept.id }
        @report.touch
        @show.desks.each_value { |desk| desk.reword(kept.shown) } if kept.shown
      end

      def forgot(kept) = @show.prompter.forget(kept.id)

      private

      def took_away(kept)
        @show.moderation.small_again(kept.id)
        # What is only said never plays anything.
        @show.pull_cues { |line| line.id == kept.id } unless kept.line.kind == :said
      end
    end
  end
end
