# frozen_string_literal: true

module Bavard
  module Core
    module Chat
      # How far a platform's clock is from ours, told by what is said there just now. A computer whose clock goes wrong is not rare; what
      # a platform tells again after a cut would seem to be long over, or yet to come.
      class PlatformClock
        # What comes late says less than what comes at once; and a clock may be set.
        LATEST = 5
        # Less than that may be the way here.
        LEAST_MS = 2000
        # What is further off tells no time of day.
        MOST_MS = 86_400_000

        def initialize
          @apart = []
        end

        # @param line [Line] that came, of which its platform tells when; what is told from history says nothing of now
        def heard(line)
          return if line.shown_at_ms < line.arrived_at_ms

          @apart.shift if @apart.size == LATEST
          @apart << (line.arrived_at_ms - line.platform_time_ms)
        end

        # @param ahead_ms [Integer] by which ours was set ahead since all that was heard
        def set(ahead_ms) = @apart.map! { |apart_ms| apart_ms + ahead_ms }

        # @return [Integer, nil] milliseconds that its clock is behind ours: what its times lack. 0 where both agree; nil where nobody knows
        def behind_ms
          least = @apart.min or return
          return 0 if least.abs < LEAST_MS

          least if least.abs <= MOST_MS
        end
      end
    end
  end
end
