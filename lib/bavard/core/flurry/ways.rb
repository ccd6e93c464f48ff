# frozen_string_literal: true

module Bavard
  module Core
    module Flurry
      # The ways an emote can fly: where its middle is at each moment, in pixels from the upper left of its room.
      #
      #   Ways.path("fall", Random.new(7), Field.new(1920, 1080, 40, 40))   # => [Point, Point, …] from share 0 to 1 of its time
      #
      # Between two points it goes straight on; every point lies so far inside the room that the whole emote does.
      module Ways
        # share:: 0 to 1 of its time; turn:: degrees besides its own spin
        Point = Struct.new(:share, :x, :y, :turn)
        # Where the middle of an emote may be: reach_x and reach_y are how far it reaches around it. from:: shares of width and
        # height for what comes out of one point.
        Field = Struct.new(:width, :height, :reach_x, :reach_y, :from) do
          def left = [reach_x, width / 2.0].min
          def top = [reach_y, height / 2.0].min
          def right = [width - reach_x, width / 2.0].max
          def bottom = [height - reach_y, height / 2.0].max
          def across = right - left
          def down = bottom - top
          def lower = [across, down].min

          # @return [Array(Float, Float)]
          def point
            share_x, share_y = from || [0.5, 0.5]
            [left + (across * share_x), top + (down * share_y)]
          end

          def x_in(value) = value.clamp(left, right)
          def y_in(value) = value.clamp(top, bottom)

          # @param place [Array(Float, Float)]
          # @return [Array(Float, Float)] the nearest that is so far from every edge, or the middle
          def inside(place, far)
            [[place[0], left, right], [place[1], top, bottom]].map do |at, least, most|
              most - least > 2 * far ? at.clamp(least + far, most - far) : (least + most) / 2.0
            end
          end

          # @return [Float] as far as something may go from a place that way
          def reach(place, angle)
            [[Math.cos(angle), place[0], left, right], [Math.sin(angle), place[1], top, bottom]].filter_map do |along, at, least, most|
              ((along.positive? ? most : least) - at) / along if along.abs > 1e-9
            end.min
          end
        end

        # One coordinate on its way between two edges that throw it back.
        Thrown = Struct.new(:from, :way, :least, :most) do
          def room = most - least

          # @return [Array<Float>] at which shares of the way it meets an edge
          def edges
            return [] if room < 1 || way.abs < 1

            first, last = [(from - least) / room, (from + way - least) / room].minmax
            (first.ceil..last.floor).map { |edge| (least + (edge * room) - from) / way }.grep(0.0..1.0)
          end

          # @return [Float] where it is then
          def at(share)
            return least if room <= 0

            along = (from + (way * share) - least) % (2 * room)
            least + (along > room ? (2 * room) - along : along)
          end
        end

        # Those of which nothing but the room has to be known; what piles up is Pile's.
        ALONE = %w[fall rise drift rebound swing circle fountain].freeze
        # Those that have a part in something that goes off at once are Bursts's.
        ALL = %w[fall rise drift rebound swing circle pile burst ring firework fountain confetti].freeze
        # How often its own width or height a rebounding one crosses the room.
        CROSSINGS = (1.6..3.2)
        GRAVITY = 0.65
        SAMPLES = 14
        ROUND_SAMPLES = 36
        FULL = 2 * Math::PI

        module_function

        # @param way [String] of ALONE
        # @param random [Random]
        # @param field [Field]
        # @return [Array<Point>]
        def path(way, random, field) = send(way, random, field)

        # Slowly at first, then faster, swaying a little.
        def fall(random, field)
          x = among(random, field.left, field.right)
          sway = swaying(random, field)
          sampled { |share| [field.x_in(x + sway.call(share)), field.top + (field.down * fallen(share)), 0] }
        end

        # Like bubbles, slower towards the top.
        def rise(random, field)
          x = among(random, field.left, field.right)
          sway = swaying(random, field)
          sampled { |share| [field.x_in(x + sway.call(share)), field.bottom - (field.down * (1 - ((1 - share)**1.6))), 0] }
        end

        # From one side to the other, on a long wave.
        def drift(random, field)
          y = among(random, field.top, field.bottom)
          height = field.down * among(random, 0.02, 0.12)
          waves = among(random, 0.5, 1.5)
          ahead = random.rand < 0.5
          sampled do |share|
            gone = field.across * share
            [ahead ? field.left + gone : field.right - gone, field.y_in(y + (height * Math.sin(FULL * waves * share))), 0]
          end
        end

        # Straight on, and off each edge at the angle it came in: one way for each side, thrown back by itself.
        def rebound(random, field)
          angle = among(random, 0.15, 0.85) * Math::PI / 2
          length = among(random, CROSSINGS.begin, CROSSINGS.end) * (field.across + field.down) / 2.0
          across = thrown(random, Math.cos(angle) * length, field.left, field.right)
          down = thrown(random, Math.sin(angle) * length, field.top, field.bottom)
          kinks = [0.0, *across.edges, *down.edges, 1.0].uniq.sort
          kinks.map { |share| Point.new(share, across.at(share), down.at(share), 0) }
        end

        # On a line from the upper edge, out to both sides less and less.
        def swing(random, field)
          hung = among(random, field.left + (field.across * 0.25), field.right - (field.across * 0.25))
          long = [among(random, 0.45, 0.9) * field.down, 1.0].max
          widest = [hung - field.left, field.right - hung].min
          angle = Math.asin((widest / long).clamp(0.0, Math.sin(1.1))) * sign(random)
          swings = among(random, 1.5, 2.5)
          sampled(ROUND_SAMPLES) do |share|
            now = angle * Math.exp(-1.6 * share) * Math.cos(FULL * swings * share)
            [field.x_in(hung + (Math.sin(now) * long)), field.y_in(field.top + (Math.cos(now) * long)), -now * 180 / Math::PI]
          end
        end

        # Around the middle, on an oval.
        def circle(random, field)
          wide = field.across / 2 * among(random, 0.35, 1.0)
          high = field.down / 2 * among(random, 0.35, 1.0)
          from = among(random, 0, FULL)
          turns = among(random, 0.9, 1.6) * sign(random)
          sampled(ROUND_SAMPLES) do |share|
            angle = from + (FULL * turns * share)
            [((field.left + field.right) / 2) + (Math.cos(angle) * wide), ((field.top + field.bottom) / 2) + (Math.sin(angle) * high), 0]
          end
        end

        # Up from one point, and outwards and down again.
        def fountain(random, field)
          x, y = field.point
          target = among(random, field.left, field.right)
          apex = [y - (among(random, 0.75, 1.0) * (y - field.top)), field.top].max
          up = y - apex
          down = field.bottom - apex
          # As long up as gravity takes for the height, and as long down.
          turning = up + down < 1 ? 0.5 : Math.sqrt(up) / (Math.sqrt(up) + Math.sqrt(down))
          sampled do |share|
            height = share < turning ? up * ((1 - (share / turning))**2) : down * (((share - turning) / (1 - turning))**2)
            [x + ((target - x) * share), field.y_in(apex + height), 0]
          end
        end

        def thrown(random, length, least, most) = Thrown.new(among(random, least, most), length * sign(random), least, most)

        # @return [Float] of the way, once so much of the time is over
        def fallen(share) = ((1 - GRAVITY) * share) + (GRAVITY * share * share)

        def swaying(random, field)
          width = [field.across * 0.06, 60].min * among(random, 0.3, 1.0)
          from = among(random, 0, FULL)
          ->(share) { Math.sin(from + (FULL * share * 1.2)) * width }
        end

        def sampled(samples = SAMPLES)
          (0..samples).map { |at| (at / samples.to_f).then { |share| Point.new(share, *yield(share)) } }
        end

        def among(random, least, most) = least + ((most - least) * random.rand)
        def sign(random) = random.rand < 0.5 ? -1 : 1

        private_class_method(*ALONE.map(&:to_sym), :swaying, :sampled, :thrown, :among, :sign)
      end
    end
  end
end
