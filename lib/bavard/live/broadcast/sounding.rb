# frozen_string_literal: true

require "json"

module Bavard
  module Live
    # Which of a show's screens is heard, so that no sound ever plays twice: one that shows alerts, the one that was heard
    # before if it is still there. Where it is gone, or cannot play sounds, another goes on from there. Belongs to its show's
    # thread.
    class Sounding
      # What is nearly over is not taken over.
      LEAST_MS = 250
      # card:: {i:, u: addresses, v: volume, f: whether the film's own sound is meant}; ends_ms:: when nobody takes over any more
      Playing = Struct.new(:card, :began_ms, :ends_ms, :at)
      # A screen, and the topic it follows.
      Place = Struct.new(:topic, :screen)

      # @param hub [Relay::Hub]
      # @param desks [#call] gives the show's stage desks
      # @param able [Symbol] what a desk is asked: whether it shows what is heard
      def initialize(hub, desks, able = :plays_alerts?)
        @able = able
        @hub = hub
        @desks = desks
        @dumb = {}
      end

      # @return [Integer, nil] id of the screen that was chosen last
      attr_reader :heard_on

      # @param card [Hash] as Playing has it
      # @param length_ms [Integer] of what plays
      def play(card, now_ms, length_ms)
        stop
        @playing = Playing.new(card, now_ms, now_ms + length_ms, nil)
        begin_on(chosen, now_ms)
      end

      def stop
        whisper(@playing.at, {stop: @playing.card[:i]}) if @playing&.at
        @playing = nil
      end

      # The alert is over: its sound rings out, unless it ended before its time.
      def over(now_ms)
        return stop if @playing && now_ms < @playing.ends_ms - LEAST_MS

        @playing = nil
      end

      # @return [Array<Screen>] that can play sounds, as far as is known
      def able = able_places.map(&:screen)

      # @return [Screen, nil] the one from which the next sound is heard
      def next_heard = chosen&.screen

      # A screen is gone.
      def closed(screen_id, now_ms)
        @dumb.delete(screen_id)
        take_over(screen_id, now_ms)
      end

      # A screen is there and says so: what plays and is heard nowhere, since none was there when it began, goes on from it.
      def there(now_ms)
        begin_on(chosen, now_ms) if @playing && @playing.at.nil? && now_ms < @playing.ends_ms - LEAST_MS
      end

      # A screen says that it cannot play sounds.
      def failed(screen_id, now_ms)
        @dumb[screen_id] = true
        take_over(screen_id, now_ms)
      end

      private

      def take_over(screen_id, now_ms)
        at = @playing&.at
        return unless at && at.screen.id == screen_id && now_ms < @playing.ends_ms - LEAST_MS

        begin_on(chosen(except: screen_id), now_ms)
      end

      def begin_on(place, now_ms)
        @playing.at = place or return

        @heard_on = place.screen.id
        whisper(place, {sound: {**@playing.card, from: now_ms - @playing.began_ms}})
      end

      def chosen(except: nil)
        able = able_places.reject { |place| place.screen.id == except }
        seen = able.reject { |place| place.screen.report.hidden }
        seen.find { |place| place.screen.id == @heard_on } || seen.first || able.first
      end

      def able_places = places.reject { |place| @dumb[place.screen.id] }

      def places
        @desks.call.select(&@able).flat_map { |desk| desk.screens.all.map { |screen| Place.new(desk.air_topic, screen) } }
      end

      def whisper(place, what) = @hub.whisper(place.topic, place.screen.id, JSON.generate(only: what))
    end
  end
end
