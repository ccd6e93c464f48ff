# frozen_string_literal: true

module Bavard
  module Feeds
    # Where the last connection of a feed stopped.
    #
    # last_id:: the platform's id of the newest line, or nil; heard_at_ms:: when anything was last heard, or nil
    # cursor:: what the feed's kind itself wants to know, as plain data, or nil
    # behind_ms:: how far the platform's clock is behind ours, or nil where nobody knows
    Resume = Struct.new(:last_id, :heard_at_ms, :cursor, :behind_ms)

    # See above.
    class Resume
      # @return [Integer, nil] when anything was last heard, by the platform's clock
      def heard_there_ms = heard_at_ms && (heard_at_ms - (behind_ms || 0))
    end

    NOTHING_TO_RESUME = Resume.new(nil, nil, nil).freeze

    # Why a connection is over.
    #
    # state:: :waiting (try again) or :needs_you; reason:: in words; want:: as Core::FeedState has it
    # after_ms:: the least time before the next try, where the platform named one
    Ended = Struct.new(:state, :reason, :want, :after_ms)
  end
end
