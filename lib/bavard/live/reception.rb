# frozen_string_literal: true

require_relative "../core/chat/line"
require_relative "../core/chat/throng"
require_relative "../store/lines"

module Bavard
  module Live
    # Takes what a show's feeds hand over: judges lines, brings them to the stages and into the log, and takes away what
    # is deleted. Works in its show's thread.
    class Reception
      MOST_FINDINGS = 8
      # What is only read; all else has more to it than its words.
      READ = %i[said action reply].freeze

      # @param show [Show]
      # @param house [House]
      # @param report [DeskReport] told of what the host's pages should know
      def initialize(show, house, report)
        @show = show
        @house = house
        @report = report
        @throng = Core::Chat::Throng.new
      end

      # @return [Integer, nil] when {#advance} has something to do of its own
      def due_ms = @throng.due_ms

      # @param lane [FeedLane]
      # @param runner [Feeds::Runner] whose intake it is; what an earlier one still had to say does not count
      # @param intake [Core::Intake]
      def take(lane, runner, intake)
        return unless lane.current?(runner) && @show.lanes[lane.id].equal?(lane)

        case intake.kind
        when :voice then return @show.voices.take(lane, intake.body, @show.now_ms)
        when :profile then return @show.shout_outs.told(intake.body)
        else take_in(lane, intake)
        end
        @report.touch
      end

      # Moves on what is held.
      def advance(now_ms)
        released, left = @show.gatehouse.advance(now_ms)
        released.each { |held| release(held, now_ms) }
        left.each { |held| leave(held, now_ms) }
        waited = @throng.advance(now_ms)
        waited.each { |line| follow(line, now_ms) }
        @report.touch if [released, left, waited].any?(&:any?)
      end

      # Somebody took a line away: if it waits for room, it waits no longer.
      def take_off(line_id) = @throng.pull_where { |line| line.id == line_id }

      # Brings a line to the stages, and what it asks for to the cue sheet.
      #
      # @return [Symbol] :aired, :draft or :nowhere
      def show(lane, line)
        lane.feed.draft_only ? @show.cues.happened(line, @show.now_ms, test: :draft) : @show.cue(line)
        desks = @show.desks.each_value
        return desks.map { |desk| desk.show_draft(line) }.any? ? :draft : :nowhere if lane.feed.draft_only

        desks.map { |desk| desk.show(line) }.any? ? :aired : :nowhere
      end

      private

      def take_in(lane, intake)
        case intake.kind
        when :line, :event then line(lane, intake)
        when :delete_line then delete_line(lane, intake.platform_id)
        when :clear_person then delete_where(lane, intake.body)
        when :clear_all then delete_where(lane, nil)
        when :feed_state then enter(lane, intake.body)
        when :gap then lane.miss(intake.body)
        when :totals then @show.told_totals(lane.feed, intake.body)
        when :answered then @show.answers.came(lane.id, intake.body)
        end
      end

      def enter(lane, state)
        @show.notice_broadcast(lane, lane.state.state, state.state)
        lane.enter(state)
        @show.voices.lost(lane, @show.now_ms) unless FeedLane::SPEAKS.include?(state.state)
      end

      def line(lane, intake)
        return unless lane.new?(intake.platform_id)

        line = Core::Chat::Line.from(intake, id: @house.ids.next(@show.now_ms), emotes: @show.wardrobe.emotes)
        return @house.reject(lane.feed.kind.to_sym, "a line with nothing in it") if line.text.empty? && !line.event?

        return taken_away(lane, line) if lane.taken_before.came?(intake.platform_id, @show.now_ms)

        @show.wardrobe.count(line)
        count(lane, line)
        judged(lane, line, @show.gatehouse.take(line))
      end

      # It stands in the log alone, and nowhere else: its delete was quicker than it was.
      def taken_away(lane, line)
        steps = [["received", line.arrived_at_ms, nil], ["deleted", @show.now_ms, "by the platform"]]
        verdict = Core::Gate::PASS
        entry = Store::Lines::Entry.new(line, verdict, false, true, steps, false)
        @house.journal.line(@show.id, entry)
        @house.journal.behind(@show.id, :pull, lane.id, line.platform_id)
        card = lane.note(line, verdict, pulled: true)
        @report.line(card, lane.id)
        @show.prompter.line(lane, entry, :nowhere, card, pulled: true)
      end

      # What happened is counted, and what was said may be a command, whatever the gate says of it.
      def count(lane, line)
        return if lane.feed.draft_only

        event = @show.tallies.take(line)
        event ? @show.counted(event) : @show.said(line)
      end

      def judged(lane, line, verdict)
        now_ms = @show.now_ms
        held = !verdict.drop? && !intake_over?(line, now_ms) && @show.gatehouse.hold(line, lane.id, verdict, now_ms)
        where = held || !verdict.pass? ? :nowhere : place(lane, line.as_shown(verdict.shown, @show.wardrobe.emotes), now_ms)
        @show.figures.count(line.arrived_at_ms, dropped: verdict.drop?, aired: where == :aired)
        entry = Store::Lines::Entry.new(line, verdict, where == :aired, false, trace(line, verdict, held ? :held : where), held)
        @house.journal.line(@show.id, entry)
        @house.meters.line(verdict.action)
        tell(lane, entry, where)
      end

      # On the stages where there is room; where its feed brings too much it waits, or never comes.
      #
      # @return [Symbol] as {#show}, or :thinned
      def place(lane, line, now_ms)
        return show(lane, line) if !READ.include?(line.kind) || @throng.take(lane.id, line, now_ms)

        lane.thin(now_ms)
        :thinned
      end

      # It waited for room.
      def follow(line, now_ms)
        lane = @show.lanes[line.feed_id] or return
        where = show(lane, line)
        @show.figures.aired(now_ms) if where == :aired
        settle(line, where == :aired, [["shown", now_ms, where]], line.shown_at_ms)
        @show.prompter.went(line.id, where)
      end

      def settle(line, aired, steps, shown_at_ms)
        @house.journal.settle(@show.id, Store::Lines::Outcome.new(line.id, aired, false, steps, shown_at_ms))
      end

      # On the host's pages and in the prompter.
      def tell(lane, entry, where)
        card = lane.note(entry.line, entry.verdict)
        @report.line(card, lane.id)
        @show.prompter.line(lane, entry, where, card)
      end

      # What is told again from history was said long before anybody could hold it.
      def intake_over?(line, now_ms) = now_ms - line.shown_at_ms > Core::Chat::Hold::Settings::LONGEST_MS

      # On the picture now, after it was held.
      def release(held, now_ms)
        line = held.line.as_shown(held.verdict.shown, @show.wardrobe.emotes)
        line = line.dup if line.equal?(held.line)
        line.shown_at_ms = now_ms
        lane = @show.lanes[held.lane_id]
        where = lane ? place(lane, line, now_ms) : :nowhere
        @show.figures.aired(now_ms) if where == :aired
        done(held, where == :aired, [["released", now_ms, nil], ["shown", now_ms, where]], where, now_ms)
      end

      # Nobody let it go in time.
      def leave(held, now_ms)
        done(held, false, [["left", now_ms, "nobody let it go in time"]], :left, now_ms)
      end

      def done(held, aired, steps, where, now_ms)
        @show.gatehouse.forget(held.line.id)
        settle(held.line, aired, steps, aired ? now_ms : held.line.shown_at_ms)
        @show.prompter.went(held.line.id, where)
      end

      # Where it went, step by step.
      def trace(line, verdict, where)
        now_ms = @show.now_ms
        emotes = line.fragments.count { |kind, _| kind == :emote }
        [["received", line.arrived_at_ms, nil], ["dressed", now_ms, emotes.zero? ? nil : emotes], ["judged", now_ms, judged_words(verdict)],
          [where == :held ? "held" : "shown", now_ms, where == :held ? nil : where]]
      end

      # What each rule said: by which the verdict can be followed later.
      def judged_words(verdict)
        return "passed" if verdict.findings.empty?

        {action: verdict.action, found: verdict.findings.first(MOST_FINDINGS).map do |one|
          {rule: one.rule, action: one.action, seen: one.seen&.slice(0, 80), from: one.from, to: one.to, why: one.why}
        end}
      end

      def delete_line(lane, platform_id)
        lane.taken_before.remember(platform_id, @show.now_ms) unless lane.seen?(platform_id)
        pull(lane) { |line| line.platform_id == platform_id }
        @house.journal.behind(@show.id, :pull, lane.id, platform_id)
      end

      # @param login [String, nil] whose lines; nil: everybody's
      def delete_where(lane, login)
        pull(lane) { |line| login.nil? || line.person.login == login }
        up_to = @house.ids.next(@show.now_ms)
        @house.journal.behind(@show.id, :pull_all, lane.id, login, up_to)
      end

      def pull(lane, &chosen)
        held = @show.gatehouse.pull_where { |line| line.feed_id == lane.id && yield(line) }
        held.each { |one| gone(one) }
        @show.desks.each_value { |desk| desk.pull_where { |line| line.feed_id == lane.id && yield(line) } }
        @throng.pull_where { |line| line.feed_id == lane.id && yield(line) }
        lane.pull_where(&chosen)
        @show.pull_cues { |line| line.feed_id == lane.id && yield(line) }
        @show.prompter.pulled_where { |line| line.feed_id == lane.id && yield(line) }
      end

      # The platform took it away before it went on the picture.
      def gone(held)
        @show.gatehouse.forget(held.line.id)
        @house.journal.settle(@show.id, Store::Lines::Outcome.new(held.line.id, false, true, [["deleted", @show.now_ms, "by the platform"]],
          held.line.shown_at_ms))
      end
    end
  end
end
