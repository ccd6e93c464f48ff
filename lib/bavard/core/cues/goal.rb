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
        # Since when it counts; start: as the piece says itself.
        SPANS = %w[broadcast day month ever start].freeze
        PLACES = /\{(value|to|left)\}/
        # Before so much has come, nobody can say when it will be reached.
        FEWEST = 3

        module_function

        # @param text [String] as a piece has it
        # @return [Array<Integer, nil>, nil] year, month, day, hour and minute, of which some may be missing; nil: no end
        def until(text)
          parts = UNTIL.match(text.strip)&.captures
          parts.map { |part| part&.to_i } if parts&.any?
        end

        # @param milestones [String] as somebody typed them
        # @return [Array<Integer>] in hundredths of the way
        def milestones(milestones) = milestones.scan(/\d+/).map(&:to_i).grep(1..99).uniq.sort

        # @param title [String] with places for numbers
        # @param card [Hash] as {of} gives it, or a challenge's
        # @return [String]
        def title(title, card)
          title.gsub(PLACES) do
            value, to = card.values_at(:value, :to)
            written(Regexp.last_match(1) == "left" ? (to - value).abs : {"value" => value, "to" => to}.fetch(Regexp.last_match(1)))
          end
        end

        # @param piece [Hash] a goal or a challenge
        # @return [String] its title where nobody asks how far it is
        def called(piece)
          to = written(piece["to"] || piece["total"])
          piece["title"].gsub(PLACES) { Regexp.last_match(1) == "to" ? to : "" }.squeeze(" ").strip
        end

        # As figures beside it are written: in groups of three, cents where there are any.
        def written(number)
          whole, part = (number == number.to_i ? number.to_i.to_s : format("%.2f", number)).split(".")
          grouped = whole.delete_prefix("-").reverse.scan(/\d{1,3}/).join("\u00A0").reverse
          [whole.start_with?("-") ? "-#{grouped}" : grouped, part].compact.join(".")
        end

        # @param passed [Integer] how many milestones
        # @param over [Boolean] whether it is reached
        # @return [String, nil] id of the face it has by then
        def face(piece, passed, over)
          return piece["face_reached"] if over && piece["face_reached"]

          piece.values_at("face", "face_1", "face_2", "face_3").first([passed, 3].min + 1).compact.last
        end

        # Since ever what is counted is how many there are, and the goal goes from one of these numbers to another; since anything
        # else it comes on top of the number it begins with.
        #
        # @param piece [Hash] a goal
        # @param counted [Numeric] since it began
        # @return [Hash] value, from, to, share (0 to 1), reached; title, passed milestones, and its face if it has one
        def of(piece, counted)
          from, to = piece.values_at("from", "to")
          value = value(piece, counted + piece["already"].to_i)
          way = (to - from).abs
          share = way.zero? ? 1.0 : ((value - from) / (to - from).to_f).clamp(0.0, 1.0)
          dressed(piece, {value:, from:, to:, share: share.round(4), reached: share >= 1.0}, piece["milestones"].to_s)
        end

        # @param card [Hash] value, to, share, reached
        # @return [Hash] with its title, how many milestones are passed, and its face
        def dressed(piece, card, milestones)
          passed = milestones(milestones).count { |milestone| card[:share] * 100 >= milestone }
          card.merge(title: title(piece["title"].to_s, card), passed:, face: face(piece, passed, card[:reached])).compact
        end

        def value(piece, done)
          return piece["from"] - done if piece["falls"]

          piece["since"] == EVER ? done : piece["from"] + done
        end
        private_class_method :value

        # What it has come to between two cards: the milestones it passed, and whether it is reached.
        #
        # @return [Array<Array(String, Integer)>] milestone and in hundredths which, or reached
        def come_to(piece, before, after)
          passed = milestones(piece["milestones"].to_s).first(after[:passed]).drop(before[:passed]).map { |milestone| ["milestone", milestone] }
          after[:reached] && !before[:reached] ? passed.push(["reached", nil]) : passed
        end

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
