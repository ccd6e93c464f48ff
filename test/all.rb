# frozen_string_literal: true

# Runs tests: all of them, those of some folders or files, or those that what is not committed yet can affect.
#   ruby test/all.rb [--changed] [--jobs 3] [--seed 1] [folder | file | -n /name/] …
# Several files run beside each other; one alone, or what Minitest is to choose from, runs here.

require_relative "../tools/suite/memory"
require_relative "../tools/suite/affected"
require_relative "../tools/suite/nursery"
require_relative "../tools/suite/runner"
require_relative "support/test_database"

# Nobody waits for what runs beside tests; what gives way to them would only be late.
ENV["BAVARD_NICE"] ||= "0"

options, rest = ARGV.partition { |argument| argument.start_with?("--") }
named, minitest = rest.partition { |argument| File.exist?(argument) || Dir.exist?(File.join(__dir__, argument)) }
lost = minitest.each_with_index.find { |argument, at| !argument.start_with?("-") && !(at.positive? && minitest[at - 1].start_with?("-")) }
abort "There is no test #{lost.first}." if lost
seed = ENV.fetch("SEED", rand(100_000)).to_i
jobs = ENV.fetch("JOBS", 3).to_i

files = named.flat_map do |name|
  # "ops" is the folder of tests, not that of what they try.
  folder = File.join(__dir__, name).then { |ours| File.directory?(ours) ? ours : name }
  File.file?(name) ? [name] : Dir[File.join(folder, "**/*_test.rb")]
end
files = Dir[File.join(__dir__, "*/**/*_test.rb")].grep_v(%r{/support/}) if named.empty?
changed = options.delete("--changed")
files = Suite::Affected.new(File.expand_path("..", __dir__), Suite::Runner.times).of(files) if changed
files = files.map { |file| File.expand_path(file) }.uniq
if files.empty?
  warn "No test is affected."
  exit changed ? 0 : 1
end

if files.one? || minitest.any? || options.any?
  ARGV.replace(minitest + options)
  require "minitest/autorun"
  files.each { |file| require file }
else
  run = -> { Suite::Runner.new(files, seed:, jobs:).run }
  # The core knows neither a database nor an application.
  exit run.call if files.all? { |file| file.start_with?(File.join(__dir__, "core/")) }
  TestDatabase.serve
  begin
    fine = Suite::Nursery.there(&run)
  ensure
    TestDatabase.stop
  end
  exit fine
end
