# frozen_string_literal: true

require "io/wait"
require "json"
require "socket"
require_relative "../lasting"
require_relative "../pauses"

module Bavard
  module Relay
    # The line to a relay's publisher (Nchan's HTTP publisher endpoint): what is posted goes out in the order in which it was given, many
    # requests at once over one connection (HTTP/1.1 pipelining, RFC 9112 §9.3.2). Others only leave a request; one thread sends.
    class Publisher
      # So many that wait, or bytes of them, and the relay does not take them any more.
      MOST_WAITING = 20_000
      MOST_WAITING_BYTES = 64 * 1024 * 1024
      AT_ONCE = 64
      WITHIN_S = 5
      LOOK_S = 0.5
      READ_BYTES = 65_536
      LONGEST_PAUSE_S = 1
      # A request: what is told of the answer is called with how many follow the channel.
      # there:: whether it is one that answers 404 where nginx was begun anew
      Request = Struct.new(:verb, :path, :body, :told, :there)
      # The relay does not take what is sent.
      class Lost < StandardError; end

      # It closed a line that was idle, as every server may; so many of what was sent last were answered before.
      class Closed < StandardError
        attr_reader :answered

        def initialize(answered)
          @answered = answered
          super("it closed the line")
        end
      end
      NETWORK = [SystemCallError, IOError, SocketError, Lost, Closed, JSON::ParserError].freeze
      ENDED = [EOFError, Errno::ECONNRESET, Errno::EPIPE].freeze

      # @param at [URI::HTTP] of the publisher
      # @param group [String] in which its channels are
      # @param lost [#call] told that nobody knows what of the last requests has arrived: once for each time the line breaks
      # @param log [#warn]
      def initialize(at, group:, lost:, log:)
        @at = at
        @group = group
        @lost = lost
        @log = log
        @requests = Queue.new
        @lock = Mutex.new
        @waiting_bytes = 0
        @pauses = Pauses.new(longest_s: LONGEST_PAUSE_S)
      end

      def start
        @thread = Lasting.new("publisher", told: ->(error) { @log.error("relay: beginning anew", error) }) { run }.start
        self
      end

      # @return [Boolean] whether the relay takes what is sent
      def there? = @there || false

      # @param channel [String] of letters, digits, "-" and "."
      # @param text [String] a message
      def post(channel, text) = leave("POST", channel, text)

      # Ends a channel: who follows it is cut off.
      #
      # @param group [String] of another
      def delete(channel, group: @group) = leave("DELETE", channel, group:)

      # @yieldparam followers [Integer] of that channel; from the thread that sends
      def count(channel, &told) = leave("GET", channel, nil, told)

      # Sends what waits, cuts everybody off, and ends.
      def stop
        @ended = true
        @requests << nil
        @thread&.join
      end

      private

      def leave(verb, channel, body = nil, told = nil, group: @group)
        return unless there?
        return @full = true if @requests.size >= MOST_WAITING || waiting(body.to_s.bytesize) > MOST_WAITING_BYTES

        @requests << Request.new(verb, "/relay/to/#{group}/#{channel}", body, told)
      end

      # @param more [Integer] bytes that wait besides, or fewer
      def waiting(more) = @lock.synchronize { @waiting_bytes += more }

      def run
        until @ended
          begin
            talk
          rescue *NETWORK => error
            broken(error)
            sleep @pauses.next unless @ended
          end
        end
      ensure
        @socket&.close
      end

      def talk
        connect
        # Whoever follows from before does not know what was lost meanwhile. What is posted before its Redis is there, a relay refuses.
        exchange([*forgetting, Request.new("POST", mark, "{}")])
        @pauses.over
        @there = true
        send_on until @ended
        exchange(forgetting)
      end

      def connect
        @socket&.close
        @socket = Socket.tcp(@at.host, @at.port, connect_timeout: WITHIN_S)
        @socket.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
        @read = +""
      end

      def mark = "/relay/to/#{@group}/begins"
      def forgetting = [Request.new("DELETE", "/relay/all/#{@group}")]

      def broken(error)
        @log.warn("relay: #{@at} does not take frames (#{error.class}: #{error.message[0, 120]})") if @there || @said.nil?
        @said = true
        @there = @full = false
        @socket&.close
        @requests.clear
        @lock.synchronize { @waiting_bytes = 0 }
        @lost.call
      end

      def send_on
        raise Lost, "more waits than may" if @full

        first = @requests.pop or return
        batch = [first, *more]
        waiting(-batch.sum { |request| request.body.to_s.bytesize })
        go_on(batch)
      end

      # What was not answered is sent once more, one by one: of what lies behind a request that ends a line nobody knows how far it was read.
      # A page takes no frame twice.
      def go_on(requests)
        exchange(requests)
      rescue Closed => error
        requests.drop(error.answered).each { |request| alone(request) }
      end

      # Over another line where this one is closed. Of the nginx that we knew there is still what we left there.
      def alone(request)
        exchange([request])
      rescue Closed
        connect
        exchange([Request.new("GET", mark, nil, nil, true), request])
      end

      # What waits behind the first one.
      def more
        Array.new([@requests.size, AT_ONCE - 1].min) { @requests.pop(true) }.compact
      rescue ThreadError
        []
      end

      def exchange(requests)
        done = 0
        write(requests.map { |request| written(request) }.join)
        requests.each { |request| answered(request) && (done += 1) }
      rescue *ENDED
        raise Closed, done
      end

      def written(request)
        body = request.body.to_s.b
        "#{request.verb} #{request.path} HTTP/1.1\r\nHost: relay\r\nAccept: text/json\r\nContent-Length: #{body.bytesize}\r\n\r\n#{body}"
      end

      def write(bytes)
        until bytes.empty?
          sent = @socket.write_nonblock(bytes, exception: false)
          next bytes = bytes.byteslice(sent..) unless sent == :wait_writable

          @socket.wait_writable(WITHIN_S) or raise Lost, "it reads nothing for #{WITHIN_S} s"
        end
      end

      # A channel that nobody follows is not there: 404.
      def answered(request)
        status, body = answer
        raise Lost, "it answers #{status} to #{request.verb}" unless status.between?(200, 299) || [404, 410].include?(status)

        raise Lost, "it was begun anew" if request.there && status != 200

        request.told&.call(status == 200 ? JSON.parse(body).fetch("subscribers", 0) : 0)
        true
      end

      # @return [Array(Integer, String)] status and body
      def answer
        head = upto { @read.index("\r\n\r\n") }
        headers = @read.slice!(0, head + 4)
        length = headers[/^content-length: *(\d+)/i, 1].to_i
        upto { @read.bytesize >= length || nil }
        [headers[/\A\S+ (\d{3})/, 1].to_i, @read.slice!(0, length)]
      end

      def upto
        until (found = yield)
          bytes = @socket.read_nonblock(READ_BYTES, exception: false)
          raise EOFError if bytes.nil?
          next @read << bytes unless bytes == :wait_readable

          @socket.wait_readable(WITHIN_S) or raise Lost, "it says nothing for #{WITHIN_S} s"
        end
        found
      end
    end
  end
end
