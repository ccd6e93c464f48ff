# frozen_string_literal: true

require "ipaddr"
require "net/http"
require "openssl"
require "socket"
require "uri"
require_relative "../error"
require_relative "bounds"

module Bavard
  module Pictures
    # Fetches what stands at an address that somebody else wrote down: only from the open web, only so much of it, only
    # for so long. The name is looked up once, and the connection made to the very address that was checked.
    class Fetcher
      MOST_REDIRECTS = 3
      WITHIN_S = 12
      CONNECT_WITHIN_S = 4
      PORTS = [80, 443, 8080, 8443].freeze
      # Everything that is not the open web (IANA's special-purpose registries).
      INSIDE = %w[0.0.0.0/8 10.0.0.0/8 100.64.0.0/10 127.0.0.0/8 169.254.0.0/16 172.16.0.0/12 192.0.0.0/24 192.0.2.0/24 192.88.99.0/24
        192.168.0.0/16 198.18.0.0/15 198.51.100.0/24 203.0.113.0/24 224.0.0.0/4 240.0.0.0/4 ::/128 ::1/128 ::ffff:0:0/96 64:ff9b::/96
        64:ff9b:1::/48 100::/64 2001::/23 2001:db8::/32 2002::/16 fc00::/7 fe80::/10 ff00::/8].map { |range| IPAddr.new(range) }.freeze

      # @param trusted [Array<String>] host:port of platforms that may be inside, as the operator lists them
      def initialize(trusted: [])
        @trusted = trusted
      end

      # @param largest_bytes [Integer]
      # @return [String] its bytes
      # @raise [Bavard::Error] saying why not
      def get(address, largest_bytes: Bounds::LARGEST_BYTES)
        deadline = now + WITHIN_S
        uri = parse(address)
        (MOST_REDIRECTS + 1).times do
          answer = ask(uri, largest_bytes, deadline)
          return answer if answer.is_a?(String)

          uri = parse(URI.join(uri, answer.location).to_s)
        end
        raise Error, "that address leads on to others more than #{MOST_REDIRECTS} times"
      rescue Net::OpenTimeout, Net::ReadTimeout, Errno::ETIMEDOUT
        raise Error, "#{uri&.host} did not answer within #{WITHIN_S} s"
      rescue SystemCallError, SocketError, IOError, OpenSSL::SSL::SSLError, Net::HTTPBadResponse, Net::ProtocolError
        raise Error, "#{uri&.host} cannot be reached"
      rescue URI::Error
        raise Error, "that is no address of the web"
      end

      private

      # Leads on elsewhere.
      Elsewhere = Struct.new(:location)
      private_constant :Elsewhere

      def parse(address)
        uri = URI(address.to_s.strip)
        raise Error, "that is no address of the web" unless uri.is_a?(URI::HTTP) && !uri.host.to_s.empty? && uri.userinfo.nil?

        uri
      end

      def ask(uri, largest_bytes, deadline)
        http = connection(uri, deadline)
        body = String.new(encoding: Encoding::BINARY)
        response = http.start { http.request(Net::HTTP::Get.new(uri.request_uri, {"accept" => "image/*,application/json,application/zip", "user-agent" => "bavard"})) { |answer| take(answer, body, largest_bytes, deadline) } }
        return Elsewhere.new(response["location"].to_s) if response.is_a?(Net::HTTPRedirection) && response["location"]
        raise Error, "#{uri.host} answered #{response.code}" unless response.is_a?(Net::HTTPSuccess)

        body
      end

      def take(answer, body, largest_bytes, deadline)
        return unless answer.is_a?(Net::HTTPSuccess)
        raise Error, too_much(largest_bytes) if answer.content_length.to_i > largest_bytes

        answer.read_body do |part|
          body << part
          raise Error, too_much(largest_bytes) if body.bytesize > largest_bytes
          raise Errno::ETIMEDOUT if now > deadline
        end
      end

      def too_much(largest_bytes) = "there is more than #{largest_bytes / 1024 / 1024} MB of it"

      def connection(uri, deadline)
        http = Net::HTTP.new(uri.host, uri.port, nil)
        http.ipaddr = checked(uri)
        http.use_ssl = uri.scheme == "https"
        http.open_timeout = CONNECT_WITHIN_S
        http.read_timeout = http.write_timeout = [deadline - now, 0.1].max
        http.max_retries = 0
        http
      end

      # @return [String] the address to connect to
      def checked(uri)
        addresses = Addrinfo.getaddrinfo(uri.host.delete_prefix("[").delete_suffix("]"), uri.port, nil, :STREAM).map(&:ip_address)
        return addresses.first if @trusted.include?("#{uri.host}:#{uri.port}")
        raise Error, "port #{uri.port} is none of the web’s" unless PORTS.include?(uri.port)
        raise Error, "that address leads inside this house, not to the open web" if addresses.empty? || addresses.any? { |address| inside?(address) }

        addresses.first
      end

      def inside?(address)
        ip = IPAddr.new(address.sub(/%.*\z/, ""))
        INSIDE.any? { |range| range.family == ip.family && range.include?(ip) }
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
