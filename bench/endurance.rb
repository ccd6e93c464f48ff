# frozen_string_literal: true

require_relative "scene"

module Bench
  # Memory over very many lines of very many people, as fast as they are read: what a broadcast of weeks would bring. The gate is as it is
  # for a new host, and remembers what each of them said.
  class Endurance
    LINES = Integer(ENV.fetch("BENCH_ENDURANCE_LINES", "4000000"))
    WRITERS = 10_000
    SAMPLES = 40
    AT_ONCE = 200
    # No more than so many that are read and not yet in the log.
    AHEAD = 20_000
    WORDS = %w[marsh heron teal wren reed dawn net ring bird mud tide salt gull egret snipe knot].freeze

    # settled_mb:: the least from a quarter on; most_mb:: the most from there on
    def run
      @scene = Scene.new(at_most: 30)
      Bavard::Store::Shows.new(TestDatabase.db).then { |shows| shows.keep_gate(show_id, Bavard::Core::Gate::Settings::DEFAULT) }
      @scene.app.stop
      @scene.app.start
      @random = Random.new(1)
      samples = Array.new(SAMPLES) { |number| sample(number + 1) }
      later = samples.drop(SAMPLES / 4).map { |one| one[:mb] }
      {lines: logged, writers: WRITERS, settled_mb: later.min, most_mb: later.max, at_first_mb: samples.first[:mb], last_mb: samples.last[:mb],
       per_s: samples.last[:per_s], samples: samples.map(&:values)}
    ensure
      @scene&.stop
    end

    private

    def show_id = TestDatabase.db[:shows].get(:id)

    def sample(number)
      began_s = now_s
      upto = LINES / SAMPLES * number
      say_at_once until (@said ||= 0) >= upto
      wait_for_log(upto - AHEAD)
      {lines: @said, mb: memory_mb, per_s: (LINES / SAMPLES / (now_s - began_s)).round}.tap { |one| warn one.inspect }
    end

    # The server's line takes no more than the application reads; the log is not left behind either.
    def say_at_once
      AT_ONCE.times do
        @said += 1
        name = "writer#{@random.rand(WRITERS)}"
        @scene.typist.pass_on("@msgid=e#{@said} :#{name}!a@b PRIVMSG #dawn :#{Array.new(5) { WORDS.sample(random: @random) }.join(" ")} #{@said}")
      end
      wait_for_log(@said - AHEAD) if (@said % AHEAD).zero?
    end

    def wait_for_log(lines)
      sleep 0.2 until logged >= lines
    end

    # Counting millions takes longer than what is measured: no more than what came since the last look.
    def logged
      @counted ||= [0, 0]
      since, count = @counted
      last, more = TestDatabase.db[:lines].where { id > since }.get([Sequel.function(:max, :id).as(:last), Sequel.function(:count).*.as(:more)])
      @counted = [last || since, count + more]
      @counted.last
    end

    def memory_mb = File.read("/proc/#{@scene.app.pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024
    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
