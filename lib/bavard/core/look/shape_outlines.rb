# frozen_string_literal: true

module Bavard
  module Core
    module Look
      # The outlines a plate can have: {PlateShape} says what their points mean. Each is drawn clockwise from its upper left
      # corner, and says what room it takes inside the plate.
      module ShapeOutlines
        # room:: of the depth, above, at the end, below and at the start
        # draw:: what draws it from the depth and the largest size, by name
        Outline = Struct.new(:taken, :draw) do
          # @param depth [Float] in em
          # @return [Array<Float>]
          def room(depth) = taken.map { |part| part * depth }

          # @return [Array<Array>]
          def points(depth, most) = ShapeOutlines.public_send(draw, depth, most)
        end

        # So many teeth along half a side, and no more: beyond them it goes straight on.
        MOST_TEETH = 90
        MOST_ARCS = 30
        # Of a quarter of a circle.
        ROUND = (0..4).map { |step| [Math.cos(step * Math::PI / 8), Math.sin(step * Math::PI / 8)] }.freeze
        CIRCLE = (0..16).map { |step| [Math.cos(step * Math::PI / 8), Math.sin(step * Math::PI / 8)] }.freeze
        CORNERS = [[0, 0], [1, 0], [1, 1], [0, 1]].freeze
        # How far the rays of a burst reach, one after the other: none like its neighbour.
        RAYS = [1.0, 0.55, 0.85, 0.45, 0.95, 0.6, 0.75].freeze
        # How deep paper tears, one after the other, of the depth.
        TORN = [0.2, 0.75, 0.4, 1.0, 0.55, 0.9, 0.1, 0.6, 0.3, 0.85].freeze

        module_function

        # The same for each corner, from [across, down] into it, in the order it is gone round.
        def corners(steps)
          CORNERS.each_with_index.flat_map do |(right, low), index|
            # Every other corner is gone round the other way about.
            (index.even? ? steps : steps.reverse).map { |across, down| [[right, across], [low, down]] }
          end
        end

        # From the upper left corner, seen from the left side up to the upper one.
        def cut(depth, _) = corners([[0, depth], [depth, 0]])

        # In thirds of the depth.
        def stepped(depth, _)
          corners([[0, 3], [1, 3], [1, 2], [2, 2], [2, 1], [3, 1], [3, 0]].map { |across, down| [across * depth / 3, down * depth / 3] })
        end

        def bitten(depth, _) = corners(ROUND.reverse.map { |cosine, sine| [cosine * depth, sine * depth] })

        def slanted(depth, _) = [[[0, depth], [0, 0]], [[1, 0], [0, 0]], [[1, depth], [1, 0]], [[0, 0], [1, 0]]]

        def pointed(depth, _)
          [[[0, depth], [0, 0]], [[1, depth], [0, 0]], [[1, 0], [0.5, 0]], [[1, depth], [1, 0]], [[0, depth], [1, 0]], [[0, 0], [0.5, 0]]]
        end

        def ribbon(depth, _)
          [[[0, 0], [0, 0]], [[1, 0], [0, 0]], [[1, depth], [0.5, 0]], [[1, 0], [1, 0]], [[0, 0], [1, 0]], [[0, depth], [0.5, 0]]]
        end

        # A hole at the start, a corner cut at the end.
        def label(depth, _)
          # The other way round, so that it is a hole.
          hole = CIRCLE.reverse.map { |cosine, sine| [[0, (1.15 + (0.36 * cosine)) * depth], [0.5, 0.36 * sine * depth]] }
          corner = [[0, 0], [0, 0]]
          [corner, [[1, depth], [0, 0]], [[1, 0], [0, depth]], [[1, 0], [1, 0]], [[0, 0], [1, 0]], corner, *hole, corner]
        end

        # Both ends torn off along a toothed edge.
        def tape(depth, most)
          right = side(depth, most.last, depth * 0.7).map { |em, in_by| [in_by, em] }
          [*right.map { |in_by, down| [[1, in_by], down] }, *right.reverse.map { |in_by, down| [[0, in_by], down] }]
        end

        def torn(depth, most)
          low = along(most.first, depth * 0.6) { |index| TORN[index % TORN.size] * depth }
          [[[0, 0], [0, 0]], [[1, 0], [0, 0]], *low.reverse.map { |across, in_by| [across, [1, in_by]] }]
        end

        # Round holes along every side.
        def stamp(depth, most)
          around(most) { |length| bites(length, depth) }
        end

        # Round bulges along every side.
        def scalloped(depth, most)
          around(most) { |length| bulges(length, depth * 3.2, depth * 0.8) }
        end

        # Rays of several lengths, so many a side however long it is.
        def burst(depth, _)
          across = rays(9, depth, 0)
          down = rays(3, depth, 3)
          tips = corners([[depth * 0.15, depth * 0.15]])
          [tips[0], *across.map { |at, in_by| [at, [0, in_by]] }, tips[1], *down.map { |at, in_by| [[1, in_by], at] },
            tips[2], *across.reverse.map { |at, in_by| [at, [1, in_by]] }, tips[3], *down.reverse.map { |at, in_by| [[0, in_by], at] }]
        end

        # Along the inner rectangle: back to it between two rays, out to the edge with each.
        def rays(count, depth, first)
          (1...(count * 2)).map do |step|
            part = step.fdiv(count * 2)
            [[part, depth * (1 - (2 * part))], step.odd? ? depth : depth * (1 - RAYS[(first + (step / 2)) % RAYS.size])]
          end
        end

        # A toothed side.
        def side(depth, length, pitch)
          along(length, pitch) { |index| index.odd? ? depth * 0.6 : 0.0 }
        end

        # From both corners to the middle, so that they are alike; yields the number of a step from its corner.
        #
        # @return [Array<Array>] coordinate along the side, em in from it
        def along(length, pitch)
          steps = [(length / 2 / pitch).ceil, MOST_TEETH].min
          half = (0..steps).map { |step| [step * pitch, yield(step)] }
          [*half.map { |em, in_by| [[0, em], in_by] }, *half.reverse.map { |em, in_by| [[1, em], in_by] }]
        end

        # The four sides, clockwise, each from a profile: [em along from its corner, em in from the side].
        def around(most)
          sides = most.map do |length|
            half = yield(length)
            [*half.map { |em, in_by| [[0, em], in_by] }, *half.reverse.map { |em, in_by| [[1, em], in_by] }]
          end
          across, down = sides
          [*across.map { |at, in_by| [at, [0, in_by]] }, *down.map { |at, in_by| [[1, in_by], at] },
            *across.reverse.map { |at, in_by| [at, [1, in_by]] }, *down.reverse.map { |at, in_by| [[0, in_by], at] }]
        end

        def bites(length, depth)
          pitch = depth * 1.8
          count = [(length / 2 / pitch).ceil, MOST_ARCS].min
          radius = depth / 2
          [[0, 0], *(0...count).flat_map { |bite| arc((bite + 0.5) * pitch, radius) { |sine| sine } }]
        end

        def bulges(length, pitch, depth)
          count = [(length / 2 / pitch).ceil, MOST_ARCS / 2].min
          (0...count).flat_map { |bulge| arc((bulge + 0.5) * pitch, pitch / 2, 6) { |sine| depth - (sine / (pitch / 2) * depth) } }
        end

        def arc(middle, radius, steps = 4)
          (0..steps).map do |step|
            turn = step * Math::PI / steps
            [middle - (radius * Math.cos(turn)), yield(radius * Math.sin(turn))]
          end
        end

        ALL = {
          "cut" => Outline.new([0, 1, 0, 1], :cut), "bitten" => Outline.new([0, 1, 0, 1], :bitten),
          "stepped" => Outline.new([0, 1, 0, 1], :stepped), "slanted" => Outline.new([0, 1, 0, 1], :slanted),
          "pointed" => Outline.new([0, 1, 0, 1], :pointed), "ribbon" => Outline.new([0, 1, 0, 1], :ribbon),
          "label" => Outline.new([0, 1, 0, 1.7], :label), "tape" => Outline.new([0, 0.6, 0, 0.6], :tape),
          "torn" => Outline.new([0, 0, 1, 0], :torn), "stamp" => Outline.new([0.5, 0.5, 0.5, 0.5], :stamp),
          "scalloped" => Outline.new([1, 1, 1, 1], :scalloped), "burst" => Outline.new([1, 1, 1, 1], :burst)
        }.freeze
      end
    end
  end
end
