# frozen_string_literal: true

require_relative "../../core/cues/settings"
require_relative "../../core/dress/badge"
require_relative "../../core/gate/sight"
require_relative "played_cue"

module Bavard
  module Live
    # A running show's cue sheet: asks it about what happens, queues what it says, and tells stages what plays. Belongs to its
    # show's thread.
    class CueDesk
      # What was cued lately, for pages.
      REMEMBERED = 60
      # Lines of events that may still wait: as many as a full queue can stand for.
      MOST_LINES = 2000
      # What happened longer ago is told again, not cued.
      FRESH_MS = 120_000
      Recent = Struct.new(:event, :cue, :ties, :passed, :line)

      attr_reader :document, :recent, :queue
      attr_accessor :began_ms

      # @param document [Hash] as Core::Cues::Settings reads it
      # @param feed_name [#call] gives a feed's name by its id
      def initialize(document, feed_name:)
        @feed_name = feed_name
        @queue = Core::Cues::Queue.new
        @played = {}
        @added = []
        @recent = []
        @lines = {}
        @random = Random.new
        use(document)
      end

      # @param document [Hash] as Core::Cues::Settings reads it
      def use(document)
        @document = document
        @sheet = Core::Cues::Settings.sheet(document)
        @cues = document["cues"].to_h { |cue| [cue["id"], cue] }
        @queue.settings = Core::Cues::Settings.queue_settings(document)
      end

      def findings = @sheet.findings

      # @return [Boolean] whether no broadcast goes on
      def ended? = document["began_ms"].nil? || !document["ended_ms"].nil?

      # Something that may go on screen: an event, or a line that was paid for.
      #
      # @param line [Core::Chat::Line] as it is shown
      # @param first [Boolean] whether it is the first of its kind its person ever did
      # @param test [Symbol, nil] where somebody tries it: :draft or :screens
      # @param silent [Boolean] whether it is tried without a sound
      # @param only [String, nil] id of the cue to be tried, whatever the sheet would choose
      # @raise [Bavard::Error]
      def happened(line, now_ms, first: false, test: nil, silent: false, only: nil)
        event = Core::Cues::Event.of(line, roles: line.person.roles, first_ever: first, test:, silent:) or return
        return if !test && now_ms - line.shown_at_ms > FRESH_MS

        only ? play(certain(only), event, now_ms, line) : cue(event, line, now_ms)
      end

      # Something that is no line, as a goal that is reached.
      #
      # @param event [Core::Cues::Event]
      def happen(event, now_ms) = cue(event, nil, now_ms)

      # @return [Array<Hash>] cues for the host's own events, in force
      def own = @cues.each_value.select { |cue| cue["kind"] == "own" && cue["on"] }

      # A certain cue, whatever the sheet would choose.
      #
      # @param event [Core::Cues::Event]
      def play(cue, event, now_ms, line = nil)
        remember(Recent.new(event, cue["id"], [], [], line))
        note(cue, event, now_ms)
        wait(cue, event, now_ms)
      end

      # One that happened lately, once more, as it was played then. It counts for nothing.
      #
      # @raise [Bavard::Error]
      def again(line_id, now_ms)
        known = @recent.find { |one| one.event.id == line_id } or raise Gone, "That was too long ago to be played again here."
        cue = @cues[known.cue] || @sheet.choose(known.event, now_ms:, began_ms:).cue&.then { |chosen| @cues[chosen["id"]] }
        raise Error, "No cue is for that." unless cue

        @lines[known.event.id] = known.line
        wait(cue, known.event.dup, now_ms)
        cue["name"]
      end

      # What cues add to goals, challenges and counters since that was asked last.
      #
      # @return [Hash{String => Numeric}] by what they are called
      def take_added
        added = @added.group_by(&:last).transform_values { |all| all.sum(&:first) }
        @added.clear
        added
      end

      # @param waiting_id [Integer, nil] nil: what plays
      # @return [String, nil] its words
      def title(waiting_id)
        one = waiting_id ? @queue.waiting.find { |waiting| waiting.id == waiting_id } : @queue.playing
        one && report_of(one)[:words][0, 120]
      end

      # @return [Boolean] whether something of it may still play
      def remembers?(line_id) = @lines.key?(line_id)

      # What was pulled or deleted plays no more, now or again.
      def pull_where(now_ms)
        playing = @queue.playing
        @recent.reject! { |one| one.line && yield(one.line) }
        return unless @queue.pull_where(now_ms) { |event| (line = @lines[event.id]) && yield(line) }

        @changed = true
        @pulled = playing.id
      end

      # What plays is over.
      #
      # @return [Boolean, nil] whether something played
      def skip(now_ms)
        @changed = true if @queue.skip(now_ms)
      end

      # What is over ends, and what is next begins.
      def advance(now_ms)
        ended, begun = @queue.advance(now_ms)
        @changed = true if ended || begun
        return unless begun

        @began_playing_ms = now_ms
        @begun = true
      end

      def due_ms = @queue.due_ms

      # @return [Boolean] once after something else plays
      def changed?
        changed = @changed
        @changed = false
        changed || false
      end

      # @return [Symbol, nil] :draft where only drafts play it
      def where = (playing = @queue.playing) && playing.events.first.test

      # @return [PlayedCue, nil] what plays
      def playing = @queue.playing && played(@queue.playing)

      # @return [Hash, nil] what plays, as pages draw it; off: what was pulled while it played, told once, alone or with the next
      def card(wardrobe)
        pulled = @pulled
        @pulled = nil
        card = playing&.card(wardrobe, @began_playing_ms)
        pulled ? {off: pulled, **card.to_h} : card
      end

      # @return [Core::Flurry::Flurry::Wish, nil] what flies with what plays
      def wish(wardrobe) = playing&.wish(wardrobe, @random)

      # @param line_id [Integer]
      # @param waiting_id [Integer] of what plays, and no other
      # @return [PlayedCue, nil] that is read aloud just now
      def read_aloud(waiting_id) = (playing if @queue.playing&.id == waiting_id && playing.heard&.key?(:said))

      # @return [Integer] how long what plays goes on
      def length_ms = @queue.playing.length_ms

      # Whether something began since that was asked last.
      #
      # @return [Boolean]
      def begun?
        begun = @begun
        @begun = false
        begun || false
      end

      # @return [Hash] of the queue for the prompter, the same one until something in it changed
      def brief
        waiting = @queue.waiting.map { |one| [one.id, one.events.size, one.approved] }
        now = [@queue.playing&.id, waiting, @queue.paused?, @document]
        return @brief if @brief_of == now

        @brief_of = now
        @brief = {playing: playing&.report&.fetch(:words), paused: @queue.paused?, approve: @document["queue"]["approve"],
                  waiting: @queue.waiting.map { |one| report_of(one).slice(:id, :words, :approved) }, own: own.map { |cue| cue.slice("id", "name") }}
      end

      # @return [Hash] for the cue sheet's page
      def report
        {playing: playing&.report, waiting: @queue.waiting.map { |one| report_of(one) }, paused: @queue.paused?, left: @queue.left,
         **broadcast,
         recent: @recent.last(20).reverse.map { |one| recently(one) }}
      end

      # @param id [String] of a cue
      # @param event [Core::Cues::Event] that fits it
      # @return [Hash] times: how often it was asked for lately, of how many events; instead: what would play if it did not
      # @raise [Bavard::Error]
      def about(id, event, now_ms)
        certain(id)
        others = Core::Cues::Settings.sheet(document.merge("cues" => document["cues"].reject { |cue| cue["id"] == id }))
        lately = @recent.reject { |one| one.event.test }
        instead = others.choose(event, now_ms:, began_ms:).cue
        {times: lately.count { |one| one.cue == id }, of: lately.size, instead: instead && instead["name"]}
      end

      private

      def cue(event, line, now_ms)
        choice = @sheet.choose(event, now_ms:, played: @played, began_ms:, chance: @random.rand)
        remember(Recent.new(event, choice.cue && choice.cue["id"], choice.ties, choice.passed, line))
        cue = choice.cue && @cues[choice.cue["id"]] or return
        note(cue, event, now_ms)
        wait(cue, event, now_ms)
      end

      # What is only tried counts for nothing.
      def note(cue, event, now_ms)
        return if event.test

        @played[cue["id"]] = now_ms
        adds = Core::Cues::Cue.adds(cue)
        @added << adds if adds
      end

      # @raise [Bavard::Error]
      def certain(cue_id) = @cues[cue_id] || raise(Gone.new("That cue is no longer on the sheet.", field: "cue"))

      def wait(cue, event, now_ms)
        @queue.add(event, cue, now_ms, importance: cue["importance"], length_ms: (cue["length_s"] * 1000).round, joins: cue["joins"])
      end

      def remember(recent)
        @recent << recent
        @lines[recent.event.id] = recent.line
        @recent.shift if @recent.size > REMEMBERED
        @lines.shift if @lines.size > MOST_LINES
      end

      def played(waiting) = PlayedCue.new(waiting, @lines[waiting.events.last.id], @feed_name)
      def report_of(waiting) = played(waiting).report

      def broadcast
        {began: document["began_ms"], ended: document["ended_ms"], noticed: document["noticed"]}
      end

      def recently(one)
        passed = one.passed.map { |id, why| "“#{@cues[id]&.fetch("name")}” #{why}" }
        {line: one.event.id, kind: one.event.kind, name: one.event.name, worth: one.event.amount&.words, at: one.event.at_ms,
         cue: one.cue && @cues[one.cue]&.fetch("name"), ties: one.ties, passed:}
      end
    end
  end
end
