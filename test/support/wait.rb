# frozen_string_literal: true

# Waits for a condition, never for a time.
module Wait
  # Not how long something takes, but how long a machine may need for it of which others take most: ten times as long as alone was seen.
  LIMIT_S = Integer(ENV.fetch("PATIENCE", 150))
  # Seconds between two looks: the first, how much longer each next one, and the longest. Who looks all the time takes from whom it waits for.
  PAUSES_S = [0.005, 1.3, 0.1].freeze

  # @param what [String, #call] in words; called, it tells what there is in its place by then
  # @yield until it gives something true
  # @return what it gave
  def wait_for(what, limit_s: LIMIT_S)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + limit_s
    pause_s, longer, longest_s = PAUSES_S
    loop do
      found = yield
      return counted(found) if found
      if Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
        raise Minitest::Assertion, "waited #{limit_s} s for #{what.respond_to?(:call) ? what.call : what}"
      end

      Thread.pass
      IO.select(nil, nil, nil, pause_s)
      pause_s = [pause_s * longer, longest_s].min
    end
  end

  private

  # A condition that had to come true is an assertion.
  def counted(found)
    self.assertions += 1 if respond_to?(:assertions=)
    found
  end
end
