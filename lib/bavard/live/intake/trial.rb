# frozen_string_literal: true

require_relative "../../feeds/outbox"
require_relative "../../feeds/resume"
require_relative "feed_kinds"
require_relative "../../timer"

module Bavard
  module Live
    # Tries a feed before it counts: connects as it would, and says how far that got. Nothing it hears goes anywhere.
    class Trial
      WITHIN_S = 6
      # reached:: whether the place answers and lets us read; words:: what was found, or what is wrong
      # heard:: lines that came meanwhile; field:: of the form, where the fault lies in one
      Result = Struct.new(:reached, :words, :heard, :field)
      FINE = %i[live nobody_broadcasting].freeze
      FIELDS = {broadcast: "channel", address: "channel"}.freeze

      # @param feed [Store::Feeds::Feed] not kept yet
      # @param options [Hash] clock, and what else its kind wants
      def initialize(feed, **options)
        @feed = feed
        @options = options
        @found = Queue.new
        @heard = 0
      end

      # @return [Result]
      def run
        stop_reader, stop_writer = IO.pipe
        outbox = Feeds::Outbox.new
        connection = FEED_KINDS.fetch(@feed.kind).connection(@feed, Feeds::NOTHING_TO_RESUME, take: method(:hear), reject: lambda { |_what|
        }, outbox:, **@options)
        thread = Thread.new { connected(connection, stop_reader) }
        result(Timer.wait(@found, WITHIN_S))
      ensure
        stop_writer.close
        thread&.join
        stop_reader.close
        outbox.close
      end

      private

      def connected(connection, stop)
        ended = connection.run(stop)
        @found << ended if ended
      rescue Error => error
        @found << Feeds::Ended.new(:needs_you, error.message, :address)
      end

      def hear(intake)
        @heard += 1 if intake.kind == :line
        @found << intake.body if intake.kind == :feed_state && intake.body.state != :connecting
      end

      def result(found)
        return Result.new(false, "It answered, but within #{WITHIN_S} s did not let us in.", @heard, nil) if found.nil?

        Result.new(FINE.include?(found.state), found.reason, @heard, FIELDS[found.want])
      end
    end
  end
end
