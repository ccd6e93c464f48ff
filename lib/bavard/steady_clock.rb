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
    # Goes on while the machine sleeps, and is the same for all its processes.
    UPTIME = -> { Process.clock_gettime(Process::CLOCK_BOOTTIME, :millisecond) }
    BOOT = "/proc/sys/kernel/random/boot_id"

    # @param wall [#call] milliseconds of the machine's clock
    # @param steady [#call] milliseconds since whenever
    # @param uptime [#call] milliseconds since the machine began
    # @param boot [String, nil] which of its beginnings that was; nil where nobody knows
    def initialize(wall: WALL, steady: STEADY, uptime: UPTIME, boot: File.exist?(BOOT) ? File.read(BOOT).strip : nil)
      @wall = wall
      @steady = steady
      @uptime = uptime
      @boot = boot
      @lock = Mutex.new
      @seen = steady.call
      @at = wall.call
    end

    # @return [Integer] never less than before
    def call = @lock.synchronize { go_on.floor }

    # @return [Integer] milliseconds by which the machine's clock is ahead, or behind where negative
    def offset_ms = @lock.synchronize { (@wall.call - go_on).round }

    # By which a later process knows how far the machine's clock was set meanwhile.
    #
    # @return [Hash{String => Object}, nil] the machine's "boot", and how far this clock is "ahead_ms" of the time since then
    def mark = @boot && {"boot" => @boot, "ahead_ms" => ahead_ms}

    # @param mark [Hash, nil] of an earlier process
    # @return [Integer] milliseconds by which this clock is ahead of that one; 0 where nobody can tell, as on another machine
    def ahead_of(mark) = mark && mark["boot"] == @boot ? ahead_ms - mark["ahead_ms"] : 0

    private

    def ahead_ms = call - @uptime.call

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
