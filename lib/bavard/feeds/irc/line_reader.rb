# frozen_string_literal: true

module Bavard
  module Feeds
    module Irc
      # Cuts the bytes from a socket into lines of valid UTF-8.
      #
      # A line may have 8191 bytes of tags and 512 of the rest (IRCv3 message tags; RFC 2812 §2.3). Servers that
      # write more per message are read up to LONGEST bytes; what is longer is thrown away up to its line end, and
      # counted.
      class LineReader
        LONGEST = 8191 + 8191

        # @return [Integer] lines thrown away for their length
        attr_reader :too_long

        def initialize
          @rest = String.new(encoding: Encoding::BINARY)
          @skipping = false
          @too_long = 0
        end

        # @param bytes [String]
        # @yieldparam line [String] valid UTF-8, without its line end and not empty
        def feed(bytes)
          @rest << bytes
          while (finish = @rest.index("\n"))
            line = @rest.slice!(0..finish)
            line.delete!("\0\r\n")
            deliver(line) { |text| yield text }
          end
          return if @rest.bytesize <= LONGEST

          @too_long += 1 unless @skipping
          @skipping = true
          @rest.clear
        end

        # UTF-8 where it is; else what old clients send, Windows-1252, in which every byte means something.
        def self.decode(bytes)
          text = bytes.dup.force_encoding(Encoding::UTF_8)
          return text if text.valid_encoding?

          bytes.dup.force_encoding(Encoding::WINDOWS_1252)
            .encode(Encoding::UTF_8, invalid: :replace, undef: :replace)
        end

        private

        def deliver(line)
          if @skipping
            @skipping = false
          elsif line.bytesize > LONGEST
            @too_long += 1
          elsif !line.empty?
            yield self.class.decode(line)
          end
        end
      end
    end
  end
end
