# frozen_string_literal: true

require_relative "../dress/stack"
require_relative "../gate/sight"
require_relative "ceilings"
require_relative "crowd"
require_relative "pilot"

module Bavard
  module Core
    module Flurry
      # A flurry piece as it plays: makes flights of the emotes of lines and of what cues ask for, within its ceilings. The same
      # lines at the same times with the same seed fly the same.
      class Flurry
        # What a cue asks for: emotes as [text, picture, ratio, moves], how many, which way (nil: the piece's), from where (shares
        # of width and height, or nil); line_id:: with whose line they go when it is pulled, or nil;
        # after_ms:: how long they wait before.
        Wish = Struct.new(:emotes, :many, :way, :from, :line_id, :after_ms, keyword_init: true)
        # Over how long a cue's are let go.
        WISH_OVER_MS = 2400
        SECOND_MS = 1000
        # Far from each other as the numbers of random generators are concerned.
        SEED_STEP = 1_000_003
        # A growing emote on its way: until when.
        Growing = Struct.new(:flight, :until_ms)
        # Whose it is: line_id and person, or nobody's.
        Whose = Struct.new(:line_id, :person)

        # @return [Hash{Symbol => Integer}] how many did not fly, by the ceiling that was reached
        attr_reader :refused

        # @param piece [Hash]
        # @param spaces [Array<Box>] that are kept free, on the stage
        # @param pictures [#call] gives the picture of an emote on a feed, or nil
        # @param shelf_of [#call] gives the id of an emote's shelf
        def initialize(piece, spaces, pictures:, shelf_of: ->(*) {}, seed: 1)
          @piece = piece
          @pilot = Pilot.new(piece, Room.around(Box.new(0, 0, piece["width"], piece["height"]), kept_free(spaces)))
          @pictures = pictures
          @shelf_of = shelf_of
          @seed = seed
          @ceilings = Ceilings.new(per_person: piece["per_person"], per_minute: piece["per_minute"], at_once: piece["at_once"])
          @crowd = Crowd.new(within_ms: (piece["alike_s"] * SECOND_MS).round, from: piece["alike_from"])
          @growing = {}
          @number = 0
          @refused = Hash.new(0)
        end

        # @param line [Chat::Line]
        # @return [Array(Array<Flight>, Array<Flight>)] what flies, and what of the flying has grown
        def line(line, now_ms)
          return [[], []] unless @piece["from_chat"] && takes?(line)

          @grown = []
          @wait_ms = 0
          whose = Whose.new(line.id, line.person.key)
          emotes = emotes(line).first(@piece["per_line"])
          @volley = volley(emotes.size * @piece["copies"])
          flights = emotes.flat_map { |emote| of_line(emote, whose, now_ms) }
          [flights, @grown]
        end

        # @param wish [Wish]
        # @return [Array<Flight>]
        def wish(wish, now_ms)
          return [] if !@piece["from_cues"] || wish.emotes.empty?

          step_ms = WISH_OVER_MS / [wish.many, 1].max
          whose = Whose.new(wish.line_id, nil)
          # A ring has no gap where not all of it may fly.
          volley = volley([wish.many, @ceilings.free(now_ms)].min)
          Array.new(wish.many) do |at|
            asked = Pilot::Asked.new(way: wish.way, from: wish.from, volley: in_volley(volley, at), wait_ms: at * step_ms)
            made(wish.emotes[at % wish.emotes.size], whose, now_ms, asked, after_ms: wish.after_ms.to_i)
          end.compact
        end

        private

        def kept_free(spaces)
          return [] if @piece["over_spaces"]

          spaces.map { |one| Box.new(one.x - @piece["x"], one.y - @piece["y"], one.width, one.height) }
        end

        def takes?(line)
          return true if line.origin == :test
          return false unless @piece["feeds"].empty? || line.feed_id.nil? || @piece["feeds"].include?(line.feed_id.to_s)

          @piece["roles"].empty? || @piece["roles"].include?("everyone") || @piece["roles"].intersect?(line.person.roles)
        end

        # @return [Array<Array>] text, picture, ratio, moves
        def emotes(line)
          wanted = line.fragments.select { |kind, _, emote| kind == :emote && shelf?(line.feed_id, emote) }
          Dress::Stack.of(wanted) { |emote| @pictures.call(line.feed_id, emote) }.filter_map { |kind, *emote| emote.first(4) if kind == :emote }
        end

        def shelf?(feed_id, emote) = @piece["shelves"].empty? || @piece["shelves"].include?(@shelf_of.call(feed_id, emote).to_s)

        def of_line(emote, whose, now_ms)
          people = @crowd.admit(emote[0], whose.person, now_ms)
          return [crowded(emote, whose, people, now_ms)].compact if people

          Array.new(@piece["copies"]) do
            flight = made(emote, whose, now_ms, Pilot::Asked.new(volley: @volley, wait_ms: @wait_ms))
            @wait_ms += @piece["apart_ms"] if flight
            @volley = in_volley(@volley, @volley.at + 1)
            flight
          end.compact
        end

        def volley(of) = Bursts::Volley.new((@seed * SEED_STEP) + @number, 0, [of, 1].max)
        def in_volley(volley, at) = Bursts::Volley.new(volley.seed, at, volley.of)

        # One for all of them, which grows while it flies.
        def crowded(emote, whose, people, now_ms)
          growing = @growing[emote[0]]
          if growing && now_ms < growing.until_ms
            grow(growing.flight, people)
            @grown |= [growing.flight]
            return
          end
          flight = made(emote, whose, now_ms, Pilot::Asked.new(most: Crowd::LARGEST)) or return
          @growing.shift if @growing.size >= Crowd::MOST_CODES
          @growing[emote[0]] = Growing.new(flight, now_ms + flight.length_ms)
          grow(flight, people)
        end

        def grow(flight, people)
          flight.people = people
          flight.scale = @crowd.scale(people)
          flight
        end

        # @return [Flight, nil]
        def made(emote, whose, now_ms, asked, after_ms: 0)
          full = @ceilings.full(whose.person, now_ms)
          return refuse(full) if full

          asked.emote = emote
          asked.at_ms = now_ms + after_ms + asked.wait_ms.to_i
          flight = @pilot.flight(asked, Random.new((@seed * SEED_STEP) + (@number += 1)))
          flight.id = @number
          flight.line_id = whose.line_id
          flight.wait_ms += after_ms
          @ceilings.admit(whose.person, now_ms, now_ms + flight.whole_ms)
          flight
        end

        def refuse(why)
          @refused[why] += 1
          nil
        end
      end
    end
  end
end
