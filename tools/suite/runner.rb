# frozen_string_literal: true

require "fileutils"
require "io/wait"
require "json"
require "minitest"
require_relative "descendants"
require_relative "report"
require_relative "worker"

module Suite
  # Runs files of tests beside each other, in as many processes as there is work for. What took long last time begins first, so
  # that no process waits for another at the end; otherwise the order is another one each time.
  class Runner
    # A test that takes longer than that hangs, even where others take most of the machine: its process says where, and is ended.
    LONGEST_TEST_S = 1800
    # What cannot even say where it is, is ended after that.
    TELLING_S = 5
    LOOK_S = 0.05
    TIMES = File.expand_path("../../tmp/test/times.json", __dir__)
    # Seconds that a file of these folders takes, where nothing is known yet.
    SLOW_S = {"ops" => 60, "start" => 30, "system" => 30, "fault" => 30}.freeze
    # A process with what it is at.
    Running = Struct.new(:pid, :input, :output, :file, :test, :since_s)

    # @return [Hash{String => Float}] seconds that each file took last
    def self.times = File.exist?(TIMES) ? JSON.parse(File.read(TIMES)) : {}

    # @param files [Array<String>] paths
    # @param jobs [Integer] processes
    def initialize(files, seed:, jobs:)
      @times = Runner.times
      @seed = seed
      @waiting = in_order(files)
      @jobs = [jobs, files.size].min
      @report = Report.new
      @running = []
    end

    # @return [Boolean] whether all went well
    def run
      @report.begin(@seed, @waiting.size, @jobs)
      @jobs.times { start }
      look until @running.empty?
      keep_times
      @report.finish
    ensure
      # Whoever ends this ends what it began.
      end_all(@running.map(&:pid))
    end

    private

    def in_order(files)
      files.shuffle(random: Random.new(@seed)).sort_by { |file| -(@times[name(file)] || SLOW_S.fetch(folder(file), 1)).clamp(5, nil) }
    end

    def name(file) = file[%r{test/.*\z}]
    def folder(file) = name(file).split("/")[1]

    def start
      theirs, input = IO.pipe
      output, answer = IO.pipe(binmode: true)
      ours = @running.flat_map { |one| [one.input, one.output] } + [input, output]
      pid = fork do
        ours.each(&:close)
        Worker.new(theirs, answer, seed: @seed).run
      end
      [theirs, answer].each(&:close)
      @running << Running.new(pid, input, output, nil, nil, now_s)
    end

    def look
      ready, = IO.select(@running.map(&:output), nil, nil, 1)
      Array(ready).each { |output| hear(@running.find { |one| one.output == output }) }
      @running.dup.each { |one| end_hanging(one) if one.test && now_s - one.since_s > LONGEST_TEST_S }
    end

    def hear(one)
      case Marshal.load(one.output) # rubocop:disable Security/MarshalLoad -- of our own process
      in [:ready] then give(one)
      in [:began, test]
        one.test = test
        one.since_s = now_s
      in [:ended, outcome]
        one.test = nil
        @report.outcome(outcome, folder(one.file))
      in [:broken, file, words] then @report.broken(name(file), words)
      in [:file, file, seconds]
        @times[name(file)] = seconds.round(2)
        give(one)
      end
    rescue EOFError
      gone(one)
    end

    def give(one)
      one.file = @waiting.shift
      one.file ? one.input.puts(one.file) : one.input.close
    rescue Errno::EPIPE
      nil
    end

    # A process ends when there is nothing left to do; any other end is a failure.
    def gone(one)
      @running.delete(one)
      [one.input, one.output].each(&:close)
      status = Process.wait2(one.pid).last
      return if one.file.nil? && status.success?

      @report.broken(one.test || (one.file && name(one.file)) || "the suite", "its process ended: #{status}")
      start if @waiting.any?
    end

    # They have a moment to end what they began by themselves.
    def end_all(pids)
      began = pids.flat_map { |pid| Descendants.of(pid) }
      pids.each { |pid| Process.kill("TERM", pid) }
      until_s = now_s + TELLING_S
      left = pids.dup
      sleep LOOK_S until left.reject! { |pid| Process.wait(pid, Process::WNOHANG) }.then { left.empty? } || now_s > until_s
      [*left, *began].each { |pid| Descendants.kill(pid) }
    end

    def end_hanging(one)
      warn "#{one.test} has been running for #{LONGEST_TEST_S} s. This is where:"
      began = Descendants.of(one.pid)
      Process.kill("QUIT", one.pid)
      one.output.wait_readable(TELLING_S)
      [one.pid, *began].each { |pid| Descendants.kill(pid) }
    end

    def keep_times
      FileUtils.mkdir_p(File.dirname(TIMES))
      File.write(TIMES, JSON.pretty_generate(@times.sort.to_h))
    end

    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
