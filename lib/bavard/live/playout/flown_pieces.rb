# frozen_string_literal: true

require_relative "../../core/flurry/flurry"

module Bavard
  module Live
    # The flurries of a document, and what of them is new to the page. Belongs to its show's thread.
    class FlownPieces
      KIND = Core::Pieces::FlurryPiece::KEY
      # What was said longer ago is told again, and does not fly.
      FRESH_MS = 5000
      # Lines whose emotes may still be on their way.
      MOST_LINES = 500

      # @param wardrobe [#call, nil] gives the show's Wardrobe
      def initialize(wardrobe)
        @wardrobe = wardrobe
        @flurries = {}
        @lines = {}
        forget
      end

      # @param fresh [Hash{String => true}] ids of pieces that are other ones than before
      def play(document, fresh)
        spaces = boxes(document, Core::Pieces::SpacePiece::KEY)
        moved = spaces != @spaces
        @spaces = spaces
        pieces = document["pieces"].select { |piece| piece["kind"] == KIND && !piece["hidden"] }
        @flurries = pieces.to_h { |piece| [piece["id"], (@flurries[piece["id"]] unless moved || fresh[piece["id"]]) || flurry(piece)] }
      end

      # @param line [Core::Chat::Line]
      # @yieldreturn [Integer] what time it is, asked for where something flies
      def add(line)
        return if @flurries.empty? || (now_ms = yield) - line.shown_at_ms > FRESH_MS

        @flurries.each do |id, flurry|
          flown, grown = flurry.line(line, now_ms)
          fly(id, flown)
          (@grow[id] ||= []).concat(grown.map { |flight| [flight.id, flight.people, flight.scale] }) if grown.any?
          remember(line.id) if flown.any?
        end
      end

      # @param wish [Core::Flurry::Flurry::Wish] of a cue
      def wish(wish, now_ms)
        @flurries.each { |id, flurry| fly(id, flurry.wish(wish, now_ms)) }
        remember(wish.line_id) if wish.line_id && @flurries.any?
      end

      # What was pulled flies no more.
      def ground(line_id) = (@ground << line_id if @lines.delete(line_id))

      # Nothing flies any more.
      def clear
        forget
        @ground = @lines.keys
        @lines.clear
      end

      def changed? = @fly.any? || @grow.any? || @ground.any?

      # @return [Hash] fly, grow and ground, for the page
      def changes
        return {} unless changed?

        {fly: @fly, grow: @grow, ground: @ground}.reject { |_, what| what.empty? }.tap { forget }
      end

      private

      def forget
        @fly = {}
        @grow = {}
        @ground = []
      end

      def fly(piece_id, flights)
        (@fly[piece_id] ||= []).concat(flights.map(&:card)) if flights.any?
      end

      def remember(line_id)
        @lines[line_id] = true
        @lines.shift if @lines.size > MOST_LINES
      end

      def flurry(piece)
        Core::Flurry::Flurry.new(piece, @spaces, pictures: method(:picture), shelf_of: ->(feed_id, emote) { worn&.shelf_of(feed_id, emote) },
          seed: piece["id"].sum)
      end

      def picture(feed_id, emote) = emote.is_a?(String) ? worn&.platform_picture(feed_id, emote) : emote.picture
      def worn = @wardrobe&.call

      def boxes(document, kind)
        document["pieces"].select { |piece| piece["kind"] == kind && !piece["hidden"] }
          .map { |piece| Core::Flurry::Box.new(*piece.values_at("x", "y", "width", "height")) }
      end
    end
  end
end
