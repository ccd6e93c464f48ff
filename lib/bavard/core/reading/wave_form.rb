# frozen_string_literal: true

module Bavard
  module Core
    module Reading
      # A sound drawn small: how far it reaches at each of a few places, in hundredths of the loudest there can be.
      module WaveForm
        PLACES = 96
        LOUDEST = 32_768.0

        module_function

        # @param samples [String] signed, 16 bit, little endian, one channel
        # @return [Array<Integer>] 0 to 100; none for no samples
        def of(samples, places: PLACES)
          values = samples.unpack("s<*")
          return [] if values.empty?

          step = values.size.fdiv([places, values.size].min)
          Array.new([places, values.size].min) do |place|
            part = values[(place * step).floor...[((place + 1) * step).ceil, values.size].min]
            (part.map(&:abs).max * 100 / LOUDEST).round
          end
        end
      end
    end
  end
end
