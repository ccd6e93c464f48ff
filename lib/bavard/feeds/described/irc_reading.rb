# frozen_string_literal: true

require_relative "../irc/session"
require_relative "reading"

module Bavard
  module Feeds
    module Described
      # Reads one message of an IRC server as a feed would that has been in its channel for a while.
      class IrcReading
        # What it is, as rules say it of other platforms; there is only one of them.
        Kind = Struct.new(:is, :place, :condition)
        IS = {line: "line", delete_line: "delete", clear_person: "silence", clear_all: "clear"}.freeze
        NOTHING = Reading::Read.new(nil, Kind.new("nothing", 0, nil), nil).freeze
        US = "a-feed-of-bavard"
        CHANNEL = /\A[#&+][^\s,]{1,199}\z/

        # @param server [IrcServer]
        def initialize(server)
          @server = server
          @mapping = Irc::Mapping.new(server.tags)
        end

        def joined(item, _frame) = item

        # @param item [Object] as {IrcServer#frame} gives it
        # @return [Reading::Read] see {Reading#read}
        def read(item, feed_id, now_ms, history: false)
          line = written(item) or return Reading::NOTHING
          intake = intakes(channel(item), line, feed_id, now_ms).first or return NOTHING
          intake.body.history = history if intake.kind == :line
          Reading::Read.new(intake, Kind.new(IS.fetch(intake.kind) { intake.body.what.to_s }, 0, nil), nil)
        end

        private

        def channel(item) = item["params"].first.to_s.then { |name| name.match?(CHANNEL) ? name : "#any" }

        # @return [Array<Core::Intake>]
        def intakes(channel, line, feed_id, now_ms)
          address = Irc::Address.new(host: "irc.reedmere.example", port: 6697, tls: true, channel:, nick: nil)
          session = Irc::Session.new(feed_id:, address:, mapping: @mapping)
          session.begin(now_ms)
          [":server 001 #{US} :Welcome", ":#{US} JOIN #{channel}"].each { |before| session.receive(before, now_ms) }
          session.take_intakes
          session.receive(line, now_ms)
          session.take_intakes.reject { |intake| intake.kind == :feed_state }
        end

        # @return [String, nil] the message, as a server sends it
        def written(item)
          return unless item.is_a?(Hash) && item["params"].is_a?(Array) && item["command"].is_a?(String)

          tags = Given.object(item["tags"]).map { |key, value| "#{key}=#{Irc::Message.escape(value.to_s)}" }
          *first, last = item["params"].map { |word| word.to_s.delete("\r\n\0") }
          source = ":#{item["source"]}" if item["source"]
          ["@#{tags.join(";")}", source, item["command"], *first, last && ":#{last}"].compact.join(" ").delete_prefix("@ ")
        end
      end
    end
  end
end
