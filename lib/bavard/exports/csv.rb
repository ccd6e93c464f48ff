# frozen_string_literal: true

require "csv"
require_relative "document"

module Bavard
  module Exports
    # For tables (RFC 4180). A cell that a table program would take for a formula gets an apostrophe in front.
    class Csv
      NAME = "log.csv"
      TYPE = "text/csv; charset=utf-8"
      COLUMNS = %w[at platform_at feed kind login name text worth number verdict rule aired pulled].freeze
      FORMULA = /\A[=+\-@\t\r]/

      def initialize(feeds) = @feeds = feeds
      def head = COLUMNS.to_csv
      def foot = ""

      def entry(entry)
        line = entry.line
        [Document.time(line.arrived_at_ms), line.platform_time_ms && Document.time(line.platform_time_ms), @feeds.dig(line.feed_id, :name), line.kind,
          line.person.login, line.person.display_name, line.text, line.paid&.words, line.number, entry.verdict.action, entry.verdict.rule,
          entry.aired, entry.pulled].map { |cell| self.class.safe(cell) }.to_csv
      end

      # @param cell [Object]
      # @return [Object] as no table program takes it for a formula
      def self.safe(cell) = cell.is_a?(String) && cell.match?(FORMULA) ? "'#{cell}" : cell
    end
  end
end
