# frozen_string_literal: true

require_relative "../look/motion"
require_relative "cue"

module Bavard
  module Core
    module Cues
      # A cue as a score: when each of its parts begins and ends, from the moment at which the cue begins to play.
      #
      #   Score.rows(cue, sound_ms: 1800)   # => [Row "words" 0 to 6000 ms, Row "sound" 400 to 2200 ms …]
      module Score
        # ends_ms:: nil where nobody knows beforehand
        Row = Struct.new(:part, :begins_ms, :ends_ms)
        # What can be moved: begins and ends by properties of these names.
        SHOWN = %w[picture words message].freeze
        # What is shown for less is not seen.
        LEAST_MS = 100
        # So long emotes that a cue lets go are on their way, about.
        FLOWN_MS = 4000

        module_function

        # @param cue [Hash]
        # @param sound_ms [Integer, nil] how long its sound is
        # @return [Array<Row>] of the parts it has, in the order of the sheet
        def rows(cue, sound_ms: nil)
          shown = SHOWN.select { |part| has?(cue, part) }.map { |part| Row.new(part, *span(cue, part)) }
          [*shown, *heard(cue, sound_ms), *flown(cue), *added(cue)]
        end

        # @return [Hash{String => Array(Integer, Integer)}] begin and end in milliseconds of parts that do not stand as long as the cue
        def times(cue)
          SHOWN.select { |part| has?(cue, part) }.to_h { |part| [part, span(cue, part)] }.reject { |_, span| span == [0, length_ms(cue)] }
        end

        # @return [Integer]
        def length_ms(cue) = (cue["length_s"] * 1000).round

        # @return [Integer] how long after the cue's beginning
        def after_ms(cue, part) = (cue["#{part}_begins_s"] * 1000).round.clamp(0, length_ms(cue) - LEAST_MS)

        # @return [Hash] how it moves and is set where that is otherwise than its piece has it: in, out, held, u (by which parts its words
        #   come, whether they wave), y (its type)
        def moved(cue)
          {in: (Look::Motion.keyframes(cue["motion_in"]) unless cue["motion_in"] == Cue::AS_PIECE),
           out: (Look::Motion.way_out(cue["motion_out"]) unless cue["motion_out"] == Cue::AS_PIECE),
           held: (cue["held"] unless cue["held"] == "still"), u: letters(cue), y: OwnType.css(cue)}.compact
        end

        def letters(cue)
          by = cue["words_in"] unless cue["words_in"] == "whole"
          {by:, wave: (1 if cue["words_wave"])}.compact.then { |moved| moved if moved.any? }
        end

        def has?(cue, part)
          case part
          when "picture" then cue["picture"] || cue["film"]
          when "message" then cue["message"]
          else true
          end
        end

        def span(cue, part)
          begins = after_ms(cue, part)
          ends = (cue["#{part}_ends_s"] * 1000).round
          [begins, ends.zero? ? length_ms(cue) : ends.clamp(begins + LEAST_MS, length_ms(cue))]
        end

        # What is read aloud begins once the sound is over.
        def heard(cue, sound_ms)
          begins = after_ms(cue, "sound")
          over = cue["sound"] && sound_ms ? begins + sound_ms : begins
          [(Row.new("sound", begins, sound_ms && over) if cue["sound"]), (Row.new("aloud", over, nil) if Spoken.any?(cue))].compact
        end

        def flown(cue)
          begins = after_ms(cue, "flurry")
          cue["flurry_count"].positive? ? [Row.new("flurry", begins, begins + FLOWN_MS)] : []
        end

        def added(cue) = Cue.adds(cue) ? [Row.new("adds", 0, LEAST_MS)] : []

        private_class_method :has?, :span, :letters, :heard, :flown, :added
      end
    end
  end
end
