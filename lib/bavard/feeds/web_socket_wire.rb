# frozen_string_literal: true

require "json"
require "uri"
require "websocket/driver"
require_relative "given"
require_relative "wire"

module Bavard
  module Feeds
    # A session over a WebSocket (RFC 6455).
    class WebSocketWire < Wire
      LARGEST_MESSAGE_BYTES = 1024 * 1024
      NORMAL = 1000

      # What websocket-driver writes to.
      Out = Struct.new(:url, :socket) do
        def write(bytes) = socket.write(bytes)
      end

      # @param uri [URI::HTTP] where it is
      # @param session [#opened, #hear, #closed, #tick, #say, #ask, #take_outgoing, #take_intakes, #cursor, #promise]
      # @param headers [Hash{String => String}]
      # @param protocols [Array<String>] subprotocols that are offered
      # @param options [Hash] clock, take, reject, outbox, door as {Wire} wants them
      def initialize(uri, session, headers: {}, protocols: [], **options)
        super(uri, session, **options)
        @headers = headers
        @protocols = protocols
      end

      # As far as what it covers was handed over.
      def cursor = @handed_over || @session.cursor

      private

      def place = [@address.host, @address.port]

      def open
        @door.open(*place, tls: @address.scheme == "https", within_s: CONNECT_WITHIN_S).tap do |socket|
          url = "#{@address.scheme.sub("http", "ws")}://#{@address.host}:#{@address.port}#{@address.request_uri}"
          @driver = driver(Out.new(url, socket))
        end
      end

      def driver(out)
        WebSocket::Driver.client(out, max_length: LARGEST_MESSAGE_BYTES, **(@protocols.empty? ? {} : {protocols: @protocols})).tap do |driver|
          @headers.each { |name, value| driver.set_header(name, value) }
          driver.on(:open) { @session.opened }
          driver.on(:message) { |message| @session.hear(written(message.data), @clock.call) }
          driver.on(:close) { |event| @session.closed(event.code, event.reason, @clock.call) }
          driver.on(:error) { |error| @reject.call("a broken frame: #{error.message[0, 80]}") }
        end
      end

      # @param data [String, Array<Integer>]
      # @return [String] valid UTF-8
      def written(data) = (data.is_a?(Array) ? data.pack("C*") : data.dup).force_encoding(Encoding::UTF_8).scrub

      def write
        @begun ||= @driver.start
        @session.take_outgoing.each { |message| @driver.text(message) }
      end

      def read(bytes) = @driver.parse(bytes)

      def hand_over
        super
        @handed_over = @session.cursor.dup
      end

      def over(words = nil)
        @session.ended || Ended.new(:waiting, words.nil? || words == Trouble::BROKEN ? "#{Trouble::BROKEN}#{@session.promise}" : words)
      end

      def say_goodbye
        @driver.close("bye", NORMAL)
        nil
      end
    end
  end
end
