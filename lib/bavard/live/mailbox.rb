# frozen_string_literal: true

module Bavard
  module Live
    # A queue whose reader can wait until a given moment. (Ruby 3.1's Queue#pop takes no timeout.)
    class Mailbox
      # @param most [Integer] items kept; a sender waits for room beyond it, so that a flood slows its own socket only
      def initialize(most: 10_000)
        @most = most
        @lock = Mutex.new
        @filled = ConditionVariable.new
        @emptied = ConditionVariable.new
        @items = []
      end

      # @return [Boolean] whether a sender would have to wait
      def full?
        @lock.synchronize { @items.size >= @most }
      end

      def put(item)
        @lock.synchronize do
          @emptied.wait(@lock) while @items.size >= @most && !@closed
          @items << item
          @filled.signal
        end
      end

      # Puts at once, room or not: for senders that may not wait, such as the relay's loop.
      def drop_in(item)
        @lock.synchronize do
          @items << item
          @filled.signal
        end
      end

      # Lets every sender through, from now on.
      def close
        @lock.synchronize do
          @closed = true
          @emptied.broadcast
        end
      end

      # @param seconds [Float, nil] how long to wait for the first; nil: for ever
      # @return [Array] all that is there, perhaps nothing
      def take(seconds)
        @lock.synchronize do
          @filled.wait(@lock, seconds) if @items.empty? && (seconds.nil? || seconds.positive?)
          taken = @items
          @items = []
          @emptied.broadcast
          taken
        end
      end
    end
  end
end
