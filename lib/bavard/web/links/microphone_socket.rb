# frozen_string_literal: true

require "json"
require_relative "../../core/voice/attendance"
require_relative "../../core/voice/talking"
require_relative "../../relay/topic"

module Bavard
  module Web
    # /mic/<token>/live: how loud one person's microphone is, a number at a time. No sound comes here.
    #
    # Takes {"l": −dBov} 25 times a second, and {"muted": true}; answers {"room": name, "you": name} once it is taken in,
    # {"talks": true} when it would be shown as talking, {"off": words} while the room is off.
    class MicrophoneSocket
      LONGEST_TEXT = 64
      # Levels a second that count, and how many may come at once after something held them up.
      MOST_A_SECOND = 30
      MOST_AT_ONCE = 15
      OFF = "This room is switched off just now. You are back in it as soon as it is on."

      # One topic for each person, so that it can be told how many pages they have open.
      class Topics
        KEPT = 2000

        def initialize
          @lock = Mutex.new
          @topics = {}
        end

        # @param link [Store::Microphones::Link]
        # @return [Relay::Topic]
        def of(link)
          @lock.synchronize do
            topic = @topics.delete(link.token) || Relay::Topic.new("microphone:#{link.id}", timed: false)
            @topics.shift if @topics.size >= KEPT
            @topics[link.token] = topic
          end
        end
      end

      # @return [Store::Microphones::Link, nil]
      def self.link(site, token) = site.remembered.of(:microphone, token) { site.stores.microphones.by_token(token) }

      attr_reader :topic

      def initialize(site, link)
        @site = site
        @link = link
        @topic = site.microphone_topics.of(link)
        @muted = false
        @begun_ms = @counted = 0
      end

      # From the relay's loop, as everything here.
      def opened(connection) = room(connection)

      def heard(connection, text)
        return unless text.is_a?(String) && text.bytesize <= LONGEST_TEXT

        told = JSON.parse(text)
        return unless told.is_a?(Hash)

        mute(connection, told["muted"]) if [true, false].include?(told["muted"])
        level(connection, told["l"]) if told["l"].is_a?(Integer) && Core::Voice::Attendance::LEVELS.cover?(told["l"]) && counts?
      rescue JSON::ParserError
        nil
      end

      def closed(_connection) = @room&.leave(@link.key, self)

      private

      def mute(connection, muted)
        @muted = muted
        room(connection)&.mute(@link.key, self, muted)
        @talking&.hush(@site.clock.call) if muted
        shown(connection)
      end

      def level(connection, level)
        room(connection)&.level(@link.key, self, level)
        return if @muted

        now_ms = @site.clock.call
        @talking&.level(now_ms, -level)
        shown(connection)
      end

      # What comes faster than it is measured is left out: a bucket that fills again.
      def counts?
        now_ms = @site.clock.call
        @counted = [@counted - ((now_ms - @begun_ms).clamp(0, 1000) * MOST_A_SECOND / 1000.0), 0].max
        @begun_ms = now_ms
        return false if @counted >= MOST_AT_ONCE

        @counted += 1
      end

      # Where it is taken in now; another once the room was switched off and on.
      def room(connection)
        return @room if @room&.open?

        # One that ends just now takes in nothing more.
        @room = lane&.connection&.then { |room| room if room.open? }
        @talking = @room && Core::Voice::Talking.new
        @shows = false
        return told_off(connection) unless @room

        @off = false
        @room.enter(@link.key, @link.name, self, muted: @muted)
        connection.send_frame(JSON.generate(room: @room.name, you: @link.name))
        @room
      end

      def lane
        show = @site.shows[@link.show_id]
        show && show.lanes[@link.feed_id]
      end

      def told_off(connection)
        connection.send_frame(JSON.generate(off: OFF)) unless @off
        @off = true
        nil
      end

      # By the rule of the picture itself.
      def shown(connection)
        shows = !@talking.nil? && @talking.on?
        connection.send_frame(JSON.generate(talks: shows)) if shows != @shows
        @shows = shows
      end
    end
  end
end
