# frozen_string_literal: true

require_relative "tags"

module Bavard
  module Feeds
    module Irc
      # One message of the protocol (RFC 1459 §2.3.1, RFC 2812 §2.3.1, IRCv3 message tags).
      #
      #   Message.parse("@id=7 :ann!a@b PRIVMSG #x :hello there").params   # => ["#x", "hello there"]
      class Message
        # @return [Tags]
        attr_reader :tags
        # @return [String, nil] who it is of, such as "ann!a@b"
        attr_reader :source
        # @return [String] in capitals
        attr_reader :command
        # @return [Array<String>]
        attr_reader :params

        def initialize(tags, source, command, params)
          @tags = tags
          @source = source
          @command = command
          @params = params
        end

        ESCAPED = {";" => "\\:", " " => "\\s", "\r" => "\\r", "\n" => "\\n", "\\" => "\\\\"}.freeze

        # @param line [String] valid UTF-8 without the line end
        # @return [Message, nil] nil where it is none
        def self.parse(line)
          tags = Tags::NONE
          rest = line
          if line.start_with?("@")
            written, blank, rest = line.partition(" ")
            return if blank.empty?

            tags = Tags.new(written.delete_prefix("@"))
          end
          source, rest = read_source(rest.start_with?(" ") ? rest.lstrip : rest)
          command, *params = read_words(rest)
          new(tags, source, command.upcase, params) if command&.match?(/\A(?:[A-Za-z]+|\d{3})\z/)
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

        private_class_method :read_source, :read_words
      end
    end
  end
end
