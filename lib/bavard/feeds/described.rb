# frozen_string_literal: true

require "json"
require_relative "described/description"
require_relative "described/poll_connection"
require_relative "described/socket_session"
require_relative "described/stream_connection"
require_relative "permitted"
require_relative "socket/connection"

module Bavard
  module Feeds
    # Feeds of platforms that somebody described: data that says how they are reached and what they send.
    module Described
      KIND = "described"
      LABEL = "Described"
      extend Permitted

      module_function

      # @param feed [Store::Feeds::Feed]
      # @param platform [Platform]
      # @param resume [Resume]
      # @return [#run, #heard_at_ms, #cursor, #joined?]
      def connection(feed, resume, platform:, permission:, **options)
        description = platform.description
        values = {**feed.address, **secrets(feed)}
        common = options.slice(:clock, :take, :reject, :outbox)
        case description.transport
        when Poll then PollConnection.new(feed.id, description, values, resume, permission:, **common)
        when Stream then StreamConnection.new(feed.id, description, values, resume, permission:, **common)
        else socket(SocketSession.new(feed.id, description, values, resume, permission:, reject: common.fetch(:reject)), description, values, common)
        end
      end

      # @param given [Hash{String => String}] what was typed for each that the description asks
      # @param platform [Platform]
      # @return [Hash] name, address, password: the secrets
      # @raise [Bavard::Error]
      def read(given, platform)
        address, secrets = [platform.description.asks, platform.description.secrets].map do |asks|
          asks.to_h { |ask| [ask.name, ask.read(given[field(platform, ask)], field(platform, ask))] }.compact
        end
        {name: nil, address:, password: secrets.empty? ? nil : JSON.generate(secrets)}
      end

      # @return [String] what it is called in a form that has those of other platforms as well
      def field(platform, ask) = "#{platform.key}.#{ask.name}"

      def secrets(feed)
        feed.password ? JSON.parse(feed.password) : {}
      rescue JSON::ParserError
        {}
      end

      def socket(session, description, values, common)
        uri = URI.join(description.base.to_s.sub(/\Ahttp/, "ws"), session.address)
        web = URI(uri.to_s.sub(/\Aws/, "http"))
        raise Bavard::Error, "#{web.host} is not among the hosts of #{description.name}." unless description.reaches?(web)

        WebSocketFeed::Connection.new("#{web.scheme}://#{web.host}:#{web.port}", session, path: web.request_uri,
          headers: description.headers_with(values), **common)
      end
      private_class_method :secrets, :socket
    end
  end
end
