# frozen_string_literal: true

require_relative "slung"
require_relative "ways"

module Bavard
  module Core
    module Flurry
      # What goes off: emotes that leave one place at the same moment, each with its part in the whole. They grow from nothing, and
      # fly as {Slung} says.
      #
      #   Bursts.shot("ring", Volley.new(7, 3, 24), random, field, 4000)   # => the fourth of a ring of 24
      #
      # Every point lies so far inside the room that the whole emote does: what falls ends on the ground at the latest.
      module Bursts
        # What goes off together. seed:: the same for all of it; at:: which one of it, from 0; of:: how many
        Volley = Struct.new(:seed, :at, :of) do
          # @return [Random] that gives the same to all of a part of it
          def random(part = 0) = Random.new((seed * 31) + part)
        end
        # points:: Ways::Point in the room; wait_ms:: until its turn has come; length_ms:: until it is gone
        Shot = Struct.new(:points, :wait_ms, :length_ms)
        # What a rocket's sparks have in common. from:: where it climbs from; middle:: where it bursts
        Rocket = Struct.new(:wait_ms, :climb_ms, :from, :middle, :radius)

        ALL = %w[burst ring firework fountain confetti].freeze
        # From nothing to its own size.
        GROWS_MS = 280
        SAMPLES = 16
        # Where it is quick, points stand closer by this power.
        CLOSER = 1.8
        # One rocket for so many emotes; the next follows after a while.
        SPARKS = 40
        APART_MS = 420
        CLIMB_MS = (700..1000)
        CLIMB_SAMPLES = 4
        # Sparks are gone sooner than what drifts by.
        SPARK_LENGTH = 0.55
        SHORTEST_MS = 900
        # Of the lower of its room's sides.
        RADIUS = (0.24..0.36)
        RING_RADIUS = 0.5
        # How far a ring turns while it widens, in radians.
        RING_TURN = 0.9
        FEWEST_IN_RING = 8
        RINGS_APART_MS = 260
        # How high in its room a rocket bursts, from the top, besides its radius.
        HIGH = (0.02..0.22)
        # How far confetti turns to either side while it flutters, in degrees.
        FLUTTER = 35

        module_function

        # @param way [String] of ALL
        # @param volley [Volley]
        # @param random [Random] of this one
        # @param field [Ways::Field]
        # @param length_ms [Integer]
        # @return [Shot]
        def shot(way, volley, random, field, length_ms) = send(way, volley, random, field, length_ms)

        # Outwards from a point, to all sides, as far as its room goes.
        def burst(_, random, field, length_ms)
          place = field.point
          angle = angle(random)
          far = Math.sqrt(among(random, 0.12..1.0)) * field.reach(place, angle)
          Shot.new(sampled(slung(field, place, around(angle, far), among(random, 0.06..0.2) * field.down, 4.0)), 0, length_ms)
        end

        # All at the same distance from the middle, evenly around it, widening, and turning a little; more than stand beside each other
        # are rings one after the other.
        def ring(volley, _, field, length_ms)
          radius = RING_RADIUS * field.lower
          x, y = field.inside(field.point, radius)
          ring, from = part_in_ring(volley, [(Math::PI * radius / field.reach_x).floor, FEWEST_IN_RING].max)
          points = sampled(Slung.new(0, 0, radius, RING_TURN, 0, 3.2)).each do |point|
            across, down = around(from + point.y, point.x)
            point.x = x + across
            point.y = y + down
          end
          Shot.new(points, ring * RINGS_APART_MS, length_ms)
        end

        # @return [Array(Integer, Float)] which ring, and at what angle in it
        def part_in_ring(volley, most)
          rings = volley.of.fdiv(most).ceil
          at, ring = volley.at.divmod(rings)
          size = ((volley.of - ring - 1) / rings) + 1
          [ring, Ways::FULL * (at + volley.random(ring).rand) / size]
        end

        # Rockets climb, burst, and what they were full of falls. The first of each is what is seen climbing.
        def firework(volley, random, field, length_ms)
          number, spark = volley.at.divmod(SPARKS)
          rocket = rocket(number, volley.random(number), field)
          sparks = sampled(spark(random, field, rocket))
          length_ms = [(length_ms * SPARK_LENGTH).round, SHORTEST_MS].max
          return Shot.new(sparks, rocket.wait_ms + rocket.climb_ms, length_ms) unless spark.zero?

          Shot.new(climbing(rocket, sparks, length_ms), rocket.wait_ms, rocket.climb_ms + length_ms)
        end

        # Up out of one point, outwards and down again, under gravity alone.
        def fountain(_, random, field, length_ms) = Shot.new(Ways.path("fountain", random, field), 0, length_ms)

        # Shot up from a point, or from both lower corners by turns; the air stops it soon, and it flutters down.
        def confetti(volley, random, field, length_ms)
          place = field.from ? field.point : [[field.left, field.right][volley.at % 2], field.bottom]
          to = among(random, field.left..field.right)
          up = among(random, 0.45..1.0) * (place[1] - field.top)
          points = sampled(slung(field, place, [to - place[0], -up], field.down, 7.0))
          Shot.new(fluttering(points, random, field), 0, length_ms)
        end

        def rocket(number, shared, field)
          radius = among(shared, RADIUS) * field.lower
          middle = [among(shared, (field.left + radius)..(field.right - radius)),
            field.top + radius + (among(shared, HIGH) * (field.down - (2 * radius)))]
          from = [field.x_in(middle[0] + (among(shared, -0.1..0.1) * field.across)), field.bottom]
          Rocket.new(number * APART_MS, among(shared, CLIMB_MS).round, from, middle, radius)
        end

        # As many to every side as lie on a ball that one looks at.
        def spark(random, field, rocket)
          far = rocket.radius * Math.sqrt(1 - (among(random, -1.0..1.0)**2)) * among(random, 0.85..1.0)
          slung(field, rocket.middle, around(angle(random), far), among(random, 0.8..1.1) * rocket.radius, 5.0)
        end

        # Up to where it bursts, slower and slower, and then on as a spark.
        def climbing(rocket, sparks, length_ms)
          part = rocket.climb_ms.fdiv(rocket.climb_ms + length_ms)
          up = Array.new(CLIMB_SAMPLES) do |at|
            share = at.fdiv(CLIMB_SAMPLES)
            x, y = rocket.from.zip(rocket.middle).map { |from, to| from + ((to - from) * (1 - ((1 - share)**2))) }
            Ways::Point.new(share * part, x, y, 0)
          end
          up + sparks.each { |point| point.share = part + (point.share * (1 - part)) }
        end

        def fluttering(points, random, field)
          wide = [field.across * 0.03, 40].min * among(random, 0.4..1.0)
          from = angle(random)
          often = among(random, 2.5..4.5)
          points.each do |point|
            swing = Math.sin(from + (Ways::FULL * often * point.share))
            point.x = field.x_in(point.x + (wide * swing * [point.share * 4, 1].min))
            point.turn = FLUTTER * swing
          end
        end

        # It falls no deeper than the ground.
        def slung(field, place, by, fall, drag) = Slung.new(*place, *by, fall.clamp(0, [field.bottom - place[1] - by[1], 0].max), drag)

        def sampled(slung)
          Array.new(SAMPLES + 1) { |at| (at.fdiv(SAMPLES)**CLOSER).then { |share| Ways::Point.new(share, *slung.at(share), 0) } }
        end

        def around(angle, far) = [Math.cos(angle) * far, Math.sin(angle) * far]
        def angle(random) = among(random, 0..Ways::FULL)
        def among(random, range) = range.begin + ((range.end - range.begin) * random.rand)

        private_class_method(*ALL.map(&:to_sym), :part_in_ring, :rocket, :spark, :climbing, :fluttering, :slung, :sampled, :around, :angle, :among)
      end
    end
  end
end
