# frozen_string_literal: true

require_relative "../core/cues/settings"
require_relative "../core/flurry/flurry"
require_relative "../core/dress/badge"
require_relative "../core/gate/sight"
require_relative "line_card"

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
      # Emotes that fly where nobody named any.
      HANDFUL = 5
      Recent = Struct.new(:event, :cue, :ties, :passed, :line)

      attr_reader :document, :recent, :queue
      attr_accessor :began_ms

      # @param document [Hash] as Core::Cues::Settings reads it
      # @param feed_name [#call] gives a feed's name by its id
      def initialize(document, feed_name:)
        @feed_name = feed_name
        @queue = Core::Cues::Queue.new
        @played = {}
        @recent = []
        @lines = {}
        @random = Random.new
        use(document)
      end

      def use(document)
        @document = document
        @sheet = Core::Cues::Settings.sheet(document)
        @cues = document["cues"].to_h { |cue| [cue["id"], cue] }
        @queue.settings = Core::Cues::Settings.queue_settings(document)
      end

      def findings = @sheet.findings

      # Something that may go on screen: an event, or a line that was paid for.
      #
      # @param line [Core::Chat::Line] as it is shown
      def happened(line, now_ms, test: nil)
        event = Core::Cues::Event.of(line, roles: Core::Gate::Sight.new(line).roles, first_ever: line.first_time, test:) or return
        return if !test && now_ms - line.shown_at_ms > FRESH_MS

        cue(event, line, now_ms)
      end

      # One that happened lately, once more.
      #
      # @return [Boolean] false where it is no longer known
      def again(line_id, now_ms)
        known = @recent.find { |one| one.event.id == line_id } or return false
        cue(known.event.dup, known.line, now_ms)
        true
      end

      # @param waiting_id [Integer, nil] nil: what plays
      # @return [String, nil] its words
      def title(waiting_id)
        one = waiting_id ? @queue.waiting.find { |waiting| waiting.id == waiting_id } : @queue.playing
        one && told(one)[:words][0, 120]
      end

      # What was pulled or deleted plays no more.
      def pull_where(now_ms)
        @changed = true if @queue.pull_where(now_ms) { |event| (line = @lines[event.id]) && yield(line) }
      end

      def skip(now_ms)
        @changed = true if @queue.skip(now_ms)
      end

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

      # @return [Hash, nil] what plays, as pages draw it
      def card(wardrobe)
        playing = @queue.playing or return
        cue = playing.cue
        event = playing.events.last
        card = {i: playing.id, k: cue["kind"], w: words(cue, playing.events), ms: playing.length_ms, at: @began_playing_ms,
                p: cue["picture_place"], s: cue["apart"]}
        card[:f] = cue["picture"] if cue["picture"]
        card.merge!(moved(cue))
        line = @lines[event.id]
        card[:g] = LineCard.fragments_of(line, wardrobe) if cue["message"] && line && !line.text.empty? && playing.events.size == 1
        card
      end

      # What flies with what began just now, once.
      #
      # @return [Core::Flurry::Flurry::Wish, nil]
      def wish(wardrobe)
        cue = @begun && @queue.playing&.cue
        @begun = false
        return unless cue && cue["flurry_count"].positive?

        emotes = flown_emotes(cue, wardrobe)
        way = cue["flurry_way"] unless cue["flurry_way"] == Core::Cues::Cue::AS_PIECE
        Core::Flurry::Flurry::Wish.new(emotes:, many: cue["flurry_count"], way:, from: Core::Cues::Cue::FROM[cue["flurry_from"]])
      end

      # @return [Hash] of the queue for the prompter, the same one until something in it changed
      def brief
        waiting = @queue.waiting.map { |one| [one.id, one.events.size, one.approved] }
        now = [@queue.playing&.id, waiting, @queue.paused?, @document["queue"]["approve"]]
        return @brief if @brief_of == now

        @brief_of = now
        @brief = {playing: @queue.playing && told(@queue.playing)[:words], paused: @queue.paused?, approve: @document["queue"]["approve"],
                  waiting: @queue.waiting.map { |one| told(one).slice(:id, :words, :approved) }}
      end

      # @return [Hash] for the cue sheet's page
      def report
        {playing: @queue.playing && told(@queue.playing), waiting: @queue.waiting.map { |one| told(one) }, paused: @queue.paused?, left: @queue.left,
         recent: @recent.last(20).reverse.map { |one| recently(one) }}
      end

      private

      def cue(event, line, now_ms)
        choice = @sheet.choose(event, now_ms:, played: @played, began_ms:, chance: @random.rand)
        remember(Recent.new(event, choice.cue && choice.cue["id"], choice.ties, choice.passed, line))
        cue = choice.cue && @cues[choice.cue["id"]] or return
        @played[cue["id"]] = now_ms
        @queue.add(event, cue, now_ms, importance: cue["importance"], length_ms: (cue["length_s"] * 1000).round, joins: cue["joins"])
      end

      def remember(recent)
        @recent << recent
        @lines[recent.event.id] = recent.line
        @recent.shift if @recent.size > REMEMBERED
        @lines.shift if @lines.size > MOST_LINES
      end

      # How it comes, stands and goes, where that is not as the piece has it.
      def moved(cue)
        as_piece = Core::Cues::Cue::AS_PIECE
        moved = {}
        moved[:in] = Core::Look::Motion.keyframes(cue["motion_in"]) unless cue["motion_in"] == as_piece
        moved[:out] = Core::Look::Motion.way_out(cue["motion_out"]) unless cue["motion_out"] == as_piece
        moved[:held] = cue["held"] unless cue["held"] == "still"
        moved
      end

      # Those the cue names; those of the message; or a handful of all there are.
      #
      # @return [Array<Array>] as Core::Flurry takes them
      def flown_emotes(cue, wardrobe)
        named = cue["flurry_emotes"].split.filter_map { |code| wardrobe.emotes.contenders(code).first&.emote }
        return named.map { |emote| plain(emote) } if named.any?

        line = @lines[@queue.playing.events.last.id]
        theirs = line ? LineCard.fragments_of(line, wardrobe).filter_map { |kind, *emote| emote.first(4) if kind == :emote } : []
        return theirs if theirs.any?

        all = wardrobe.contents.shelves.select(&:looked_for?).flat_map(&:emotes).reject(&:overlay)
        all.sample(HANDFUL, random: @random).map { |emote| plain(emote) }
      end

      def plain(emote) = [emote.code, emote.picture, emote.ratio, emote.animated ? 1 : 0]

      # Of several that became one: how many, and by whom where it was one person.
      def words(cue, events)
        return Core::Cues::Words.of(cue["words"], events.first, feed: feed_name(events.first)) if events.size == 1

        names = events.map(&:name).uniq
        who = names.size == 1 ? names.first : "#{names.first} and #{names.size - 1} more"
        [["number", events.sum { |event| event.number || 1 }.to_s], ["text", " #{Core::Cues::KINDS[cue["kind"]]} from "], ["name", who]]
      end

      def feed_name(event) = @feed_name.call(event.feed_id)

      def told(waiting)
        {id: waiting.id, cue: waiting.cue["name"], words: words(waiting.cue, waiting.events).map(&:last).join, events: waiting.events.size,
         approved: waiting.approved}
      end

      def recently(one)
        passed = one.passed.map { |id, why| "“#{@cues[id]&.fetch("name")}” #{why}" }
        {line: one.event.id, kind: one.event.kind, name: one.event.name, worth: one.event.amount&.words, at: one.event.at_ms,
         cue: one.cue && @cues[one.cue]&.fetch("name"), ties: one.ties, passed:}
      end
    end
  end
end
