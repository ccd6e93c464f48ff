# frozen_string_literal: true

require "io/wait"
require_relative "../core/intake"
require_relative "../error"
require_relative "backoff"

module Bavard
  module Feeds
    # Keeps one feed connected, in a thread of its own, until it is stopped: connects, and after a loss waits and
    # connects again. What the wire protocol is, it does not know.
    class Runner
      # @param feed_id [Integer]
      # @param connect [#call] gives something with run(stop) -> Ended or nil; called for each try
      # @param take [#call] gets each Core::Intake
      # @param clock [#call] Unix milliseconds
      def initialize(feed_id:, connect:, take:, clock:, backoff: Backoff.new)
        @feed_id = feed_id
        @connect = connect
        @take = take
        @clock = clock
        @backoff = backoff
        @stop_reader, @stop_writer = IO.pipe
      end

      def start
        @thread = Thread.new { run }
        @thread.name = "feed-#{@feed_id}"
        self
      end

      # Asks the connection to end; returns at once.
      def halt
        @stop_writer.write_nonblock(".", exception: false)
      rescue IOError
        nil # it has ended by itself
      end

      # Ends the connection and waits for the thread.
      def stop
        halt
        @thread&.join
      end

      private

      def run
        keep_connected
      rescue Bavard::Error => error
        tell(:needs_you, error.message)
      rescue StandardError => error
        tell(:needs_you, "This feed stopped by a fault of ours (#{error.class}). Connect it again, and send us the log.")
        raise
      ensure
        [@stop_reader, @stop_writer].each(&:close)
      end

      def keep_connected
        loop do
          began_ms = @clock.call
          tell(:connecting, "Looking for the server.")
          connection = @connect.call
          ended = connection.run(@stop_reader)
          return tell(:off, "Disconnected by you.") unless ended
          return tell(:needs_you, ended.reason, want: ended.want) if ended.state == :needs_you

          pause_ms = [@backoff.next_ms(connection.joined? ? @clock.call - began_ms : 0), ended.after_ms.to_i].max
          tell(:waiting, ended.reason, retry_at_ms: @clock.call + pause_ms)
          return tell(:off, "Disconnected by you.") if @stop_reader.wait_readable(pause_ms / 1000.0)
        end
      end

      def tell(state, reason, retry_at_ms: nil, want: nil)
        now_ms = @clock.call
        @take.call(Core::Intake.new(:feed_state, @feed_id, nil, nil, now_ms,
          Core::FeedState.new(state, reason, now_ms, retry_at_ms, want)))
      end
    end
  end
end
