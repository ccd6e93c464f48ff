# frozen_string_literal: true

require_relative "../../core/chat/highlight"
require_relative "../../core/chat/intake_filter"
require_relative "../../core/chat/timeline"
require_relative "../../core/contrast/names"
require_relative "../../core/stage/document"
require_relative "../lines/line_card"

module Bavard
  module Live
    # One chat piece being played: which lines it takes in, which stand, and how they are written.
    class PlayedChat
      # What a card says differently when it is set differently.
      WRITTEN_BY = (Core::Contrast::Names::WRITTEN_BY + %w[avatars times time_form plate_by] +
        Core::Pieces::ChatPiece::HIGHLIGHTS.map { |what| "highlight_#{what}" }).freeze

      # What came lately: lines, lines a minute, and colours of names and of their plates.
      Recent = Struct.new(:lines, :per_minute, :people)
      RECENT_LINES = 40
      MOST_PEOPLE = 16
      MINUTE_MS = 60_000

      attr_reader :id, :timeline

      # @param piece [Hash]
      # @param house [Hash] the show's colours and faces
      # @param lines [Array<Core::Chat::Line>] what was said before, oldest first
      # @param shared [Playout::Shared] marks, wardrobe, host's name
      def initialize(piece, house, lines, shared)
        @shared = shared
        @id = piece["id"]
        set(piece, house)
        fill(lines)
      end

      # Other settings.
      #
      # @return [Array<Core::Chat::Line>] standing lines that are written otherwise now
      def play(piece, house, lines)
        before = @piece
        set(piece, house)
        fill(lines) unless same_intake?(before)
        written_otherwise?(before) ? timeline.standing : []
      end

      # @return [Boolean] whether it takes the line in
      def add(line)
        @filter.admits?(line) && (timeline.add(line) || true)
      end

      # @return [Recent] to measure by
      def recent(now_ms)
        lines = timeline.remembered.last(RECENT_LINES)
        people = lines.map { |line| [colours_of(line).first, @names.plate(line) || feed_colour(line)] }.uniq.first(MOST_PEOPLE)
        Recent.new(lines, timeline.remembered.count { |line| now_ms - line.shown_at_ms < MINUTE_MS }, people)
      end

      def cards(lines) = lines.map { |line| card(line) }

      # @param now_ms [Integer] as its lines have it
      # @return [Array<Hash>] cards with how long each still stands, where it leaves by its time alone: a page takes it off by itself then
      def timed_cards(lines, now_ms)
        return cards(lines) if settings.keep_last.positive?

        lines.map do |line|
          stay_ms = settings.stay_of(line)
          stay_ms ? card(line).merge(z: [line.shown_at_ms + stay_ms - now_ms, 0].max) : card(line)
        end
      end

      # @return [String] why a line stands no longer
      def why_gone(line_id)
        stay_ms = settings.stay_ms
        newer = timeline.remembered.reverse.index { |line| line.id == line_id }
        return "newer lines took its place" if newer.nil? || newer >= settings.at_most

        return "its time to be read was over" if settings.reading_speed || stay_ms.nil?

        "its #{(stay_ms / 1000.0).round(1).to_s.delete_suffix(".0")} s were over"
      end

      # @return [Array<Array>] id and colour of each standing line, with that of the other form where there is one
      def colours = timeline.standing.map { |line| [line.id, *colours_of(line)] }

      private

      def set(piece, house)
        @piece = Core::Stage::Document.drawn(piece, house)
        @names = Core::Contrast::Names.new(@piece) unless @names&.same?(@piece)
        @other_names = other_names(piece, house)
        timeline.settings = settings if timeline
      end

      def settings = Core::Pieces::ChatPiece.timeline_settings(@piece)

      def fill(lines)
        standing = timeline&.standing || []
        @filter = Core::Chat::IntakeFilter.new(@piece)
        @timeline = Core::Chat::Timeline.new(settings, lines.select { |line| @filter.admits?(line) }, standing:)
      end

      def other_names(piece, house)
        return if piece["bright"].empty?

        form = (Core::Pieces::TwoForms::FORMS - [piece["form"]]).first
        Core::Contrast::Names.new(Core::Stage::Document.drawn(piece, house, form:))
      end

      def same_intake?(before) = %w[feeds kinds roles].all? { |name| before[name] == @piece[name] }
      def written_otherwise?(before) = WRITTEN_BY.any? { |name| before[name] != @piece[name] }

      def feed_colour(line) = @shared.marks.call(line).last

      # @param feed [String] its mark's colour
      def colours_of(line, feed = feed_colour(line))
        colour = @names.colour(line, feed:)
        @other_names ? [colour, @other_names.colour(line, feed:)] : [colour]
      end

      def card(line)
        wardrobe = @shared.wardrobe&.call
        mark = @shared.marks.call(line)
        colour, other = colours_of(line, mark.last)
        card = LineCard.of(line, colour, mark, wardrobe, name: @names.written(line.person))
        card[:d] = other if other
        plate = @names.plate(line)
        card[:p] = plate if plate
        card[:a] = [wardrobe&.picture(line.person.avatar), card[:n][/\X/]] if @piece["avatars"] == "shown"
        card[:h] = LineCard.time(line, @piece["time_form"]) if @piece["times"] == "shown"
        highlight = Core::Chat::Highlight.of(line, @piece, @shared.host)
        card[:l] = highlight if highlight
        card
      end
    end
  end
end
