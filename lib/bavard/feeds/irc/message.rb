# frozen_string_literal: true

module Bavard
  module Feeds
    module Irc
      # One message of the protocol (RFC 1459 §2.3.1, RFC 2812 §2.3.1, IRCv3 message tags).
      #
      #   Message.parse("@id=7 :ann!a@b PRIVMSG #x :hello there").params   # => ["#x", "hello there"]
      Message = Struct.new(:tags, :source, :command, :params)

      # See above.
      class Message
        NO_TAGS = {}.freeze
        UNESCAPED = {":" => ";", "s" => " ", "r" => "\r", "n" => "\n"}.freeze
        ESCAPED = {";" => "\\:", " " => "\\s", "\r" => "\\r", "\n" => "\\n", "\\" => "\\\\"}.freeze

        # @param line [String] valid UTF-8 without the line end
        # @return [Message, nil] nil where it is none
        def self.parse(line)
          position = 0
          tags = NO_TAGS
          if line.start_with?("@")
            position = line.index(" ") or return
            tags = read_tags(line[1...position])
            position += 1 while line[position] == " "
          end
          source, position = read_source(line, position)
          command, *params = read_words(line, position)
          new(tags, source, command.upcase, params) if command&.match?(/\A(?:[A-Za-z]+|\d{3})\z/)
        end

        def self.read_tags(text)
          tags = {}
          text.split(";") do |pair|
            cut = pair.index("=") || pair.length
            tags[pair[0, cut]] = unescape(pair[(cut + 1)..]) unless cut.zero?
          end
          tags
        end

        # Tag values as IRCv3 writes them: "\:" is ";", "\s" a space, "\r" and "\n" line ends; a lone "\" is dropped.
        def self.unescape(value)
          return "" if value.nil?
          return value unless value.include?("\\")

          value.gsub(/\\(.?)/) { UNESCAPED.fetch(Regexp.last_match(1), Regexp.last_match(1)) }
        end

        def self.escape(value)
          value.gsub(/[; \r\n\\]/, ESCAPED)
        end

        def self.read_source(line, position)
          return [nil, position] unless line[position] == ":"

          blank = line.index(" ", position) || line.length
          [line[(position + 1)...blank], blank]
        end

        def self.read_words(line, position)
          rest = position.zero? ? line : line[position..]
          words, trailing = rest.split(/ +:/, 2)
          parts = (words || "").split
          parts << trailing if trailing
          parts
        end

        # The part of the source before "!" and "@".
        def nick
          source&.slice(/\A[^!@]+/)
        end

        private_class_method :read_tags, :read_source, :read_words
      end
    end
  end
end
