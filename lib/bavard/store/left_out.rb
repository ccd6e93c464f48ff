# frozen_string_literal: true

require_relative "../core/gate/left_out"

module Bavard
  module Store
    # The people who are left out, as they are kept.
    class LeftOut
      def initialize(db)
        @db = db
      end

      # @return [Array<Core::Gate::LeftOut::Entry>] that still count
      def of_show(show_id, now_ms)
        @db[:left_out].where(show_id:).where(Sequel.|({until_ms: nil}, Sequel[:until_ms] > now_ms)).order(:id)
          .select_map(%i[name feed_id until_ms]).map { |values| Core::Gate::LeftOut::Entry.new(*values) }
      end

      # @param entry [Core::Gate::LeftOut::Entry]
      # @param at_ms [Integer] Unix milliseconds
      def add(show_id, entry, at_ms, by)
        take_back(show_id, entry.name, entry.feed_id)
        @db[:left_out].insert(show_id:, name: entry.name, feed_id: entry.feed_id, until_ms: entry.until_ms, at_ms:, by:)
      end

      # @param feed_id [Integer, nil] nil: of all feeds
      def take_back(show_id, name, feed_id)
        @db[:left_out].where(show_id:, feed_id:).where(Sequel.function(:lower, :name) => name.downcase).delete
      end

      # @param entries [Array<Core::Gate::LeftOut::Entry>] all of them, in place of what was there
      def replace(show_id, entries, at_ms, by)
        @db.transaction do
          @db[:left_out].where(show_id:).delete
          @db[:left_out].multi_insert(entries.map do |entry|
            {show_id:, name: entry.name, feed_id: entry.feed_id, until_ms: entry.until_ms, at_ms:, by:}
          end)
        end
      end
    end
  end
end
