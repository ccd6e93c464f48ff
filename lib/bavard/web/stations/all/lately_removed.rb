# frozen_string_literal: true

module Bavard
  module Web
    # What was taken away lately, for whoever wants it back: the newest few, while this process lives.
    class LatelyRemoved
      MOST = 100

      def initialize
        @removed = {}
        @lock = Mutex.new
      end

      # @param key [Array] of which show, and what
      def remember(key, what)
        @lock.synchronize do
          @removed[key] = what
          @removed.shift if @removed.size > MOST
        end
      end

      # @return [Object, nil] once
      def recall(key) = @lock.synchronize { @removed.delete(key) }
    end
  end
end
