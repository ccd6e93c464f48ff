# frozen_string_literal: true

require_relative "lines"

module Bavard
  module Store
    # Reads the log back: searched, page by page, or all of it in order.
    class Log
      # text:: words, as PostgreSQL's web search takes them: "reed or marsh" -warbler; person:: a login or shown name
      # feed_id:: or nil; from_ms, to_ms:: Unix milliseconds, or nil; kind:: one of KINDS, or nil
      Search = Struct.new(:text, :person, :feed_id, :from_ms, :to_ms, :kind, keyword_init: true)
      # What is asked for besides all of it: what was on screen, what was kept off, what was taken away, and the kinds.
      KINDS = %w[aired kept_off pulled lines events].freeze
      EVENT_KINDS = Core::EVENTS.map(&:to_s).freeze
      PAGE = 100
      BATCH = 1000

      def initialize(db)
        @db = db
        @lines = Lines.new(db)
      end

      # @param before_id [Integer, nil] those before this one
      # @return [Array<Lines::Entry>] newest first, one more than a page where there are more
      def page(show_id, search, before_id = nil)
        found = where(show_id, search)
        found = found.where { id < before_id } if before_id
        found.reverse(:id).limit(PAGE + 1).map { |row| @lines.read(row) }
      end

      # @yieldparam entry [Lines::Entry] oldest first
      def each(show_id, search, &)
        each_batch(where(show_id, search)) { |rows| @lines.read_all(rows).each(&) }
      end

      # @yieldparam line [Core::Chat::Line] oldest first, without what became of it
      def each_line(show_id, search, &)
        each_batch(where(show_id, search).select(*Lines::SAID)) { |rows| @lines.said(rows).each(&) }
      end

      # @return [Integer, nil] millisecond that the id of the line behind so many of them begins with: one to search from, or to
      def moment(show_id, search, after) = where(show_id, search).order(:id).offset(after).get(:id)&.div(1000)

      # @return [Integer] up to a bound, beyond which nobody counts
      def count(show_id, search, most: 10_000)
        @db.from(where(show_id, search).select(:id).limit(most)).count
      end

      # Takes away what is older, some at a time.
      #
      # @return [Integer] how many
      def sweep(show_id, before_ms, at_most: 5000)
        old = @db[:lines].where(show_id:).where { id < before_ms * 1000 }.order(:id).limit(at_most).select(:id)
        @db[:lines].where(id: old).delete
      end

      private

      def each_batch(found)
        last_id = 0
        loop do
          rows = found.where { id > last_id }.order(:id).limit(BATCH).all
          yield rows
          return if rows.size < BATCH

          last_id = rows.last[:id]
        end
      end

      def where(show_id, search)
        found = @db[:lines].where(show_id:)
        found = found.where(Sequel.lit("search @@ websearch_to_tsquery('simple', ?)", search.text)) if search.text
        found = by(found, search.person.downcase) if search.person
        found = found.where(feed_id: search.feed_id) if search.feed_id
        of_kind(between(found, search.from_ms, search.to_ms), search.kind)
      end

      def by(found, person)
        names = %i[login display_name].map { |name| {Sequel.function(:lower, name) => person} }
        found.where(Sequel.|(*names))
      end

      # Ids begin with the time of arrival.
      def between(found, from_ms, to_ms)
        found = found.where { id >= from_ms * 1000 } if from_ms
        to_ms ? found.where { id < to_ms * 1000 } : found
      end

      def of_kind(found, kind)
        case kind
        when "aired" then found.where(aired: true)
        when "kept_off" then found.where(action: %w[drop hold], aired: false)
        when "pulled" then found.where(pulled: true)
        when "lines" then found.where(kind: Lines::CHAT)
        when "events" then found.where(kind: EVENT_KINDS)
        else found
        end
      end
    end
  end
end
