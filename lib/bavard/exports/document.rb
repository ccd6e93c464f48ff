# frozen_string_literal: true

require "time"

module Bavard
  module Exports
    # An entry of the log as a plain document: what JSON Lines has on each of its lines (docs/formats/log.schema.json).
    module Document
      module_function

      # @param entry [Store::Lines::Entry]
      # @param feeds [Hash{Integer => Hash}] name, shape and colour by id
      # @return [Hash] without what is not there
      def of(entry, feeds)
        line = entry.line
        {"id" => line.id, "at" => time(line.arrived_at_ms), "platform_at" => line.platform_time_ms && time(line.platform_time_ms),
         "platform_id" => line.platform_id, "feed" => feed(feeds, line.feed_id), "kind" => line.kind.to_s, "person" => person(line.person),
         "text" => line.text}.merge(more(line), verdict(entry)).compact
      end

      # What only some lines have.
      def more(line)
        {"emotes" => line.placed.empty? ? nil : line.placed, "reply_to" => reply(line.reply), "first" => line.first_time || nil,
         "paid" => line.paid&.document, "number" => line.number}
      end

      def reply(reply)
        {"id" => reply.platform_id, "name" => reply.name, "text" => reply.text}.compact if reply
      end

      def verdict(entry)
        verdict = entry.verdict
        {"verdict" => {"action" => verdict.action.to_s, "rule" => verdict.rule, "seen" => verdict.seen}.compact, "aired" => entry.aired,
         "pulled" => entry.pulled, "trace" => entry.trace}
      end

      def person(person)
        {"login" => person.login, "name" => person.display_name, "colour" => person.colour, "badges" => person.badges,
         "avatar" => person.avatar}.compact
      end

      def feed(feeds, id)
        feeds.fetch(id, {name: "gone"}).transform_keys(&:to_s).merge("id" => id)
      end

      # @return [String] ISO 8601, with milliseconds
      def time(at_ms) = Time.at(at_ms/1000r).utc.iso8601(3)
    end
  end
end
