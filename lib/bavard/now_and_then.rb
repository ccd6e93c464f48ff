# frozen_string_literal: true

require_relative "lasting"
require_relative "timer"

module Bavard
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
      @thread = Lasting.new(@name, told: method(:tell)) { @work.call(-> { !@ended.empty? }) until Timer.wait(@ended, @every_s) }.start
      self
    end

    def tell(error) = warn("#{@name}: beginning anew#{" after #{error.class}: #{error.message}" if error}")
    private :tell

    def stop
      @ended << true
      @thread&.join
    end
  end
end
