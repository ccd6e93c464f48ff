# frozen_string_literal: true

require "json"
require_relative "../core/chat/line"
require_relative "../core/chat/person"

module Bavard
  module Store
    # Whoever was heard on a show's feeds: since when, how often, and what was noted about them.
    class People
      Known = Struct.new(:feed_id, :login, :display_name, :first_ms, :last_ms, :lines, :note, :noted_by, :noted_ms, keyword_init: true)
      HEARD = "INSERT INTO people (feed_id, login, display_name, first_ms, last_ms, lines) " \
              "SELECT feed_id, login, display_name, first_ms, last_ms, lines FROM json_to_recordset(?) AS row(feed_id bigint, login text, " \
              "display_name text, first_ms bigint, last_ms bigint, lines bigint) WHERE EXISTS (SELECT 1 FROM feeds WHERE feeds.id = row.feed_id) " \
              "ON CONFLICT (feed_id, login) DO UPDATE SET display_name = excluded.display_name, " \
              "first_ms = least(people.first_ms, excluded.first_ms), last_ms = greatest(people.last_ms, excluded.last_ms), " \
              "lines = people.lines + excluded.lines"
      # Kinds of lines that somebody said.
      SAID = Core::Chat::Line::KINDS.map(&:to_s).freeze
      MOST_KNOWN = 100_000
      FOUND = 30
      LONGEST_NOTE = 2000

      def initialize(db)
        @db = db
      end

      # @param rows [Array<Hash>] of lines just written
      def heard(rows)
        said = rows.select { |row| row[:feed_id] && SAID.include?(row[:kind]) && row[:login] != "" }
          .group_by { |row| row.values_at(:feed_id, :login) }
        rows = said.map { |(feed_id, login), own| heard_row(feed_id, login, own) }
        @db[HEARD, JSON.generate(rows)].insert if rows.any?
      end

      # @return [Hash{String => Integer}] by Core::Chat::Person#key, when each was first heard, Unix milliseconds
      def first_seen(show_id)
        of_show(show_id).reverse(:last_ms).limit(MOST_KNOWN).select_map(%i[feed_id login first_ms])
          .to_h { |feed_id, login, first_ms| ["#{feed_id}/#{Core::Chat::Person.fold(login)}", first_ms] }
      end

      # @return [Array<Known>] whose name has these letters in it, who was heard last first
      def search(show_id, letters)
        pattern = "%#{@db.dataset.escape_like(letters)}%"
        of_show(show_id).where(Sequel.ilike(:login, pattern) | Sequel.ilike(:display_name, pattern)).reverse(:last_ms).limit(FOUND).map do |row|
          read(row)
        end
      end

      # @return [Known, nil]
      def find(show_id, feed_id, login)
        row = of_show(show_id).first(feed_id:, login:)
        row && read(row)
      end

      # @param text [String] what moderators should know; empty: nothing any more
      # @param at_ms [Integer] Unix milliseconds
      def note(feed_id, login, text, by, at_ms)
        @db[:people].where(feed_id:, login:).update(note: text.empty? ? nil : text, noted_by: by, noted_ms: at_ms)
      end

      private

      def heard_row(feed_id, login, said)
        times = said.map { |row| row[:arrived_at_ms] }
        {feed_id:, login:, display_name: said.last[:display_name], first_ms: times.min, last_ms: times.max, lines: said.size}
      end

      def of_show(show_id) = @db[:people].where(feed_id: @db[:feeds].where(show_id:).select(:id))
      def read(row) = Known.new(**row)
    end
  end
end
