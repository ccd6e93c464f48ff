# frozen_string_literal: true

require_relative "../pauses"

module Bavard
  module Start
    # A part that is started again whenever it ends, however often it does.
    #
    #   kept = Kept.new(Child.new(…), say: method(:warn)).start
    #   kept.look   # now and then
    class Kept
      # What ran so long had come up well.
      STEADY_S = 60
      CLOCK = -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) }

      # @param child [Child] not started yet
      # @param say [#call] takes words for whoever began it all
      # @param clock [#call] seconds
      def initialize(child, say:, clock: CLOCK)
        @child = child
        @say = say
        @clock = clock
        @pauses = Pauses.new
      end

      def start
        @child.start
        @since = @clock.call
        @again_at = nil
        self
      end

      # Starts it again where that is due.
      #
      # @return [Process::Status, nil] where it has ended since the last look
      def look
        if @again_at
          start if @clock.call >= @again_at
          return
        end
        @child.ended&.tap { |status| plan(status) }
      end

      def stop = @child.stop

      # Ends it and begins it with what is set now.
      def anew
        stop
        start
      end

      private

      def plan(status)
        now = @clock.call
        @pauses.over if now - @since > STEADY_S
        pause_s = @pauses.next
        @again_at = now + pause_s
        how = status.termsig ? "signal #{status.termsig}" : "status #{status.exitstatus}"
        @say.call("#{@child.name} ended (#{how}); starting it again#{" in #{pause_s.round} s" if pause_s >= 1}.")
      end
    end
  end
end
