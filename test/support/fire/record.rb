# frozen_string_literal: true

require_relative "../elsewhen"

module Fire
  # What was done, and when: by those who write, by those who take away, and by whoever sets fire. From several threads.
  class Record
    # from_ms, to_ms:: Unix milliseconds; whom:: :all, or the screens alone that it touches
    Fault = Struct.new(:kind, :whom, :from_ms, :to_ms)
    # ms:: of the hold that somebody set; outcome:: :done, :refused, or :unknown where nothing was answered
    Edit = Struct.new(:ms, :outcome)
    # from_ms:: when it was answered as on; to_ms:: when it was about to be lifted
    Brake = Struct.new(:from_ms, :to_ms)

    attr_reader :said, :taken, :faults, :edits, :brakes, :ways

    def initialize
      @said = {}
      @taken = {}
      @faults = []
      @edits = []
      @brakes = []
      @ways = Hash.new(0)
      @lock = Mutex.new
    end

    # @return [String] words that nobody said yet
    def words(where) = @lock.synchronize { "#{where} #{@said.size} and on we go".tap { |text| @said[text] = now_ms } }

    # A line was taken away, and whoever did it was told so.
    #
    # @param way [Symbol] :deleted or :pulled
    def take(text, way)
      @lock.synchronize do
        @ways[way] += 1
        @taken[text] ||= now_ms
      end
    end

    def edit(ms, outcome) = @lock.synchronize { @edits << Edit.new(ms, outcome) }
    def brake(from_ms, to_ms) = @lock.synchronize { @brakes << Brake.new(from_ms, to_ms) }

    # @yield while it lasts
    def fault(kind, whom = :all)
      from_ms = now_ms
      yield
    ensure
      @lock.synchronize { @faults << Fault.new(kind, whom, from_ms, now_ms) }
    end

    # By the clock of a browser, wherever this is.
    def now_ms = Process.clock_gettime(Process::CLOCK_REALTIME, :float_millisecond) - (Elsewhen::BY_S.to_i * 1000)
  end
end
