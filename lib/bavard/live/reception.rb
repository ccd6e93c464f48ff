# frozen_string_literal: true

require_relative "../core/chat/line"
require_relative "../store/lines"

module Bavard
  module Live
    # Takes what a show's feeds hand over: judges lines, brings them to the stages and into the log, and takes away what
    # is deleted. Works in its show's thread.
    class Reception
      # @param show [Show]
      # @param house [House]
      # @param report [DeskReport] told of what the host's pages should know
      def initialize(show, house, report)
        @show = show
        @house = house
        @report = report
      end

      # @param lane [FeedLane]
      # @param runner [Feeds::Runner] whose intake it is; what an earlier one still had to say does not count
      # @param intake [Core::Intake]
      def take(lane, runner, intake)
        return unless lane.current?(runner) && @show.lanes[lane.id].equal?(lane)

        case intake.kind
        when :line, :event then line(lane, intake)
        when :delete_line then delete_line(lane, intake.platform_id)
        when :clear_person then delete_where(lane, intake.body)
        when :clear_all then delete_where(lane, nil)
        when :feed_state then lane.enter(intake.body)
        when :gap then lane.miss(intake.body)
        when :answered then @show.answers.came(lane.id, intake.body)
        end
        @report.touch
      end

      private

      def line(lane, intake)
        return unless lane.new?(intake.platform_id)

        line = Core::Chat::Line.from(intake, id: @house.ids.next(@show.now_ms), emotes: @show.wardrobe.emotes)
        return @house.reject(lane.feed.kind.to_sym, "a line with nothing in it") if line.text.empty? && !line.event?

        @show.wardrobe.count(line)
        judged(lane, line, @show.gate.judge(line))
      end

      def judged(lane, line, verdict)
        where = verdict.pass? ? show(lane, line) : :nowhere
        @show.figures.count(line.arrived_at_ms, dropped: !verdict.pass?, aired: where == :aired)
        @house.journal.line(@show.id, Store::Lines::Entry.new(line, verdict, where == :aired, false, trace(line, verdict, where)))
        @house.meters.line(verdict.action)
        @report.line(lane.note(line, verdict), lane.id)
      end

      # @return [Symbol] :aired, :draft or :nowhere
      def show(lane, line)
        desks = @show.desks.each_value
        return desks.map { |desk| desk.show_draft(line) }.any? ? :draft : :nowhere if lane.feed.draft_only

        desks.map { |desk| desk.show(line) }.any? ? :aired : :nowhere
      end

      # Where it went, step by step.
      def trace(line, verdict, where)
        now_ms = @show.now_ms
        emotes = line.fragments.count { |kind, _| kind == :emote }
        [["received", line.arrived_at_ms, nil], ["dressed", now_ms, emotes.zero? ? nil : emotes], ["judged", now_ms, verdict.rule || "passed"],
          ["shown", now_ms, where]]
      end

      def delete_line(lane, platform_id)
        pull(lane) { |line| line.platform_id == platform_id }
        @house.journal.later { |lines| lines.pull(lane.id, platform_id) }
      end

      # @param login [String, nil] whose lines; nil: everybody's
      def delete_where(lane, login)
        pull(lane) { |line| login.nil? || line.person.login == login }
        up_to = @house.ids.next(@show.now_ms)
        @house.journal.later { |lines| lines.pull_all(lane.id, login, up_to) }
      end

      def pull(lane, &chosen)
        @show.desks.each_value { |desk| desk.pull_where { |line| line.feed_id == lane.id && yield(line) } }
        lane.pull_where(&chosen)
      end
    end
  end
end
