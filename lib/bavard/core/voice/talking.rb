# frozen_string_literal: true

require_relative "noise_floor"

module Bavard
  module Core
    module Voice
      # Whether one person talks, from the level of what their microphone hears: steadily, without flickering.
      #
      #   talking = Talking.new
      #   talking.level(at_ms, -31)   # dBov: 0 is the loudest there is, −127 silence (RFC 6464)
      #   talking.on?                 # => true, once it was loud for long enough
      #
      # A level counts as a voice above a threshold that stands over the noise where the person sits; once they talk, a lower
      # one will do (hysteresis). It takes a moment to begin, so that a mug on the table is no word, and a tail to end, so
      # that the pause between two words is no silence.
      class Talking
        # attack_ms:: so long it is loud before it counts; tail_ms:: so long it is quiet before it is over
        # shortest_ms:: nothing that is shown, and nothing between two, is shorter
        # margin_db:: over the noise; hysteresis_db:: so much lower while they talk
        Settings = Struct.new(:attack_ms, :tail_ms, :shortest_ms, :margin_db, :hysteresis_db, keyword_init: true)
        STEADY = Settings.new(attack_ms: 20, tail_ms: 350, shortest_ms: 200, margin_db: 12, hysteresis_db: 6).freeze
        SILENCE = -127.0
        # Between these the threshold moves, in dBov.
        THRESHOLDS = (-56.0..-26.0)
        # A dip this short is part of the beginning of a word.
        DIP_MS = 40
        # Where no level comes for so long, it is quiet: most services say nothing of silence.
        MISSING_MS = 160
        # Loudness of what is drawn: from the threshold to loud speech, followed faster up than down.
        LOUD_DB = 30.0
        RISE_MS = 50.0
        FALL_MS = 220.0

        # @return [Integer, nil] since when it is as it is
        attr_reader :since_ms

        # @param settings [Settings]
        def initialize(settings = STEADY)
          @settings = settings
          @floor = NoiseFloor.new
          @on = false
          @loudness = 0.0
        end

        def on? = @on

        # @param at_ms [Integer] what is older than the last counts as the last
        # @param dbov [Numeric] clamped to −127 … 0
        # @return [Boolean] whether talking began or ended
        def level(at_ms, dbov)
          was = @on
          at_ms = [at_ms, @at_ms || at_ms].max
          quiet_since(@at_ms + MISSING_MS, at_ms) if @at_ms && at_ms - @at_ms > MISSING_MS
          dbov = dbov.clamp(SILENCE, 0.0)
          @floor.hear(at_ms, dbov)
          @at_ms = at_ms
          judge(at_ms, dbov)
          follow(at_ms, dbov)
          was != @on
        end

        # A packet of speech came, of a service that tells no levels.
        def packet(at_ms) = level(at_ms, PACKET_DBOV)

        # Time goes on, whether or not levels come.
        #
        # @return [Boolean] whether talking ended
        def advance(now_ms)
          return false if @at_ms.nil? || !@on

          quiet_since(@at_ms + MISSING_MS, now_ms) if now_ms - @at_ms > MISSING_MS
          !@on
        end

        # @return [Integer, nil] when {#advance} has something to do
        def due_ms = @on ? [@at_ms + MISSING_MS + 1, ends_ms].max : nil

        # The microphone is off, or the person has left.
        def hush(at_ms)
          @loud_since_ms = nil
          turn(false, at_ms) if @on
          @loudness = 0.0
        end

        # @return [Float] 0 to 1, smoothed, for drawing
        def loudness = @on ? @loudness : 0.0

        # @return [Float] dBov, above which a level counts as the beginning of a voice
        def threshold = (@floor.dbov + @settings.margin_db).clamp(THRESHOLDS.begin, THRESHOLDS.end)

        PACKET_DBOV = -20.0
        private_constant :PACKET_DBOV

        private

        def judge(at_ms, dbov)
          return carry_on(at_ms, dbov) if @on

          if dbov >= threshold
            @loud_since_ms ||= at_ms
            @loud_ms = at_ms
            begin_talking(at_ms) if at_ms - @loud_since_ms >= @settings.attack_ms
          elsif @loud_since_ms && at_ms - @loud_ms > DIP_MS
            @loud_since_ms = nil
          end
        end

        def begin_talking(at_ms)
          return if @since_ms && at_ms - @since_ms < @settings.shortest_ms

          turn(true, at_ms)
          @loud_ms = at_ms
        end

        def carry_on(at_ms, dbov)
          if dbov >= threshold - @settings.hysteresis_db
            @loud_ms = at_ms
          elsif at_ms >= ends_ms
            turn(false, at_ms)
          end
        end

        def ends_ms = [@loud_ms + @settings.tail_ms, @since_ms + @settings.shortest_ms].max

        def quiet_since(from_ms, now_ms)
          @loud_since_ms = nil
          @loudness = 0.0
          ends = [ends_ms, from_ms].max if @on
          turn(false, ends) if @on && now_ms >= ends
        end

        def turn(on, at_ms)
          @on = on
          @since_ms = at_ms
          @loud_since_ms = nil
        end

        def follow(at_ms, dbov)
          heard = ((dbov - threshold + @settings.hysteresis_db) / LOUD_DB).clamp(0.0, 1.0)
          passed = (at_ms - (@followed_ms || at_ms)).clamp(0, 1000)
          @followed_ms = at_ms
          share = 1 - Math.exp(-passed / (heard > @loudness ? RISE_MS : FALL_MS))
          @loudness += (heard - @loudness) * share
        end
      end
    end
  end
end
