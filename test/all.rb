# frozen_string_literal: true

# Runs the test files it is given, or all of them.

if ENV["COVERAGE"] == "1"
  require "simplecov"
  SimpleCov.start do
    enable_coverage :branch
    add_filter %w[/test/ /demo/ /standins/]
    track_files "lib/bavard/{core,feeds,live,relay,store,web}/**/*.rb"
  end
end

files = ARGV.reject { |argument| argument.start_with?("-") }
files = Dir[File.join(__dir__, "**/*_test.rb")] if files.empty?
ARGV.select! { |argument| argument.start_with?("-") }
files.each { |file| require File.expand_path(file) }
