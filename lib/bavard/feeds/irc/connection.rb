# frozen_string_literal: true

require "io/wait"
require "openssl"
require "socket"
require_relative "../../outward/door"
require_relative "../resume"
require_relative "../trouble"
require_relative "line_reader"
require_relative "session"

module Bavard
  module Feeds
    module Irc
      # A session on a real socket, from connect to end.
      class Connection
        CONNECT_WITHIN_S = 8
        TICK_S = 0.5
        READ_BYTES = 65_536
        # At most this much at once; a longer line would be cut by the server (RFC 2812 §2.3).
        LONGEST_SENT = 510

        # @param address [Address]
        # @param session [Session]
        # @param clock [#call] Unix milliseconds
        # @param take [#call] gets each Core::Intake
        # @param reject [#call] gets a word for what could not be read
        # @param outbox [Outbox] the host's own lines
        # @param door [Outward::Door]
        def initialize(address, session, clock:, take:, reject:, outbox:, door:)
          @address = address
          @session = session
          @clock = clock
          @take = take
          @reject = reject
          @outbox = outbox
          @door = door
          @reader = LineReader.new
        end

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          socket = open_socket
          @session.begin(@clock.call)
          return say_goodbye(socket) if pump(socket, stop) == :stopped

          Ended.new(@session.ended || :waiting, @session.reason || "The server closed the line.")
        rescue Outward::Door::Refused => error
          Ended.new(:needs_you, error.message)
        rescue *Trouble::NETWORK => error
          Ended.new(@session.ended || :waiting, @session.reason || words(error))
        ensure
          socket&.close
        end

        # @return [Integer, nil] Unix milliseconds of the last thing the server said
        def heard_at_ms
          @session.heard_at_ms
        end

        # Nothing besides the last line's id and when it was heard.
        def cursor = nil

        # @return [Boolean] whether it got as far as reading the channel
        def joined?
          @session.joined?
        end

        private

        def open_socket
          @door.open(@address.host, @address.port, tls: @address.tls, within_s: CONNECT_WITHIN_S)
        end

        def pump(socket, stop)
          until @session.ended
            write(socket)
            ready, = select([socket, stop, @outbox.io], nil, nil, TICK_S) unless pending?(socket)
            return :stopped if ready&.include?(stop)

            @outbox.take.each { |letter| @session.say(letter, @clock.call) } if ready&.include?(@outbox.io)

            read(socket) if ready.nil? || ready.include?(socket)
            @session.tick(@clock.call)
            hand_over
          end
        end

        def pending?(socket)
          socket.respond_to?(:pending) && socket.pending.positive?
        end

        def read(socket)
          bytes = socket.read_nonblock(READ_BYTES, exception: false)
          raise EOFError if bytes.nil?
          return if bytes.is_a?(Symbol)

          now_ms = @clock.call
          before = @reader.too_long
          @reader.feed(bytes) { |line| @session.receive(line, now_ms) }
          @reject.call("a line longer than #{LineReader::LONGEST} bytes") if @reader.too_long > before
        end

        def hand_over
          @session.take_intakes.each { |intake| @take.call(intake) }
        end

        def write(socket)
          @session.take_outgoing.each do |line|
            socket.write("#{line.delete("\r\n\0").byteslice(0, LONGEST_SENT)}\r\n")
          end
        end

        def say_goodbye(socket)
          socket.write("QUIT :bye\r\n")
          nil
        end

        def words(error)
          Trouble.words(error, @address.host, @address.port, within_s: CONNECT_WITHIN_S)
        end
      end
    end
  end
end
