# frozen_string_literal: true

module Bavard
  # How long until the next try: hardly at all at first, then twice as long each time, and never for good.
  #
  #   pauses = Pauses.new(longest_s: 1)
  #   sleep pauses.next until there?
  class Pauses
    FIRST_S = 0.25

    def initialize(longest_s: 10)
      @longest_s = longest_s
      @failures = 0
    end

    # @return [Float] seconds
    def next
      [FIRST_S * (2**[@failures, 10].min), @longest_s].min.to_f.tap { @failures += 1 }
    end

    # It held: whatever comes next is a first failure.
    def over = @failures = 0
  end

  # Whether it is time to end, told by a signal as well.
  class Over
    def initialize
      @reader, @writer = IO.pipe
    end

    # Can be called from a trap, and more than once.
    def tell
      @writer.write_nonblock(".")
    rescue IO::WaitWritable
      nil
    end

    # @param seconds [Numeric, nil] nil: for as long as it takes
    # @return [Boolean] whether it is over
    def within?(seconds = nil) = !@reader.wait_readable(seconds).nil?
  end
end
