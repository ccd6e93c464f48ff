# frozen_string_literal: true

require_relative "../error"

module Bavard
  module Fair
    # So many of something at the same time, so many of one owner; who finds no place is refused, and nobody waits.
    class Places
      # @param of_all [Integer]
      # @param of_one [Integer]
      def initialize(of_all:, of_one: 1)
        @of_all = of_all
        @of_one = of_one
        @lock = Mutex.new
        @taken = {}
      end

      # @return [Boolean] whether there was one
      def take?(owner)
        @lock.synchronize do
          return false if @taken.fetch(owner, 0) >= @of_one || @taken.each_value.sum >= @of_all

          @taken[owner] = @taken.fetch(owner, 0) + 1
          true
        end
      end

      def leave(owner)
        @lock.synchronize do
          left = @taken.delete(owner).to_i - 1
          @taken[owner] = left if left.positive?
        end
      end
    end
  end
end
