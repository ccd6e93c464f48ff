# frozen_string_literal: true

require_relative "../../irc/address"
require_relative "../../irc/mapping"
require_relative "../../irc/message"

module Bavard
  module Feeds
    module Described
      # A server that speaks IRC (RFC 2812, IRCv3): where it stands, and which of its tags carries what. Who is let in, who is who in a
      # channel, what was missed and who is silenced is the protocol's own, and read as on any other server.
      class IrcServer
        NAMES = %w[host port tls tags].freeze
        # What it may say of tags: not what anybody may claim, which each host decides for themselves.
        ENTRIES = (Irc::Mapping::DEFAULT.keys - %w[anybody]).freeze
        MOST = Irc::Mapping::MOST_KEYS

        # @return [Hash{String => String}] host, port and tls, as forms give them
        attr_reader :address
        # @return [Hash{String => Array<String>}] as {Irc::Mapping} takes them
        attr_reader :tags

        # @param given [Object]
        # @yieldparam at [String] the place below this
        # @yieldparam words [String]
        def initialize(given, &problem)
          @problem = problem
          @address = {}
          @tags = {}
          given.is_a?(Hash) ? read_all(given) : yield("", "this is an object")
        end

        # Nothing is asked for by address, and nothing remembered.
        def places = {}
        def letters = {}
        def kept = []
        def find = nil
        def lacking(_known) = []

        # @param frame [Object] a message as it is sent: a text, {"plain": the text}, or read already
        # @return [Object] {"tags", "source", "command", "params"}, where it is a message
        def frame(frame)
          text = frame.is_a?(Hash) ? frame["plain"] : frame
          message = text.is_a?(String) && Irc::Message.parse(text.scrub.delete("\r\n")) or return frame
          {"tags" => message.tags.to_h, "source" => message.source, "command" => message.command, "params" => message.params}
        end

        def items(frame) = [frame].compact

        private

        def read_all(given)
          (given.keys - NAMES).each { |name| @problem.call("/#{name}", "there is no “#{name}” here; there are #{NAMES.join(", ")}") }
          read_address(given)
          tags = given.fetch("tags", {})
          return @problem.call("/tags", "names of tags, by what they carry: #{ENTRIES.join(", ")}") unless tags.is_a?(Hash)

          tags.each { |entry, keys| read_tag(entry, Array(keys)) }
        end

        def read_address(given)
          tls = given.fetch("tls", true)
          @problem.call("/tls", "true or false") unless [true, false].include?(tls)
          typed = {"host" => given["host"].to_s, "port" => given["port"]&.to_s, "tls" => tls ? "1" : "", "channel" => "#any"}
          read = Irc::Address.read(typed.compact)
          @address = {"host" => read.host, "port" => read.port.to_s, "tls" => tls ? "1" : ""}
        rescue Error => error
          @problem.call("/#{error.field}", error.message)
        end

        def read_tag(entry, keys)
          fine = ENTRIES.include?(entry) && keys.size <= MOST && keys.all?(String)
          return @problem.call("/tags/#{entry}", "one of #{ENTRIES.join(", ")}, and at most #{MOST} texts") unless fine
          return @tags[entry] = keys if Irc::Mapping::WORDS.include?(entry)

          wrong = keys.find { |key| !key.match?(Irc::Mapping::KEY) }
          return @problem.call("/tags/#{entry}", "“#{wrong[0, 60]}” cannot be a tag's name") if wrong

          claim = keys.find { |key| key.start_with?("+") } unless entry == "reply"
          return @problem.call("/tags/#{entry}", "whoever writes sets “#{claim}” (IRCv3 client-only tags)") if claim

          @tags[entry] = keys
        end
      end
    end
  end
end
