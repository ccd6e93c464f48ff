# frozen_string_literal: true

module Bavard
  module Core
    module Cues
      # How far a goal is: a count or an amount on its way from one number to another, up or down.
      module Goal
        # Until when it counts: a time of the day it is shown on, a day, or both.
        UNTIL = /\A(?:(\d{4})-(\d\d)-(\d\d))?\s*(?:([01]?\d|2[0-3])[:.]([0-5]\d))?\z/
        HOUR_MS = 3_600_000
        EVER = "ever"
        # Before so much has come, nobody can say when it will be reached.
        FEWEST = 3

        module_function

        # @param text [String] as a piece has it
        # @return [Array<Integer, nil>, nil] year, month, day, hour and minute, of which some may be missing; nil: no end
        def until(text)
          parts = UNTIL.match(text.strip)&.captures
          parts.map { |part| part&.to_i } if parts&.any?
        end

        # Since ever what is counted is how many there are, and the goal goes from one of these numbers to another; since anything
        # else it comes on top of the number it begins with.
        #
        # @param piece [Hash] a goal
        # @param counted [Numeric] since it began
        # @return [Hash] value, from, to, share (0 to 1), reached
        def of(piece, counted)
          from, to = piece.values_at("from", "to")
          value = value(piece, counted + piece["already"].to_i)
          way = (to - from).abs
          share = way.zero? ? 1.0 : ((value - from) / (to - from).to_f).clamp(0.0, 1.0)
          {value:, from:, to:, share: share.round(4), reached: share >= 1.0}
        end

        def value(piece, done)
          return piece["from"] - done if piece["falls"]

          piece["since"] == EVER ? done : piece["from"] + done
        end
        private_class_method :value

        # @return [Hash, nil] how fast it goes and how long it takes at that rate: per_hour, left_ms; nil where nobody can say
        def pace(piece, counted, passed_ms, there = counted)
          left_ms = left_ms(piece, counted, passed_ms, there) or return
          {per_hour: (counted * HOUR_MS / passed_ms.to_f).round(1), left_ms:}
        end

        # @param counted [Numeric] in the time that passed
        # @param there [Numeric] how much there is by now, with what was there before that
        # @return [Integer, nil] how long it takes at that rate, in milliseconds; nil where nobody can say
        def left_ms(piece, counted, passed_ms, there = counted)
          goal = of(piece, there)
          return if goal[:reached] || counted < FEWEST || passed_ms <= 0

          ((goal[:to] - goal[:value]).abs * passed_ms / counted).round
        end
      end
    end
  end
end
