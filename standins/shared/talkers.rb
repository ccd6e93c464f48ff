# frozen_string_literal: true

module StandIns
  # The demo's viewers, talking by themselves at a set pace.
  class Talkers
    # What is missed by more than this is not made up for.
    LATE_S = 1.0

    attr_accessor :per_minute

    # @param room [#say]
    # @param chatter [Array<Array(String, String)>] login and text
    def initialize(room, chatter, per_minute:)
      @room = room
      @chatter = chatter
      @per_minute = per_minute
      @next = 0
    end

    def start
      Thread.new { run }
    end

    private

    # A little uneven, as people are, but at the pace that is set.
    def run
      due = now
      loop do
        next due = rest unless per_minute.positive? && @room.live

        @room.say(*@chatter[@next % @chatter.size])
        @next += 1
        due = [due + (60.0 / per_minute * (0.6 + (rand * 0.8))), now - LATE_S].max
        sleep([due - now, 0].max)
      end
    end

    # @return [Float] when it is over
    def rest
      sleep 0.5
      now
    end

    def now = ::Process.clock_gettime(::Process::CLOCK_MONOTONIC)
  end
end
