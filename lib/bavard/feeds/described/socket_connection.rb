# frozen_string_literal: true

require_relative "../web_socket_wire"
require_relative "clients"
require_relative "socket_session"

module Bavard
  module Feeds
    module Described
      # Reads a described platform over a WebSocket: finds where it is, where that has to be found, and holds a session there.
      class SocketConnection
        # @param description [Description]
        # @param values [Hash{String => String}] what was asked of the host, and secrets
        # @param resume [Resume]
        # @param permission [HeldPermission, nil]
        # @param door [Outward::Door, nil] by which it goes out, where it is not the operator’s own choice
        # @param watch [#call, nil] told of each frame as it comes
        # @param options [Hash] clock, take, reject, outbox as the connection wants them
        def initialize(feed_id, description, values, resume, permission:, door: nil, watch: nil, **options)
          @feed_id = feed_id
          @description = description
          @values = values
          @permission = permission
          @options = options
          @resume = resume
          @watch = watch
          @clients = Clients.new(description, values, permission, door)
          @finding = Finding.new(description.transport, @clients)
          @session = session(values)
        end

        def heard_at_ms = @connection ? @connection.heard_at_ms : @resume.heard_at_ms
        def joined? = @session.joined?
        def cursor = @connection ? @connection.cursor : @session.cursor

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          lack = @description.lack(@values) and return lack

          found = @finding.needed?(@values) ? find : {}
          return found if found.is_a?(Ended)

          @session = session({**@values, **found})
          uri = @clients.uri(@description.transport.at, found)
          @connection = WebSocketWire.new(uri, @session, headers: @clients.headers(found),
            protocols: [@description.transport.protocol].compact, door: @clients.way_to(uri), **@options)
          @connection.run(stop)
        rescue HttpClient::Unreachable, HttpClient::Nonsense => error
          Ended.new(:waiting, error.message)
        rescue HeldPermission::Gone => error
          Ended.new(:needs_you, error.message, :permission)
        ensure
          @clients.close
        end

        private

        def session(values)
          SocketSession.new(@feed_id, @description, values, @resume, permission: @permission, reject: @options.fetch(:reject), watch: @watch)
        end

        # @return [Hash, Ended]
        def find
          answer, found = @finding.look({})
          return found if found
          return Ended.new(:waiting, "Nobody is broadcasting there yet.", nil, @finding.every_ms) if answer.status == 200

          meaning = Transport::HTTP_ENDS[answer.status.to_s]
          want = {"permission" => :permission, "address" => :address}[meaning]
          Ended.new(want ? :needs_you : :waiting, "#{@description.name} answered #{answer.status} where its stream was looked for.", want,
            answer.retry_after_ms)
        end
      end
    end
  end
end
