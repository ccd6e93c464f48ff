# frozen_string_literal: true

module Bavard
  # Unix time that never jumps: it goes as fast as time does, whatever becomes of the machine's clock. Where that is set, this one follows
  # by one part in a hundred, so that what waits and what lasts is as long as it was promised to be.
  #
  #   clock = SteadyClock.new
  #   clock.call   # => milliseconds
  class SteadyClock
    # So many milliseconds pass for each that it is brought nearer.
    SLEW = 100
    WALL = -> { Process.clock_gettime(Process::CLOCK_REALTIME, :float_millisecond) }
    STEADY = -> { Process.clock_gettime(Process::CLOCK_MONOTONIC, :float_millisecond) }

    # @param wall [#call] milliseconds of the machine's clock
    # @param steady [#call] milliseconds since whenever
    def initialize(wall: WALL, steady: STEADY)
      @wall = wall
      @steady = steady
      @lock = Mutex.new
      @seen = steady.call
      @at = wall.call
    end

    # @return [Integer] never less than before
    def call = @lock.synchronize { go_on.floor }

    # @return [Integer] milliseconds by which the machine's clock is ahead, or behind where negative
    def offset_ms = @lock.synchronize { (@wall.call - go_on).round }

    private

    def go_on
      seen = @steady.call
      passed = seen - @seen
      @seen = seen
      most = passed / SLEW
      @at += passed
      @at += (@wall.call - @at).clamp(-most, most)
    end
  end
end
