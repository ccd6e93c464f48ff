# frozen_string_literal: true

# Runs the test files it is given, or all of them; what is no file goes to Minitest.

if ENV["COVERAGE"] == "1"
  require "simplecov"
  SimpleCov.start do
    enable_coverage :branch
    add_filter %w[/test/ /demo/ /standins/]
    track_files "lib/bavard/{core,feeds,live,relay,store,web}/**/*.rb"
  end
end

files = ARGV.grep(/_test\.rb\z/)
ARGV.reject! { |argument| files.include?(argument) }
files = Dir[File.join(__dir__, "**/*_test.rb")] if files.empty?
files.each { |file| require File.expand_path(file) }
