# frozen_string_literal: true

module Bavard
  module Fair
    # What waits for a few threads, by owner: owners in turn, so that a flood of one delays that one alone.
    class Queue
      # @param most_of_one [Integer] what one owner may have waiting
      # @param out_of_one [Integer] how many threads may be at work for one owner
      def initialize(most_of_one:, out_of_one:)
        @most_of_one = most_of_one
        @out_of_one = out_of_one
        @out = {}
        @lock = Mutex.new
        @came = ConditionVariable.new
        @waiting = {}
        @closed = false
      end

      # @return [Boolean] whether there was room for it
      def push(owner, item)
        @lock.synchronize do
          items = @waiting[owner]
          return false if @closed || items.to_a.size >= @most_of_one

          items ? items << item : @waiting[owner] = [item]
          @came.signal
          true
        end
      end

      # Waits for one, and gives it to the block; one after another, until it is closed.
      #
      # @yieldparam owner [Object]
      # @yieldparam item [Object]
      def each
        while (owner, item = pop)
          begin
            yield owner, item
          ensure
            back(owner)
          end
        end
      end

      # What waits is forgotten.
      def close
        @lock.synchronize do
          @closed = true
          @came.broadcast
        end
      end

      private

      def pop
        @lock.synchronize do
          @came.wait(@lock) until @closed || (owner = next_owner)
          return if @closed

          items = @waiting.delete(owner)
          item = items.shift
          @waiting[owner] = items unless items.empty?
          @out[owner] = @out.fetch(owner, 0) + 1
          [owner, item]
        end
      end

      def next_owner = @waiting.each_key.find { |owner| @out.fetch(owner, 0) < @out_of_one }

      def back(owner)
        @lock.synchronize do
          left = @out.delete(owner) - 1
          @out[owner] = left if left.positive?
          @came.signal
        end
      end
    end
  end
end
