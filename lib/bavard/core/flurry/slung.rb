# frozen_string_literal: true

module Bavard
  module Core
    module Flurry
      # What is slung from a place, slowed by the air and drawn down by gravity. Where it is at a moment is worked out from that
      # moment alone.
      #
      #   Slung.new(0, 0, 100, -50, 200, 4.0).at(0.5)   # => [88.1, 14.7]
      #
      # x, y:: where from; dx, dy:: how far its own speed carries it in the end; fall:: how far gravity draws it besides; drag:: how
      # often its speed is divided by e until its time is over
      Slung = Struct.new(:x, :y, :dx, :dy, :fall, :drag) do
        # @param share [Float] 0 to 1 of its time
        # @return [Array(Float, Float)]
        def at(share)
          own = slowed(share)
          [x + (dx * own), y + (dy * own) + (fall * fallen(share))]
        end

        # @return [Float] of what its own speed carries it
        def slowed(share) = (1 - Math.exp(-drag * share)) / (1 - Math.exp(-drag))

        # @return [Float] of what gravity draws it
        def fallen(share) = ((drag * share) - 1 + Math.exp(-drag * share)) / (drag - 1 + Math.exp(-drag))
      end
    end
  end
end
