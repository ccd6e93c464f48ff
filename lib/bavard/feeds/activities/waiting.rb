# frozen_string_literal: true

require "io/wait"
require_relative "../../core/intake"

module Bavard
  module Feeds
    module Activities
      # Stands in the place of a connection: others come to us, so there is nothing to do but wait until it is over.
      class Waiting
        attr_reader :heard_at_ms

        def initialize(feed_id, clock:, take:)
          @feed_id = feed_id
          @clock = clock
          @take = take
        end

        def joined? = false
        def cursor = nil

        # @param stop [IO] readable once it is to end
        # @return [nil]
        def run(stop)
          now_ms = @clock.call
          @take.call(Core::Intake.new(:feed_state, @feed_id, nil, nil, now_ms,
            Core::FeedState.new(:live, "Ready for whatever is sent here.", now_ms)))
          stop.wait_readable
          nil
        end
      end
    end
  end
end
