# frozen_string_literal: true

module Bavard
  module Core
    module Gate
      # Which stretches of a text are taken: asked often, answered without going through all of them.
      class Covered
        # @param stretches [Array<#from, #to>] in code points, in any order, also over each other
        def initialize(stretches)
          sorted = stretches.sort_by(&:from)
          @begins = sorted.map(&:from)
          # How far those that have begun by then reach.
          reached = 0
          @reach = sorted.map { |stretch| reached = [reached, stretch.to].max }
        end

        # @return [Boolean] whether some of them lie between the two
        def any?(from, to)
          begun = @begins.bsearch_index { |begins| begins >= to } || @begins.size
          begun.positive? && @reach[begun - 1] > from
        end
      end
    end
  end
end
