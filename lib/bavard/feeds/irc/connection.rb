# frozen_string_literal: true

require_relative "../wire"
require_relative "line_reader"
require_relative "session"

module Bavard
  module Feeds
    module Irc
      # A session with an IRC server, line by line.
      class Connection < Wire
        # At most this much at once; a longer line would be cut by the server (RFC 2812 §2.3).
        LONGEST_SENT = 510
        # What is said and done in a channel: all else is between us and the server.
        IN_CHANNEL = /\A(?:@\S+ +)?(?::\S+ +)?(?:PRIVMSG|TAGMSG|REDACT|KICK|MODE) +[#&+]/i

        # @param watch [#call, nil] gets each line of a channel as it came
        def initialize(address, session, watch: nil, **options)
          super(address, session, **options)
          @watch = watch
          @reader = LineReader.new
        end

        private

        def place = [@address.host, @address.port]
        def open = @door.open(*place, tls: @address.tls, within_s: CONNECT_WITHIN_S)

        def over(words = "The server closed the line.")
          Ended.new(@session.ended || :waiting, @session.reason || words)
        end

        def read(bytes)
          now_ms = @clock.call
          before = @reader.too_long
          @reader.feed(bytes) do |line|
            @watch.call(line) if @watch && line.match?(IN_CHANNEL)
            @session.receive(line, now_ms)
          end
          @reject.call("a line longer than #{LineReader::LONGEST} bytes") if @reader.too_long > before
        end

        def write
          @session.take_outgoing.each do |line|
            @socket.write("#{line.delete("\r\n\0").byteslice(0, LONGEST_SENT)}\r\n")
          end
        end

        def say_goodbye
          @socket.write("QUIT :bye\r\n")
          nil
        end
      end
    end
  end
end
