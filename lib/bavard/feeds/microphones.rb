# frozen_string_literal: true

require_relative "../error"
require_relative "microphones/room"

module Bavard
  module Feeds
    # Rooms of people who talk wherever they like, and whose own browsers say how loud their microphones are.
    module Microphones
      KIND = "microphones"
      LABEL = "Microphones"
      LONGEST_NAME = 60

      module_function

      def connection(feed, _resume, clock:, take:, **)
        Room.new(feed.id, feed.name, clock:, take:)
      end

      # @return [Hash] name, address, password
      def read(given)
        name = given["name"].to_s.strip[0, LONGEST_NAME]
        {name: name.empty? ? LABEL : name, address: {}, password: nil}
      end

      def answers?(_feed) = false
      def words(_feed) = "#{LABEL}, each by a link of its own"
    end
  end
end
