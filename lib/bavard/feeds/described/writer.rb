# frozen_string_literal: true

require_relative "../held_permission"
require_relative "../polling/client"

module Bavard
  module Feeds
    module Described
      # Sends the host's lines to a described platform over HTTP, and says of each whether it went.
      class Writer
        # @param description [Description]
        # @param permission [HeldPermission, nil]
        # @param clients [Clients]
        # @param tell [#call] takes each Core::Answered
        def initialize(description, permission, clients, tell)
          @description = description
          @permission = permission
          @clients = clients
          @tell = tell
        end

        # @param letter [Outbox::Letter]
        # @param values [Hash{String => Object}] what is known
        def write(letter, values)
          reason = refusal(letter, values)
          @tell.call(Core::Answered.new(letter.answer_id, reason.nil?, reason))
        end

        private

        # @return [String, nil] why it did not go
        def refusal(letter, values)
          writes = @description.transport.writes or return "Nobody described how to write there."
          return "This feed reads as a guest; it has no permission to write." unless @permission&.may?("write")

          values = {**values, "token" => @permission.token, "text" => letter.text}
          why(@clients.post(writes.to.fill(values), writes.say.fill(values), values).status)
        rescue Polling::Client::Unreachable, Polling::Client::Nonsense => error
          error.message
        rescue HeldPermission::Gone
          "The permission has ended."
        end

        def why(status)
          case status
          when 200..299 then nil
          when 401, 403 then "#{@description.name} does not let us write here."
          when 429 then "#{@description.name} wants to be asked less often."
          else "#{@description.name} did not take it (#{status})."
          end
        end
      end

      # Lines to the hosts that a description names, each kept open from one question to the next.
      class Clients
        # @param description [Description]
        # @param permission [HeldPermission, nil]
        def initialize(description, permission)
          @description = description
          @permission = permission
          @open = {}
        end

        # @param written [String] an address, whole or below the platform's own
        # @return [URI::HTTP]
        # @raise [Polling::Client::Unreachable] where it is none of its hosts
        def uri(written)
          URI.join(@description.base, written).tap do |uri|
            raise Polling::Client::Unreachable, "#{uri.host} is not among the hosts of #{@description.name}." unless @description.reaches?(uri)
          end
        rescue URI::Error
          raise Polling::Client::Unreachable, "#{written[0, 80]} is no address of #{@description.name}."
        end

        # @return [Polling::Client::Answer]
        # @raise [Polling::Client::Unreachable, Polling::Client::Nonsense]
        def get(written, values)
          uri = uri(written)
          client(uri).get(uri.request_uri, token: @permission&.token, headers: @description.headers_with(values))
        end

        # @param body [Object] as JSON has it
        def post(written, body, values)
          uri = uri(written)
          client(uri).post(uri.request_uri, body, token: @permission&.token, headers: @description.headers_with(values))
        end

        def close = @open.each_value(&:close)

        private

        def client(uri) = @open["#{uri.host}:#{uri.port}"] ||= Polling::Client.new("#{uri.scheme}://#{uri.host}:#{uri.port}", any: true)
      end
    end
  end
end
