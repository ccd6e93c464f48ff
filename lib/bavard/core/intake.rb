# frozen_string_literal: true

module Bavard
  module Core
    # One happening as a feed's adapter hands it to the core.
    #
    # kind:: :line, :delete_line, :clear_person, :clear_all, :feed_state, :gap
    # feed_id:: the feed it came in on
    # platform_id:: the platform's own id of the line, or nil
    # platform_time_ms:: the platform's clock, Unix milliseconds, or nil
    # arrived_at_ms:: ours, Unix milliseconds
    # body:: what the kind carries: Said, FeedState, Gap, or the key of a person
    Intake = Struct.new(:kind, :feed_id, :platform_id, :platform_time_ms, :arrived_at_ms, :body) do
      # A line the platform told again from its history, not as it was said.
      def history?
        kind == :line && body.history
      end
    end

    # What a :line carries. colour is "#rrggbb" or nil; action is true for "/me waves".
    Said = Struct.new(:login, :display_name, :colour, :badges, :text, :action, :history)

    # What a :feed_state carries.
    #
    # state:: :off, :connecting, :live, :nobody_broadcasting, :waiting, :needs_you
    # reason:: why, in words
    # since_ms:: when it began; retry_at_ms:: when the next try comes (only :waiting)
    FeedState = Struct.new(:state, :reason, :since_ms, :retry_at_ms)

    # A stretch in which a feed heard nothing and the platform could not tell it again.
    Gap = Struct.new(:from_ms, :to_ms)
  end
end
