# frozen_string_literal: true

module Bavard
  module Feeds
    module Described
      # A text a line, as the bytes of a stream have them.
      class JsonLines
        # What server-sent events have besides.
        def last_id = nil
        def retry_ms = nil

        def initialize
          @rest = String.new(encoding: Encoding::BINARY)
        end

        # @param bytes [String]
        # @yieldparam event [nil]
        # @yieldparam data [String] valid UTF-8, not empty
        def feed(bytes)
          @rest << bytes
          while (finish = @rest.index("\n"))
            line = @rest.slice!(0, finish + 1).force_encoding(Encoding::UTF_8).scrub.strip
            yield nil, line unless line.empty?
          end
          @rest.clear if @rest.bytesize > Events::LONGEST
        end
      end

      # Server-sent events, as the bytes of their stream say them (WHATWG HTML §9.2.6).
      #
      #   events = Events.new
      #   events.feed("event: said\ndata: {}\n\n") { |event, id, data| … }
      class Events
        LONGEST = 1024 * 1024
        LINE_END = /\r\n|\n|\r/

        # @return [String] of the last event that had one, to go on from
        attr_reader :last_id
        # @return [Integer, nil] milliseconds after which the platform wants to be asked again
        attr_reader :retry_ms
        # @return [Integer] events that were thrown away for their length
        attr_reader :too_long

        def initialize(last_id = nil)
          @last_id = last_id
          @rest = String.new(encoding: Encoding::BINARY)
          @too_long = 0
          begin_event
        end

        # @param bytes [String]
        # @yieldparam event [String] its type, "message" where it names none
        # @yieldparam data [String] valid UTF-8
        def feed(bytes, &event)
          @rest << bytes
          # A carriage return at the end may be half of a line end.
          while (finish = @rest.index(LINE_END)) && !(@rest.getbyte(finish) == 13 && finish == @rest.bytesize - 1)
            line = @rest.slice!(0, finish)
            @rest.slice!(0, @rest.start_with?("\r\n") ? 2 : 1)
            line(line.force_encoding(Encoding::UTF_8).scrub.delete_prefix("\uFEFF"), &event)
          end
          throw_away if @rest.bytesize > LONGEST
        end

        private

        def begin_event
          @event = nil
          @data = nil
        end

        def throw_away
          @too_long += 1
          @rest.clear
          @data = nil
        end

        def line(text)
          return dispatch { |event, data| yield event, data } if text.empty?
          return if text.start_with?(":")

          field, value = text.split(":", 2)
          value = value.to_s.delete_prefix(" ")
          case field
          when "event" then @event = value
          when "data" then more(value)
          when "id" then @last_id = value unless value.include?("\0")
          when "retry" then @retry_ms = value.to_i if value.match?(/\A\d{1,9}\z/)
          end
        end

        def more(value)
          return @too_long += 1 if @data && @data.length + value.length > LONGEST

          @data = @data ? "#{@data}\n#{value}" : value
        end

        def dispatch
          yield @event || "message", @data if @data
          begin_event
        end
      end
    end
  end
end
