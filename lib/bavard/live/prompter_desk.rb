# frozen_string_literal: true

require_relative "../core/chat/attention"
require_relative "../core/gate/rules"
require_relative "../relay/topic"
require_relative "undoing"

module Bavard
  module Live
    # What the prompter shows: the newest lines with what became of them, what is held, what is pinned, and what people with
    # a role did. Told as it happens, at most thirty times a second. Belongs to its show's thread.
    class PrompterDesk
      FRAME_MS = 34
      KEPT = 2000
      SHOWN = 300
      MOST_PINS = 8
      # state:: one of STATES; marks:: words of MARKS
      Noted = Struct.new(:line, :verdict, :lane_id, :state, :marks, :card)
      STATES = %w[held waits aired draft nowhere off pulled left].freeze
      # Of lines that can still be seen, or will be.
      STANDING = %w[held waits aired draft nowhere].freeze
      MARKS = %w[read answered].freeze
      # Deeds that last until another takes them back.
      STAND = %w[pin unpin large small read answered unmark].freeze
      WHERE = {aired: "aired", draft: "draft", nowhere: "nowhere", thinned: "nowhere", left: "left"}.freeze

      attr_reader :topic, :pins, :large

      # @param show_id [Integer]
      # @param host [String] the host's name
      def initialize(show_id, house, gatehouse, host)
        @house = house
        @gatehouse = gatehouse
        @host = host
        @topic = Relay::Topic.new("prompter:#{show_id}", house.boot)
        @noted = {}
        @pins = []
        @deeds = []
        @sent_at_ms = 0
        begin_anew
      end

      # A line that was judged.
      #
      # @param card [Hash] as the lane draws it
      # @param where [Symbol] :aired, :draft or :nowhere
      # @param pulled [Boolean]
      def line(lane, entry, where, card, pulled: false)
        state = state_of(entry, where, pulled)
        noted = Noted.new(entry.line, entry.verdict, lane.id, state, [], nil)
        noted.card = whole_card(card, noted)
        @noted[entry.line.id] = noted
        @noted.shift if @noted.size > KEPT
        @fresh << noted.card
        @held = true if entry.held
      end

      # Draws lines anew, as when a picture in them has come.
      #
      # @param lanes [Hash{Integer => FeedLane}]
      # @yieldparam line [Core::Chat::Line]
      def redraw(lanes)
        @noted.each_value do |noted|
          next unless yield(noted.line) && (lane = lanes[noted.lane_id])

          noted.card = whole_card(lane.card(noted.line, noted.verdict, pulled: noted.state == "pulled"), noted)
          noted.card[:mk] = noted.marks if noted.marks.any?
          @fresh << noted.card unless @fresh.any? { |card| card[:i] == noted.line.id }
        end
      end

      # @return [Hash] the card of any line of the log, as it would have
      def card_of(lane, entry)
        known = @noted[entry.line.id] and return known.card.dup
        where = entry.aired ? :aired : :nowhere
        noted = Noted.new(entry.line.dress(lane.emotes), entry.verdict, lane.id, state_of(entry, where, entry.pulled), [], nil)
        whole_card(lane.card(noted.line, entry.verdict, pulled: entry.pulled), noted)
      end

      # @return [Noted]
      # @raise [Bavard::Error] where it is not at hand any more
      def find(line_id)
        @noted[line_id] || raise(Error.new("That line left long ago, and nothing can be done about it here. It is in the log.", field: "line"))
      end

      # @return [Noted, nil]
      def [](line_id) = @noted[line_id]

      # What became of a line.
      def went(line_id, where)
        enter(line_id, WHERE.fetch(where))
      end

      def enter(line_id, state)
        noted = @noted[line_id] or return
        noted.state = noted.card[:s] = state
        @states[line_id] = state
        @held = true
      end

      def pulled_where
        @noted.each_value { |noted| enter(noted.line.id, "pulled") if noted.state != "pulled" && yield(noted.line) }
      end

      # @param name [String] login or shown name, in any case
      # @return [Core::Chat::Person, nil] who is called so and wrote lately
      def person_called(name)
        name = Core::Chat::Person.fold(name.delete_prefix("@"))
        @noted.values.reverse_each.find { |noted| [noted.line.person.login, noted.line.person.display_name].any? { |one| Core::Chat::Person.fold(one) == name } }
          &.line&.person
      end

      # @return [Array<Integer>] ids of lines that can still be seen, or will be
      def lines_where
        @noted.each_value.filter_map { |noted| noted.line.id if STANDING.include?(noted.state) && yield(noted.line) }
      end

      def mark(line_id, mark, on)
        noted = find(line_id)
        noted.marks = on ? noted.marks | [mark] : noted.marks - [mark]
        noted.card[:mk] = noted.marks
        @marks[line_id] = noted.marks
      end

      # @return [Boolean] false where it was so already
      def pin(line_id, on)
        return false if @pins.include?(line_id) == on

        on ? @pins.unshift(line_id) : @pins.delete(line_id)
        @pins.pop if @pins.size > MOST_PINS
        @pinned = true
      end

      # @param line_id [Integer, nil] the line that is on the stages large
      def large=(line_id)
        @large = line_id
        @pinned = true
      end

      # @param deed [Store::Deeds::Deed] new, or undone
      def deed(deed)
        @deeds.reject! { |known| known.id == deed.id }
        @deeds << deed
        @deeds.shift if @deeds.size > Store::Deeds::KEPT
        @fresh_deeds << deed
      end

      # @return [Store::Deeds::Deed, nil]
      def find_deed(id) = @deeds.find { |deed| deed.id == id }

      # @return [Store::Deeds::Deed, nil] the last about a line that is not taken back
      def last_deed(line_id, what) = @deeds.reverse_each.find { |deed| deed.line_id == line_id && deed.what == what && deed.undone_ms.nil? }

      # @return [Store::Deeds::Deed, nil] the last of its kind
      def newest_deed(what) = @deeds.reverse_each.find { |deed| deed.what == what }

      # The hold, or what is left of it, has changed.
      def touch_held = @held = true

      # @param rooms [Array<Hash>] voice rooms as Voices#strip tells them
      def voices=(rooms)
        return if rooms == @voices

        @voices = rooms
        @talk = true
      end

      # @param queue [Hash] as CueDesk#brief tells it
      def cues=(queue)
        return if queue.equal?(@cues)

        @cues = queue
        @cued = true
      end

      def due_ms
        @sent_at_ms + FRAME_MS if @talk || @cued || @fresh.any? || @states.any? || @marks.any? || @held || @pinned || @fresh_deeds.any?
      end

      def flush(now_ms)
        due = due_ms
        return unless due && now_ms >= due

        change = {lines: @fresh, states: @states, marks: @marks}
        change[:held] = @gatehouse.held_report if @held
        change.update(pins: pinned, large: @large) if @pinned
        change[:deeds] = @fresh_deeds.map { |one| PrompterDesk.told(one) } if @fresh_deeds.any?
        change[:voices] = @voices if @talk
        change[:cues] = @cues if @cued
        @sent_at_ms = now_ms
        @house.hub.deliver(@topic, @topic.frame({**change, now: now_ms}, whole))
        begin_anew
      end

      # @return [Hash] of a deed as pages show it; back: whether it can be taken back
      def self.told(deed)
        {id: deed.id, at: deed.at_ms, by: deed.by, what: deed.what, line: deed.line_id, about: deed.about, detail: deed.detail,
         undone: deed.undone_by, undone_at: deed.undone_ms, back: Undoing::UNDO.key?(deed.what)}
      end

      # As it is, told to whoever opens the prompter.
      def whole
        cards = @noted.values.last(SHOWN).map { |noted| noted.card.dup }
        held = @gatehouse.held_report
        waiting = held.filter_map { |one| @noted[one[:i]]&.card }
        deeds = @deeds.last(60).map { |one| PrompterDesk.told(one) }
        pins = pinned
        large = @large
        voices = @voices || []
        cues = @cues
        from = @noted.size > SHOWN ? cards.first[:i] : 0
        -> { {from:, voices:, cues:, lines: (waiting + cards).uniq { |card| card[:i] }.sort_by { |card| card[:i] }, held:, pins:, large:, deeds:} }
      end

      # For a page that opens before anything happened.
      def prepare(now_ms)
        @topic.frame({now: now_ms}, whole)
      end

      # After a start: what people did before, and what of it still stands.
      #
      # @param deeds [Array<Store::Deeds::Deed>] oldest first
      # @param standing [Array<Store::Deeds::Deed>] of STAND
      def remember(deeds, standing)
        @deeds = deeds
        standing.reject(&:undone_ms).each { |deed| stand_again(deed) if @noted.key?(deed.line_id) }
      end

      private

      def stand_again(deed)
        case deed.what
        when "pin", "unpin" then pin(deed.line_id, deed.what == "pin")
        when "large" then self.large = deed.line_id unless @noted[deed.line_id].state == "pulled"
        when "small" then self.large = nil
        else mark(deed.line_id, deed.detail["mark"] || deed.what, deed.what != "unmark")
        end
      end

      def begin_anew
        @talk = @cued = false
        @fresh = []
        @states = {}
        @marks = {}
        @fresh_deeds = []
        @held = @pinned = false
      end

      def state_of(entry, where, pulled)
        return "pulled" if pulled
        return "off" if entry.verdict.drop?
        return entry.verdict.hold? ? "waits" : "held" if entry.held

        entry.verdict.hold? && where == :nowhere ? "left" : WHERE.fetch(where)
      end

      def whole_card(card, noted)
        line = noted.line
        verdict = noted.verdict
        more = {fd: noted.lane_id, p: line.person.login, s: noted.state}
        more[:rule] = Core::Gate::Rules.label(verdict.rule) if verdict.rule
        more[:why] = verdict.findings.map(&:why).first if verdict.findings.any?
        more[:as] = verdict.shown.text if verdict.shown
        attention = Core::Chat::Attention.of(line, @host)
        more[:at] = attention if attention.any?
        card.merge(more)
      end

      # Pinned lines, whole, for they may be older than what a page has.
      def pinned = @pins.filter_map { |line_id| @noted[line_id]&.card&.dup }
    end
  end
end
