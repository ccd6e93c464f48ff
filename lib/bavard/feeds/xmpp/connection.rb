# frozen_string_literal: true

require "io/wait"
require "openssl"
require "resolv"
require "socket"
require_relative "../../outward/door"
require_relative "../../outward/secured"
require_relative "../resume"
require_relative "../trouble"
require_relative "session"

module Bavard
  module Feeds
    module Xmpp
      # A session on a real socket, from finding its server to its end.
      class Connection
        CONNECT_WITHIN_S = 8
        LOOKUP_WITHIN_S = 3
        TICK_S = 0.5
        READ_BYTES = 65_536
        MOST_PLACES = 4

        # @param address [Address]
        # @param session [Session]
        # @param clock [#call] Unix milliseconds
        # @param take [#call] gets each Core::Intake
        # @param reject [#call]
        # @param outbox [Outbox]
        # @param door [Outward::Door]
        def initialize(address, session, clock:, take:, reject:, outbox:, door:)
          @address = address
          @session = session
          @clock = clock
          @take = take
          @reject = reject
          @outbox = outbox
          @door = door
        end

        def heard_at_ms = @session.heard_at_ms
        def joined? = @session.joined?
        def cursor = nil

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          @socket = open
          @session.begin(@clock.call)
          return say_goodbye if pump(stop) == :stopped

          @session.ended || Ended.new(:waiting, "The line broke.")
        rescue Outward::Door::Refused => error
          Ended.new(:needs_you, error.message, :address)
        rescue Nonsense => error
          @reject.call(error.message)
          Ended.new(:waiting, "#{@address.server} sent what is no stream: #{error.message}.")
        rescue *Trouble::NETWORK => error
          @session.ended || Ended.new(:waiting, words(error))
        ensure
          hand_over
          @socket&.close
        end

        private

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

        def pump(stop)
          until @session.ended
            write
            ready, = select([@socket, stop, @outbox.io], nil, nil, TICK_S) unless pending?
            return :stopped if ready&.include?(stop)

            @outbox.take.each { |letter| @session.say(letter, @clock.call) } if ready&.include?(@outbox.io)
            return if (ready.nil? || ready.include?(@socket)) && read == :over

            @session.tick(@clock.call)
            hand_over
          end
        end

        def pending? = @socket.respond_to?(:pending) && @socket.pending.positive?

        # @return [Symbol, nil] :over at its end
        def read
          bytes = @socket.read_nonblock(READ_BYTES, exception: false)
          return :over if bytes.nil?

          @stream.feed(bytes) if bytes.is_a?(String)
        end

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

        def hand_over = @session.take_intakes.each { |intake| @take.call(intake) }

        def say_goodbye
          @socket.write("</stream:stream>")
          nil
        rescue IOError, SystemCallError, OpenSSL::SSL::SSLError
          nil
        end

        def words(error)
          host, port = @place || [@address.server, Address::USUAL_PORT]
          Trouble.words(error, host, port, within_s: CONNECT_WITHIN_S)
        end
      end
    end
  end
end
