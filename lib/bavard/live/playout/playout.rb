# frozen_string_literal: true

require_relative "../../core/style/piece_style"
require_relative "../../core/stage/document"
require_relative "played_chat"
require_relative "counted_pieces"
require_relative "flown_pieces"
require_relative "liveliness"
require_relative "overlays"
require_relative "../voices/voiced_pieces"

module Bavard
  module Live
    # One document of a stage being played to the screens of one topic: its draft, or what is on air. Belongs to the
    # thread of its show.
    class Playout
      # At most 30 frames a second.
      FRAME_MS = 34
      EMPTY = Core::Stage::Document.empty.freeze
      # What chat pieces are drawn with: marks give [shape, colour] for a line, wardrobe (or nil) what lines wear, host is
      # the host's name.
      # voices gives the show's voice rooms, tallies what was counted, gate its Gatehouse, cues its cue sheet.
      Shared = Struct.new(:marks, :wardrobe, :host, :voices, :tallies, :gate, :cues)

      # overlays:: what stands there besides its lines
      attr_reader :topic, :document, :revision, :overlays
      # How far its lines' time is behind, and the moment at which it stands still, or nil.
      attr_writer :lag_ms, :held_at_ms
      # Told of lines that left: the line's id and why, in words; or nil.
      attr_writer :left

      # Told of goals that are reached; or nil.
      def reached=(reached)
        @counted.reached = reached
      end

      # @param topic [Relay::Topic]
      # @param shared [Shared]
      # @param live [LiveValues, nil] what is set in pieces while the broadcast goes on
      # @param lines [Array<Core::Chat::Line>] what was said before, oldest first
      # @param samples [#call, nil] gives what an empty piece is drawn with, where somebody edits it
      # @param timed [Boolean] whether pages are told how long lines stand: where their time never stands still
      def initialize(topic, hub, shared, live: nil, document: nil, revision: 0, lines: [], samples: nil, timed: false)
        @topic = topic
        @hub = hub
        @shared = shared
        @live = live
        @samples = samples
        @timed = timed
        @again = {}
        @lines = lines.to_h { |line| [line.id, line] }
        @chats = {}
        @voiced = VoicedPieces.new(shared)
        @counted = CountedPieces.new(shared, -> { @live&.counts }, live&.method(:now_ms))
        @flown = FlownPieces.new(shared.wardrobe)
        @overlays = Overlays.new(shared, live&.method(:now_ms))
        @styles = {}
        @liveliness = Liveliness.new
        @lag_ms = 0
        @sent_at_ms = 0
        play(document, revision)
      end

      # @param document [Hash, nil] nil: an empty picture
      def play(document, revision)
        before = @document
        @document = document || EMPTY
        @revision = revision
        @styles = {} unless before && before["house"].equal?(@document["house"])
        restyle
        play_chats
        @voiced.play(@document, @fresh)
        @counted.play(@document)
        @flown.play(@document, @fresh)
        @style = style(@styles)
        @restyled = true
      end

      # @param seconds [Integer, nil] without a word, after which chat leaves a screen; nil: never
      def doubt_s=(seconds)
        @doubt_s = seconds
        @restyled = true
      end

      # @return [Boolean] whether there is a piece that takes it in
      def add(line)
        @lines.delete(line.id)
        @lines[line.id] = line
        @lines.shift if @lines.size > Core::Chat::Timeline::REMEMBERED
        taken = @chats.each_value.count { |chat| chat.add(line) }
        @flown.add(line) { @live&.now_ms || line.shown_at_ms } unless @veiled
        @dirty = true
        taken.positive?
      end

      # A line was taken away, or is there again: its state says which.
      def moved(line)
        @flown.ground(line.id) if line.away?
        @dirty = true
      end

      # A line says something else now: it stands where it stood.
      def reword(line)
        @lines[line.id] = line if @lines.key?(line.id)
        @chats.each_value { |chat| chat.timeline.add(line) if chat.timeline.known?(line.id) }
        @again[line.id] = true
        @dirty = true
      end

      # @return [Boolean] whether it may still show the line
      def remembers?(line_id) = @lines.key?(line_id) || @chats.each_value.any? { |chat| chat.timeline.known?(line_id) }

      # @param wish [Core::Flurry::Flurry::Wish] what a cue lets go
      def fly(wish, now_ms) = @flown.wish(wish, now_ms)

      # @return [Boolean] whether the line stands in a chat piece
      def standing?(line_id) = @chats.each_value.any? { |chat| chat.timeline.standing.any? { |line| line.id == line_id } }

      # Chat is off the picture, or on it again.
      def veil(veiled)
        return if @veiled == veiled

        @veiled = veiled
        @flown.clear if veiled
        @lifted = true
        @dirty = true
      end

      # Everything that stands leaves at once.
      def clear
        @lines.clear
        @chats.each_value { |chat| chat.timeline.clear }
        @flown.clear
        @cleared = true
        @dirty = true
      end

      # Draws those lines anew that the block names, as when what they wear has changed.
      def redraw
        @chats.each_value { |chat| chat.timeline.standing.each { |line| @again[line.id] = true if yield(line) } }
      end

      # What is set in a piece while the broadcast goes on has changed.
      def relive = @relived = true

      # All lines that are remembered.
      def each_line(&block) = @lines.each_value(&block)

      # @return [Boolean] whether there is something new to send
      def changed? = @dirty || @restyled || @relived || @again.any? || parts.any?(&:changed?)

      # What is rehearsed stands in for the show's voice rooms; nil: no more.
      def voices=(voices)
        @voiced.rehearsed = voices
      end

      # @return [Integer, nil] when {#flush} has something to do
      def due_ms
        return @sent_at_ms + FRAME_MS if changed?

        leaving = @chats.each_value.filter_map { |chat| chat.timeline.next_due_ms }.min unless @held_at_ms
        leaving && (leaving + @lag_ms)
      end

      # @return [Integer] what time it is for its lines
      def lines_ms(now_ms) = @held_at_ms || (now_ms - @lag_ms)

      # Sends what has changed, unless a frame went out a moment ago.
      def flush(now_ms)
        due = due_ms
        return unless due && now_ms >= due

        change = changes(now_ms)
        @dirty = @restyled = @relived = @cleared = @lifted = false
        @fresh = {}
        @again.clear
        return if change.empty?

        @sent_at_ms = now_ms
        @hub.deliver(@topic, @topic.frame({**change, now: lines_ms(now_ms)}, picture(now_ms)))
      end

      # @return [PlayedChat::Recent, nil] of a chat piece
      def recent(piece_id, now_ms) = @chats[piece_id]&.recent(now_ms)

      # @return [Array<String>, nil] names as a voices piece writes them
      def names_in(piece_id) = @voiced.names_in(piece_id)

      # @return [Integer] lines standing now
      def standing
        @chats.each_value.sum { |chat| chat.timeline.standing.size }
      end

      private

      def parts = @parts ||= [@voiced, @counted, @flown, overlays].freeze

      # Only pieces that are other ones than before are put together anew.
      def restyle
        known = @styles
        @fresh ||= {}
        drawn = @document["pieces"].select { |piece| Core::Style::PieceStyle.drawn?(piece) }
        @styles = drawn.to_h do |piece|
          before = known[piece["id"]]
          next [piece["id"], before] if before && before.first.equal?(piece)

          @fresh[piece["id"]] = true
          [piece["id"], [piece, styled(piece)]]
        end
      end

      def styled(piece)
        style = Core::Style::PieceStyle.of(piece, @document["house"])
        sample = @samples&.call(piece)
        sample ? style.merge(sample:) : style
      end

      def play_chats
        @chats = Core::Stage::Document.chat_pieces(@document).to_h do |piece|
          chat = @chats[piece["id"]]
          if chat.nil?
            chat = PlayedChat.new(piece, @document["house"], @lines.values, @shared)
          elsif @fresh[piece["id"]]
            chat.play(piece, @document["house"], @lines.values).each { |line| @again[line.id] = true }
          end
          [piece["id"], chat]
        end
      end

      def changes(now_ms)
        change = {}
        change[:style] = style(@styles.slice(*@fresh.keys)) if @restyled
        @chats.each_value { |chat| add_changes(change, chat, chat.timeline.advance(lines_ms(now_ms)), now_ms) }
        calm(change, now_ms) if change[:in]
        change.merge!(overlays.changes(@document["house"]))
        voices = @voiced.changes(now_ms)
        change[:voices] = voices if voices.any?
        counted = @counted.changes
        change[:counted] = counted if counted.any?
        change.merge!(@flown.changes)
        change[:live] = @live.report(@document, now_ms) if @live && (@relived || @restyled)
        change
      end

      def add_changes(change, chat, moved, now_ms)
        standing = chat.timeline.standing
        return veiled(change, chat, standing, moved, now_ms) if @veiled || @lifted

        put(change, :colours, chat, chat.colours) if @restyled && @fresh[chat.id]
        put(change, :again, chat, chat.cards(standing.select { |line| @again.key?(line.id) } - moved.in_lines)) if @again.any?
        put(change, :in, chat, coming(chat, moved.in_lines, now_ms))
        leaving(change, chat, moved) if moved.out_lines.any?
      end

      def leaving(change, chat, moved)
        pulled, out = moved.out_lines.partition { |line| @cleared || line.away? }.map { |lines| lines.map(&:id) }
        put(change, :out, chat, out)
        out.each { |id| @left.call(id, chat.why_gone(id)) } if @left
        put(change, :pulled, chat, pulled)
      end

      def coming(chat, lines, now_ms) = @timed ? chat.timed_cards(lines, lines_ms(now_ms)) : chat.cards(lines)

      # Nothing is painted while chat is off the picture; what stands comes and goes with it.
      def veiled(change, chat, standing, moved, now_ms)
        return put(change, :in, chat, coming(chat, standing, now_ms)) unless @veiled

        put(change, :pulled, chat, (standing - moved.in_lines).map(&:id) | moved.out_ids) if @lifted
      end

      # The faster lines come, the calmer they move.
      def calm(change, now_ms)
        lively = @liveliness.with(change[:in].each_value.map(&:size).max, now_ms)
        change[:lively] = lively if lively < 1
      end

      def put(change, name, chat, values)
        (change[name] ||= {})[chat.id] = values if values.any?
      end

      # What is there now, fixed now, put together only when a screen asks for it.
      def picture(now_ms)
        style = @style
        document = @document
        standing = @veiled ? [] : @chats.values.map { |chat| [chat, chat.timeline.standing] }
        live = @live
        voices = @voiced.for_frame
        counted = @counted.told
        over = overlays.for_frame(document["house"])
        lambda do
          now = live&.now_ms || now_ms
          {style:, in: standing.to_h { |chat, lines| [chat.id, coming(chat, lines, now)] }, live: live&.report(document) || {}, voices:, counted:,
           **over.call, now:}
        end
      end

      # order:: ids of all pieces from back to front; pieces: those told about
      def style(styles)
        {revision: @revision, width: @document["width"], height: @document["height"], order: @styles.keys,
         behind: Core::Stage::Document.behind?(@document), pieces: styles.each_value.map(&:last), **(@doubt_s ? {doubt_ms: @doubt_s * 1000} : {})}
      end
    end
  end
end
