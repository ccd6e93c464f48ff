# frozen_string_literal: true

require "resolv"
require_relative "../../outward/secured"
require_relative "../wire"
require_relative "session"

module Bavard
  module Feeds
    module Xmpp
      # A session with an XMPP server, from finding it to its end.
      class Connection < Wire
        LOOKUP_WITHIN_S = 3
        MOST_PLACES = 4

        # See {Wire#run}.
        def run(stop)
          super
        rescue Nonsense => error
          @reject.call(error.message)
          Ended.new(:waiting, "#{@address.server} sent what is no stream: #{error.message}.")
        end

        private

        def place = @place || [@address.server, Address::USUAL_PORT]
        def over(words = "The line broke.") = @session.ended || Ended.new(:waiting, words)

        # RFC 6120 §3.2: where the name service says, or the server itself.
        def open
          places = @address.host ? [[@address.host, @address.port]] : told_places
          places.each_with_index do |(host, port), index|
            @place = [host, port]
            return @door.open(host, port, tls: false, within_s: CONNECT_WITHIN_S)
          rescue SystemCallError
            raise if index == places.size - 1
          end
        end

        # @return [Array<Array(String, Integer)>] hosts and ports, the first to be tried first
        def told_places
          found = Resolv::DNS.open do |dns|
            dns.timeouts = LOOKUP_WITHIN_S
            dns.getresources("_xmpp-client._tcp.#{@address.server}", Resolv::DNS::Resource::IN::SRV)
          end
          found = found.reject { |one| one.target.to_s.empty? }.sort_by { |one| [one.priority, -one.weight] }.first(MOST_PLACES)
          found.empty? ? [[@address.server, Address::USUAL_PORT]] : found.map { |one| [one.target.to_s, one.port] }
        rescue Resolv::ResolvError, SystemCallError, ArgumentError
          [[@address.server, Address::USUAL_PORT]]
        end

        def read(bytes) = @stream.feed(bytes)

        def write
          @session.take_outgoing.each do |out|
            case out
            when :stream then begin_stream
            when :secure then secure
            else @socket.write(out)
            end
          end
        end

        # What an earlier stream still had to say does not count.
        def begin_stream
          stream = nil
          stream = Stream.new { |what| @session.receive(what, @clock.call) if @stream.equal?(stream) }
          @stream = stream
        end

        # The certificate is that of the server which was asked for, wherever it stands (RFC 6120 §13.7.2).
        def secure
          @socket = Outward::Secured.socket(@socket, @address.server, CONNECT_WITHIN_S)
          @session.secured(@clock.call)
          write
        end

        def say_goodbye
          @socket.write("</stream:stream>")
          nil
        rescue IOError, SystemCallError, OpenSSL::SSL::SSLError
          nil
        end
      end
    end
  end
end
