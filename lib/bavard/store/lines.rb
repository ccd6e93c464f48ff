# frozen_string_literal: true

require "json"
require_relative "../core/chat/fragments"
require_relative "../core/chat/line"
require_relative "../core/chat/person"
require_relative "../core/gate/verdict"
require_relative "line_detail"

module Bavard
  module Store
    # The log of lines with their verdicts.
    class Lines
      # aired:: whether it went on an on-air stage; pulled:: whether it was taken away
      # trace:: the steps it took: [name of the step, Unix milliseconds, what came of it]
      Entry = Struct.new(:line, :verdict, :aired, :pulled, :trace)
      CHAT = %w[said action reply paid].freeze
      COLUMNS = {
        id: "bigint", show_id: "bigint", feed_id: "bigint", platform_id: "text", login: "text", display_name: "text", colour: "text", badges: "jsonb",
        kind: "text", text: "text", arrived_at_ms: "bigint", platform_time_ms: "bigint", shown_at_ms: "bigint", action: "text", rule: "text",
        seen: "text", aired: "boolean", pulled: "boolean", detail: "jsonb", trace: "jsonb"
      }.freeze
      ADD = "INSERT INTO lines (#{COLUMNS.keys.join(", ")}) SELECT #{COLUMNS.keys.join(", ")} FROM " \
            "json_to_recordset(?) AS row(#{COLUMNS.map { |name, type| "#{name} #{type}" }.join(", ")}) ON CONFLICT DO NOTHING".freeze

      def initialize(db)
        @db = db
      end

      # Written in one go, as one document that PostgreSQL takes apart: putting each value into the statement by itself
      # would take several times as long, and a busy chat would outrun the log.
      #
      # @param show_id [Integer]
      # @param entries [Array<Entry>] a line that is there already stays as it was
      def add(show_id, entries)
        @db[ADD, JSON.generate(entries.map { |entry| row(show_id, entry) })].insert
      end

      def pull(feed_id, platform_id)
        @db[:lines].where(feed_id:, platform_id:).update(pulled: true)
      end

      # Takes away what a person said, or everything where login is nil.
      def pull_all(feed_id, login, up_to_id)
        said = @db[:lines].where(feed_id:, pulled: false) { id <= up_to_id }
        said = said.where(login:) if login
        said.update(pulled: true)
      end

      # @return [Array<Entry>] the newest chat lines, oldest first
      def latest(show_id, count)
        @db[:lines].where(show_id:, kind: CHAT).reverse(:id).limit(count).all.reverse.map { |row| read(row) }
      end

      # @return [Array(Integer, Boolean, Boolean)] of each line since then: when it arrived, whether it was dropped, aired
      def counts_since(show_id, arrived_at_ms)
        @db[:lines].where(show_id:).where { id >= arrived_at_ms * 1000 }.order(:id)
          .select_map([:arrived_at_ms, Sequel.expr(action: "drop").as(:dropped), :aired])
      end

      # @return [Integer] 0 where there is none
      def last_id
        @db[:lines].max(:id) || 0
      end

      # @return [Array<String>] platform ids of the newest lines of a feed, oldest first
      def recent_platform_ids(feed_id, count)
        @db[:lines].where(feed_id:).exclude(platform_id: nil).reverse(:id).limit(count).select_map(:platform_id).reverse
      end

      # @param row [Hash] of the table
      # @return [Entry]
      def read(row)
        line = Core::Chat::Line.new(row[:id], row[:feed_id], row[:platform_id], person(row), row[:kind].to_sym, row[:text], nil, row[:arrived_at_ms],
          row[:platform_time_ms], row[:shown_at_ms], :feed, Core::Chat::Line::NONE)
        LineDetail.read(row[:detail].to_hash, line)
        Entry.new(line.dress(nil), Core::Gate::Verdict.new(row[:action].to_sym, row[:rule], row[:seen]), row[:aired], row[:pulled], row[:trace].to_a)
      end

      private

      def person(row)
        Core::Chat::Person.new(row[:feed_id], row[:login], row[:display_name], row[:colour], row[:badges].to_a)
      end

      def row(show_id, entry)
        line = entry.line
        person = line.person
        {id: line.id, show_id:, feed_id: line.feed_id, platform_id: line.platform_id, login: person.login,
         display_name: person.display_name, colour: person.colour, badges: person.badges, kind: line.kind.to_s,
         text: line.text, arrived_at_ms: line.arrived_at_ms, platform_time_ms: line.platform_time_ms,
         shown_at_ms: line.shown_at_ms, action: entry.verdict.action.to_s, rule: entry.verdict.rule, seen: entry.verdict.seen,
         aired: entry.aired, pulled: entry.pulled, detail: LineDetail.of(line), trace: entry.trace || []}
      end
    end
  end
end
