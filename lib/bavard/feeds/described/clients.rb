# frozen_string_literal: true

require_relative "../http_client"

module Bavard
  module Feeds
    module Described
      # Lines to the hosts that a description names, each kept open from one question to the next.
      class Clients
        Unreachable = HttpClient::Unreachable

        # @param description [Description]
        # @param values [Hash{String => String}] what was asked of the host, and secrets
        # @param permission [HeldPermission, nil]
        # @param door [Outward::Door, nil] by which it goes out, where it is not the operator’s own choice
        def initialize(description, values, permission, door = nil)
          @door = door
          @description = description
          @values = values
          @permission = permission
          @open = {}
        end

        # @param place [Place]
        # @param kept [Hash{String => Object}] what is known by now
        # @return [URI::HTTP] also of a WebSocket
        # @raise [Unreachable] where it is none of its hosts
        def uri(place, kept)
          written = place.fill(known(kept)).sub(/\Aws/, "http")
          URI.join(@description.base, written).tap do |uri|
            raise Unreachable, "#{uri.host} is not among the hosts of #{@description.name}." unless uri.is_a?(URI::HTTP) && @description.reaches?(uri)
          end
        rescue URI::Error
          # What is filled in may be secret: it is named as it is described.
          raise Unreachable, "“#{place}” does not come to an address of #{@description.name}."
        end

        # @param question [Question]
        # @param kept [Hash{String => Object}]
        # @return [HttpClient::Answer]
        # @raise [Unreachable, HttpClient::Nonsense]
        def ask(question, kept)
          uri = uri(question.to, kept)
          options = {token: @permission&.token, headers: headers(kept)}
          return client(uri).get(uri.request_uri, **options) unless question.say

          client(uri).post(uri.request_uri, question.say.fill(known(kept)), **options)
        end

        # @return [Outward::Door]
        def way_to(uri) = @door || Outward::Door.to(uri)

        def headers(kept) = @description.headers_with(known(kept).compact)

        # @return [Hash{String => Object}] all that can be filled in
        def known(kept) = {**@values, "token" => @permission&.token, **kept}

        def close = @open.each_value(&:close)

        private

        def client(uri)
          @open["#{uri.host}:#{uri.port}"] ||= HttpClient.new("#{uri.scheme}://#{uri.host}:#{uri.port}", any: true, door: way_to(uri))
        end
      end

      # What is found before anything else is asked.
      class Finding
        # @param transport [Transport]
        # @param clients [Clients]
        def initialize(transport, clients)
          @find = transport.find
          @clients = clients
        end

        # @return [Boolean] whether something has to be found first
        def needed?(known) = !@find.nil? && @find.keep.names.any? { |name| known[name].nil? }

        def names = @find ? @find.keep.names : []
        def every_ms = @find.every_ms

        # @param kept [Hash{String => Object}]
        # @return [Array(HttpClient::Answer, Hash)] the answer, and what was found of all that was looked for, or nil
        def look(kept)
          answer = @clients.ask(@find.ask, kept)
          found = answer.status == 200 ? @find.keep.of(answer.body, answer.headers) : {}
          [answer, found.size == @find.keep.names.size ? found : nil]
        end
      end
    end
  end
end
