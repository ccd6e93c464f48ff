# frozen_string_literal: true

require_relative "../core/chat/line"
require_relative "../core/gate/ladder"
require_relative "desk_report"
require_relative "feed_lane"
require_relative "figures"
require_relative "mailbox"
require_relative "reception"
require_relative "stage_desk"
require_relative "timer"

module Bavard
  module Live
    # One running show: takes intakes, ticks the clock, drives the core, hands frames to the relay and entries to the
    # log. All of it happens in the show's own thread; others put something in its mailbox or {#ask}.
    class Show
      REMEMBERED_LINES = 2000
      HOUR_MS = 3_600_000
      ANSWER_WITHIN_S = 10
      IDLE_S = 1.0
      # What page asked for what, and where the answer goes.
      Question = Struct.new(:work, :answer)

      attr_reader :id, :record, :lanes, :desks, :figures, :topic, :gate

      # @param record [Store::Shows::Show]
      # @param house [House]
      def initialize(record, house)
        @id = record.id
        @record = record
        @house = house
        @mailbox = Mailbox.new
        @figures = Figures.new
        @topic = Relay::Topic.new("show:#{id}", house.boot)
        @gate = Core::Gate::Ladder.from(record.gate)
        load
        @report = DeskReport.new(self, house)
        @reception = Reception.new(self, house, @report)
      end

      def start
        @thread = Thread.new { run }
        @thread.name = "show-#{id}"
        lanes.each_value { |lane| lane.connect if lane.feed.wanted }
        self
      end

      def stop
        @mailbox.close
        ask { @stopping = true }
        @thread.join
        lanes.each_value(&:disconnect)
      end

      # The one door for pages: runs the block in the show's thread.
      #
      # @yieldparam show [Show]
      # @return what the block gives; what it raises is raised here
      def ask(&work)
        question = Question.new(work, Queue.new)
        @mailbox.drop_in(question)
        Timer.pop(question.answer, ANSWER_WITHIN_S) { raise Error, "The show is busy and did not answer. Try again in a moment." }
          .then { |kind, value| kind == :raised ? raise(value) : value }
      end

      # Takes what a page's WebSocket does. May be called from the relay's loop.
      def screen(desk, what, connection, text = nil)
        @mailbox.drop_in([desk, what, connection, text])
      end

      # For use inside {#ask} only, from here on. Nothing here waits for the database: what is to be kept goes through
      # the journal, so that a show goes on while the database is away.

      # A show that was only just started has found the feed in the database already.
      def add_feed(feed)
        lanes[feed.id]&.disconnect
        lanes[feed.id] = FeedLane.new(feed, @house, send: method(:take_in))
        lanes[feed.id].connect if feed.wanted
      end

      def remove_feed(feed_id)
        lanes.delete(feed_id)&.disconnect
        at_ms = now_ms
        @house.journal.later { @house.feeds.remove(feed_id, at_ms) }
      end

      def want_feed(feed_id, wanted)
        lane = lane(feed_id)
        lane.feed.wanted = wanted
        @house.journal.later { @house.feeds.keep(feed_id, wanted:) }
        wanted ? lane.connect : lane.disconnect
      end

      def map_feed(feed_id, mapping)
        lane = lane(feed_id)
        lane.feed.mapping = mapping
        @house.journal.later { @house.feeds.keep(feed_id, mapping:) }
        lane.connect if lane.feed.wanted
      end

      def add_stage(stage)
        desks[stage.id] ||= StageDesk.new(stage, @house, marks: method(:mark), entries: [])
      end

      def gate=(document)
        @house.journal.later { @house.shows.keep_gate(id, document) }
        record.gate = document
        @gate = Core::Gate::Ladder.from(document)
      end

      def lane(feed_id)
        lanes[feed_id] || raise(Error.new("That feed is no longer there.", field: "feed", value: feed_id))
      end

      def desk(stage_id)
        desks[stage_id] || raise(Error.new("That stage is no longer there.", field: "stage", value: stage_id))
      end

      def clear_air(stage_id)
        desk(stage_id).clear_air(@house.ids.next(now_ms))
      end

      def now_ms = @house.clock.call

      private

      def load
        entries = @house.lines.latest(id, REMEMBERED_LINES)
        recount
        @lanes = @house.feeds.of_show(id).to_h { |feed| [feed.id, lane_with(feed, entries)] }
        passed = entries.select { |entry| entry.verdict.pass? }.sort_by { |entry| entry.line.shown_at_ms }
        @desks = @house.stages.of_show(id).to_h do |stage|
          [stage.id, StageDesk.new(stage, @house, marks: method(:mark), entries: passed.last(Core::Chat::Timeline::REMEMBERED))]
        end
      end

      def lane_with(feed, entries)
        FeedLane.new(feed, @house, send: method(:take_in), entries: entries.select { |entry| entry.line.feed_id == feed.id },
          seen: @house.lines.recent_platform_ids(feed.id, FeedLane::SEEN_IDS))
      end

      def recount
        @house.lines.counts_since(id, now_ms - HOUR_MS).each do |at_ms, dropped, aired|
          figures.count(at_ms, dropped:, aired:)
        end
      end

      def take_in(lane, runner, intake)
        @mailbox.put([lane, runner, intake])
      end

      def run
        until @stopping
          @mailbox.take(wait_s).each { |item| guarded { handle(item) } }
          guarded { advance }
        end
      end

      # One bad happening must not end the show.
      def guarded
        yield
      rescue StandardError => error
        @house.meters.fault(:show)
        @house.log.error("show #{id}", error)
      end

      def wait_s
        due = (desks.values.map(&:due_ms) << @report.due_ms).compact.min
        due ? ((due - now_ms) / 1000.0).clamp(0, IDLE_S) : IDLE_S
      end

      def handle(item)
        case item
        when Question then answer(item)
        else
          item.size == 3 ? @reception.take(*item) : screen_did(*item)
        end
      end

      def answer(question)
        question.answer << [:gave, question.work.call(self)]
      rescue StandardError => error
        question.answer << [:raised, error]
      ensure
        @report.touch
      end

      def screen_did(desk, what, connection, text)
        case what
        when :opened then desk.screen_opened(connection, now_ms)
        when :heard then desk.screen_heard(connection, text, now_ms) || @house.reject(:screen, "a report that cannot be read")
        when :closed then desk.screen_closed(connection)
        end
        @report.touch
      end

      def advance
        now = now_ms
        desks.each_value { |desk| desk.advance(now) { |line| @gate.judge(line).pass? } }
        lanes.each_value { |lane| lane.keep_heard(now) }
        @report.flush(now)
      end

      def mark(line)
        lanes[line.feed_id]&.mark || Rehearsal::MARKS.first
      end
    end
  end
end
