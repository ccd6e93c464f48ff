# frozen_string_literal: true

require_relative "../../core/cues/cue"
require_relative "../../core/cues/score"
require_relative "../../core/cues/words"
require_relative "../../core/cues/spoken"
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

      # @param chime [String, nil] what is heard where the cue has no sound of its own
      # @return [Hash, nil] as {Sounding} takes it; said: how loud it is read aloud; say: what the screen's own voice would say
      def heard(chime = nil)
        return if @events.first.silent || @events.first.test == :draft

        sound = @cue["sound"] ? "/sounds/#{@cue["sound"]}.ogg" : (chime && "/assets/sounds/#{chime}.ogg")
        heard = {u: sound, f: @cue["film"] && 1, **said}.compact
        after_ms = Core::Cues::Score.after_ms(@cue, "sound")
        {i: @waiting.id, v: @cue["volume"] / 100.0, w: (after_ms if after_ms.positive?), **heard}.compact if heard.any?
      end

      # @param voices [#include?, nil] as Core::Cues::Spoken takes them
      # @return [Array<Core::Cues::Spoken::Part>] what is read aloud; what several people did has no name and no message
      def spoken(voices = nil)
        alone = @events.size == 1
        cue = alone ? @cue : @cue.merge("spoken_name" => false)
        Core::Cues::Spoken.parts(cue, words:, name: @events.first.name, line: (@line if alone), voices:)
      end

      # @return [Hash] how it is read
      def manner = Core::Cues::Spoken.manner(@cue)

      # @param random [Random]
      # @return [Core::Flurry::Flurry::Wish, nil] what flies with it
      def wish(wardrobe, random)
        return unless @cue["flurry_count"].positive?

        way = @cue["flurry_way"] unless @cue["flurry_way"] == Cue::AS_PIECE
        Core::Flurry::Flurry::Wish.new(emotes: emotes(wardrobe, random), many: @cue["flurry_count"], way:, from: Cue::FROM[@cue["flurry_from"]],
          line_id: @line&.id, after_ms: Core::Cues::Score.after_ms(@cue, "flurry"))
      end

      def kind = @cue["kind"]

      # @return [Hash] for the host's pages
      def report
        {id: @waiting.id, cue: @cue["name"], words: words.map(&:last).join, events: @events.size, approved: @waiting.approved}
      end

      private

      def said
        return {} unless Core::Cues::Spoken.any?(@cue) && (parts = spoken).any?

        said = {said: @cue["spoken_volume"] / 100.0}
        return said unless @cue["spoken_by"] == "screen"

        said.merge(say: {t: parts.map(&:to_a), v: @cue["spoken_voice"], r: @cue["spoken_speed"] / 100.0, p: @cue["spoken_pitch"] / 100.0,
                         s: @cue["spoken_most_s"]})
      end

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
