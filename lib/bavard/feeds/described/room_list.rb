# frozen_string_literal: true

require_relative "transports/transport"
require_relative "voices"

module Bavard
  module Feeds
    module Described
      # Where a voice service lists its rooms, and who is in them now:
      #
      #   {"ask": "/rooms", "items": "rooms", "key": "id", "name": "name", "people": {"at": "people", "key": "id", "name": "nick"}, "texts": "texts"}
      class RoomList
        MOST = 200
        # People of one room that are named.
        MOST_NAMED = 60
        FIELDS = {"key" => Values::Id, "name" => Values::Name, "topic" => Values::Text}.freeze
        LONGEST_TOPIC = 200

        # @return [Question]
        attr_reader :ask

        # @yieldparam at [String]
        # @yieldparam words [String]
        def initialize(given)
          raise ArgumentError, "where they are to “ask”, and of each of the “items” its “key”" unless given.is_a?(Hash)

          @ask = Question.new(Place.new(given["ask"]), nil)
          @items = given["items"] && Path.read(given["items"])
          @people = given["people"] && Voices::People.new(given["people"])
          @texts = given["texts"] && Path.read(given["texts"])
          @fields = Values.several(FIELDS, given.except("ask", "items", "people", "texts"), needed: %w[key])
        rescue ArgumentError => error
          yield "", error.message
        end

        # @param body [Object] as it was answered
        # @return [Array<Hash>] id, name, topic and people (id and name) of each
        def of(body)
          all = @items ? @items.of(body) : body
          Given.list(all).first(MOST).filter_map { |one| room(one) }
        end

        # Rooms in which nobody talks, called as the others.
        #
        # @return [Array<Hash>] id and name of each
        def texts(body) = @texts ? Given.list(@texts.of(body)).first(MOST).filter_map { |one| room(one)&.slice(:id, :name) } : []

        private

        def room(one)
          id, name, topic = FIELDS.keys.map { |field| @fields[field]&.of(one) }
          people = @people ? @people.of(one).first(MOST_NAMED).map { |person| {id: person.key, name: person.name || person.key} } : []
          {id:, name: name || id, topic: topic&.slice(0, LONGEST_TOPIC), people:} if id
        end
      end
    end
  end
end
