# frozen_string_literal: true

require_relative "room"

module Bavard
  module Core
    module Voice
      # Who sits at the microphones of a room that no service keeps: people come and go one by one, each over lines of their own. Says
      # what happens in the words of a voice room. Whoever is cut off stays for a while, silent, for most are back within seconds.
      class Attendance
        STAYS_MS = 12_000
        # What a level may be, −dBov (RFC 6464): 0 is the loudest there is, 127 silence.
        LEVELS = (0..127)
        # line:: over which they are heard: the newest, where somebody has two pages open; nil while they are cut off
        Seat = Struct.new(:name, :muted, :line, :cut_ms)

        def initialize
          @seats = {}
        end

        def size = @seats.size

        # @param line [Object] over which they come
        # @return [Array<Happening>]
        def enter(key, name, line, muted: false)
          known = @seats[key]
          @seats[key] = Seat.new(name, muted, line, nil)
          return [] if known && known.name == name && known.muted == muted

          [happening(known ? :change : :join, key)]
        end

        # One of their lines ended.
        def leave(key, line, now_ms)
          seat = @seats[key]
          return unless seat && seat.line.equal?(line)

          seat.line = nil
          seat.cut_ms = now_ms
        end

        # @return [Array<Happening>]
        def mute(key, line, muted)
          seat = heard(key, line)
          return [] if seat.nil? || seat.muted == muted

          seat.muted = muted
          [happening(:change, key)]
        end

        # @param level [Integer] of LEVELS
        # @return [Array<Happening>] none where somebody else is heard for that person, or they are muted
        def level(key, line, level)
          seat = heard(key, line)
          return [] if seat.nil? || seat.muted || !LEVELS.cover?(level)

          [Happening.new(:levels, nil, [], [[key, -level.to_f]])]
        end

        # Whoever was cut off for too long is gone.
        #
        # @return [Array<Happening>]
        def advance(now_ms)
          gone = @seats.select { |_, seat| seat.cut_ms && now_ms - seat.cut_ms >= STAYS_MS }.keys
          gone.map { |key| put_out(key) }.flatten
        end

        # @return [Array<Happening>]
        def put_out(key)
          @seats.delete(key) ? [Happening.new(:leave, nil, [Person.new(key)])] : []
        end

        private

        # A line that was replaced takes over again once the newer one has ended.
        def heard(key, line)
          seat = @seats[key] or return
          return if seat.line && !seat.line.equal?(line)

          seat.line = line
          seat.cut_ms = nil
          seat
        end

        def happening(what, key)
          seat = @seats.fetch(key)
          Happening.new(what, nil, [Person.new(key, seat.name, nil, seat.muted ? [:muted] : [])])
        end
      end
    end
  end
end
