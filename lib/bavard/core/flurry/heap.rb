# frozen_string_literal: true

require_relative "pile"

module Bavard
  module Core
    module Flurry
      # Heaps of emotes in one room, one after another: what falls onto one lies there until all of it goes.
      class Heap
        # A heap lasts so many times the length of a flight; of that length, one part is falling.
        LENGTHS = 3
        FALLING = 3

        # @param room [Box]
        # @param flight_ms [Integer] how long a flight takes
        def initialize(room, flight_ms)
          @room = room
          @flight_ms = flight_ms
        end

        # @param radius [Float] of what falls
        # @param turn [Float] degrees it turns by while it falls
        # @return [Array(Array<Ways::Point>, Integer), nil] its way in the piece and for how long; nil where the heap is full, or
        #   about to go
        def drop(random, radius, length_ms, turn, now_ms)
          begin_anew(now_ms) if @goes_ms.nil? || now_ms >= @goes_ms
          left_ms = @goes_ms - now_ms
          return if left_ms < length_ms || @pile.full?(radius)

          path = @pile.drop(radius + ((@room.width - (2 * radius)) * random.rand), radius).path
          [points(path, length_ms / left_ms.to_f / FALLING, turn / FALLING), left_ms]
        end

        private

        def begin_anew(now_ms)
          @pile = Pile.new(@room.width, @room.height)
          @goes_ms = now_ms + (@flight_ms * LENGTHS)
        end

        # As fast as things fall; then it lies.
        def points(path, falling_share, turn)
          path = path.chunk_while { |one, other| one == other }.map(&:first)
          steps = path.each_cons(2).map { |(x, y), (then_x, then_y)| Math.hypot(then_x - x, then_y - y) }
          gone = steps.reduce([0.0]) { |sums, step| sums << (sums.last + step) }
          passed = path.zip(gone).map { |(x, y), sum| point(sum / [gone.last, 1.0].max, falling_share, turn, x, y) }
          passed.push(passed.last.dup.tap { |last| last.share = 1.0 })
        end

        def point(way, falling_share, turn, x, y)
          Ways::Point.new(Math.sqrt(way) * falling_share, x + @room.x, y + @room.y, turn * way)
        end
      end
    end
  end
end
