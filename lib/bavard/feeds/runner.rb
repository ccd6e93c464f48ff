# frozen_string_literal: true

require "io/wait"
require_relative "../core/intake"
require_relative "../error"
require_relative "../lasting"
require_relative "backoff"
require_relative "resume"

module Bavard
  module Feeds
    # Keeps one feed connected, in a thread of its own, until it is stopped: connects, and after a loss waits and
    # connects again. What the wire protocol is, it does not know.
    class Runner
      # @param feed_id [Integer]
      # @param connect [#call] gives something with run(stop) -> Ended or nil; called for each try
      # @param take [#call] gets each Core::Intake
      # @param clock [#call] Unix milliseconds
      # @param fault [#call] told of what is ours to mend; nil: the thread itself was ended
      def initialize(feed_id:, connect:, take:, clock:, backoff: Backoff.new, fault: ->(_error) {})
        @fault = fault
        @feed_id = feed_id
        @connect = connect
        @take = take
        @clock = clock
        @backoff = backoff
        @stop_reader, @stop_writer = IO.pipe
      end

      def start
        @thread = Lasting.new("feed-#{@feed_id}", told: method(:faulty)) { run }.start
        self
      end

      # Asks the connection to end; returns at once.
      def halt
        @stop_writer.write_nonblock(".", exception: false)
      rescue IOError, Errno::EPIPE
        nil # it has ended by itself, or is about to
      end

      # Ends the connection and waits for the thread.
      def stop
        halt
        @thread&.join
      end

      private

      def run
        keep_connected
        close
      rescue Bavard::Error => error
        tell(:needs_you, error.message)
        close
      end

      def close = [@stop_reader, @stop_writer].each(&:close)

      # A fault of ours ends this connection, and no other.
      def faulty(error)
        @fault.call(error)
        tell(:waiting, "A fault of ours#{" (#{error.class})" if error} ended this connection. It is made anew; what happened is in the log.")
      end

      def keep_connected
        loop do
          began_ms = @clock.call
          tell(:connecting, "Looking for the server.")
          connection = @connect.call
          ended = run_one(connection)
          return tell(:off, "Disconnected by you.") unless ended
          return tell(:needs_you, ended.reason, want: ended.want) if ended.state == :needs_you

          pause_ms = [@backoff.next_ms(connection.joined? ? @clock.call - began_ms : 0), ended.after_ms.to_i].max
          tell(:waiting, ended.reason, retry_at_ms: @clock.call + pause_ms)
          return tell(:off, "Disconnected by you.") if @stop_reader.wait_readable(pause_ms / 1000.0)
        end
      end

      # What stands in the way of a place that was read before, such as a name that cannot be looked up just now, may not stand there for
      # long. Whoever never got there has to hear of it.
      def run_one(connection)
        connection.run(@stop_reader).tap { @read_before ||= connection.joined? }
      rescue Bavard::Error => error
        @read_before ||= connection.joined?
        raise unless @read_before

        Ended.new(:waiting, error.message)
      end

      def tell(state, reason, retry_at_ms: nil, want: nil)
        now_ms = @clock.call
        @take.call(Core::Intake.new(:feed_state, @feed_id, nil, nil, now_ms,
          Core::FeedState.new(state, reason, now_ms, retry_at_ms, want)))
      end
    end
  end
end
