# frozen_string_literal: true

module Bavard
  module Feeds
    module Irc
      # The tags of a message (IRCv3 message tags). A server sends a dozen with each line and a feed asks for a few, so each is looked
      # for where it is asked for, and what nobody asks for costs nothing.
      #
      #   Tags.new("id=7;+draft/x=a\\sb")["+draft/x"]   # => "a b"
      class Tags
        UNESCAPED = Hash.new { |_, written| written[1..] }.update("\\:" => ";", "\\s" => " ", "\\r" => "\r", "\\n" => "\n").freeze
        EQUALS = "=".ord
        NEXT = ";"
        NEXT_BYTE = NEXT.ord
        MOST_KNOWN = 1000

        # @param text [String] valid UTF-8, as it is written behind the "@"
        def initialize(text)
          @text = NEXT + text
          # Places in it are those of bytes.
          @bytes = @text.ascii_only? ? @text : @text.b
        end

        # Of one that is there twice the last counts.
        #
        # @param key [String]
        # @return [String, nil] its value, empty where it has none
        def [](key)
          written = Tags.written(key)
          value = nil
          at = 0
          while (at = @bytes.index(written, at))
            at += written.bytesize
            case @bytes.getbyte(at)
            when EQUALS then value = at + 1
            when NEXT_BYTE, nil then value = at
            end
          end
          value && read(value)
        end

        # @return [Hash{String => String}] all of them
        def to_h
          keys = @text.split(NEXT).map { |pair| pair[/\A[^=]*/] }
          (keys - [""]).to_h { |key| [key, self[key]] }
        end

        # Tag values as IRCv3 writes them: "\:" is ";", "\s" a space, "\r" and "\n" line ends; a lone "\" is dropped.
        def self.unescape(value)
          return value unless value.include?("\\")

          value.gsub(/\\.?/m, UNESCAPED)
        end

        # Keys are asked for again and again by the same objects.
        #
        # @return [String] how it stands in a message
        def self.written(key)
          @written = nil if @written && @written.size > MOST_KNOWN
          (@written ||= {}.compare_by_identity)[key] ||= "#{NEXT}#{key}".b.freeze
        end

        NONE = new("").freeze

        private

        def read(from)
          finish = @bytes.index(NEXT, from) || @bytes.bytesize
          Tags.unescape(@text.byteslice(from, finish - from))
        end
      end
    end
  end
end
