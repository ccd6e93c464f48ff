# frozen_string_literal: true

require "fileutils"
require "io/wait"
require "open3"
require "optparse"
require_relative "../suite/memory"
require_relative "../../test/support/test_database"
require_relative "mutants"
require_relative "trial"

module Mutation
  # What bin/mutate does.
  class Run
    ROOT = File.expand_path("../..", __dir__)
    LIB = File.join(ROOT, "lib/bavard/")
    PARTS = %w[core live relay].freeze
    # Those that survived the last time, one a line, as they are found.
    SURVIVORS = File.join(ROOT, "tmp/survivors.txt")
    LIVED = %i[survived unseen].freeze
    # How often it says how far it is.
    EVERY = 100
    # Which tests are asked about which part.
    TESTS = {"core" => %w[core property], "live" => %w[live property], "relay" => %w[relay property]}.freeze

    def initialize(arguments)
      @base = "HEAD"
      OptionParser.new do |options|
        options.on("--base REV") { |rev| @base = rev }
        options.on("--sample N", Integer) { |count| @sample = count }
        options.on("--again") { @again = true }
      end.parse!(arguments)
      @places = arguments
      @jobs = ENV.fetch("JOBS", 2).to_i
      @random = Random.new(ENV.fetch("SEED", 1).to_i)
    end

    # @return [Boolean] whether there was something to mutate and nothing went wrong
    def run
      mutants = chosen
      mutants = mutants.sample(@sample, random: @random) if @sample
      return puts("Nothing to mutate.") if mutants.empty?

      FileUtils.mkdir_p(File.dirname(SURVIVORS))
      File.write(SURVIVORS, "")
      TestDatabase.serve
      told = mutants.group_by { |mutant| mutant.file.split("/").first }.flat_map { |part, some| try(part, some) }
      report(told)
    ensure
      TestDatabase.stop
    end

    private

    def chosen
      return survivors if @again
      return touched if @places.empty?

      @places.flat_map { |place| mutants_in(files_of(place)) }
    end

    # Those that survived the last time and still can be made.
    def survivors
      known = File.readlines(SURVIVORS, chomp: true)
      files = known.map { |one| one[/\A[^:]+/] }.uniq.select { |name| there?(name) }
      mutants_in(files.map { |name| File.join(LIB, name) }).select { |one| known.include?(one.to_s) }
    end

    def files_of(place)
      path = File.join(LIB, place)
      File.file?(path) ? [path] : Dir[File.join(path, "**/*.rb")]
    end

    def mutants_in(files) = files.flat_map { |file| Mutants.new(file.delete_prefix(LIB), File.read(file)).all }

    # Lines that were added or changed.
    def touched
      said, = Open3.capture2("git", "-C", ROOT, "diff", "--unified=0", "--no-color", @base, "--", *PARTS.map { |part| "lib/bavard/#{part}" })
      lines = {}
      file = nil
      said.each_line do |line|
        file = line[%r{\A\+\+\+ b/lib/bavard/(.+)$}, 1] || file
        from, count = line.match(/\A@@ \S+ \+(\d+)(?:,(\d+))? @@/)&.captures
        (lines[file] ||= []).concat((from.to_i...(from.to_i + (count || 1).to_i)).to_a) if from
      end
      lines.flat_map { |name, numbers| there?(name) ? mutants_in([File.join(LIB, name)]).select { |one| numbers.include?(one.line) } : [] }
    end

    def there?(name) = File.exist?(File.join(LIB, name))

    # @return [Array(Mutant, Symbol)]
    def try(part, mutants)
      tests = TESTS.fetch(part).flat_map { |folder| Dir[File.join(ROOT, "test", folder, "**/*_test.rb")] }
      trial = Trial.new(tests, LIB)
      failed = trial.look
      abort "These fail without any mutant: #{failed&.join(", ") || "all"}" if failed.nil? || failed.any?
      share_out(trial, mutants)
    end

    def share_out(trial, mutants)
      @count = mutants.size
      left = Queue.new
      mutants.each { |mutant| left << mutant }
      left.close
      told = Queue.new
      Array.new(@jobs) { Thread.new { work(trial, left, told) } }.each(&:join)
      Array.new(told.size) { told.pop }
    end

    def work(trial, left, told)
      while (mutant = left.pop)
        what = trial.of(mutant)
        told << [mutant, what]
        File.write(SURVIVORS, "#{mutant}\n", mode: "a") if LIVED.include?(what)
        warn "#{told.size} of #{@count}" if (told.size % EVERY).zero?
      end
    end

    def report(told)
      not_tried, told = told.partition { |_, what| what == :at_load }
      survived = told.select { |_, what| LIVED.include?(what) }
      survived.sort_by { |mutant, _| [mutant.file, mutant.line] }
        .each { |mutant, what| puts "#{what == :unseen ? "unseen  " : "survived"}  #{mutant}" }
      puts "", by_folder(told), ""
      puts format("%d mutants, %d survived (%.1f %%), %d of them in methods no test calls", told.size, survived.size,
        survived.size * 100.0 / [told.size, 1].max, survived.count { |_, what| what == :unseen })
      puts "#{not_tried.size} more are in methods that run only while files are loaded, where they cannot be tried." if not_tried.any?
      true
    end

    def by_folder(told)
      told.group_by { |mutant, _| File.dirname(mutant.file) }.sort.map do |folder, some|
        lived = some.count { |_, what| LIVED.include?(what) }
        format("%-24s %5d mutants  %4d survived  %5.1f %%", folder, some.size, lived, lived * 100.0 / some.size)
      end
    end
  end
end

exit(Mutation::Run.new(ARGV).run ? 0 : 1)
