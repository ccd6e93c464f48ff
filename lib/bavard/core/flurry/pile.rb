# frozen_string_literal: true

require_relative "ways"

module Bavard
  module Core
    module Flurry
      # Emotes that fall and come to rest on each other, as round things do: each drops straight down until it touches another or
      # the ground, then rolls off what it touched, down to where it rests between two, or between one and a wall.
      #
      # All of a heap go at the same moment; what comes too late for that begins the next heap.
      #
      #   pile = Pile.new(1920, 1080)
      #   landed = pile.drop(x, 32)   # => Landed with the points it passes and where it rests
      class Pile
        # radius in pixels; x and y of its middle
        Round = Struct.new(:x, :y, :radius)
        Landed = Struct.new(:path, :round)
        # Steps of one's way over another, for the arc it rolls on.
        ROLL_STEPS = 4
        # However it is built, nothing rolls on for longer.
        MOST_ROLLS = 12
        # What touches by less than this touches.
        NEARLY = 0.01
        # Pixels by which two may lie in each other.
        MOST_IN_EACH_OTHER = 0.05
        MOST = 160

        attr_reader :resting

        def initialize(width, height)
          @width = width.to_f
          @height = height.to_f
          @resting = []
        end

        # @param radius [Numeric] of the next one
        # @return [Boolean] whether there is no room for it below the upper edge
        def full?(radius = 0)
          @resting.size >= MOST || @resting.any? { |one| one.y - one.radius < [one.radius, radius].max * 2 }
        end

        def clear = @resting.clear

        # @param x [Numeric] where it is let go
        # @param radius [Numeric]
        # @return [Landed] path: [[x, y] …] from the upper edge to where it rests
        def drop(x, radius)
          radius = [radius, @width / 2.0, @height / 2.0].min.to_f
          path = [[x.clamp(radius, @width - radius), radius]]
          rest = settled(*path.last, radius, path)
          if crosses?(*rest, radius)
            path.slice!(1..)
            rest = rest_anywhere(path[0][0], radius, path)
          end
          round = Round.new(*rest, radius)
          @resting << round
          Landed.new(path, round)
        end

        private

        def settled(x, y, radius, path)
          MOST_ROLLS.times do
            y, touched = fallen(x, y, radius)
            path << [x, y]
            return [x, y] unless touched

            rolled = roll(x, y, radius, touched, path)
            x, y, rests = rolled
            return [x, y] if rests
          end
          rest_anywhere(x, radius, path)
        end

        # @return [Array(Float, Round)] how deep it falls at this x, and what it falls on; nil: the ground
        def fallen(x, y, radius)
          ground = @height - radius
          below = @resting.filter_map do |one|
            reach = one.radius + radius
            away = (x - one.x).abs
            next if away >= reach - NEARLY

            touch = one.y - Math.sqrt((reach**2) - (away**2))
            [touch, one] if touch >= y - NEARLY && one.y > y - NEARLY
          end
          touch, one = below.min_by(&:first)
          touch && touch < ground ? [touch, one] : [ground, nil]
        end

        # Over the one it touches, to the side it leans to.
        #
        # @return [Array(Float, Float, Boolean)] where it is then, and whether it rests there
        def roll(x, y, radius, over, path)
          side = x < over.x || (x == over.x && (@resting.size.even? || over.x > @width - radius)) ? -1 : 1
          reach = over.radius + radius
          from = Math.atan2(x - over.x, over.y - y)
          to, rests = stopped(from, side, over, radius, reach)
          (1..ROLL_STEPS).each do |step|
            angle = from + ((to - from) * step / ROLL_STEPS)
            path << [over.x + (Math.sin(angle) * reach), over.y - (Math.cos(angle) * reach)]
          end
          [*path.last, rests]
        end

        # Angles from the top of what it rolls over, clockwise.
        #
        # @return [Array(Float, Boolean)] how far it rolls, and whether something holds it there
        def stopped(from, side, over, radius, reach)
          stops = [[side * Math::PI / 2, false]]
          wall = ((side.negative? ? radius : @width - radius) - over.x) / reach
          stops << [Math.asin(wall.clamp(-1.0, 1.0)), true] if wall.abs < 1
          ground = (over.y - (@height - radius)) / reach
          stops << [side * Math.acos(ground.clamp(-1.0, 1.0)), true] if ground > -1 && ground < 1
          @resting.each do |one|
            next if one.equal?(over)

            angle = meeting(one, over, radius, reach, side) and stops << [angle, (one.x - over.x - (Math.sin(angle) * reach)) * side > -NEARLY]
          end
          stops.select { |angle, _| (angle - from) * side >= -NEARLY }.min_by { |angle, _| (angle - from) * side }
            .then { |angle, held| [((angle - from) * side).negative? ? from : angle, held] }
        end

        # @return [Float, nil] the angle at which it comes to touch another while it rolls over one
        def meeting(one, over, radius, reach, side)
          across = one.x - over.x
          up = over.y - one.y
          far = Math.hypot(across, up)
          other = one.radius + radius
          return if far > reach + other || far < (reach - other).abs || far < NEARLY

          Math.atan2(across, up) - (side * Math.acos((((reach**2) + (far**2) - (other**2)) / (2 * reach * far)).clamp(-1.0, 1.0)))
        end

        # What rolls past others that it touches sideways can fall between them, where there is no room.
        def crosses?(x, y, radius)
          @resting.any? { |one| Math.hypot(one.x - x, one.y - y) < one.radius + radius - MOST_IN_EACH_OTHER }
        end

        # It rolled on and on, or to where there is no room: it stays on the first thing straight below.
        def rest_anywhere(x, radius, path)
          y, = fallen(x, radius, radius)
          path << [x, y]
          [x, y]
        end
      end
    end
  end
end
