# frozen_string_literal: true

require_relative "../../core/voice/room"
require_relative "../given"
require_relative "../socket/session"

module Bavard
  module Feeds
    module Voice
      # One connection to a voice service. What is written in the room comes as on any chat over a WebSocket; who is there
      # is told whole on joining and then change by change, and levels come by themselves.
      class Session < WebSocketFeed::Session
        # Of one message.
        MOST_LEVELS = 500
        CHANGES = {"joined" => :join, "changed" => :change, "left" => :leave}.freeze

        # @param follow [String, nil] a person whose room is the one that counts
        def initialize(feed_id, room, resume, follow: nil, **options)
          super(feed_id, room, resume, **options)
          @follow = follow
        end

        def receive(message, now_ms)
          return super unless %w[levels online].include?(message["op"])

          @now_ms = @heard_at_ms = now_ms
          message["op"] == "levels" ? levels(message["l"]) : online(message)
        end

        private

        # Nobody follows a room, whatever its service says.
        def totals(_message) = nil

        # Who is followed may be elsewhere by now.
        def greeted(message)
          @cursor = nil if @follow
          super
        end

        def join
          super
          @outgoing.last[:follow] = @follow
        end

        def joined(message)
          super
          enter(message)
        end

        def enter(message)
          @card = card = card(Given.object(message["room"]))
          people = Given.list(message["people"]).filter_map { |one| person(one) }
          happened(:room, room: card, people:)
          state(:live, "In #{card&.name || @room}, with #{people.size == 1 ? "one person" : "#{people.size} people"}.")
        end

        def event(message)
          what = CHANGES[message["kind"]]
          if what == :leave then leave(message)
          elsif what then change(what, message)
          elsif message["kind"] == "room" then moved(message)
          else
            super
          end
        end

        # To another room, after the person who is followed.
        def moved(message)
          @cursor = nil
          enter(message)
        end

        def leave(message)
          key = Given.id(message["id"])
          key ? happened(:leave, people: [Core::Voice::Person.new(key)]) : refuse(message)
        end

        def change(what, message)
          person = person(message["who"])
          person ? happened(what, people: [person]) : refuse(message)
        end

        def levels(given)
          levels = Given.list(given).first(MOST_LEVELS).filter_map do |key, level|
            [key, -level.to_f] if key.is_a?(String) && level.is_a?(Numeric) && level.finite?
          end
          happened(:levels, levels:) if levels.any?
        end

        # How many are on the whole service.
        def online(message)
          online = Given.whole(message["count"])
          return refuse(message) unless online && @card

          @card = @card.dup.tap { |card| card.online = online }
          happened(:card, room: @card)
        end

        def person(given)
          given = Given.object(given)
          key = Given.id(given["id"]) or return
          marks = Core::Voice::MARKS.select { |mark| given[mark.to_s] == true }
          Core::Voice::Person.new(key, given["name"].is_a?(String) ? Given.text(given["name"], 1000).to_s : nil, Given.address(given["picture"]),
            marks)
        end

        def card(given)
          key = Given.id(given["id"]) or return
          picture, link = given.values_at("picture", "link").map { |address| Given.address(address) }
          Core::Voice::Card.new(key, Given.name(given["name"]) || key, picture, link, Given.whole(given["online"]))
        end

        def refuse(message) = @reject.call("a change of a room that cannot be read: #{message.inspect[0, 80]}")

        def happened(what, room: nil, people: [], levels: nil)
          intake(:voice, body: Core::Voice::Happening.new(what, room, people, levels))
        end
      end
    end
  end
end
