# frozen_string_literal: true

require_relative "noise"

module Bavard
  module Core
    module Voice
      # Whether one person talks, from the level of what their microphone hears: steadily, without flickering.
      #
      #   talking = Talking.new
      #   talking.level(at_ms, -31)   # dBov: 0 is the loudest there is, −127 silence (RFC 6464)
      #   talking.on?                 # => true, once it was loud for long enough
      #
      # A level counts as a voice above a threshold that stands over the noise where the person sits, further where that varies more; once
      # they talk, a lower one will do (hysteresis). It takes a moment to begin, so that a key that is struck is no word, and a tail to
      # end, so that the pause between two words is no silence; the tail of a word is shorter than that of a sentence.
      class Talking
        # attack_ms:: so long it is loud before it counts; tail_ms:: so long it is quiet before it is over, at most
        # shortest_ms:: nothing that is shown, and nothing between two, is shorter
        # margin_db:: over the noise, at least, and margin_spreads:: as many times its spread; on_margin_…: the same while they talk
        Settings = Struct.new(:attack_ms, :tail_ms, :shortest_ms, :margin_db, :margin_spreads, :on_margin_db, :on_margin_spreads, keyword_init: true)
        STEADY = Settings.new(attack_ms: 40, tail_ms: 350, shortest_ms: 200, margin_db: 7, margin_spreads: 3.0, on_margin_db: 4,
          on_margin_spreads: 2.4).freeze
        SILENCE = -127.0
        # Between these the thresholds move, in dBov.
        THRESHOLDS = (-58.0..-20.0)
        ON_THRESHOLDS = (-62.0..-23.0)
        # One level alone, however long it stands for, begins nothing.
        FEWEST = 2
        LONGEST_LEVEL_MS = 60
        USUAL_LEVEL_MS = 20
        # So much of what was heard lately counts, and so much of it has to be loud for the talking to go on.
        LATELY_MS = 100
        GOES_ON_MS = 40
        # The tail after something short, and by how much it grows with what was said.
        TAIL_FROM_MS = 140
        TAIL_AFTER_MS = 120
        TAIL_SHARE = 1.5
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
          @noise = Noise.new
          @on = false
          @loud_for_ms = @loud_levels = 0
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
          passed_ms = @at_ms ? (at_ms - @at_ms).clamp(0, LONGEST_LEVEL_MS) : USUAL_LEVEL_MS
          @noise.hear(at_ms, dbov)
          @at_ms = at_ms
          judge(at_ms, dbov, passed_ms)
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
          turn(false, at_ms) if @on
          begin_anew
          @loudness = 0.0
        end

        # @return [Float] 0 to 1, smoothed, for drawing
        def loudness = @on ? @loudness : 0.0

        # @return [Float] dBov, above which a level counts as the beginning of a voice
        def threshold = over_noise(@settings.margin_db, @settings.margin_spreads, THRESHOLDS)

        PACKET_DBOV = -20.0
        private_constant :PACKET_DBOV

        private

        def over_noise(margin_db, spreads, range)
          (@noise.level + [margin_db, spreads * @noise.spread].max).clamp(range.begin, range.end)
        end

        # @return [Float] dBov, above which a level counts while they talk
        def on_threshold = over_noise(@settings.on_margin_db, @settings.on_margin_spreads, ON_THRESHOLDS)

        def judge(at_ms, dbov, passed_ms)
          return carry_on(at_ms, dbov, passed_ms) if @on

          if dbov < threshold
            @loud_for_ms = [@loud_for_ms - passed_ms, 0].max
            @loud_levels = 0 if @loud_for_ms.zero?
            @noise.learn(at_ms, dbov, passed_ms)
          else
            @loud_for_ms += passed_ms
            @loud_levels += 1
            begin_talking(at_ms) if @loud_for_ms >= @settings.attack_ms && @loud_levels >= FEWEST
          end
        end

        def begin_talking(at_ms)
          return if @since_ms && at_ms - @since_ms < @settings.shortest_ms

          turn(true, at_ms)
          @loud_ms = at_ms
          @loud_for_ms = LONGEST_LEVEL_MS
        end

        def carry_on(at_ms, dbov, passed_ms)
          look_again(at_ms)
          loud = dbov >= on_threshold
          @loud_for_ms = (@loud_for_ms + (loud ? passed_ms : -passed_ms)).clamp(0, LATELY_MS)
          @loud_ms = at_ms if loud && @loud_for_ms >= GOES_ON_MS
          turn(false, at_ms) if @noise_began || at_ms >= ends_ms
        end

        # What costs more than a comparison is done now and then.
        def look_again(at_ms)
          return if at_ms - (@looked_ms || @since_ms) < LATELY_MS

          @looked_ms = at_ms
          @noise.rise
          @noise_began = @noise.begun?(on_threshold)
        end

        def ends_ms = [@loud_ms + tail_ms, @since_ms + @settings.shortest_ms].max
        def tail_ms = (((@loud_ms - @since_ms) * TAIL_SHARE) + TAIL_AFTER_MS).clamp(TAIL_FROM_MS, @settings.tail_ms).round

        def quiet_since(from_ms, now_ms)
          begin_anew unless @on
          @loudness = 0.0
          ends = [ends_ms, from_ms].max if @on
          turn(false, ends) if @on && now_ms >= ends
        end

        def turn(on, at_ms)
          @on = on
          @since_ms = @looked_ms = at_ms
          @noise_began = false
          begin_anew
        end

        def begin_anew = @loud_for_ms = @loud_levels = 0

        def follow(at_ms, dbov)
          heard = ((dbov - on_threshold) / LOUD_DB).clamp(0.0, 1.0)
          passed = (at_ms - (@followed_ms || at_ms)).clamp(0, 1000)
          @followed_ms = at_ms
          share = 1 - Math.exp(-passed / (heard > @loudness ? RISE_MS : FALL_MS))
          @loudness += (heard - @loudness) * share
        end
      end
    end
  end
end
