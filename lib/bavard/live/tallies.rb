# frozen_string_literal: true

require_relative "../core/cues/event"
require_relative "../core/cues/tally"

module Bavard
  module Live
    # What happened in a running show since the broadcast, the day and the month began, and for ever. Belongs to its show's thread.
    class Tallies
      SPANS = %w[broadcast day month ever].freeze

      attr_reader :began_ms

      # @param store [Store::Tallies, nil]
      # @param began_ms [Integer] when the broadcast began
      def initialize(show_id, store, now_ms, began_ms: nil)
        @show_id = show_id
        @store = store
        @began_ms = began_ms || beginning("day", now_ms)
        @tallies = SPANS.to_h { |span| [span, counted(span, now_ms)] }
        @day = beginning("day", now_ms)
      end

      # The broadcast begins.
      def begin(now_ms)
        @began_ms = now_ms
        @tallies["broadcast"] = Core::Cues::Tally.new
        @begun = true
      end

      # @param line [Core::Chat::Line] new, whatever the gate says of it
      def take(line)
        event = Core::Cues::Event.of(line, roles: []) or return
        @tallies.each_value { |tally| tally.take(event) }
      end

      # @return [Core::Cues::Tally] of a span
      def [](span) = @tallies.fetch(span)

      # @return [Object] another one whenever something was counted
      def revision = [@tallies["ever"].changes, @began_ms, @day]

      # At midnight the day is another one.
      def advance(now_ms)
        day = beginning("day", now_ms)
        return if day == @day

        @day = day
        %w[day month].each { |span| @tallies[span] = counted(span, now_ms) }
      end

      private

      def counted(span, now_ms)
        @store&.since(@show_id, span == "broadcast" ? @began_ms : beginning(span, now_ms)) || Core::Cues::Tally.new
      end

      def beginning(span, now_ms)
        time = Time.at(now_ms / 1000)
        case span
        when "day" then Time.new(time.year, time.month, time.day).to_i * 1000
        when "month" then Time.new(time.year, time.month).to_i * 1000
        else 0
        end
      end
    end
  end
end
