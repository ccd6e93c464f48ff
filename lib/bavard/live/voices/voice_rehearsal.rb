# frozen_string_literal: true

require_relative "../../core/voice/recording"
require_relative "../../core/voice/room"
require_relative "../../error"

module Bavard
  module Live
    # A made-up voice room in one stage's draft: a conversation that is played, a room where nobody is or nobody talks, and
    # the host's own keys that let one of them talk. Stands in for {Voices} where the draft is drawn.
    class VoiceRehearsal
      # What can be rehearsed besides conversations.
      STILL = {"empty" => "Nobody is there", "silent" => "Nobody talks"}.freeze
      EVERY_MS = 40
      # What is missed by more than this is not made up for.
      LATE_MS = 400
      HELD = 22
      NOISE = 70
      LANE = 0
      # Where it has no name of its own.
      ROOM = "The rehearsal room"

      attr_reader :room_now, :heard, :key

      # @param voices [Voices] the show's own, for its cast
      # @param scripts [Hash{String => Core::Voice::Recording}]
      def initialize(voices, scripts)
        @voices = voices
        @scripts = scripts
        @held = {}
        @heard = @pulse = 0
      end

      # @param key [String] of a script or of STILL; empty: the show's own rooms again
      def play(key, now_ms)
        raise Error.new("There is no such conversation.", field: "script", value: key) unless key.empty? || STILL.key?(key) || @scripts.key?(key)

        @key = key.empty? ? nil : key
        @held.clear
        return @room_now = nil unless @key

        @room_now = Core::Voice::Room.new
        @began_ms = @due_ms = now_ms
        @room_now.receive(happening(:room, people: people.map { |login, name| Core::Voice::Person.new(login, name, nil, []) }), now_ms)
      end

      # One of the room, or of the cast, talks for as long as the host holds the key.
      def talk(login, on, now_ms)
        play("silent", now_ms) unless @room_now
        unless @room_now[login]
          member = @voices.members.find { |one| one.key == login } || raise(Error.new("Who is that?", field: "who", value: login))
          @room_now.receive(happening(:join, people: [Core::Voice::Person.new(login, member.name, nil, [])]), now_ms)
        end
        on ? @held[login] = true : @held.delete(login)
      end

      def playing? = !@room_now.nil?

      def advance(now_ms)
        return unless playing?

        @due_ms = [@due_ms, now_ms - LATE_MS].max
        while @due_ms <= now_ms
          @room_now.receive(happening(:levels, levels: levels(@due_ms)), @due_ms)
          @heard += 1
          @due_ms += EVERY_MS
        end
        @room_now.advance(now_ms)
        @pulse = now_ms / Voices::PULSE_MS
      end

      def due_ms = (@due_ms if playing?)

      # As Voices has them.
      def room(_feed_id) = playing? ? [LANE, @room_now] : nil
      def worn(_lane_id, login) = members.find { |member| member.key == login }
      def members = @voices.members
      def revision = [@room_now&.changes, @pulse, @voices.revision.last]

      # @return [Hash, nil] for the Stage's transport
      def report
        {key: @key, people: @room_now.members.map { |member| [member.key, member.name] }.first(9), talk: @held.keys} if playing?
      end

      private

      def script = @scripts[@key]

      def people
        return script.people if script
        return {} if @key == "empty"

        cast = members.first(5).to_h { |member| [member.key, member.name] }
        cast.empty? ? @scripts.each_value.first&.people || {} : cast
      end

      def levels(at_ms)
        spoken = script ? script.at(at_ms - @began_ms) : {}
        @room_now.members.map { |member| [member.key, -[spoken[member.key] || NOISE, @held[member.key] ? HELD : Core::Voice::Recording::SILENCE].min] }
      end

      def happening(what, people: [], levels: nil)
        Core::Voice::Happening.new(what, Core::Voice::Card.new("rehearsal", ROOM, nil, nil), people, levels)
      end
    end
  end
end
