# frozen_string_literal: true

require_relative "words"

module Bavard
  module Core
    module Pieces
      # The time of day, a countdown to a time or for a length, or a stopwatch.
      module ClockPiece
        extend WordsPiece

        KEY = "clock"
        LABEL = "Clock"
        ICON = "clock"
        DAY_MS = 86_400_000
        TIME = /\A([01]?\d|2[0-3])[:.]([0-5]\d)\z/

        CONTENT = [
          Fields::Property.choice("clock", "clock shows", %w[time until length stopwatch], "time"),
          Fields::Property.text("until", "until", 5, "06:00"),
          Fields::Property.number("minutes", "minutes", 0..1440, 5, unit: "min", digits: 2),
          Fields::Property.choice("clock_form", "time written", %w[minutes seconds], "minutes"),
          Fields::Property.text("before", "words before", 60),
          Fields::Property.text("after", "words once it is over", 60)
        ].freeze
        LOOK = WordsPiece::LOOK
        FORMED = WordsPiece::FORMED
        OWN = (CONTENT + LOOK + WordsPiece::FORMS).freeze
        # Kinds of clock that are started and stopped by hand.
        RUN = %w[length stopwatch].freeze

        module_function

        # What the page counts from, so that it needs no clock of its own.
        #
        # @param piece [Hash]
        # @param time_of_day_ms [Integer] ours, since midnight where the host is
        # @param ran_ms [Integer] how long it has run by now
        # @param running [Boolean]
        # @return [Hash] value_ms now, and whether it goes :up or :down, or stands
        def state(piece, time_of_day_ms:, ran_ms:, running:)
          case piece["clock"]
          when "time" then {value_ms: time_of_day_ms, goes: :up}
          when "until" then {value_ms: (until_ms(piece) - time_of_day_ms) % DAY_MS, goes: :down}
          when "length" then {value_ms: [(piece["minutes"] * 60_000).round - ran_ms, 0].max, goes: running ? :down : :stands}
          else {value_ms: ran_ms, goes: running ? :up : :stands}
          end
        end

        def until_ms(piece)
          match = TIME.match(piece["until"])
          match ? ((match[1].to_i * 60) + match[2].to_i) * 60_000 : 0
        end
        private_class_method :until_ms
      end
    end
  end
end
