# frozen_string_literal: true

require "forwardable"
require_relative "../../core/chat/line"
require_relative "../../lasting"
require_relative "../../timer"
require_relative "../broadcast/broadcast"
require_relative "../broadcast/happenings"
require_relative "../intake/answers"
require_relative "../intake/feed_door"
require_relative "../intake/reception"
require_relative "../lines/line_book"
require_relative "../lines/line_figures"
require_relative "../lines/line_log"
require_relative "../lines/line_news"
require_relative "../lines/picture"
require_relative "../lines/screen_times"
require_relative "../lines/sightings"
require_relative "../moderation/directing"
require_relative "../moderation/moderation"
require_relative "../moderation/undoing"
require_relative "../pictures/wardrobe"
require_relative "../rehearsal/script"
require_relative "../stage/stage_door"
require_relative "broadcast_notes"
require_relative "checking"
require_relative "desk_report"
require_relative "figures"
require_relative "lead"
require_relative "small_leads"
require_relative "mailbox"
require_relative "messages"
require_relative "screen_door"
require_relative "show_loading"
require_relative "sleeping"

module Bavard
  module Live
    # One running show: takes intakes, ticks the clock, drives the core, hands frames to the relay and entries to the
    # log. All of it happens in the show's own thread; others put something in its mailbox or {#ask}.
    class Show
      extend Forwardable
      include ShowLoading
      include Sleeping

      ANSWER_WITHIN_S = 10
      # So long whoever did something waits for it to be kept; not at all where the database is known to be away.
      KEPT_WITHIN_S = 3
      IDLE_S = 1.0
      # So long at most it takes in, once it is to end, what was brought by then; and so long many of them that end one after another.
      REST_WITHIN_S = 2
      ALL_REST_WITHIN_S = 10
      OVER = "The show has just ended here. Try again in a moment."

      attr_reader :id, :record, :journal, :ids, :mishaps, :figures, :topic, :gatehouse, :prompter, :sightings, :answers, :wardrobe, :voices, :cues,
        :tallies, :sounding, :shout_outs, :lines, :reception, :broadcast, :happenings, :moderation, :screen_times, :lead, :small_leads,
        :checking, :notes

      # What pages ask a show for is done by its parts; for use inside {#ask} only.
      def_delegators :@broadcast, :begin_broadcast, :end_broadcast, :edit_cues, :set_total, :told_totals, :told_now, :totals, :pace_of
      def_delegators :@feeds, :platforms, :describe, :lane, :add_feed, :remove_feed, :want_feed, :map_feed, :change_feed, :send_answer
      def_delegators :@stages, :desk, :clear_air, :add_stage, :remove_stage, :removed_stage, :put_back_stage, :order_stages
      def_delegators :@happenings, :cue_findings, :pull_cues
      def_delegators :@moderation, :deed, :pull_line, :let_line_go, :leave_out, :take_back, :pin_line, :enlarge, :mark_line, :note_person
      def_delegators :@directing, :direct_cues, :play_again, :put_on_air, :restore, :answer_in_chat, :play_own, :introduce
      def_delegators :@undoing, :undo_deed

      # @param record [Store::Shows::Show]
      # @param means [Means]
      # @param again [#call] gives this show as it runs after it has slept
      def initialize(record, means, again: nil)
        @id = record.id
        @record = record
        @again = again
        @processor_s = 0.0
        use(means)
        @woken_ms = now_ms
        @mailbox = Mailbox.new
        @figures = Figures.new
        @topic = Relay::Topic.new("show:#{id}")
        @wardrobe = Wardrobe.new(id, means.stores.dress, means.pictures, journal)
        @report = DeskReport.new(self, means)
        begin_parts(means)
        begin_lines(means.meters)
        load(means)
        @answers = Answers.new
        @sightings = Sightings.new(id, journal)
        @reception = Reception.new(self, @report, @line_log)
      end

      def start
        @thread = Lasting.new("show-#{id}", told: method(:fault)) { run }.start
        @pictures.listen(self) { |address| picture_came(address) }
        lanes.each_value { |lane| lane.connect if lane.feed.wanted }
        self
      end

      # Ends it, with all taken in that its feeds had brought by then.
      #
      # @param until_s [Numeric, nil] not beyond that, by the clock that never jumps
      def stop(until_s: nil)
        @rest_until_s = until_s
        @mailbox.close
        ask do
          lanes.each_value(&:hush)
          @stopping = true
        end
        leave
        desks.each_value { |desk| desk.keep_live(now_ms, at_once: true) }
      end

      # The one door for pages: runs the block in the show's thread.
      #
      # What it did is kept before it is answered.
      #
      # @yieldparam show [Show]
      # @return what the block gives; what it raises is raised here
      def ask(&work)
        question = Messages::Question.new(work, Queue.new)
        return again.ask(&work) unless @mailbox.drop_in(question)

        kind, value, deed = Timer.pop(question.answer, ANSWER_WITHIN_S) { raise Busy, "The show is busy and did not answer. Try again in a moment." }
        raise value if kind == :raised

        journal.kept?(deed, KEPT_WITHIN_S) if deed
        value
      end

      # @return [Relay::Topic] what pages of its prompter hear, who are told from now on
      def prompter_opened = prompter.open? ? prompter.topic : ask { prompter.open(now_ms) }

      # Takes what a page's WebSocket does. May be called from the relay's loop.
      def screen(desk, what, connection, text = nil)
        @mailbox.drop_in(Messages::ScreenDid.new(desk, what, connection, text))
      end

      # For use inside {#ask} only, from here on. Nothing here waits for the database: what is to be kept goes through
      # the journal, so that a show goes on while the database is away.

      # @param ladder [Core::Gate::Ladder, nil] of the set in force, where it is made already
      # @raise [Bavard::Error] where a show may have no more rules in a set
      def use_gate(document, ladder = nil)
        @ceilings.room_within(id, "rules", *[record.gate, document].map { |gate| gate["sets"].map { |set| set["rules"].size }.max })
        journal.deed(:shows, :keep_gate, id, document)
        record.gate = document
        gatehouse.use(document, ladder)
        follow_gate
      end

      # What waits, and what viewers see, follows the gate's settings.
      def follow_gate
        lines.use(gatehouse.hold_settings, now_ms, stop: gatehouse.holds_all?)
        desks.each_value { |desk| desk.air.veil(gatehouse.off_picture?) }
      end

      # @param name [String] the show's, from now on
      # @param host [String] the host's, by which lines name them
      def rename(name, host)
        journal.deed(:shows, :rename, id, name:, host_name: host)
        record.name = name
        record.host_name = host
        [prompter, @stages].each { |told| told.host = host }
      end

      # @param document [Hash] as Core::Cues::Settings reads it
      # @raise [Bavard::Error] where a show may have no more cues
      def use_cues(document)
        @ceilings.room_within(id, "cues", cues.document["cues"].size, document["cues"].size)
        journal.deed(:shows, :keep_cues, id, document)
        record.cues = document
        cues.use(document)
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
        @mailbox.drop_in(Messages::PictureCame.new(address))
      end

      def now_ms = @clock.call
      def lanes = @feeds.lanes
      def desks = @stages.desks

      # Takes what was sent to an address of the host's own; from any thread, and never waits.
      #
      # @raise [Bavard::Error] where there is too much of it
      def hand_in(lane, intake)
        raise Busy, "That is more than can be taken in at once. Send it again in a moment." if @mailbox.full?(lane)

        @mailbox.follow(Messages::Brought.new(lane, lane.runner, intake), lane) or raise Busy, OVER
      end

      private

      def use(means)
        @journal = means.journal
        @hub = means.hub
        @ids = means.ids
        @clock = means.clock
        @mishaps = means.mishaps
        @pictures = means.pictures
        @ceilings = means.stores.ceilings
      end

      def begin_parts(means)
        @feeds = FeedDoor.new(self, means, method(:take_in))
        @stages = StageDoor.new(self, means, method(:mark))
        @broadcast, @happenings, @moderation, @directing, @undoing, @screens, @checking, @notes =
          [Broadcast, Happenings, Moderation, Directing, Undoing, ScreenDoor, Checking, BroadcastNotes].map { |part| part.new(self) }
      end

      def take_in(lane, runner, intake)
        @mailbox.put(Messages::Brought.new(lane, runner, intake), lane)
      end

      def run
        turn(wait_s) until @stopping
        # Many platforms tell nobody again what they told, and of some things we said that they are taken.
        until_s = [@rest_until_s, Process.clock_gettime(Process::CLOCK_MONOTONIC) + REST_WITHIN_S].compact.min
        turn(0) until @mailbox.retire || Process.clock_gettime(Process::CLOCK_MONOTONIC) > until_s
      end

      def turn(wait_s)
        @mailbox.take(wait_s).each { |item| guarded { handle(item) } }
        guarded { advance }
        guarded { fall_asleep } if @sleepy
        @processor_s = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)
        # A show that is flooded gives way: Ruby alone would let it run for a tenth of a second at a time.
        Thread.pass
      end

      # Whoever asked too late is answered, and does not wait.
      def leave
        @thread.join
        topics.each(&:finish)
        @mailbox.give_up.grep(Messages::Question).each { |question| question.answer << [:raised, Busy.new(OVER)] }
        lanes.each_value(&:disconnect)
        @pictures.leave(self)
      end

      def again = @again ? @again.call : raise(Busy, OVER)

      # One bad happening must not end the show.
      def guarded
        yield
      rescue StandardError => error
        fault(error)
      end

      def fault(error)
        mishaps.fault(:show, "show #{id}", error)
      end

      def wait_s
        due = [@report.due_ms, *parts_due].min
        ((due - now_ms) / 1000.0).clamp(0, IDLE_S)
      end

      def parts_due = [lines, gatehouse, prompter, sightings, voices, cues, shout_outs, *desks.values].filter_map(&:due_ms)

      def handle(item)
        case item
        when Messages::Brought then reception.receive(item.lane, item.runner, item.intake)
        when Messages::Question then answer(item)
        when Messages::ScreenDid then screen_did(item)
        when FeedLane::Heard then item.lane.keep_heard(item)
        when Messages::PictureCame then came(item.address)
        end
      end

      def came(address)
        wardrobe.picture_came(address)
        desks.each_value { |desk| desk.redraw { |line| wardrobe.wears?(line, address) } }
        prompter.redraw { |line| wardrobe.wears?(line, address) }
      end

      def screen_did(item)
        @screens.receive(item)
        @report.touch
      end

      def answer(question)
        before = journal.last_deed
        value = question.work.call(self)
        deed = journal.last_deed
        question.answer << [:gave, value, deed > before ? deed : nil]
      rescue StandardError => error
        question.answer << [:raised, error]
      ensure
        @report.touch
      end

      def advance
        now = now_ms
        use_gate(gatehouse.document.merge("brake" => nil), gatehouse.ladder) if gatehouse.brake_over?(now)
        @report.touch if lines.advance(now)
        voices.advance(now)
        happenings.play(now)
        advance_desks(now)
        lanes.each_value { |lane| lane.heard_so_far(now)&.then { |heard| @mailbox.follow(heard, lane) } }
        tell_prompter(now)
        sightings.flush(now)
        wardrobe.flush(now)
        @report.flush(now)
      end

      def advance_desks(now)
        desks.each_value do |desk|
          happenings.told_ended(desk.advance_live(now))
          desk.advance(now) { |line| rehearsed(line) }
        end
      end

      def tell_prompter(now)
        prompter.voices = voices.strip
        prompter.cues = cues.brief
        prompter.flush(now)
      end

      # @return [Core::Chat::Line, nil] as it would be shown
      def rehearsed(line)
        verdict = gatehouse.rehearse(line)
        line.as_shown(verdict.shown, wardrobe.emotes) if verdict.pass?
      end

      def mark(line)
        lanes[line.feed_id]&.mark || Script::MARKS.first
      end
    end
  end
end
