# frozen_string_literal: true

require_relative "../../core/cues/command"
require_relative "../../core/cues/fellow"

module Bavard
  module Live
    # Shout-outs of a running show: cards of fellow hosts, one after another, by a person's press, by a line of chat, or because
    # they come to visit. Belongs to its show's thread.
    class ShoutOuts
      KIND = "shout_out"
      MOST_WAITING = 12
      GAP_MS = 600
      # A visit that is told again from history is over.
      FRESH_MS = 120_000
      # How long a card waits for what platforms say of somebody.
      ASK_WITHIN_MS = 1500
      # Their ids are others than those of alerts.
      FIRST_ID = 1_000_000
      # One that waits, or plays. line:: of a visit, or nil; asked_ms:: until when platforms are waited for; avatar:: address of a
      # picture that one of them told
      Waiting = Struct.new(:id, :fellow, :person, :line, :asked_ms, :avatar)

      attr_reader :playing

      # @param fellows [Array<Core::Cues::Fellow>]
      # @param show [Show]
      # @param sounding [Sounding] of shout-outs alone
      def initialize(fellows, show, sounding)
        @show = show
        @sounding = sounding
        self.fellows = fellows
        @waiting = []
        @played_ms = {}
        @number = FIRST_ID
        @random = Random.new
      end

      # @return [Integer] how many the host knows
      def size = @fellows.size

      # @param fellows [Array<Core::Cues::Fellow>] whom the host knows
      def fellows=(fellows)
        @fellows = fellows.to_h { |fellow| [fellow.key, fellow] }
      end

      # @return [Array<String>] names of those that wait
      def waiting = @waiting.map { |one| one.fellow.name }

      # @param name [String]
      # @param person [Core::Chat::Person, nil] who that is, where a feed told
      # @param line [Core::Chat::Line, nil] with which the card goes when it is pulled
      # @return [Boolean] whether it plays, or waits; not where no stage has such a piece, the card waits already, or the gate lets
      #   that name be seen nowhere
      def add(name, person: nil, line: nil)
        key = Core::Cues::Fellow.key(name)
        return false if key.empty? || @waiting.size >= MOST_WAITING || pieces.empty? || at_hand?(key)

        fellow = @fellows[key] || (person && @fellows[Core::Cues::Fellow.key(person.login)])
        made = fellow || without_card(key, name) or return false
        @waiting << Waiting.new(@number += 1, made, person, line, fellow ? nil : asked_ms(key, person))
        true
      end

      # What a platform says of somebody without a card of the host's own.
      #
      # @param profile [Core::Profile]
      def receive(profile)
        keys = [profile.login, profile.name].compact.map { |name| Core::Cues::Fellow.key(name) }
        one = @waiting.find { |waiting| waiting.asked_ms && keys.include?(waiting.fellow.key) } or return
        one.fellow = filled(one.fellow, profile)
        one.avatar = profile.avatar
        # A picture that has to be fetched first is waited for as well.
        one.asked_ms = 0 if profile.avatar.nil? || @show.wardrobe.picture(profile.avatar)
      end

      # @param line [Core::Chat::Line] that may ask for one
      # @param roles [Array<String>] of who said it
      def said(line, roles, now_ms)
        asked = pieces.find { |piece| Core::Cues::Command.rest(line.text, piece["command"]) } or return
        name = Core::Cues::Command.rest(line.text, asked["command"])
        add(name, person: @show.prompter.person_called(name)) if Core::Cues::Command.may?(asked, roles) && cooled?(name, asked, now_ms)
      end

      # @param line [Core::Chat::Line] of a visit that may go on screen
      def visited(line, now_ms)
        return if now_ms - line.shown_at_ms > FRESH_MS

        piece = pieces.find { |one| one["on_visit"] } or return
        name = line.person.display_name
        add(name, person: line.person, line:) if cooled?(name, piece, now_ms)
      end

      # @return [Boolean] whether the card of a visit may still play
      def remembers?(line_id) = [@playing, *@waiting].any? { |one| one&.line&.id == line_id }

      # Visits that were pulled or deleted.
      def pull_where(now_ms)
        @waiting.reject! { |one| one.line && yield(one.line) }
        skip(now_ms) if @playing&.line && yield(@playing.line)
      end

      def skip(now_ms)
        @ends_ms = now_ms if @playing
        !@playing.nil?
      end

      def advance(now_ms)
        finish(now_ms) if @playing && now_ms >= @ends_ms
        return if @playing || @waiting.empty? || now_ms < next_ms

        start(@waiting.shift, now_ms)
      end

      # @return [Integer, nil] when {#advance} has something to do
      def due_ms
        return @ends_ms if @playing

        next_ms if @waiting.any?
      end

      # A screen is gone, cannot be heard, or is there.
      def closed(screen_id, now_ms) = @sounding.closed(screen_id, now_ms)
      def failed(screen_id, now_ms) = @sounding.failed(screen_id, now_ms)
      def there(now_ms) = @sounding.there(now_ms)

      private

      def pieces
        @show.desks.each_value.flat_map { |desk| desk.shown_document["pieces"].select { |piece| piece["kind"] == KIND && !piece["hidden"] } }
      end

      def next_ms = [@free_ms || 0, @waiting.first.asked_ms || 0].max

      # @return [Integer, nil] until when what platforms say is waited for; nil where nobody can be asked
      def asked_ms(key, person)
        lanes = @show.lanes.each_value.select { |lane| person.nil? || person.feed_id == lane.id }
        login = person ? person.login : key
        @show.now_ms + ASK_WITHIN_MS if lanes.map { |lane| lane.ask_about(login) }.any?
      end

      # With what a platform says, as far as the gate lets it be seen.
      #
      # @return [Core::Cues::Fellow]
      def filled(fellow, profile)
        gate = @show.gatehouse
        now_ms = @show.now_ms
        name = profile.name && gate.called(profile.login, Core::Chat::Cleaning.text(profile.name), now_ms)
        words, last_shown = [profile.words, profile.last_shown].map { |given| gate.shown_words(given, now_ms) }
        Core::Cues::Fellow.new(**fellow.to_h, name: name || fellow.name, words:, last_shown:, followers: profile.followers)
      end

      # Whoever may not be seen on the picture is not introduced either.
      def without_card(key, name)
        name = Core::Chat::Cleaning.text(name).delete_prefix("@")[0, 120]
        seen = @show.gatehouse.called(key, name, @show.now_ms) or return
        Core::Cues::Fellow.new(key:, name: seen, words: "", last_shown: "", clips: [])
      end

      def at_hand?(key) = @playing&.fellow&.key == key || @waiting.any? { |one| one.fellow.key == key }

      def cooled?(name, piece, now_ms)
        last_ms = @played_ms[Core::Cues::Fellow.key(name)]
        last_ms.nil? || now_ms - last_ms >= piece["cool_down_s"] * 1000
      end

      def start(one, now_ms)
        @playing = one
        @played_ms[one.fellow.key] = now_ms
        @played_ms.shift if @played_ms.size > 1000
        @ends_ms = now_ms + (pieces.map { |piece| piece["length_s"] }.max.to_f * 1000).round
        card = card(one, now_ms)
        @show.desks.each_value { |desk| desk.shout(card) }
        volume = pieces.map { |piece| piece["volume"] }.max.to_i
        @sounding.play({i: card[:i], v: volume / 100.0, f: 1, b: 1}, now_ms, @ends_ms - now_ms) if card[:clips].any? && volume.positive?
      end

      def finish(now_ms)
        @sounding.over(now_ms)
        @playing = nil
        @free_ms = now_ms + GAP_MS
        @show.desks.each_value { |desk| desk.shout(nil) }
      end

      # As pages draw it: n name, w words, s what they last showed, c followers, p picture, clips, r which of them by chance
      def card(one, now_ms)
        fellow = one.fellow
        picture = fellow.picture || [one.avatar, one.person&.avatar].compact.filter_map { |address| @show.wardrobe.picture(address) }.first
        {i: one.id, n: fellow.name, w: fellow.words, s: fellow.last_shown, c: fellow.followers, p: picture, clips: fellow.clips,
         r: @random.rand([fellow.clips.size, 1].max), ms: @ends_ms - now_ms, at: now_ms}
      end
    end
  end
end
