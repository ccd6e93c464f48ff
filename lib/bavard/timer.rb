# frozen_string_literal: true

require "timeout"

module Bavard
  # Waiting with an end.
  module Timer
    module_function

    # @return [Object, nil] what came, nil where nothing did
    def wait(queue, seconds)
      pop(queue, seconds) { nil }
    end

    # @param queue [Queue]
    # @yield when nothing came in time
    # @return what came
    def pop(queue, seconds)
      Timeout.timeout(seconds) { queue.pop }
    rescue Timeout::Error
      yield
    end
  end
end
