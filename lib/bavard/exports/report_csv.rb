# frozen_string_literal: true

require "csv"
require_relative "csv"

module Bavard
  module Exports
    # A broadcast's report as a table (RFC 4180): a row for each thing that is told.
    module ReportCsv
      OF_ALL = %w[lines aired kept_off pulled people new_people].freeze
      OF_FEEDS = (OF_ALL - %w[new_people]).freeze
      NAME = "broadcast.csv"
      TYPE = Csv::TYPE
      COLUMNS = %w[what name at number unit words].freeze

      module_function

      # @param sheet [Core::Report::Sheet]
      # @return [String]
      def of(sheet) = [COLUMNS, *rows(sheet)].map { |row| row.map { |cell| Csv.safe(cell) }.to_csv }.join

      def rows(sheet)
        told = sheet.to_h
        totals(told) + feeds(told) + told["rules"].map { |label, times| ["kept off by", label, nil, times] } +
          told["minutes"].map { |at, lines| ["lines in a minute", nil, at, lines] } + events(told) +
          told["slowest"].map { |one| ["slow line", one["who"], one["at"], one["took_ms"], "ms", one["text"]] } +
          told["troubles"].map { |one| ["screen", one["screen"], one["at"], nil, nil, "#{one["stage"]}: #{one["words"]}"] }
      end

      def totals(told)
        [["begins", nil, told["from"]], ["ends", nil, told["to"]]] + OF_ALL.map do |what|
          [what, nil, nil, told[what]]
        end
      end

      def feeds(told)
        told["feeds"].flat_map { |feed| OF_FEEDS.map { |what| ["#{what} of", feed["name"], nil, feed[what]] } }
      end

      def events(told)
        told["events"].flat_map do |event|
          times = ["event", event["kind"], nil, event["times"]]
          event["worth"] ? [times, ["worth, in its smallest unit", event["kind"], nil, event["worth"], event["unit"]]] : [times]
        end
      end
      private_class_method :rows, :totals, :feeds, :events
    end
  end
end
