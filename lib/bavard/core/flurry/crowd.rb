# frozen_string_literal: true

module Bavard
  module Core
    module Flurry
      # The same emote from many people within seconds: from so many on it flies as one, grows, and is counted.
      class Crowd
        # However many there are, it grows no larger.
        LARGEST = 2.6
        MOST_CODES = 500

        # @param within_ms [Integer] 0: never
        # @param from [Integer] people
        def initialize(within_ms:, from:)
          @within_ms = within_ms
          @from = from
          @senders = {}
        end

        # @param code [String] the emote's word
        # @param person [Object]
        # @return [Integer, nil] how many people sent it by now, once they are a crowd
        def admit(code, person, now_ms)
          return if @within_ms.zero? || person.nil?

          senders = @senders.delete(code) || {}
          senders.delete_if { |_, at_ms| now_ms - at_ms > @within_ms }
          senders[person] = now_ms
          @senders[code] = senders
          @senders.shift if @senders.size > MOST_CODES
          senders.size if senders.size >= @from
        end

        # @param count [Integer] people
        # @return [Float] how much larger it is
        def scale(count) = [1.3 + (0.35 * Math.log2([count.fdiv(@from), 1.0].max)), LARGEST].min.round(2)
      end
    end
  end
end
