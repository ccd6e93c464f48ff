# frozen_string_literal: true

require_relative "permitted"
require_relative "socket/connection"
require_relative "socket/session"

module Bavard
  module Feeds
    # Feeds of platforms that send JSON over a WebSocket.
    module WebSocketFeed
      KIND = "socket"
      LABEL = "WebSocket"
      extend Permitted

      module_function

      # @param feed [Store::Feeds::Feed]
      # @param platform [Platform]
      # @param resume [Resume]
      # @param options [Hash] clock, take, reject, outbox, permission as {Connection} wants them
      # @return [Connection]
      def connection(feed, resume, platform:, permission:, **options)
        session = Session.new(feed.id, feed.address["room"], resume, name: platform.name, permission:, reject: options.fetch(:reject))
        Connection.new(platform.base, session, **options.except(:found))
      end

      # @return [Hash] name, address
      # @raise [Bavard::Error]
      def read(given)
        room = given["channel"].to_s.strip.delete_prefix("@").downcase[%r{(?<![\w-])([\w-]+)/?\z}, 1]
        unless room&.match?(/\A[a-z0-9][\w-]{0,59}\z/)
          raise Error.new("Which room? Its name looks like reedmere.", field: "channel",
            value: given["channel"])
        end

        {name: nil, address: {"room" => room}, password: nil}
      end
    end
  end
end
