# frozen_string_literal: true

require "open3"
require_relative "../support/plain"

# What may rest on what.
class LoadsAloneTest < Minitest::Test
  LIB = File.expand_path("../../lib/bavard", __dir__)
  # What each part may require, besides itself.
  MAY = {
    "core" => %w[error], "outward" => %w[error], "feeds" => %w[error core lasting outward], "relay" => %w[error core lasting], "store" => %w[error core],
    "fair" => %w[error], "pictures" => %w[aside error fair outward], "media" => %w[aside error core], "copies" => %w[aside error core], "exports" => %w[error core store],
    "commands" => %w[error core start store],
    "live" => %w[aside error core fair feeds lasting pictures relay store],
    "web" => %w[aside error core copies fair exports feeds lasting media pictures relay store live], "start" => %w[error pauses store]
  }.freeze

  def test_the_core_loads_without_web_database_or_sockets
    script = <<~RUBY
      Dir["#{LIB}/core/**/*.rb"].sort.each { |file| require file }
      bad = %w[Sinatra Sequel PG Rack NIO Puma Socket TCPSocket].select { |name| Object.const_defined?(name) }
      abort "loaded: \#{bad.join(", ")}" unless bad.empty?
    RUBY
    said, status = Open3.capture2e("ruby", "-e", script)
    assert_predicate status, :success?, said
  end

  # Chance comes in as a Random with a seed.
  def test_the_core_asks_neither_for_the_time_nor_for_chance
    asking = Dir["#{LIB}/core/**/*.rb"].select { |file| File.read(file).match?(/Time\.now|Process\.clock_gettime|(?<!\.)\brand\b|Random\.(?:rand|new\b(?!\())/) }
    assert_empty asking
  end

  def test_no_require_points_against_the_flow
    against = Dir["#{LIB}/*/**/*.rb"].flat_map do |file|
      part = file.delete_prefix("#{LIB}/")[%r{\A[^/]+}]
      requires(file).reject { |other| other == part || MAY.fetch(part).include?(other) }.map { |other| "#{file} requires #{other}" }
    end
    assert_empty against
  end

  def test_the_library_does_not_know_its_stand_ins
    knowing = Dir["#{LIB}/{core,feeds,live,relay,store,web}/**/*.rb"].select { |file| File.read(file).match?(/oxbow|lantern|skein|hidewire/i) }
    assert_empty knowing
  end

  private

  def requires(file)
    File.read(file).scan(/^\s*require_relative "([^"]+)"/).flatten.filter_map do |path|
      File.expand_path(path, File.dirname(file)).then { |full| full[%r{\A#{LIB}/([^/]+)}o, 1] }
    end.uniq
  end
end
