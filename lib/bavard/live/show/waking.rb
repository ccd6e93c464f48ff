# frozen_string_literal: true

module Bavard
  module Live
    # Whose turn it is to wake a show: one thread's at a time for each, and those that begin by themselves give way to those that somebody
    # waits for.
    class Waking
      LOOK_EVERY_S = 0.05
      # turn:: a Mutex; threads:: how many have it or wait for it
      Turn = Struct.new(:turn, :threads)

      def initialize
        @lock = Mutex.new
        @turns = {}
        @waited_for = 0
      end

      # Runs the block while no other thread wakes this show or puts it to sleep.
      #
      # @param patient [Boolean] whether nobody waits for it
      def one_by_one(id, patient:, &block)
        come(id, patient).synchronize(&block)
      ensure
        go(id, patient)
      end

      # Waits until nobody waits for any.
      def give_way
        sleep LOOK_EVERY_S while @lock.synchronize { @waited_for.positive? }
      end

      private

      def come(id, patient)
        @lock.synchronize do
          @waited_for += 1 unless patient
          (@turns[id] ||= Turn.new(Mutex.new, 0)).tap { |held| held.threads += 1 }.turn
        end
      end

      def go(id, patient)
        @lock.synchronize do
          @waited_for -= 1 unless patient
          @turns.delete(id) if (@turns[id].threads -= 1).zero?
        end
      end
    end
  end
end
