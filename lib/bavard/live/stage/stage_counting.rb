# frozen_string_literal: true

require_relative "live_values"

module Bavard
  module Live
    # What is set and counted in a stage's pieces while the broadcast goes on, in the draft and on air alike. Part of {StageDesk}; for
    # use in its show's thread only.
    module StageCounting
      # A flood of events is not a flood of writing.
      KEPT_EVERY_MS = 200

      # What viewers see, or will.
      def shown_document = stage.on_air || stage.draft

      # Something happened that challenges may count.
      #
      # @param event [Core::Cues::Event]
      # @return [Array<Array(Hash, String, Integer)>] challenges that came to something with it: milestone, reached, missed; and which
      def happened(event, now_ms) = counted(live.counts.count_event(shown_document, event, now_ms), keep: true)

      # @param called [String] the name or title of goals, challenges and counters
      # @return [Array<Array(Hash, String, Integer)>] as {#happened}
      def add_to(called, number)
        ended = counted(live.counts.add(shown_document, called, number), keep: true)
        set_live { nil }
        ended
      end

      # The broadcast is over.
      #
      # @yield as {LiveCounts#begin_anew}
      def begin_anew(&block)
        live.counts.begin_anew(shown_document, &block)
        set_live { nil }
      end

      # @param again [Boolean] whether the broadcast is not over after all, rather than another one
      def begin_counting(again:)
        again ? live.counts.take_back_anew : live.counts.begin_counting
        set_live { nil }
      end

      # A line of chat may count in a counter.
      def said(text, roles, now_ms)
        set_live { nil } if live.counts.said(shown_document, text, roles, now_ms)
      end

      # @param text [String] for a captions piece
      # @return [Boolean] whether there is such a piece
      def caption(piece_id, text, now_ms)
        piece = shown_document["pieces"].find { |one| one["id"] == piece_id && one["kind"] == Captioning::KIND } or return false
        live.captioning.post(piece, text, now_ms)
        [draft, air].each(&:relive)
        true
      end

      # Moves on challenges and captions.
      #
      # @return [Array<Array(Hash, String, Integer)>] as {#happened}
      def advance_live(now_ms)
        live.captioning.advance(shown_document, live, now_ms)
        [draft, air].each(&:relive) if live.captioning.changed?
        due = live.counts.due_ms(shown_document, now_ms)
        due ? counted(live.counts.advance(shown_document, now_ms), keep: false) : []
      end

      # Something that is set while the broadcast goes on, in the draft and on air.
      # @yieldparam live [LiveValues]
      def set_live
        yield live
        stage.live = live.to_h
        @unkept = true
        keep_live(@clock.call)
        [draft, air].each(&:relive)
      end

      # @param at_once [Boolean] as at the end
      def keep_live(now_ms, at_once: false)
        return unless @unkept && (at_once || now_ms >= live_due_ms)

        @unkept = false
        @kept_ms = now_ms
        kept = stage.live
        @journal.deed(:stages, :keep_live, id, kept)
      end

      private

      # @return [Integer, nil] when what is set is kept next
      def live_due_ms = @unkept ? (@kept_ms || 0) + KEPT_EVERY_MS : nil

      def counted((changed, told), keep:)
        return [] unless changed

        keep || told.any? ? set_live { nil } : [draft, air].each(&:relive)
        told
      end
    end
  end
end
