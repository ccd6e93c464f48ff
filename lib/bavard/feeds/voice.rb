# frozen_string_literal: true

require_relative "permitted"
require_relative "polling/client"
require_relative "socket/connection"
require_relative "voice/session"

module Bavard
  module Feeds
    # Voice rooms over a WebSocket: who is there, how loud they are, and what is written in the room.
    module Voice
      KIND = "voice"
      LABEL = "Voice room"
      # People of one room that a list of rooms names.
      MOST_NAMED = 60
      MOST_ROOMS = 200
      extend Permitted

      module_function

      # @param feed [Store::Feeds::Feed] its address has the room, and whom it follows
      def connection(feed, resume, platform:, permission:, **options)
        session = Session.new(feed.id, feed.address["room"], resume, name: platform.name, permission:, reject: options.fetch(:reject),
          follow: feed.address["follow"])
        WebSocketFeed::Connection.new(platform.base, session, **options.except(:found))
      end

      def words(feed)
        follow = feed.address["follow"]
        [super, follow && "follows #{follow}"].compact.join(", ")
      end

      # @param given [Hash] room, and perhaps whom to follow from room to room
      def read(given)
        room = given["room"].to_s.strip
        room = given["channel"].to_s.strip if room.empty?
        raise Error.new("Which room? Choose one of the list.", field: "room", value: room) unless room.match?(/\A[\w.-]{1,80}\z/)

        follow = Given.text(given["follow"].to_s.strip, Given::LONGEST_ID)
        {name: nil, address: {"room" => room, "follow" => follow}, password: nil}
      end

      # @param platform [Platform]
      # @return [Array<Hash>] id, name, topic and people (id and name) of each room there is
      # @raise [Bavard::Error]
      def rooms(platform)
        answer = Polling::Client.new(platform.base).get("/v1/rooms")
        raise Error, "#{platform.name} does not tell its rooms just now." unless answer.status == 200

        Given.list(Given.object(answer.body)["rooms"]).first(MOST_ROOMS).filter_map { |room| room(Given.object(room)) }
      rescue Polling::Client::Unreachable, Polling::Client::Nonsense => error
        raise Error, error.message
      end

      def room(given)
        id = Given.id(given["id"]) or return
        people = Given.list(given["people"]).first(MOST_NAMED).filter_map { |one| person(Given.object(one)) }
        {id:, name: Given.name(given["name"]) || id, topic: Given.text(given["topic"], 200), people:}
      end

      def person(given)
        key = Given.id(given["id"])
        key && {id: key, name: Given.name(given["name"]) || key}
      end
      private_class_method :room, :person
    end
  end
end
