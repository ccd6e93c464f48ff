# frozen_string_literal: true

require_relative "../../core/chat/line"
require_relative "../../core/gate/verdict"

module Bavard
  module Live
    # Takes what a show's feeds hand over: reads and judges lines, and says what platforms delete. Works in its show's thread.
    class Reception
      # @param show [Show]
      # @param report [DeskReport] told of what the host's pages should know
      # @param log [LineLog]
      def initialize(show, report, log)
        @show = show
        @report = report
        @log = log
      end

      # @param lane [FeedLane]
      # @param runner [Feeds::Runner] whose intake it is
      # @param intake [Core::Intake]
      def receive(lane, runner, intake)
        return unless lane.counts?(runner, intake.kind) && @show.lanes[lane.id].equal?(lane)

        case intake.kind
        when :voice then return @show.voices.receive(lane, intake.body, @show.now_ms)
        when :profile then return @show.shout_outs.receive(intake.body)
        when :picture then return @show.wardrobe.bring(intake.body)
        else take_in(lane, intake)
        end
        @report.touch
      end

      private

      def take_in(lane, intake)
        case intake.kind
        when :line, :event then line(lane, intake)
        when :edit_line then edit_line(lane, intake.platform_id, intake.body)
        when :delete_line then delete_line(lane, intake.platform_id)
        when :clear_person then delete_of(lane, intake.body)
        when :clear_all then delete_of(lane, nil)
        when :feed_state then enter(lane, intake.body)
        when :gap then lane.miss(intake.body)
        when :totals then @show.told_totals(lane.feed, intake.body)
        when :answered then @show.answers.came(lane.id, intake.body)
        end
      end

      def enter(lane, state)
        @show.broadcast.notice_broadcast(lane, lane.state.state, state.state)
        lane.enter(state)
        @show.voices.lost(lane, @show.now_ms) unless FeedLane::SPEAKS.include?(state.state)
      end

      def line(lane, intake)
        return unless lane.new?(intake.platform_id)

        line = made(lane, intake)
        return @show.mishaps.rejected(lane.feed.kind.to_sym, "a line with nothing in it") if line.text.empty? && !line.event?

        gone = lane.taken_before.came?(intake.platform_id, @show.now_ms)
        gone ? @show.lines.arrive_deleted(line, lane.id, Core::Gate::PASS, @show.now_ms) : judge(lane, line)
      end

      # @return [Core::Chat::Line] of which the host is known by the account they are signed in with
      def made(lane, intake)
        behind_ms = (lane.clock_behind_ms if intake.history?) || 0
        line = Core::Chat::Line.from(intake, id: @show.ids.next(@show.now_ms), emotes: @show.wardrobe.emotes, behind_ms:)
        line.person = line.person.signed_in(lane.feed.permission.account) if lane.feed.permission
        line
      end

      def judge(lane, line)
        now_ms = @show.now_ms
        @show.wardrobe.count(line)
        count(lane, line)
        @show.lines.arrive(line, lane.id, @show.gatehouse.hear(line), now_ms, past: past?(line, now_ms))
      end

      # What happened is counted, and what was said may be a command, whatever the gate says of it.
      def count(lane, line)
        return if lane.feed.draft_only

        event = @show.tallies.count(line)
        event ? @show.happenings.counted(event) : @show.happenings.said(line)
      end

      # What is told again from history was said long before anybody could hold it.
      def past?(line, now_ms) = now_ms - line.shown_at_ms > Core::Chat::Hold::Settings::LONGEST_MS

      # What is changed before it came is not known here, and comes as it is then.
      def edit_line(lane, platform_id, edited)
        now_ms = @show.now_ms
        @log.edited_there(lane.id, platform_id, edited, now_ms, before: @show.lines.said(lane.id, platform_id)&.line&.text)
        @show.lines.edit(lane.id, platform_id, edited, @show.wardrobe.emotes, now_ms) { |line| @show.gatehouse.hear_again(line) }
      end

      def delete_line(lane, platform_id)
        now_ms = @show.now_ms
        lane.taken_before.remember(platform_id, now_ms) unless lane.seen?(platform_id)
        @log.deleted_there(:pull, lane.id, platform_id, now_ms)
        @show.prompter.deleted(@show.lines.delete(lane.id, platform_id, now_ms))
      end

      # @param login [String, nil] whose lines; nil: everybody's
      def delete_of(lane, login)
        now_ms = @show.now_ms
        @log.deleted_there(:pull_all, lane.id, login, now_ms)
        @show.prompter.deleted(@show.lines.delete_of(lane.id, login, now_ms))
      end
    end
  end
end
