# frozen_string_literal: true

module Bavard
  module Relay
    # By what a page tells whether something was long on its way: milliseconds since this process began, whatever the machine's clock is.
    module Since
      BEGAN_MS = Process.clock_gettime(Process::CLOCK_MONOTONIC, :millisecond)

      module_function

      # @return [Integer]
      def ms = Process.clock_gettime(Process::CLOCK_MONOTONIC, :millisecond) - BEGAN_MS
    end
  end
end
