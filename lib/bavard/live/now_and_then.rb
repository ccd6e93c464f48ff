# frozen_string_literal: true

require_relative "timer"

module Bavard
  module Live
    # Does something every so many seconds, in a thread of its own, until it is stopped.
    #
    #   NowAndThen.new("sweeper", 600) { sweep }.start
    class NowAndThen
      # @param name [String] of the thread
      # @param every_s [Numeric]
      # @yieldparam ended [#call] whether it is to stop, for work that takes long
      def initialize(name, every_s, &work)
        @name = name
        @every_s = every_s
        @work = work
        @ended = Queue.new
      end

      def start
        @thread = Thread.new { @work.call(-> { !@ended.empty? }) until Timer.wait(@ended, @every_s) }
        @thread.name = @name
        self
      end

      def stop
        @ended << true
        @thread&.join
      end
    end
  end
end
