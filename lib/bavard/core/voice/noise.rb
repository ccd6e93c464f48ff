# frozen_string_literal: true

module Bavard
  module Core
    module Voice
      # What it is like where somebody sits while they do not talk: how loud, and by how much that varies. A fan at 50 dB varies by half a
      # decibel, a street by four: only what stands out from both the level and its spread is a voice.
      class Noise
        # What is supposed before there was anything to hear: the first word somebody says is not yet noise.
        FIRST_HIGHEST = -44.0
        FIRST_SPREAD_DB = 4.0
        LOWEST = -90.0
        SPREADS_DB = (0.7..5.0)
        # Followed in so many milliseconds; sooner where it grows quiet at once, and the spread while little was heard.
        LEVEL_MS = 900.0
        QUIETER_MS = 300.0
        SPREAD_MS = 2500.0
        FEWEST_MS = 300.0
        # What lies further away says no more of the spread than that.
        OUTLIER = 3.5
        # Whoever has not been heard for longer is listened to anew.
        FORGOTTEN_MS = 10_000
        # Something that goes on for so long without a dip, and varies no more than noise does, is noise that has begun: speech falls
        # back between two sounds. What does not vary at all is no microphone, but a service that says only whether somebody talks.
        STEADY_MS = 900
        STEADY_DB = (0.25..4.6)
        # Within so long everybody who talks is as quiet as the room for a moment.
        DIPS_WITHIN_MS = 2500

        # @return [Float] dBov
        attr_reader :level
        # @return [Float] its standard deviation, dB
        attr_reader :spread

        def initialize
          forget
        end

        # Every level, whatever it is of.
        def hear(at_ms, dbov)
          forget if @heard_ms && at_ms - @heard_ms > FORGOTTEN_MS
          @heard_ms = at_ms
          @level ||= [dbov, FIRST_HIGHEST].min.clamp(LOWEST, 0.0)
          @began_ms ||= at_ms
          @recent << [at_ms, dbov]
          @recent.shift while at_ms - @recent.first[0] > DIPS_WITHIN_MS
        end

        # A level while nobody talks.
        #
        # @param passed_ms [Numeric] since the one before
        def learn(at_ms, dbov, passed_ms)
          away = dbov.clamp(LOWEST, 0.0) - @level
          @level += away * share(passed_ms, away < -2 * @spread ? QUIETER_MS : LEVEL_MS)
          away = away.clamp(-OUTLIER * @spread, OUTLIER * @spread)
          part = share(passed_ms, (at_ms - @began_ms).clamp(FEWEST_MS, SPREAD_MS))
          @spread = Math.sqrt((@spread * @spread * (1 - part)) + (away * away * part)).clamp(SPREADS_DB.begin, SPREADS_DB.end)
        end

        # While somebody talks: between two sounds they are as quiet as the room, so the room is no quieter than the least that was heard
        # lately.
        def rise
          return if @recent.last[0] - @recent.first[0] < DIPS_WITHIN_MS * 0.9

          least = @recent.min_by(&:last).last
          @level = [@level, least + @spread].max
        end

        # @param threshold [Float] dBov, below which speech falls now and then
        # @return [Boolean] whether what was heard lately is noise that has begun; it is taken for that from now on
        def begun?(threshold)
          since_ms = @recent.last[0] - STEADY_MS
          return false if @recent.first[0] > since_ms + (STEADY_MS / 10)

          lately = @recent.filter_map { |at_ms, dbov| dbov if at_ms >= since_ms }
          return false if lately.min < threshold

          mean = lately.sum / lately.size
          spread = Math.sqrt(lately.sum { |dbov| (dbov - mean)**2 } / lately.size)
          return false unless STEADY_DB.cover?(spread)

          @level = mean
          @spread = spread.clamp(SPREADS_DB.begin, SPREADS_DB.end)
          true
        end

        private

        def share(passed_ms, within_ms) = 1 - Math.exp(-passed_ms / within_ms)

        def forget
          @recent = []
          @level = @began_ms = nil
          @spread = FIRST_SPREAD_DB
        end
      end
    end
  end
end
