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
        UNESCAPED = Hash.new { |_, written| written[1..] }.update("\\:" => ";", "\\s" => " ", "\\r" => "\r", "\\n" => "\n").freeze
        ESCAPED = {";" => "\\:", " " => "\\s", "\r" => "\\r", "\n" => "\\n", "\\" => "\\\\"}.freeze

        # @param line [String] valid UTF-8 without the line end
        # @return [Message, nil] nil where it is none
        def self.parse(line)
          tags = NO_TAGS
          rest = line
          if line.start_with?("@")
            written, blank, rest = line.partition(" ")
            return if blank.empty?

            tags = read_tags(written.delete_prefix("@"))
          end
          source, rest = read_source(rest.start_with?(" ") ? rest.lstrip : rest)
          command, *params = read_words(rest)
          new(tags, source, command.upcase, params) if command&.match?(/\A(?:[A-Za-z]+|\d{3})\z/)
        end

        def self.read_tags(text)
          tags = {}
          text.split(";") do |pair|
            key, value = pair.split("=", 2)
            tags[key] = value ? unescape(value) : "" unless key.nil? || key.empty?
          end
          tags
        end

        # Tag values as IRCv3 writes them: "\:" is ";", "\s" a space, "\r" and "\n" line ends; a lone "\" is dropped.
        def self.unescape(value)
          return value unless value.include?("\\")

          value.gsub(/\\.?/m, UNESCAPED)
        end

        def self.escape(value)
          value.gsub(/[; \r\n\\]/, ESCAPED)
        end

        def self.read_source(rest)
          return [nil, rest] unless rest.start_with?(":")

          source, blank, words = rest.partition(" ")
          [source.delete_prefix(":"), blank + words]
        end

        # What comes last may have spaces, behind a colon.
        def self.read_words(rest)
          words, trailing = rest.split(/ +:/, 2)
          parts = (words || "").split
          parts << trailing if trailing
          parts
        end

        # The part of the source before "!" and "@".
        def nick = @nick ||= source&.slice(/\A[^!@]+/)

        private_class_method :read_tags, :read_source, :read_words
      end
    end
  end
end
