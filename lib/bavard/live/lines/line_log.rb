# frozen_string_literal: true

require_relative "../../core/chat/line"
require_relative "../../store/lines"

module Bavard
  module Live
    # Writes into the log what becomes of a show's lines. Told by a {LineBook}.
    class LineLog
      MOST_FINDINGS = 8
      # How the log calls where a line went.
      WHERE = {queued: "thinned", aired: "aired", draft: "draft"}.freeze
      NOWHERE = "nowhere"
      CHANGED = "it was changed into what does not pass"
      # From where lines go on the picture without anybody's doing, and the step that says so.
      BY_ITSELF = {held: "released", queued: nil}.freeze

      # @param journal [Journal]
      # @param ids [LineIds] gives marks, which grow with time
      def initialize(show_id, journal, ids)
        @show_id = show_id
        @journal = journal
        @ids = ids
      end

      def came(kept, now_ms)
        state = kept.state
        steps = state.taken? ? [["received", kept.line.arrived_at_ms, nil], deleted(now_ms)] : trace(kept, now_ms)
        @journal.line(@show_id,
          Store::Lines::Entry.new(kept.line, kept.verdict, state.name == :aired, state.taken?, steps, state.held?, state.taken?))
      end

      def moved(kept, event, from, now_ms)
        case event
        when :pull, :keep_off then mark(:pull_line, kept, now_ms)
        when :put_back then mark(on_picture_before?(kept) ? :pull_line : :put_back, kept, now_ms)
        when :delete then settle(kept, [deleted(now_ms)]) if Core::Moderation::LineState::COMING.include?(from)
        when :leave then settle(kept, [["left", now_ms, kept.line.edited && !kept.verdict.pass? ? CHANGED : "nobody let it go in time"]])
        when :hold, :stop then settle(kept, [[from == :held ? "stopped" : "held", now_ms, nil]])
        when :air, :draft, :pass_by then went(kept, from, now_ms)
        end
      end

      # What it says is told by {#edited_there}.
      def edited(_kept) = nil
      def forgot(_kept) = nil

      # Its writer has changed a line, which may be long ago.
      #
      # @param before [String, nil] what it said, where it is at hand
      def edited_there(feed_id, platform_id, edited, now_ms, before:)
        text, = Core::Chat::Line.cleaned(edited)
        @journal.behind(@show_id, :edit, [feed_id, platform_id, edited.login], text, now_ms, before)
      end

      # A platform took away a line, or all that somebody said, which may be long ago. Said before the lines move.
      #
      # @param how [Symbol] pull or pull_all
      # @param what [String, nil] the line's platform id, or a login
      def deleted_there(how, feed_id, what, now_ms) = @journal.behind(@show_id, how, feed_id, what, @ids.next(now_ms))

      private

      # A rule keeps it off, and it was on the picture all the same, for a while.
      def on_picture_before?(kept) = kept.state.name == :off && !kept.shown.nil?

      def went(kept, from, now_ms)
        by_itself = BY_ITSELF.key?(from)
        mark(:put_back, kept, now_ms) unless by_itself
        before = by_itself ? BY_ITSELF[from] : "let go"
        settle(kept, [before && [before, now_ms, nil], ["shown", now_ms, where(kept.state)]].compact, shown_at_ms: kept.shown.shown_at_ms)
      end

      def settle(kept, steps, shown_at_ms: kept.line.shown_at_ms)
        @journal.settle(@show_id, Store::Lines::Outcome.new(kept.id, kept.state.name == :aired, false, steps, shown_at_ms, kept.state.held?))
      end

      # At once where it is written already, and behind it where it is not yet.
      def mark(how, kept, now_ms)
        mark = @ids.next(now_ms)
        @journal.deed(:lines, how, kept.id, mark)
        @journal.behind(@show_id, how, kept.id, mark)
      end

      def deleted(now_ms) = ["deleted", now_ms, "by the platform"]
      def where(state) = WHERE.fetch(state.name, NOWHERE)

      # Where it went, step by step.
      def trace(kept, now_ms)
        emotes = kept.line.fragments.count { |kind, _| kind == :emote }
        [["received", kept.line.arrived_at_ms, nil], ["dressed", now_ms, emotes.zero? ? nil : emotes], ["judged", now_ms, judged(kept.verdict)],
          kept.state.held? ? ["held", now_ms, nil] : ["shown", now_ms, where(kept.state)]]
      end

      # What each rule said: by which the verdict can be followed later.
      def judged(verdict)
        return "passed" if verdict.findings.empty?

        {action: verdict.action, found: verdict.findings.first(MOST_FINDINGS).map do |one|
          {rule: one.rule, action: one.action, seen: one.seen&.slice(0, 80), from: one.from, to: one.to, why: one.why}
        end}
      end
    end
  end
end
