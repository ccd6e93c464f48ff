# frozen_string_literal: true

require "io/wait"
require_relative "../../core/intake"

module Bavard
  module Feeds
    module Activities
      # Stands in the place of a connection: others come to us, so there is nothing to do but wait, and to say so where nobody comes who should.
      class Waiting
        LOOK_EVERY_S = 1.0
        READY = "Ready for whatever is sent here."

        attr_reader :heard_at_ms

        # @param expects_ms [Integer, nil] within which something has to come; nil: it comes when it comes
        def initialize(feed_id, clock:, take:, expects_ms: nil)
          @feed_id = feed_id
          @clock = clock
          @take = take
          @expects_ms = expects_ms
        end

        def joined? = false
        def cursor = nil

        # Something came that was signed, whatever it said; from any thread.
        def heard = @heard_at_ms = @clock.call

        # @param stop [IO] readable once it is to end
        # @return [nil]
        def run(stop)
          @began_ms = @clock.call
          tell(:live, READY, @began_ms)
          look until stop.wait_readable(@expects_ms && LOOK_EVERY_S)
          nil
        end

        private

        def look
          return unless @expects_ms

          since_ms = [@heard_at_ms, @began_ms].compact.max
          silent = @clock.call - since_ms > @expects_ms
          silent ? tell(:waiting, "Nothing has come since then. At least every #{minutes} something should.", since_ms) : tell(:live, READY, since_ms)
        end

        def minutes = (@expects_ms / 60_000).then { |count| count == 1 ? "minute" : "#{count} minutes" }

        def tell(state, reason, since_ms)
          return if state == @told

          @told = state
          @take.call(Core::Intake.new(:feed_state, @feed_id, nil, nil, @clock.call, Core::FeedState.new(state, reason, since_ms)))
        end
      end
    end
  end
end
