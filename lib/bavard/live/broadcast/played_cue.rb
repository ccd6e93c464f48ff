# frozen_string_literal: true

require_relative "../../core/cues/cue"
require_relative "../../core/cues/score"
require_relative "../../core/cues/words"
require_relative "../../core/flurry/flurry"
require_relative "../lines/line_card"

module Bavard
  module Live
    # One of a queue that plays, or waits for it: its words, its picture, what is heard and what flies. Belongs to its show's
    # thread.
    class PlayedCue
      # Emotes that fly where nobody named any.
      HANDFUL = 5
      Cue = Core::Cues::Cue

      # @param waiting [Core::Cues::Queue::Waiting]
      # @param line [Core::Chat::Line, nil] of its last event
      # @param feed_name [#call] gives a feed's name by its id
      def initialize(waiting, line, feed_name)
        @waiting = waiting
        @cue = waiting.cue
        @events = waiting.events
        @line = line
        @feed_name = feed_name
      end

      # Of several that became one: how many, and by whom where it was one person.
      #
      # @return [Array<Array(String, String)>]
      def words
        return Core::Cues::Words.of(@cue["words"], @events.first, feed: @feed_name.call(@events.first.feed_id)) if @events.size == 1

        names = @events.map(&:name).uniq
        who = names.size == 1 ? names.first : "#{names.first} and #{names.size - 1} more"
        [["number", @events.sum { |event| event.number || 1 }.to_s], ["text", " #{Core::Cues::KINDS[@cue["kind"]]} from "], ["name", who]]
      end

      # @param began_ms [Integer] when it began to play
      # @return [Hash] as pages draw it
      def card(wardrobe, began_ms)
        card = {i: @waiting.id, k: @cue["kind"], w: words, ms: @waiting.length_ms, at: began_ms, p: @cue["picture_place"], s: @cue["apart"],
                f: @cue["picture"], film: @cue["film"], **Core::Cues::Score.moved(@cue)}.compact
        times = Core::Cues::Score.times(@cue)
        card[:t] = times if times.any?
        card[:g] = LineCard.fragments_of(@line, wardrobe) if message?
        card
      end

      # @return [Hash, nil] as {Sounding} takes it; said: the line whose message is read aloud
      def heard
        return if @events.first.silent || @events.first.test == :draft

        heard = {u: @cue["sound"] && "/sounds/#{@cue["sound"]}.ogg", f: @cue["film"] && 1, said: (@line.id if @cue["aloud"] && message?)}.compact
        after_ms = Core::Cues::Score.after_ms(@cue, "sound")
        {i: @waiting.id, v: @cue["volume"] / 100.0, w: (after_ms if after_ms.positive?), **heard}.compact if heard.any?
      end

      # @param random [Random]
      # @return [Core::Flurry::Flurry::Wish, nil] what flies with it
      def wish(wardrobe, random)
        return unless @cue["flurry_count"].positive?

        way = @cue["flurry_way"] unless @cue["flurry_way"] == Cue::AS_PIECE
        Core::Flurry::Flurry::Wish.new(emotes: emotes(wardrobe, random), many: @cue["flurry_count"], way:, from: Cue::FROM[@cue["flurry_from"]],
          line_id: @line&.id, after_ms: Core::Cues::Score.after_ms(@cue, "flurry"))
      end

      # @return [Hash] for the host's pages
      def report
        {id: @waiting.id, cue: @cue["name"], words: words.map(&:last).join, events: @events.size, approved: @waiting.approved}
      end

      private

      # What several people said together is nobody's message.
      def message? = @cue["message"] && @events.size == 1 && !@line.nil? && !@line.text.empty?

      # Those the cue names; those of the message; or a handful of all there are, platforms' among them.
      #
      # @return [Array<Array>] as Core::Flurry takes them
      def emotes(wardrobe, random)
        named = @cue["flurry_emotes"].split.filter_map { |code| wardrobe.called(code) }
        return named.map { |emote| plain(emote) } if named.any?

        theirs = said_emotes(wardrobe)
        return theirs if theirs.any?

        wardrobe.flown.sample(HANDFUL, random:).map { |emote| plain(emote) }
      end

      def said_emotes(wardrobe)
        return [] unless @line

        LineCard.fragments_of(@line, wardrobe).filter_map { |kind, *emote| emote.first(4) if kind == :emote }
      end

      def plain(emote) = [emote.code, emote.picture, emote.ratio, emote.animated ? 1 : 0]
    end
  end
end
