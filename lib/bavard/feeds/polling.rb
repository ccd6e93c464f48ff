# frozen_string_literal: true

require_relative "polling/broadcast"
require_relative "permitted"
require_relative "polling/connection"

module Bavard
  module Feeds
    # Feeds of platforms that are asked over HTTP, page by page, for the messages of a broadcast that has a number.
    module Polling
      KIND = "polling"
      LABEL = "HTTP"
      extend Permitted

      module_function

      # @param feed [Store::Feeds::Feed]
      # @param platform [Platform]
      # @param resume [Resume]
      # @param options [Hash] clock, take, reject, outbox, permission as {Connection} wants them
      # @return [Connection]
      def connection(feed, resume, platform:, **options)
        Connection.new(feed.id, client(platform), Broadcast.new(feed.address["number"], feed.address["channel"]), resume, name: platform.name,
**options)
      end

      def client(platform) = Client.new(platform.base)

      # What a host typed, pasted or left empty, as a feed is kept.
      #
      # @return [Hash] name, address
      # @raise [Bavard::Error]
      def read(given)
        number, channel = place(given["number"].to_s, given["channel"].to_s)
        if number.nil? && channel.nil?
          raise Error.new("Enter the number of the broadcast, or the name of the channel to find it by.", field: "number")
        end

        {name: nil, address: {"number" => number, "channel" => channel}, password: nil}
      end

      # What stands where a number is asked for may be a channel's name as well.
      def place(number, channel)
        return [nil, Broadcast.channel(number)] if channel.strip.empty? && Broadcast.name?(number)

        [Broadcast.number(number), Broadcast.channel(channel)]
      end
      private_class_method :place

      # @return [String, nil] the number of the running broadcast of a channel, or of whoever gave the permission
      # @raise [Bavard::Error] where there is none, or the platform cannot be reached
      def find(platform, channel)
        answer = client(platform).get("/v1/channels/#{channel}/broadcast")
        raise Error.new("Nobody is broadcasting on #{channel} just now.", field: "number") if answer.status == 404
        raise Error.new("#{platform.name} wants to be asked less often. Try again in a moment.", field: "number") if answer.status == 429

        Broadcast.number(answer.body["number"].to_s)
      rescue Client::Unreachable, Client::Nonsense => error
        raise Error.new(error.message, field: "number")
      end
    end
  end
end
