# frozen_string_literal: true

require "io/wait"
require "openssl"
require "socket"
require_relative "line_reader"
require_relative "session"

module Bavard
  module Feeds
    module Irc
      # A session on a real socket, from connect to end.
      class Connection
        # Why a connection is over. state: :waiting (try again) or :needs_you.
        Ended = Struct.new(:state, :reason)

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
        def initialize(address, session, clock:, take:, reject:)
          @address = address
          @session = session
          @clock = clock
          @take = take
          @reject = reject
          @reader = LineReader.new
        end

        # @param stop [IO] readable once the connection is to end
        # @return [Ended, nil] nil when it was stopped
        def run(stop)
          socket = open_socket
          @session.begin(@clock.call)
          return say_goodbye(socket) if pump(socket, stop) == :stopped

          Ended.new(@session.ended || :waiting, @session.reason || "The server closed the line.")
        rescue SystemCallError, SocketError, IOError, OpenSSL::SSL::SSLError => error
          Ended.new(@session.ended || :waiting, @session.reason || words(error))
        ensure
          socket&.close
        end

        # @return [Integer, nil] Unix milliseconds of the last thing the server said
        def heard_at_ms
          @session.heard_at_ms
        end

        # @return [Boolean] whether it got as far as reading the channel
        def joined?
          @session.joined?
        end

        private

        def open_socket
          tcp = Socket.tcp(@address.host, @address.port, connect_timeout: CONNECT_WITHIN_S, resolv_timeout: CONNECT_WITHIN_S)
          tcp.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
          return tcp unless @address.tls

          secured(tcp)
        end

        def secured(tcp)
          context = OpenSSL::SSL::SSLContext.new
          context.set_params(verify_mode: OpenSSL::SSL::VERIFY_PEER, min_version: OpenSSL::SSL::TLS1_2_VERSION)
          tls = OpenSSL::SSL::SSLSocket.new(tcp, context)
          tls.sync_close = true
          tls.hostname = @address.host unless @address.host.match?(/\A[\d.]+\z|:/)
          connect_tls(tls)
          tls.post_connection_check(@address.host)
          tls
        rescue StandardError
          tcp.close
          raise
        end

        def connect_tls(tls)
          deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + CONNECT_WITHIN_S
          while (wants = tls.connect_nonblock(exception: false)).is_a?(Symbol)
            left = deadline - Process.clock_gettime(Process::CLOCK_MONOTONIC)
            raise Errno::ETIMEDOUT if left <= 0

            wants == :wait_readable ? tls.to_io.wait_readable(left) : tls.to_io.wait_writable(left)
          end
        end

        def pump(socket, stop)
          until @session.ended
            write(socket)
            ready, = select([socket, stop], nil, nil, TICK_S) unless pending?(socket)
            return :stopped if ready&.include?(stop)

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
          case error
          when Errno::ECONNREFUSED then "Nothing answers at #{@address.host}, port #{@address.port}."
          when Errno::ETIMEDOUT then "#{@address.host} did not answer within #{CONNECT_WITHIN_S} s."
          when Errno::EHOSTUNREACH, Errno::ENETUNREACH then "There is no way to #{@address.host} from here just now."
          when SocketError then "There is no server called #{@address.host}, or the name cannot be looked up just now."
          when OpenSSL::SSL::SSLError then "The secure connection failed: #{error.message[/[^:]*\z/].strip}"
          else "The line broke."
          end
        end
      end
    end
  end
end
