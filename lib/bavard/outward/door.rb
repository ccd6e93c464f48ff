# frozen_string_literal: true

require "ipaddr"
require "net/http"
require "socket"
require "uri"
require_relative "../error"
require_relative "global"
require_relative "secured"

module Bavard
  module Outward
    # The one way out of this house to a server that somebody named: a name is looked up once, all its addresses must be
    # somewhere in the world, and the connection is made to what was looked at. Inside is open only what the operator lists.
    # Whatever is behind a refused address, the answer is the same, before anything is sent there.
    class Door
      # A name or an address to which nobody is let out.
      class Refused < Error
      end

      LOOKUP_WITHIN_S = 5
      ENTRY = /\A(?:\[(?<six>[0-9a-f:.]+)\]|(?<host>[^:\s]+))(?::(?<port>\d{1,5}))?\z/
      LISTED = "Whoever runs Bavard can list it as one that may be reached."
      LITERAL = /\A[\d.]+\z|:/

      # @param inside [Array<String>] "host", "host:port", "[::1]:port" or a network such as "10.1.0.0/16"
      # @raise [Bavard::Error] naming what cannot be read
      def initialize(inside: [])
        @networks, named = inside.partition { |entry| entry.include?("/") }
        @networks.map! { |entry| network(entry) }
        @named = named.map { |entry| entry(entry) }
      end

      # To one server of the operator's own choice, such as a platform of the list.
      # @param base [URI::HTTP]
      def self.to(base) = new(inside: ["#{base.host}:#{base.port}"])

      # @param text [String, nil] the operator's list, parted by commas or spaces
      def self.list(text) = text.to_s.downcase.split(/[,\s]+/).reject(&:empty?)

      # @return [Array<String>] addresses to connect to
      # @raise [Refused, SocketError, Errno::ETIMEDOUT]
      def lookup(host, port, within_s: LOOKUP_WITHIN_S)
        name = host.to_s.delete_prefix("[").delete_suffix("]")
        raise Refused, refusal(name) if name.empty?

        addresses = addresses_of(name, port, within_s)
        raise Refused, refusal(name) unless listed?(name.downcase, port) || (!addresses.empty? && addresses.all? { |address| open?(address) })

        addresses
      rescue SocketError
        # Of what is listed everybody knows that it is there: only its name cannot be looked up just now.
        raise if listed?(name.downcase, port)

        raise Refused, refusal(name)
      end

      # @return [Socket, OpenSSL::SSL::SSLSocket]
      def open(host, port, tls:, within_s:)
        ends = now + within_s
        tcp = first_of(lookup(host, port, within_s:), port, ends)
        tcp.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
        tls ? Secured.socket(tcp, host, ends - now) : tcp
      end

      # @param uri [URI::HTTP]
      # @return [Net::HTTP] not yet started, pinned to what was looked up
      def http(uri, open_within_s:, read_within_s:)
        http = Net::HTTP.new(uri.host, uri.port, nil)
        http.ipaddr = lookup(uri.host, uri.port).first
        http.use_ssl = uri.scheme == "https"
        http.open_timeout = open_within_s
        http.read_timeout = http.write_timeout = read_within_s
        http.max_retries = 0
        http
      end

      # @return [Boolean] whether the operator lists it as inside
      def listed?(host, port) = @named.any? { |name, only| name == host && (only.nil? || only == port) }

      private

      def entry(text)
        match = ENTRY.match(text) or raise Error, "“#{text[0, 60]}” in the list of what may be reached inside is no host."
        [match[:six] || match[:host], match[:port]&.to_i]
      end

      def network(text)
        IPAddr.new(text)
      rescue IPAddr::Error
        raise Error, "“#{text[0, 60]}” in the list of what may be reached inside is no network."
      end

      def open?(address) = Global.global?(address) || @networks.any? { |network| network.include?(IPAddr.new(address.sub(/%.*\z/, ""))) }

      # Whether a name leads inside or nowhere is for nobody to find out.
      def refusal(host)
        return "#{host} is an address inside this house, not in the open. #{LISTED}" if host.match?(LITERAL)

        "There is no server called #{host[0, 80]} in the open. If it is inside this house, #{LISTED.sub("Whoever", "whoever")}"
      end

      # In a thread of its own: the system's lookup does not heed a time.
      def addresses_of(host, port, within_s)
        looking = Thread.new { Addrinfo.getaddrinfo(host, port, nil, :STREAM).map(&:ip_address).uniq }
        looking.report_on_exception = false
        looking.join(within_s) ? looking.value : raise(Errno::ETIMEDOUT)
      end

      def first_of(addresses, port, ends)
        addresses.each_with_index do |address, index|
          return Socket.tcp(address, port, connect_timeout: [(ends - now) / (addresses.size - index), 0.1].max)
        rescue SystemCallError
          raise if index == addresses.size - 1
        end
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
