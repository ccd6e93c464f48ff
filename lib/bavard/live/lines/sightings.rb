# frozen_string_literal: true

module Bavard
  module Live
    # Which screens painted which lines, and why lines left them: gathered, and added to their traces now and then. Belongs to
    # its show's thread.
    class Sightings
      FLUSH_EVERY_MS = 1000
      # A screen can claim what it likes; a line's trace does not grow for ever.
      MOST_STEPS = 24
      MOST_LINES = 5000

      # @param show_id [Integer]
      # @param journal [Journal]
      def initialize(show_id, journal)
        @show_id = show_id
        @journal = journal
        @waiting = {}
        @counts = {}
        @flushed_at_ms = 0
      end

      # @param step [Array] as a trace keeps it: name, Unix milliseconds, words
      def add(line_id, step)
        count = @counts[line_id] = (@counts[line_id] || 0) + 1
        return if count > MOST_STEPS

        @counts.shift if @counts.size > MOST_LINES
        (@waiting[line_id] ||= []) << step
      end

      def due_ms = @waiting.empty? ? nil : @flushed_at_ms + FLUSH_EVERY_MS

      # Adds what was seen to the traces, no more often than once a second.
      def flush(now_ms)
        due = due_ms
        return unless due && now_ms >= due

        steps = @waiting
        @waiting = {}
        @flushed_at_ms = now_ms
        @journal.steps(@show_id, steps)
      end
    end
  end
end
