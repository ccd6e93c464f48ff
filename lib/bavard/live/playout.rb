# frozen_string_literal: true

require_relative "../core/chat/timeline"
require_relative "../core/look/chat_css"
require_relative "../core/look/name_colour"
require_relative "../core/stage/document"
require_relative "line_card"

module Bavard
  module Live
    # One document of a stage being played to the screens of one topic: its draft, or what is on air. Belongs to the
    # thread of its show.
    class Playout
      # At most 30 frames a second.
      FRAME_MS = 34
      EMPTY = Core::Stage::Document.empty.freeze
      Piece = Struct.new(:id, :timeline, :names, :colour_by)

      attr_reader :document, :revision

      # @param topic [Relay::Topic]
      # @param marks [#call] gives [shape, colour] for a line
      # @param entries [Array<Store::Lines::Entry>] what was said before, oldest first
      def initialize(topic, hub, marks:, document: nil, revision: 0, entries: [])
        @topic = topic
        @hub = hub
        @marks = marks
        @lines = entries.map(&:line)
        @pulled = entries.select(&:pulled).to_h { |entry| [entry.line.id, true] }
        @pieces = []
        @sent_at_ms = 0
        play(document, revision)
      end

      # @param document [Hash, nil] nil: an empty picture
      def play(document, revision)
        @document = document || EMPTY
        @revision = revision
        @pieces = Core::Stage::Document.chat_pieces(@document).map { |piece| piece_for(piece) }
        @style = style
        @restyled = true
      end

      # @return [Boolean] whether there is a piece that takes it in
      def add(line)
        @lines << line
        @lines.shift.tap { |gone| @pulled.delete(gone.id) } if @lines.size > Core::Chat::Timeline::REMEMBERED
        @pieces.each { |piece| piece.timeline.add(line) }
        @dirty = true
        @pieces.any?
      end

      def pull_where
        @lines.each { |line| @pulled[line.id] = true if yield(line) }
        @pieces.each { |piece| @pulled.each_key { |id| piece.timeline.pull(id) } }
        @dirty = true
      end

      def clear
        @lines.clear
        @pulled.clear
        @pieces.each { |piece| piece.timeline.clear }
        @dirty = true
      end

      # @return [Integer, nil] when {#flush} has something to do
      def due_ms
        return @sent_at_ms + FRAME_MS if @dirty || @restyled

        @pieces.filter_map { |piece| piece.timeline.next_due_ms }.min
      end

      # Sends what has changed, unless a frame went out a moment ago.
      def flush(now_ms)
        due = due_ms
        return unless due && now_ms >= due

        change = changes(now_ms)
        @dirty = @restyled = false
        return if change.empty?

        @sent_at_ms = now_ms
        @hub.deliver(@topic, @topic.frame(change, picture))
      end

      # @return [Integer] lines standing now
      def standing
        @pieces.sum { |piece| piece.timeline.standing.size }
      end

      private

      def piece_for(piece)
        settings = Core::Stage::ChatPiece.timeline_settings(piece)
        known = @pieces.find { |other| other.id == piece["id"] }
        timeline = known&.timeline || Core::Chat::Timeline.new(settings, @lines).tap { |new| @pulled.each_key { |id| new.pull(id) } }
        timeline.settings = settings
        colour_by = piece.slice("name_colour", "one_name_colour", "plate_colour")
        return Piece.new(piece["id"], timeline, known.names, colour_by) if known && known.colour_by == colour_by

        Piece.new(piece["id"], timeline, names_for(piece), colour_by)
      end

      # One colour for all is as the host chose it.
      def names_for(piece)
        return ->(_line) { piece["one_name_colour"] } if piece["name_colour"] == "one"

        colours = Core::Look::NameColour.new(piece["plate_colour"])
        ->(line) { colours.for(line.person.key, line.person.colour) }
      end

      def changes(now_ms)
        change = {}
        change[:style] = @style if @restyled
        @pieces.each { |piece| add_changes(change, piece, piece.timeline.advance(now_ms)) }
        change
      end

      def add_changes(change, piece, moved)
        (change[:colours] ||= {})[piece.id] = colours(piece) if @restyled && piece.timeline.standing.any?
        return if moved.empty?

        (change[:in] ||= {})[piece.id] = moved.in_lines.map { |line| card(piece, line) } if moved.in_lines.any?
        (change[:out] ||= {})[piece.id] = moved.out_ids if moved.out_ids.any?
      end

      def colours(piece)
        piece.timeline.standing.map { |line| [line.id, piece.names.call(line)] }
      end

      def card(piece, line)
        LineCard.of(line, piece.names.call(line), @marks.call(line))
      end

      # What is there now, fixed now, put together only when a screen asks for it.
      def picture
        style = @style
        standing = @pieces.map { |piece| [piece, piece.timeline.standing] }
        -> { {style:, in: standing.to_h { |piece, lines| [piece.id, lines.map { |line| card(piece, line) }] }} }
      end

      def style
        {revision: @revision, width: @document["width"], height: @document["height"],
         pieces: Core::Stage::Document.chat_pieces(@document).map do |piece|
           {id: piece["id"], kind: piece["kind"], newest: piece["newest"], css: Core::Look::ChatCss.whole(piece)}
         end}
      end
    end
  end
end
