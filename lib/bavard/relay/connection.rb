# frozen_string_literal: true

require "websocket/driver"
require_relative "since"

module Bavard
  module Relay
    # One page's WebSocket. Belongs to the hub's loop: nothing here may be called from another thread.
    class Connection
      # What waits for a page that reads too slowly; beyond it the waiting frames are thrown away and it gets a whole
      # picture once it reads again.
      MOST_WAITING_BYTES = 192 * 1024
      LARGEST_MESSAGE_BYTES = 16 * 1024
      READ_BYTES = 16 * 1024
      QUIET_MS = 45_000
      # To whoever cannot see pings.
      HOLDS = "{}"
      # A page asks whether it has all that was sent to it; the answer goes out behind that.
      HERE = /\A\{"here":(\d{1,9})\}\z/
      # Close code: this link is not valid any more.
      REPLACED = 4404

      attr_reader :io, :topic, :id, :env
      attr_accessor :monitor

      # @param follower [#opened, #heard, #closed] told of what comes from the page
      # @param asked [#call] with this connection and a number: has it {#answer}ed behind what is to be sent before
      def initialize(io, env, topic, id:, last:, follower:, asked:)
        @when_asked = asked
        @io = io
        @env = env
        @topic = topic
        @id = id
        @last = last
        @follower = follower
        @waiting = []
        @waiting_bytes = 0
        @behind = false
        @driver = driver
      end

      # What the driver asks of its socket.
      def url
        "ws://#{env["HTTP_HOST"]}#{env["REQUEST_URI"]}"
      end

      # Answers the handshake.
      def begin(now_ms)
        @heard_at_ms = now_ms
        @driver.start
        @driver.text(@topic.catch_up(@last))
        @follower.opened(self)
      end

      # Sends a frame, or leaves it out for a page that is behind: it will get the whole picture.
      def send_frame(text)
        @driver.text(text) unless @behind
      end

      # The driver's bytes, on their way out.
      def write(bytes)
        @waiting << bytes
        @waiting_bytes += bytes.bytesize
        flush
        fall_behind if @waiting_bytes > MOST_WAITING_BYTES
      end

      # @return [Boolean] false once the page is gone
      def readable(now_ms)
        bytes = io.read_nonblock(READ_BYTES, exception: false)
        return true if bytes == :wait_readable
        return false if bytes.nil?

        @heard_at_ms = now_ms
        @driver.parse(bytes)
        !@closed
      rescue SystemCallError, IOError
        false
      end

      # There is room for more of what waits.
      def writable
        flush
        return unless @behind && @waiting.empty?

        @behind = false
        @driver.text(@topic.catch_up(nil))
        tell_here(@asked) if @asked
      end

      # @return [Boolean] false where nothing was heard for too long
      def ping(now_ms)
        return false if now_ms - @heard_at_ms > QUIET_MS

        @driver.ping
        @driver.text(HOLDS) unless @topic.timed?
        !@closed
      end

      # A page cannot see pings; this tells it that the line still holds, and how long it is.
      def beat
        @driver.text(@topic.beat) if @topic.timed? && !@behind
      end

      # That all is there which was sent to it; to a page that is behind, once that is so.
      def answer(number)
        @behind ? @asked = number : tell_here(number)
      end

      # Ends it with a word, so that the page empties its picture.
      def replace
        @driver.close("replaced", REPLACED)
      end

      # Ends once what waits is written.
      def finish
        @closed = true
        @follower.closed(self)
        io.close
      rescue SystemCallError, IOError
        nil
      end

      # @return [Boolean] whether it has to be sent everything anew, once it has read what waits
      def behind? = @behind

      # @return [Boolean]
      def closed?
        @closed
      end

      private

      def driver
        driver = WebSocket::Driver.rack(self, max_length: LARGEST_MESSAGE_BYTES)
        driver.on(:message) { |event| hear(event.data) }
        driver.on(:close) { @closed = true }
        driver.on(:error) { @closed = true }
        driver
      end

      def hear(text)
        number = text.is_a?(String) && text[HERE, 1] or return @follower.heard(self, text)
        @when_asked.call(self, number)
      end

      def tell_here(number)
        @asked = nil
        @driver.text(%({"here":#{number},"t":#{Since.ms}}))
      end

      def flush
        until @waiting.empty?
          head = @waiting.first
          sent = io.write_nonblock(head, exception: false)
          break if sent == :wait_writable

          @waiting_bytes -= sent
          sent == head.bytesize ? @waiting.shift : @waiting[0] = head.byteslice(sent..)
        end
        want_writable(!@waiting.empty?)
      rescue SystemCallError, IOError
        @closed = true
        @waiting.clear
      end

      def want_writable(wanted)
        return unless monitor && @wants_writable != wanted

        @wants_writable = wanted
        monitor.interests = wanted ? :rw : :r
      end

      # The frame that is half out must be finished; the ones after it can go.
      def fall_behind
        @behind = true
        @waiting = @waiting.first(1)
        @waiting_bytes = @waiting.sum(&:bytesize)
      end
    end
  end
end
