# frozen_string_literal: true

module Bavard
  module Core
    module Voice
      # Which of a person's pictures is shown, by what they do. Keeps each for a least time, so that none only flashes.
      class Portrait
        STATES = %w[silent talking loud muted blink].freeze
        # Louder than that, and the picture for it is shown where there is one; quieter than the second, no longer.
        LOUD = 0.72
        LESS_LOUD = 0.55

        attr_reader :state

        def initialize
          @state = "silent"
        end

        # @param member [Room::Member]
        # @param pictures [Hash{String => Object}] by state: those there are
        # @param least_ms [Integer] for which a state stays at least
        # @return [String] one of STATES that is there, or "silent"
        def of(member, pictures, now_ms, least_ms:)
          wanted = wanted(member, pictures)
          return @state if wanted == @state
          return @state if @since_ms && now_ms - @since_ms < least_ms && pictures.key?(@state)

          @since_ms = now_ms
          @state = wanted
        end

        # @return [Integer, nil] when another may be shown
        def due_ms(least_ms) = @since_ms && (@since_ms + least_ms)

        private

        def wanted(member, pictures)
          return "muted" if (member.marked?(:muted) || member.marked?(:deafened)) && pictures.key?("muted")
          return "silent" unless member.talks? && pictures.key?("talking")

          loud?(member) && pictures.key?("loud") ? "loud" : "talking"
        end

        def loud?(member) = member.talking.loudness > (@state == "loud" ? LESS_LOUD : LOUD)
      end
    end
  end
end
