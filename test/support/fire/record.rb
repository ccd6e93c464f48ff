# frozen_string_literal: true

module Fire
  # What was done, and when: by those who write, by those who take away, and by whoever sets fire. From several threads.
  class Record
    # from_ms, to_ms:: Unix milliseconds; whom:: :all, or the screen alone that it touches
    Fault = Struct.new(:kind, :whom, :from_ms, :to_ms)

    attr_reader :said, :taken, :faults

    def initialize
      @said = {}
      @taken = {}
      @faults = []
      @lock = Mutex.new
    end

    # @return [String] words that nobody said yet
    def words(where) = @lock.synchronize { "#{where} #{@said.size} and on we go".tap { |text| @said[text] = now_ms } }

    # A line was taken away, and whoever did it was told so.
    def take(text) = @lock.synchronize { @taken[text] ||= now_ms }

    # @yield while it lasts
    def fault(kind, whom = :all)
      from_ms = now_ms
      yield
    ensure
      @lock.synchronize { @faults << Fault.new(kind, whom, from_ms, now_ms) }
    end

    private

    def now_ms = Process.clock_gettime(Process::CLOCK_REALTIME, :float_millisecond)
  end
end
