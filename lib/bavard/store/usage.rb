# frozen_string_literal: true

module Bavard
  module Store
    # What each show uses of an installation.
    class Usage
      # lines:: that came in within a day; bytes:: of files as they were brought
      Use = Struct.new(:show_id, :name, :account_id, :email, :feeds, :lines, :bytes, :last_ms, keyword_init: true)
      DAY_MS = 86_400_000
      # As Live::LineIds gives them.
      IDS_A_MS = 1000

      # @param clock [#call] Unix milliseconds
      def initialize(db, clock: -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) })
        @db = db
        @clock = clock
      end

      # @return [Array<Use>] by the show's number
      def by_show
        bytes = each(@db[:files], Sequel.function(:sum, :bytes))
        feeds = each(@db[:feeds].where(removed_at_ms: nil), Sequel.function(:count).*)
        heard = each(@db[:feeds], Sequel.function(:max, :heard_at_ms))
        @db[:shows].join(:accounts, id: :account_id).order(Sequel[:shows][:id])
          .select_map([Sequel[:shows][:id], :name, :account_id, :email]).map do |id, name, account_id, email|
          Use.new(show_id: id, name:, account_id:, email:, feeds: feeds[id].to_i, lines: lines(id), bytes: bytes[id].to_i, last_ms: heard[id])
        end
      end

      private

      def each(rows, figure) = rows.group(:show_id).select_hash(:show_id, figure.as(:figure))

      # Ids of lines grow with their time, and are what a show's lines are found by.
      def lines(show_id) = @db[:lines].where(show_id:).where(Sequel[:id] > (@clock.call - DAY_MS) * IDS_A_MS).count
    end
  end
end
