# frozen_string_literal: true

require_relative "talking"

module Bavard
  module Core
    module Voice
      # Who talked from when to when, from the levels of a whole conversation.
      class Stretches
        Stretch = Struct.new(:person, :from_ms, :to_ms)

        def initialize(settings = Talking::STEADY)
          @settings = settings
          @talking = Hash.new { |all, person| all[person] = Talking.new(@settings) }
          @began = {}
        end

        # @param at_ms [Integer] growing
        # @param dbov [Numeric]
        # @return [Array<Stretch>] those that have ended
        def level(at_ms, person, dbov)
          ended = at_ms == @last_ms ? [] : advance(at_ms)
          talking = @talking[person]
          ended.concat(changes(person, talking)) if talking.level(at_ms, dbov)
          @last_ms = at_ms
          ended
        end

        # @return [Array<Stretch>] whoever still talked, as if nothing came any more
        def finish
          @last_ms ? advance(@last_ms + Talking::MISSING_MS + @settings.tail_ms + @settings.shortest_ms) : []
        end

        private

        def advance(at_ms) = @talking.flat_map { |person, talking| talking.advance(at_ms) ? changes(person, talking) : [] }

        def changes(person, talking)
          return (@began[person] = talking.since_ms) && [] if talking.on?

          [Stretch.new(person, @began.delete(person), talking.since_ms)]
        end
      end
    end
  end
end
