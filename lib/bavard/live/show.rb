# frozen_string_literal: true

require_relative "../core/chat/line"
require_relative "answers"
require_relative "desk_report"
require_relative "feed_door"
require_relative "feed_lane"
require_relative "figures"
require_relative "gatehouse"
require_relative "mailbox"
require_relative "moderation"
require_relative "prompter_desk"
require_relative "reception"
require_relative "sightings"
require_relative "stage_door"
require_relative "timer"
require_relative "wardrobe"

module Bavard
  module Live
    # One running show: takes intakes, ticks the clock, drives the core, hands frames to the relay and entries to the
    # log. All of it happens in the show's own thread; others put something in its mailbox or {#ask}.
    class Show
      include FeedDoor
      include Moderation
      include StageDoor

      REMEMBERED_LINES = 2000
      HOUR_MS = 3_600_000
      ANSWER_WITHIN_S = 10
      IDLE_S = 1.0
      # What page asked for what, and where the answer goes.
      Question = Struct.new(:work, :answer)
      # The picture at this address is there now.
      Came = Struct.new(:address)

      attr_reader :id, :record, :lanes, :desks, :figures, :topic, :gatehouse, :prompter, :sightings, :answers, :wardrobe

      # @param record [Store::Shows::Show]
      # @param house [House]
      def initialize(record, house)
        @id = record.id
        @record = record
        @house = house
        @mailbox = Mailbox.new
        @figures = Figures.new
        @topic = Relay::Topic.new("show:#{id}", house.boot)
        @wardrobe = Wardrobe.new(id, house, Wardrobe.load(house.dress, id))
        load
        @answers = Answers.new
        @sightings = Sightings.new(house)
        @report = DeskReport.new(self, house)
        @reception = Reception.new(self, house, @report)
      end

      def start
        @thread = Thread.new { run }
        @thread.name = "show-#{id}"
        @house.pictures.listen { |address| picture_came(address) }
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

      # @param ladder [Core::Gate::Ladder, nil] of the set in force, where it is made already
      def use_gate(document, ladder = nil)
        @house.journal.later { @house.shows.keep_gate(id, document) }
        record.gate = document
        gatehouse.use(document, ladder)
        desks.each_value { |desk| desk.air.veil(gatehouse.brake&.off_picture? || false) }
      end

      # Everything wears what there is now, also what stands already.
      #
      # @param contents [Wardrobe::Contents]
      def dress(contents)
        wardrobe.contents = contents
        desks.each_value { |desk| desk.dress(wardrobe.emotes) }
        lanes.each_value { |lane| lane.dress(wardrobe.emotes) }
      end

      # The picture at an address has come; from any thread.
      def picture_came(address)
        @mailbox.drop_in(Came.new(address))
      end

      def now_ms = @house.clock.call

      private

      def load
        @gatehouse = made_gatehouse
        entries = @house.lines.latest(id, REMEMBERED_LINES).each { |entry| entry.line.dress(wardrobe.emotes) }
        recount
        @lanes = @house.feeds.of_show(id).to_h { |feed| [feed.id, lane_with(feed, entries)] }
        load_desks(entries.select { |entry| entry.aired || (entry.verdict.pass? && !entry.held) })
        load_prompter(entries)
        load_held
      end

      def made_gatehouse
        Gatehouse.new(record.gate, left_out: @house.left_out.of_show(id, now_ms), first_seen: @house.known.first_seen(id))
      end

      # What stood on the stages, as it was shown there.
      def load_desks(passed)
        passed = passed.map { |entry| shown(entry) }.sort_by { |entry| entry.line.shown_at_ms }.last(Core::Chat::Timeline::REMEMBERED)
        @desks = @house.stages.of_show(id).to_h { |stage| [stage.id, desk_with(stage, passed)] }
        desks.each_value { |desk| desk.air.veil(true) } if gatehouse.brake&.off_picture?
      end

      # What was held goes on being held.
      def load_held
        @house.lines.held(id).each do |entry|
          line = entry.line.dress(wardrobe.emotes)
          gatehouse.hold(line, line.feed_id, entry.verdict, now_ms, held_for_ms: [now_ms - line.arrived_at_ms, 0].max)
        end
      end

      def lane_with(feed, entries)
        own = entries.select { |entry| entry.line.feed_id == feed.id }
        FeedLane.new(feed, @house, send: method(:take_in), wardrobe: -> { @wardrobe }, entries: own,
          seen: @house.lines.recent_platform_ids(feed.id, FeedLane::SEEN_IDS))
      end

      def load_prompter(entries)
        @prompter = PrompterDesk.new(id, @house, gatehouse, record.host_name)
        entries.each do |entry|
          lane = lanes[entry.line.feed_id] or next
          prompter.line(lane, entry, entry.aired ? :aired : :nowhere, lane.card(entry.line, entry.verdict, pulled: entry.pulled),
            pulled: entry.pulled)
        end
        prompter.deeds = @house.deeds.latest(id)
        prompter.prepare(now_ms)
      end

      # As it goes on the picture.
      def shown(entry) = Store::Lines::Entry.new(entry.line.as_shown(entry.verdict.shown, wardrobe.emotes), *entry.to_a.drop(1))

      def recount
        @house.lines.counts_since(id, now_ms - HOUR_MS).each do |at_ms, dropped, aired, rule|
          figures.count(at_ms, dropped:, aired:)
          gatehouse.recount(at_ms, rule)
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
        due = (desks.values.map(&:due_ms) << @report.due_ms << gatehouse.due_ms << prompter.due_ms << sightings.due_ms).compact.min
        due ? ((due - now_ms) / 1000.0).clamp(0, IDLE_S) : IDLE_S
      end

      def handle(item)
        case item
        when Question then answer(item)
        when Came then came(item.address)
        else
          item.size == 3 ? @reception.take(*item) : screen_did(*item)
        end
      end

      def came(address)
        wardrobe.picture_came(address)
        desks.each_value { |desk| desk.redraw { |line| line.addresses.include?(address) } }
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
        when :opened then desk.screens.opened(connection, now_ms)
        when :heard then screen_said(desk, connection, text)
        when :closed then desk.screens.closed(connection)
        end
        @report.touch
      end

      def screen_said(desk, connection, text)
        read = desk.screens.heard(connection, text, now_ms) do |line_id, at_ms, words|
          if prompter[line_id]
            sightings.add(line_id,
              ["painted", at_ms, [desk.stage.name, words]])
          end
        end
        @house.reject(:screen, "a report that cannot be read") unless read
      end

      def advance
        now = now_ms
        use_gate(gatehouse.document.merge("brake" => nil), gatehouse.ladder) if gatehouse.brake_over?(now)
        @reception.advance(now)
        desks.each_value { |desk| desk.advance(now) { |line| rehearsed(line) } }
        lanes.each_value { |lane| lane.keep_heard(now) }
        prompter.flush(now)
        sightings.flush(now)
        wardrobe.flush(now)
        @report.flush(now)
      end

      # @return [Core::Chat::Line, nil] as it would be shown
      def rehearsed(line)
        verdict = gatehouse.rehearse(line)
        line.as_shown(verdict.shown, wardrobe.emotes) if verdict.pass?
      end

      def mark(line)
        lanes[line.feed_id]&.mark || Rehearsal::MARKS.first
      end
    end
  end
end
