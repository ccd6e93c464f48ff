# frozen_string_literal: true

require_relative "bursts"
require_relative "flight"
require_relative "heap"
require_relative "room"

module Bavard
  module Core
    module Flurry
      # Works out flights as a flurry piece has them: how large, how far away, how long, and on which way through which room.
      class Pilot
        # The farthest is so much smaller, and takes so much longer.
        FAR_SMALLER = 0.6
        FAR_SLOWER = 0.5
        # A length is never quite the same.
        LENGTHS = (0.88..1.12)
        # An emote wider than this many times its height is drawn less high.
        WIDEST = 3.0
        NARROWEST = 0.2
        SECOND_MS = 1000
        # They turn whatever their spin.
        TURNING = %w[swing pile confetti].freeze
        SEEDS = 1_000_000
        # What is asked of one flight. way and from:: nil: as the piece has them; most:: how much it may still grow; volley:: what
        # it belongs to, if that goes off at once; wait_ms:: its turn otherwise
        Asked = Struct.new(:emote, :at_ms, :way, :from, :most, :volley, :wait_ms, keyword_init: true)

        # @param piece [Hash] a flurry
        # @param rooms [Array<Box>] in the piece, from Room
        def initialize(piece, rooms)
          @piece = piece
          @rooms = rooms
          @areas = rooms.sum(&:area)
          @heap = Heap.new(rooms.first, (piece["length_s"] * SECOND_MS).round)
        end

        # @param asked [Asked]
        # @param random [Random]
        # @return [Flight] without an id and a line
        def flight(asked, random)
          way = asked.way || chosen_way(random)
          Bursts::ALL.include?(way) ? shot(way, asked, random) : flown(way, asked, random)
        end

        private

        def flown(way, asked, random)
          depth = random.rand * @piece["depth"] / 100.0
          length_ms = length_ms(random, depth)
          spin = spin(random, length_ms)
          room = way == "pile" ? @rooms.first : room(random)
          size_px, *reach = fitted(size_px(random, depth), asked, room, turns: spin.nonzero? || TURNING.include?(way))
          heaped = way == "pile" && @heap.drop(random, reach.max, length_ms, spin, asked.at_ms)
          points, length_ms = heaped || [through(room, Ways.path(way == "pile" ? "fall" : way, random, field(room, reach, asked))), length_ms]
          # On a heap it turns only while it falls, and what swings as it hangs.
          spin = 0 if heaped || way == "swing"
          Flight.new(emote: asked.emote, size_px:, length_ms:, depth:, points:, spin:, wait_ms: asked.wait_ms.to_i)
        end

        # All of a volley are equally far away, and take equally long: that is what makes it one.
        def shot(way, asked, random)
          volley = asked.volley || Bursts::Volley.new(random.rand(SEEDS), 0, 1)
          shared = volley.random
          room = room(shared)
          length_ms = length_ms(shared, 0)
          spin = spin(random, length_ms)
          size_px, *reach = fitted(size_px(random, 0), asked, room, turns: spin.nonzero? || TURNING.include?(way))
          shot = Bursts.shot(way, volley, random, field(room, reach, asked, from_piece: way != "confetti"), length_ms)
          wait_ms = shot.wait_ms + (way == "fountain" ? asked.wait_ms.to_i : 0)
          Flight.new(emote: asked.emote, size_px:, length_ms: shot.length_ms, depth: 0, points: through(room, shot.points), spin:, wait_ms:,
            grows_ms: Bursts::GROWS_MS)
        end

        def chosen_way(random)
          ways = @piece["ways"].empty? ? Ways::ALL : @piece["ways"]
          ways[random.rand(ways.size)]
        end

        def size_px(random, depth)
          spread = 1 + (((random.rand * 2) - 1) * @piece["size_spread"] / 100.0)
          @piece["emote_px"] * spread * (1 - (FAR_SMALLER * depth))
        end

        def length_ms(random, depth)
          within = LENGTHS.begin + ((LENGTHS.end - LENGTHS.begin) * random.rand)
          (@piece["length_s"] * SECOND_MS * within * (1 + (FAR_SLOWER * depth))).round
        end

        # @return [Float] degrees in all
        def spin(random, length_ms)
          @piece["spin"] * length_ms / SECOND_MS.to_f * (0.5 + (random.rand * 0.5)) * (random.rand < 0.5 ? -1 : 1)
        end

        # @return [Box] the larger, the likelier
        def room(random)
          at = random.rand * @areas
          @rooms.find { |room| (at -= room.area) <= 0 } || @rooms.last
        end

        # Its height, smaller where it has to be to fit, and how far it reaches around its middle at its largest.
        #
        # @return [Array(Float, Float, Float)] height, reach to the sides, reach up and down
        def fitted(size_px, asked, room, turns:)
          wide = (asked.emote[2].positive? ? asked.emote[2] : 1.0).clamp(NARROWEST, WIDEST)
          round = Math.hypot(wide, 1)
          across, down = turns ? [round, round] : [wide, 1.0]
          most = asked.most || 1.0
          size = [size_px, room.width / (across * most), room.height / (down * most)].min
          [size, across * size * most / 2, down * size * most / 2]
        end

        def field(room, reach, asked, from_piece: true)
          from = asked.from || (@piece.values_at("from_x", "from_y").map { |share| share / 100.0 } if from_piece)
          Ways::Field.new(room.width, room.height, *reach, from)
        end

        # @return [Array<Ways::Point>] in the piece
        def through(room, points)
          points.each do |point|
            point.x += room.x
            point.y += room.y
          end
        end
      end
    end
  end
end
