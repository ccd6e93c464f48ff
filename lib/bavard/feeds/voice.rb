# frozen_string_literal: true

require_relative "described"

module Bavard
  module Feeds
    # Voice rooms of services that are described: who is there, how loud they are, and what is written in the room.
    module Voice
      KIND = "voice"
      LABEL = "Voice room"
      ROOM = /\A[\w.-]{1,80}\z/
      extend Permitted

      module_function

      # @param feed [Store::Feeds::Feed] its address has the room, whom it follows, and of which room it reads what is written
      def connection(...) = Described.connection(...)

      def words(feed)
        follow, written = feed.address.values_at("follow", "written")
        [super, follow && "follows #{follow}", written && "reads #{written}"].compact.join(", ")
      end

      # @param given [Hash] room, and perhaps whom to follow from room to room, and another room to read; or what the description asks, where
      #   it lists no rooms
      # @param platform [Platform]
      def read(given, platform)
        return Described.read(given, platform) unless platform.description.rooms

        room = given["room"].to_s.strip
        raise Error.new("Which room? Choose one of the list.", field: "room", value: room) unless room.match?(ROOM)

        follow = Given.text(given["follow"].to_s.strip, Given::LONGEST_ID)
        written = given["written"].to_s.strip
        raise Error.new("Choose one of the rooms of the list.", field: "written", value: written) unless written.empty? || written.match?(ROOM)

        {name: nil, address: {"room" => room, "follow" => follow, "written" => written.empty? ? nil : written}.compact, password: nil}
      end

      def place(address, password) = [address.except("follow", "written"), password]

      # @param platform [Platform]
      # @return [Hash] rooms: id, name, topic and people (id and name) of each there is; texts: id and name of those in which nobody talks
      # @raise [Bavard::Error]
      def rooms(platform)
        rooms = platform.description.rooms or return {rooms: [], texts: []}
        clients = Described::Clients.new(platform.description, {}, nil, platform.door)
        answer = clients.ask(rooms.ask, {})
        raise Error, "#{platform.name} does not tell its rooms just now." unless answer.status == 200

        {rooms: rooms.of(answer.body), texts: rooms.texts(answer.body)}
      rescue HttpClient::Unreachable, HttpClient::Nonsense => error
        raise Error, error.message
      ensure
        clients&.close
      end
    end
  end
end
