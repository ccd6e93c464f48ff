# frozen_string_literal: true

require "net/http"
require "openssl"
require "timeout"
require "uri"
require_relative "../error"
require_relative "../outward/door"
require_relative "bounds"

module Bavard
  module Pictures
    # Fetches what stands at an address that somebody else wrote down: only from the open web, only so much of it, only
    # for so long.
    class Fetcher
      # Nothing came of it now; in a while it may.
      class Unreachable < Error
      end

      MOST_REDIRECTS = 3
      WITHIN_S = 12
      CONNECT_WITHIN_S = 4
      # Nothing packed: a little of it may be very much.
      ASKED = {"accept" => "image/*,application/json,application/zip", "accept-encoding" => "identity", "user-agent" => "bavard"}.freeze
      PORTS = [80, 443, 8080, 8443].freeze

      # @param door [Outward::Door]
      def initialize(door: Outward::Door.new, within_s: WITHIN_S)
        @door = door
        @within_s = within_s
      end

      # @param largest_bytes [Integer]
      # @return [String] its bytes
      # @raise [Bavard::Error] saying why not, Unreachable where it may be got later
      def get(address, largest_bytes: Bounds::LARGEST_BYTES)
        uri = parse(address)
        # Connecting, heads, sizes of parts and what they hold: all of it together.
        Timeout.timeout(@within_s, Late) { follow(uri, largest_bytes) }
      rescue Late, Net::OpenTimeout, Net::ReadTimeout, Net::WriteTimeout, Errno::ETIMEDOUT
        raise Unreachable, "#{uri.host} did not answer within #{@within_s} s"
      rescue SystemCallError, SocketError, IOError, OpenSSL::SSL::SSLError, Net::HTTPBadResponse, Net::ProtocolError, Zlib::Error
        raise Unreachable, "#{uri.host} cannot be reached"
      rescue URI::Error
        raise Error, "that is no address of the web"
      end

      private

      # Leads on elsewhere.
      Elsewhere = Struct.new(:location)
      # It took too long, whatever it was doing.
      class Late < StandardError
      end
      private_constant :Elsewhere, :Late

      def follow(uri, largest_bytes)
        (MOST_REDIRECTS + 1).times do
          answer = ask(uri, largest_bytes)
          return answer if answer.is_a?(String)

          uri = parse(URI.join(uri, answer.location).to_s)
        end
        raise Error, "that address leads on to others more than #{MOST_REDIRECTS} times"
      end

      def parse(address)
        uri = URI(address.to_s.strip)
        raise Error, "that is no address of the web" unless uri.is_a?(URI::HTTP) && !uri.host.to_s.empty? && uri.userinfo.nil?

        uri
      end

      def ask(uri, largest_bytes)
        http = connection(uri)
        body = String.new(encoding: Encoding::BINARY)
        response = http.start { http.request(Net::HTTP::Get.new(uri.request_uri, ASKED)) { |answer| collect(answer, body, largest_bytes) } }
        return Elsewhere.new(response["location"].to_s) if response.is_a?(Net::HTTPRedirection) && response["location"]
        raise refusal(response), "#{uri.host} answered #{response.code}" unless response.is_a?(Net::HTTPSuccess)

        body
      end

      # Whether the server says that it is its fault, or that there was too much asked of it (RFC 9110 §15.6, RFC 6585 §4).
      def refusal(response) = response.is_a?(Net::HTTPServerError) || response.is_a?(Net::HTTPTooManyRequests) ? Unreachable : Error

      def collect(answer, body, largest_bytes)
        return unless answer.is_a?(Net::HTTPSuccess)
        raise Error, too_much(largest_bytes) if answer.content_length.to_i > largest_bytes

        answer.read_body do |part|
          body << part
          raise Error, too_much(largest_bytes) if body.bytesize > largest_bytes
        end
      end

      def too_much(largest_bytes) = "there is more than #{largest_bytes / 1024 / 1024} MB of it"

      def connection(uri)
        raise Error, "port #{uri.port} is none of the web’s" unless PORTS.include?(uri.port) || @door.listed?(uri.host, uri.port)

        @door.http(uri, open_within_s: CONNECT_WITHIN_S, read_within_s: @within_s)
      end
    end
  end
end
