# frozen_string_literal: true

require "monitor"
require_relative "../shared/room"
require_relative "conversation"

module Hidewire
  # Who is in which voice room, what their microphones hear, and who is told of it. Everything goes through its monitor.
  class Rooms
    # key:: login, for good; marks:: muted, deafened, away, sharing; talks:: held down on the page; level:: by its slider, −dBov
    Member = Struct.new(:key, :name, :room, :marks, :talks, :level) do
      def to_h = {"id" => key, "name" => name, **MARKS.to_h { |mark| [mark, marks.include?(mark)] }}
    end
    Place = Struct.new(:key, :name, :text, :topic)
    MARKS = %w[muted deafened away sharing].freeze
    NAMES = {"hides" => ["The hides", "Reedmere’s ringing team"], "night" => ["Night shift", "Owls and moths, after ten"]}.freeze
    # Rooms in which nobody talks.
    TEXTS = {"sightings" => "Sightings", "pinboard" => "Pinboard"}.freeze
    MEMBERS = [%w[odalys Odalys hides], %w[ibrahim Ibrahim hides], %w[sunniva Sunniva hides], %w[teo Teo hides],
      ["wilhelmina", "Wilhelmina van der Rietbroek-Oosterschelde", "hides"], %w[bram Bram night], %w[linnea Linnea night]].freeze
    # What a held key sounds like: loud, a little uneven.
    TALKS = 24
    UNEVEN = 5
    # Between two sounds speech is quieter: so much, for the last of so many stretches.
    DIP = 22
    STRETCH_MS = 100
    STRETCHES = 4
    NOISE = 68
    MOST_MEMBERS = 1200
    LONGEST_NAME = 500

    include MonitorMixin

    attr_reader :places, :texts, :scripts, :script

    # @param viewers [Array<Hash>]
    # @param scripts [Hash{String => Conversation}]
    # @param file [String, nil] where the rooms' text is kept between two starts
    def initialize(viewers, scripts, file: nil)
      super()
      @scripts = scripts
      @listeners = []
      @places = NAMES.to_h { |key, (name, topic)| [key, Place.new(key, name, StandIns::Room.new(viewers, file: file && "#{file}.#{key}"), topic)] }
      @texts = TEXTS.to_h { |key, name| [key, Place.new(key, name, StandIns::Room.new(viewers, file: file && "#{file}.#{key}"))] }
      @members = MEMBERS.to_h { |key, name, room| [key, Member.new(key, name, room, [], false, nil)] }
      @sounds = {}
    end

    # Most are in no room.
    ELSEWHERE = 204

    # @return [Integer] how many are on the whole service
    def online = synchronize { ELSEWHERE + @members.values.count(&:room) }

    # Told of [room, message] as it happens.
    def listen(&block) = synchronize { @listeners << block }

    def all = synchronize { @members.values.map(&:dup) }
    def member(key) = synchronize { @members[key] }
    def in_room(room) = synchronize { @members.values.select { |member| member.room == room }.map(&:to_h) }

    # @return [Array<Hash>] what a list of rooms shows
    def list
      places.values.map do |place|
        {"id" => place.key, "name" => place.name, "topic" => place.topic, "people" => in_room(place.key).map do |one|
          one.slice("id", "name")
        end}
      end
    end

    # @param room [String, nil] nil: out of all
    def move(key, room, name: nil)
      synchronize do
        return if @members.size >= MOST_MEMBERS && !@members.key?(key)

        member = @members[key] ||= Member.new(key, name || key, nil, [], false, nil)
        before = member.room
        return if before == room

        member.room = room
        tell(before, "kind" => "left", "id" => key) if before
        tell(room, "kind" => "joined", "who" => member.to_h) if room
        @listeners.each { |listener| listener.call(:moved, member.dup) }
      end
    end

    def mark(key, mark, on)
      change(key) { |member| member.marks = on ? member.marks | [mark] : member.marks - [mark] } if MARKS.include?(mark)
    end

    def rename(key, name) = change(key) { |member| member.name = name.to_s[0, LONGEST_NAME] }

    # Held down on the page, or let go; these two are heard, not told.
    def talk(key, on) = synchronize { @members[key]&.talks = on }
    def slide(key, level) = synchronize { @members[key]&.level = level }

    # @param levels [Array<Integer>] as Sound measures them
    def sound(key, levels, now_ms) = synchronize { @sounds[key] = [now_ms, levels] if @members.key?(key) }

    # Plays one of {#scripts} in "hides", or none; whoever belongs to it comes in, and other guests leave.
    def play(name, now_ms)
      synchronize do
        @members.each_value { |member| move(member.key, nil) if member.room == "hides" && MEMBERS.none? { |key, *| key == member.key } }
        @script = scripts[name]
        @script_name = name if @script
        @began_ms = now_ms
        @script&.people&.each { |key, called| move(key, "hides", name: called) }
      end
    end

    def script_name = @script && @script_name

    # @return [Hash{String => Integer}] by person, of one room
    def levels(room, now_ms)
      synchronize do
        spoken = @script && room == "hides" ? @script.at(now_ms - @began_ms) : {}
        @members.each_value.select { |member| member.room == room && !member.marks.include?("muted") }
          .to_h { |member| [member.key, [spoken[member.key] || (NOISE + rand(3)), own(member, now_ms)].min] }
      end
    end

    private

    def change(key)
      synchronize do
        member = @members[key] or return
        yield member
        tell(member.room, "kind" => "changed", "who" => member.to_h) if member.room
      end
    end

    def own(member, now_ms)
      return TALKS + rand(UNEVEN) + (now_ms / STRETCH_MS % STRETCHES == STRETCHES - 1 ? DIP : 0) if member.talks
      return member.level if member.level

      began, levels = @sounds[member.key]
      (began && levels[(now_ms - began) / Sound::EVERY_MS]) || Sound::SILENCE
    end

    def tell(room, message) = @listeners.each { |listener| listener.call(room, message) }
  end
end
