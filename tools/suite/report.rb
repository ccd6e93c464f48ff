# frozen_string_literal: true

module Suite
  # What became of one test, in plain words and numbers: what a failure carries may not go from process to process.
  #
  # problems:: of each failure its kind, place, message and, of an error, where it came from
  Outcome = Struct.new(:name, :code, :seconds, :assertions, :problems) do
    # @param result [Minitest::Result]
    def self.of(result)
      problems = result.failures.map do |failure|
        [failure.result_label, failure.location, failure.message.to_s, failure.is_a?(Minitest::UnexpectedError) ? failure.backtrace.first(12) : []]
      end
      new("#{result.klass}##{result.name}", result.result_code, result.time, result.assertions, problems)
    end

    def passed? = code == "."
    def skipped? = code == "S"
    def error? = code == "E"
  end

  # What is said of a run: each failure, the ten slowest tests, the time by folder, and one closing line.
  class Report
    SLOWEST = 10

    def initialize
      @results = []
      @folders = Hash.new { |folders, name| folders[name] = [] }
      @broken = []
      @out = $stdout
    end

    def begin(seed, files, jobs)
      @began_s = now_s
      @out.puts "#{files} files in #{jobs} #{jobs == 1 ? "process" : "processes"}, --seed #{seed}"
    end

    # @param outcome [Outcome]
    def outcome(outcome, folder)
      @results << outcome
      @folders[folder] << outcome
      @out.print(outcome.code)
      tell(outcome) unless outcome.passed? || outcome.skipped?
      broken(outcome.name, "nothing is asserted in it") if outcome.passed? && outcome.assertions.zero?
      @out.flush
    end

    # @param what [String] a file or a test of which there is no result
    def broken(what, words)
      @broken << what
      @out.puts "\n\n#{what}: #{words}"
    end

    # @return [Boolean] whether all went well
    def finish
      slowest
      by_folder
      bad = @results.reject { |one| one.passed? || one.skipped? }
      @out.puts "\nFailed: #{(bad.map(&:name) + @broken).join(", ")}" if bad.any? || @broken.any?
      close(bad)
      bad.empty? && @broken.empty? && @results.any?
    end

    private

    def slowest
      @out.puts "\n\nThe slowest:"
      @results.max_by(SLOWEST, &:seconds).each { |one| @out.puts format("%7.2f s  %s", one.seconds, one.name) }
    end

    def by_folder
      @out.puts "\nBy folder:"
      @folders.sort_by { |_, all| -all.sum(&:seconds) }
        .each { |folder, all| @out.puts format("%7.1f s  %-10s %d tests", all.sum(&:seconds), folder, all.size) }
    end

    def close(bad)
      errors = bad.count(&:error?) + @broken.size
      @out.puts format("\nFinished in %.1f s.\n\n%d runs, %d assertions, %d failures, %d errors, %d skips", now_s - @began_s, @results.size,
        @results.sum(&:assertions), bad.count { |one| !one.error? }, errors, @results.count(&:skipped?))
    end

    def tell(outcome)
      outcome.problems.each do |label, location, message, backtrace|
        @out.puts("\n\n#{label}:\n#{outcome.name} [#{location}]:\n#{message}", *backtrace.map { |line| "    #{line}" })
      end
    end

    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
