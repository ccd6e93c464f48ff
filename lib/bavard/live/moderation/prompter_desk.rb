# frozen_string_literal: true

require_relative "../../core/chat/attention"
require_relative "../../core/gate/rules"
require_relative "../../core/moderation/deed"
require_relative "../../relay/topic"
require_relative "../lines/line_book"

module Bavard
  module Live
    # What the prompter shows: the newest lines with what became of them, what is held, what is pinned, and what people with
    # a role did. Told as it happens, at most thirty times a second, once somebody has opened it. Belongs to its show's thread.
    class PrompterDesk
      FRAME_MS = 34
      SHOWN = 300
      MOST_PINS = 8
      NONE = [].freeze
      # Of a line that was drawn or marked.
      #
      # kept:: a LineBook::Kept; marks:: of Core::Moderation::Deed::MARKS; card:: as pages draw it, nil until it is asked for
      Noted = Struct.new(:kept, :marks, :card)
      # Where a line is, as pages are told it; else by its own name.
      TOLD = {queued: "nowhere"}.freeze
      # What may be done about a line, by where it is, as pages are told it.
      OFFERS = Core::Moderation::LineState::OFFERS.transform_keys { |name| TOLD.fetch(name) { name.name } }.freeze

      attr_reader :topic, :pins, :large
      attr_writer :host

      # @param topic [Relay::Topic] what its pages hear
      # @param hub [Relay::Hub]
      # @param lines [LineBook]
      # @param host [String] the host's name
      # @yieldparam kept [LineBook::Kept]
      # @yieldreturn [Hash, nil] its card, as its lane draws it; nil where there is no such lane
      def initialize(topic, hub, lines, host, &draw)
        @draw = draw
        @hub = hub
        @lines = lines
        @host = host
        @topic = topic
        @noted = {}
        @pins = []
        @deeds = []
        @sent_at_ms = 0
        @open = false
        begin_anew
      end

      # @return [Boolean] whether anybody has opened it since its show was woken; may be asked from any thread
      def open? = @open

      # Somebody opens it. Until then nothing is drawn of what was said before, and nobody is told of anything.
      #
      # @return [Relay::Topic] what its pages hear, from now on
      def open(now_ms)
        unless @open
          @topic.frame({now: now_ms}, whole)
          begin_anew
          @open = true
        end
        @topic
      end

      # A line that came.
      #
      # @param kept [LineBook::Kept]
      # @param card [Hash] as the lane draws it
      def line(kept, card)
        noted = @noted[kept.id] = Noted.new(kept, NONE, whole_card(card, kept))
        @fresh << noted.card
        @held = true if kept.state.held?
      end

      # What has become of a line is another thing now.
      #
      # @param from [Symbol] where it was
      def moved(kept, from)
        @held ||= kept.state.held? || Core::Moderation::LineState::HELD.include?(from)
        card = @noted[kept.id]&.card
        state = state_name(kept.state)
        return if card && card[:s] == state

        @states[kept.id] = state
        card[:s] = state if card
      end

      # A platform took away lines that nothing can be done about here any more, and that pages may still have.
      def deleted(line_ids) = line_ids.each { |line_id| @states[line_id] = "deleted" }

      # Nothing can be done about it here any more.
      def forget(line_id) = @noted.delete(line_id)

      # Draws lines anew that were drawn, as when a picture in them has come.
      #
      # @yieldparam line [Core::Chat::Line]
      def redraw
        @noted.each_value do |noted|
          next unless noted.card && yield(noted.kept.line) && (card = drawn(noted))

          noted.card = card
          @fresh << noted.card unless @fresh.any? { |card| card[:i] == noted.kept.id }
        end
      end

      # @return [Hash] the card of any line of the log, as it would have
      def card_of(lane, entry)
        known = card(entry.line.id) and return known.dup
        kept = @lines.as_known(entry)
        kept.line.dress(lane.emotes)
        whole_card(lane.card(kept), kept)
      end

      # @return [Array<String>] how a line is marked
      def marks(line_id) = @noted[line_id]&.marks || []

      # @param name [String] login or shown name, in any case
      # @return [Core::Chat::Person, nil] who is called so and wrote lately
      def person_called(name)
        name = Core::Chat::Person.fold(name.delete_prefix("@"))
        @lines.to_a.reverse_each.map { |kept| kept.line.person }
          .find { |person| [person.login, person.display_name].any? { |one| Core::Chat::Person.fold(one) == name } }
      end

      # @param mark [String] of Core::Moderation::Deed::MARKS
      def mark(line_id, mark, on)
        noted = noted(line_id) or return
        noted.marks = on ? noted.marks | [mark] : noted.marks - [mark]
        noted.card[:mk] = noted.marks if noted.card
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

      # @param deed [Core::Moderation::Deed] new, or undone
      def deed(deed)
        @deeds.reject! { |known| known.id == deed.id }
        @deeds << deed
        @deeds.shift if @deeds.size > Store::Deeds::KEPT
        @fresh_deeds << deed
      end

      # A viewer is to be forgotten.
      #
      # @param line_ids [Array<Integer>] theirs
      def erase(line_ids, login)
        line_ids.each { |line_id| pin(line_id, false) }
        @deeds.select { |deed| Core::Moderation::Deed::OF_WRITERS.include?(deed.what) && deed.about&.casecmp?(login) }.each do |deed|
          deed.about = nil
          deed.detail = deed.detail.except("text")
          @fresh_deeds |= [deed]
        end
      end

      # @return [Core::Moderation::Deed, nil]
      def find_deed(id) = @deeds.find { |deed| deed.id == id }

      # @return [Core::Moderation::Deed, nil] the last about a line that is not taken back
      def last_deed(line_id, what) = @deeds.reverse_each.find { |deed| deed.line_id == line_id && deed.what == what && deed.undone_ms.nil? }

      # @return [Core::Moderation::Deed, nil] the last of its kind
      def newest_deed(what) = @deeds.reverse_each.find { |deed| deed.what == what }

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

      # @return [Integer, nil] when {#flush} has something to say
      def due_ms
        @sent_at_ms + FRAME_MS if @talk || @cued || @fresh.any? || @states.any? || @marks.any? || @held || @pinned || @fresh_deeds.any?
      end

      # Tells pages what is new, at most once a frame.
      def flush(now_ms)
        due = due_ms
        return unless due && now_ms >= due
        return begin_anew unless @open

        change = {lines: @fresh, states: @states, marks: @marks}
        change[:held] = @lines.held_report if @held
        change.update(pins: pinned, large: @large) if @pinned
        change[:deeds] = @fresh_deeds.map { |one| PrompterDesk.deed_card(one) } if @fresh_deeds.any?
        change[:voices] = @voices if @talk
        change[:cues] = @cues if @cued
        @sent_at_ms = now_ms
        @hub.deliver(@topic, @topic.frame({**change, now: now_ms}, whole))
        begin_anew
      end

      # @return [Hash] of a deed as pages show it; back: whether it can be taken back
      def self.deed_card(deed)
        {id: deed.id, at: deed.at_ms, by: deed.by, what: deed.what, line: deed.line_id, about: deed.about, detail: deed.detail,
         undone: deed.undone_by, undone_at: deed.undone_ms, back: deed.way_back?}
      end

      # As it is, told to whoever opens the prompter.
      def whole
        cards = @lines.last(SHOWN).filter_map { |kept| card(kept.id)&.dup }
        held = @lines.held_report
        waiting = held.filter_map { |one| card(one[:i]) }
        deeds = @deeds.last(60).map { |one| PrompterDesk.deed_card(one) }
        pins = pinned
        large = @large
        voices = @voices || []
        cues = @cues
        from = @lines.size > SHOWN ? cards.dig(0, :i) || 0 : 0
        -> { {from:, voices:, cues:, lines: (waiting + cards).uniq { |card| card[:i] }.sort_by { |card| card[:i] }, held:, pins:, large:, deeds:} }
      end

      # After a start: what people did before, and what of it still stands.
      #
      # @param deeds [Array<Core::Moderation::Deed>] oldest first
      # @param standing [Array<Core::Moderation::Deed>] those of lasting kinds
      def remember(deeds, standing)
        @deeds = deeds
        standing.reject(&:undone_ms).each { |deed| stand_again(deed) if deed.line_id && @lines[deed.line_id] }
      end

      private

      def stand_again(deed)
        case deed.what
        when "pin", "unpin" then pin(deed.line_id, deed.what == "pin")
        when "large" then self.large = deed.line_id unless @lines[deed.line_id].state.taken?
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

      # @return [Noted, nil] nil where nothing can be done about it here any more
      def noted(line_id) = @noted[line_id] ||= @lines[line_id]&.then { |kept| Noted.new(kept, NONE) }

      # @return [Hash, nil] its card; nil also where its lane is no more
      def card(line_id) = noted(line_id)&.then { |noted| noted.card ||= drawn(noted) }

      def drawn(noted)
        card = @draw.call(noted.kept) or return
        card = whole_card(card, noted.kept)
        card[:mk] = noted.marks if noted.marks.any?
        card
      end

      def state_name(state) = TOLD.fetch(state.name) { state.name.name }

      def whole_card(card, kept)
        line = kept.line
        verdict = kept.verdict
        more = {fd: kept.lane_id, p: line.person.login, s: state_name(kept.state)}
        more[:rule] = Core::Gate::Rules.label(verdict.rule) if verdict.rule
        more[:why] = verdict.findings.map(&:why).first if verdict.findings.any?
        more[:as] = verdict.shown.text if verdict.shown
        attention = Core::Chat::Attention.of(line, @host)
        more[:at] = attention if attention.any?
        card.merge(more)
      end

      # Pinned lines, whole, for they may be older than what a page has.
      def pinned = @pins.filter_map { |line_id| card(line_id)&.dup }
    end
  end
end
