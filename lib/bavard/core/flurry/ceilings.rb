# frozen_string_literal: true

module Bavard
  module Core
    module Flurry
      # How many emotes may fly: for one person and in all within any minute, and at once.
      class Ceilings
        MINUTE_MS = 60_000
        # People that are remembered; of those that have not flown anything for a minute nothing is.
        MOST_PEOPLE = 20_000

        # @param per_person [Integer] a minute
        # @param per_minute [Integer] of all together
        # @param at_once [Integer] on the way at the same time
        def initialize(per_person:, per_minute:, at_once:)
          @per_person = per_person
          @per_minute = per_minute
          @at_once = at_once
          @times = []
          @people = {}
          @ends = []
        end

        # @return [Integer] how many are on their way
        def flying(now_ms)
          @ends.reject! { |ends_ms| ends_ms <= now_ms }
          @ends.size
        end

        # @return [Integer] how many of nobody's may still begin now
        def free(now_ms) = [@at_once - flying(now_ms), @per_minute - recent(@times, now_ms).size].min.clamp(0..)

        # @param person [Object, nil] nil: nobody's, as from a cue
        # @return [Symbol, nil] which ceiling is reached: :person, :minute or :at_once
        def full(person, now_ms)
          return :at_once if flying(now_ms) >= @at_once
          return :minute if recent(@times, now_ms).size >= @per_minute

          :person if person && recent(of(person, now_ms), now_ms).size >= @per_person
        end

        # One more flies.
        #
        # @param ends_ms [Integer] when it will be over
        def admit(person, now_ms, ends_ms)
          of(person, now_ms) << now_ms if person
          @times << now_ms
          @ends << ends_ms
        end

        private

        def of(person, now_ms)
          @people.delete_if { |_, times| recent(times, now_ms).empty? } if @people.size >= MOST_PEOPLE
          @people[person] ||= []
        end

        def recent(times, now_ms)
          times.shift while times.first && now_ms - times.first >= MINUTE_MS
          times
        end
      end
    end
  end
end
