# frozen_string_literal: true

module Bench
  # Time of the processor alone, so that others on the machine count less.
  module Cpu
    private

    # @return [Float] seconds of this thread
    def cpu
      from = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)
      yield
      Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID) - from
    end
  end
end
