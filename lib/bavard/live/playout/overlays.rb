# frozen_string_literal: true

require_relative "../../core/contrast/name_colour"
require_relative "../lines/line_card"

module Bavard
  module Live
    # What stands on a playout besides its lines, for a while: the line that is being answered, what plays of the cue sheet, a
    # fellow host's card. Belongs to the thread of its show.
    class Overlays
      # What a large line stands on, where the show's style names no ground.
      LARGE_GROUND = "#10151a"
      NOTHING = {}.freeze
      NONE = -> { {large: nil, alert: nil, shout: nil} }

      # @param shared [Playout::Shared]
      # @param clock [#call, nil] Unix milliseconds
      def initialize(shared, clock)
        @shared = shared
        @clock = clock
        @new = {}
      end

      # @param line [Core::Chat::Line, nil] that stands large
      def large=(line)
        @large = line
        @new[:large] = true
      end

      # @param card [Hash, nil] what plays of the cue sheet, as CueDesk#card gives it
      def alert=(card)
        @pulled = card[:off] if card&.key?(:off)
        @alert = (card.except(:off) if card&.key?(:i))
        @new[:alert] = true
      end

      # @param card [Hash, nil] of a fellow host
      def shout=(card)
        @shout = card
        @new[:shout] = true
      end

      def changed? = @new.any?

      # What of it is new to the page.
      #
      # @param house [Hash] the show's style
      # @return [Hash] large, alert and shout
      def changes(house)
        return NOTHING if @new.empty?

        told = {large: -> { large_card(house) }, alert: method(:alert_told), shout: -> { @shout }}
        told.slice(*@new.keys).transform_values(&:call).tap { @new = {} }
      end

      # @return [Proc] that gives what stands there now, with what is left of its time, whenever a screen asks for it
      def for_frame(house)
        return NONE unless @large || @alert || @shout

        large = large_card(house)
        alert = @alert
        shout = @shout
        -> { {large:, alert: running(alert), shout: running(shout)} }
      end

      private

      # What was pulled goes at once, also where the next begins already.
      def alert_told
        pulled = @pulled
        @pulled = nil
        pulled ? {off: pulled, **@alert.to_h} : @alert
      end

      def large_card(house)
        return unless @large

        ground = house&.dig("colours", "ground", "value") || LARGE_GROUND
        LineCard.of(@large, Core::Contrast::NameColour.on(ground).for(@large.person.key, @large.person.colour), @shared.marks.call(@large),
          @shared.wardrobe&.call)
      end

      def running(card) = card && @clock ? card.merge(left: [card[:at] + card[:ms] - @clock.call, 0].max) : card
    end
  end
end
