# frozen_string_literal: true

require_relative "../core/chat/event_words"

module Bavard
  module Exports
    # As captions beside a recording (W3C WebVTT): each line from when it was said, counted from the first.
    class WebVtt
      NAME = "log.vtt"
      TYPE = "text/vtt; charset=utf-8"
      SHOWN_MS = 7000
      ESCAPES = {"&" => "&amp;", "<" => "&lt;", ">" => "&gt;"}.freeze

      def initialize(feeds) = @feeds = feeds
      def head = "WEBVTT\n\n"
      def foot = ""

      def entry(entry)
        return "" unless entry.verdict.pass? && !entry.pulled

        line = entry.line
        @first_ms ||= line.arrived_at_ms
        from_ms = line.arrived_at_ms - @first_ms
        words = line.event? ? [Core::Chat::EventWords.of(line), line.text].reject(&:empty?).join(": ") : line.text
        "#{time(from_ms)} --> #{time(from_ms + SHOWN_MS)}\n<v #{escape(line.person.display_name).delete("\n")}>#{escape(words)}</v>\n\n"
      end

      private

      def time(ms) = format("%02d:%02d:%02d.%03d", ms / 3_600_000, ms / 60_000 % 60, ms / 1000 % 60, ms % 1000)
      def escape(text) = text.gsub(/[&<>]/, ESCAPES)
    end
  end
end
