# frozen_string_literal: true

require "time"
require_relative "../../../error"

module Bavard
  module Web
    # From when to when a report tells: the last broadcast, or what is asked for.
    #
    # from_ms, to_ms:: Unix milliseconds; given:: the same as the fields of the page have it
    ReportSpan = Struct.new(:from_ms, :to_ms, :given) do
      # @param from, to [Object] as a browser's field writes them: "2026-11-24T05:30", in the time of the machine Bavard runs on
      # @param began_ms, ended_ms [Integer, nil] of the last broadcast
      # @return [ReportSpan]
      # @raise [Bavard::Error]
      def self.read(from, to, began_ms:, ended_ms:, now_ms:)
        from_ms = time(from, "from") || began_ms || (now_ms - ReportSpan::OTHERWISE_MS)
        # Nothing has come after now.
        to_ms = [time(to, "to") || (began_ms && ended_ms && from_ms < ended_ms ? ended_ms : now_ms), now_ms].min
        long = to_ms - from_ms > ReportSpan::MOST_DAYS * ReportSpan::DAY_MS
        raise Error.new("A report is of no more than #{ReportSpan::MOST_DAYS} days.", field: "to") if long
        raise Error.new("It ends before it begins.", field: "to") if to_ms < from_ms

        new(from_ms, to_ms, {"from" => field(from_ms), "to" => field(to_ms + 59_999)})
      end

      def self.time(given, field)
        text = given.to_s.strip
        (Time.parse(text).to_r * 1000).to_i unless text.empty?
      rescue ArgumentError, RangeError
        raise Error.new("A time is written as in 2026-11-24 05:30.", field:, value: text[0, 40])
      end

      def self.field(at_ms) = Time.at(at_ms / 1000).strftime("%FT%H:%M")
      private_class_method :time, :field
    end

    # See above.
    class ReportSpan
      # Where no broadcast ever began.
      DAY_MS = 86_400_000
      OTHERWISE_MS = 12 * 3_600_000
      MOST_DAYS = 7
    end
  end
end
