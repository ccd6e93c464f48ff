# frozen_string_literal: true

require "json"
require "uri"
require "websocket/driver"
require_relative "../../outward/door"
require_relative "../given"
require_relative "../held_permission"
require_relative "../resume"
require_relative "../trouble"
require_relative "session"

module Bavard
  module Feeds
    module WebSocketFeed
      # A session on a real socket, from connect to end.
      class Connection
        CONNECT_WITHIN_S = 8
        TICK_S = 0.5
        READ_BYTES = 65_536
        LARGEST_MESSAGE_BYTES = 1024 * 1024
        NORMAL = 1000

        # What websocket-driver writes to.
        Wire = Struct.new(:url, :socket) do
          def write(bytes) = socket.write(bytes)
        end

        # @param base [String] "http://…" or "https://…"
        # @param session [Session]
        # @param clock [#call] Unix milliseconds
        # @param take [#call] gets each Core::Intake
        # @param reject [#call] gets a word for what could not be read
        # @param outbox [Outbox] the host's own lines
        # @param path [String] of the stream there
        # @param headers [Hash{String => String}]
        # @param protocols [Array<String>] subprotocols that are offered
        def initialize(base, session, clock:, take:, reject:, outbox:, path: "/v1/stream", headers: {}, protocols: [], door: Outward::Door.to(URI(base)))
          @base = URI(base)
          @door = door
          @path = path
          @headers = headers
          @protocols = protocols
          @session = session
          @clock = clock
          @take = take
          @reject = reject
          @outbox = outbox
        end

        def heard_at_ms = @session.heard_at_ms
        def joined? = @session.joined?
        # As far as what it covers was handed over.
        def cursor = @handed_over || @session.cursor

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          socket = @door.open(@base.host, @base.port, tls: @base.scheme == "https", within_s: CONNECT_WITHIN_S)
          @driver = driver(Wire.new("#{@base.scheme.sub("http", "ws")}://#{@base.host}:#{@base.port}#{@path}", socket))
          @session.begin(@clock.call)
          @driver.start
          return say_goodbye if pump(socket, stop) == :stopped

          @session.ended || Ended.new(:waiting, "The line broke.#{@session.promise}")
        rescue *Trouble::NETWORK => error
          @session.ended || Ended.new(:waiting, words(error))
        rescue HeldPermission::Gone => error
          Ended.new(:needs_you, error.message, :permission)
        ensure
          socket&.close
        end

        private

        def driver(wire)
          WebSocket::Driver.client(wire, max_length: LARGEST_MESSAGE_BYTES, **(@protocols.empty? ? {} : {protocols: @protocols})).tap do |driver|
            @headers.each { |name, value| driver.set_header(name, value) }
            driver.on(:open) { @session.opened } if @session.respond_to?(:opened)
            driver.on(:message) { |message| hear(message.data) }
            driver.on(:close) { |event| @session.closed(event.code, event.reason, @clock.call) }
            driver.on(:error) { |error| @reject.call("a broken frame: #{error.message[0, 80]}") }
          end
        end

        def hear(data)
          return @session.hear(written(data), @clock.call) if @session.respond_to?(:hear)

          message = Given.json(data.to_s)
          message.is_a?(Hash) ? @session.receive(message, @clock.call) : @reject.call("a message that is no object")
        rescue JSON::ParserError, EncodingError
          @reject.call("a message that is not JSON: #{data.to_s[0, 60].inspect}")
        end

        # @param data [String, Array<Integer>]
        # @return [String] valid UTF-8
        def written(data) = (data.is_a?(Array) ? data.pack("C*") : data.dup).force_encoding(Encoding::UTF_8).scrub

        def pump(socket, stop)
          until @session.ended
            ready, = select([socket, stop, @outbox.io], nil, nil, TICK_S) unless socket.respond_to?(:pending) && socket.pending.positive?
            return :stopped if ready&.include?(stop)

            send_on if ready&.include?(@outbox.io)
            break hand_over if (ready.nil? || ready.include?(socket)) && read(socket) == :over

            @session.tick(@clock.call)
            hand_over
          end
        end

        def send_on
          @outbox.take.each { |letter| @session.say(letter, @clock.call) }
          @outbox.take_asked.each { |login| @session.ask(login) }
        end

        # @return [Symbol, nil] :over at its end
        def read(socket)
          bytes = socket.read_nonblock(READ_BYTES, exception: false)
          return :over if bytes.nil?

          @driver.parse(bytes) unless bytes.is_a?(Symbol)
          nil
        end

        def hand_over
          @session.take_outgoing.each { |message| @driver.text(message.is_a?(String) ? message : JSON.generate(message)) }
          @session.take_intakes.each { |intake| @take.call(intake) }
          @handed_over = @session.cursor.dup
        end

        def say_goodbye
          @driver.close("bye", NORMAL)
          nil
        end

        def words(error)
          error.is_a?(EOFError) ? "The line broke.#{@session.promise}" : Trouble.words(error, @base.host, @base.port, within_s: CONNECT_WITHIN_S)
        end
      end
    end
  end
end
