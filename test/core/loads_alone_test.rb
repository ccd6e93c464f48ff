# frozen_string_literal: true

require "open3"
require_relative "../support/plain"

# What may rest on what.
class LoadsAloneTest < Minitest::Test
  LIB = File.expand_path("../../lib/bavard", __dir__)
  # What each part may require, besides itself.
  MAY = {
    "core" => %w[error], "outward" => %w[error], "feeds" => %w[error core lasting outward], "relay" => %w[error core lasting now_and_then pauses], "store" => %w[error core],
    "fair" => %w[error], "pictures" => %w[aside error fair outward unwatched], "media" => %w[aside error core fair unwatched], "copies" => %w[aside error core], "exports" => %w[error core store],
    "commands" => %w[error core feeds live start steady_clock store],
    "live" => %w[aside error core fair feeds just_in_time lasting now_and_then pictures relay store timer unwatched],
    "web" => %w[aside error core copies fair exports feeds lasting media pictures relay store live unwatched], "start" => %w[error just_in_time pauses store watched]
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

  # What docs/architecture.md says of a part of the core is what it requires and names, no more and no less.
  def test_each_part_of_the_core_rests_on_what_the_architecture_says
    said = File.read(File.expand_path("../../docs/architecture.md", __dir__)).scan(%r{^\| `core/(\w+)` \| ([^|]+) \|}).to_h { |part, on| [part, on.strip.delete("–").split(", ").sort] }
    assert_equal parts, said.keys.sort
    assert_equal(said, said.to_h { |part, _| [part, rests_on(part)] })
  end

  # Whoever stands further down in the table rests on what stands above.
  def test_no_parts_of_the_core_form_a_circle
    left = parts.to_h { |part| [part, rests_on(part)] }
    left.select! { |_, on| on.intersect?(left.keys) } while left.any? { |_, on| !on.intersect?(left.keys) }
    assert_empty left
  end

  # A name that is nowhere is found only when somebody comes by: a feed that was taken away stopped every picture with a line of its.
  def test_every_constant_that_is_named_is_there
    said, status = Open3.capture2e("bundle", "exec", "ruby", File.expand_path("../support/constants.rb", __dir__), LIB)
    assert_predicate status, :success?, said
    assert_match(/\A\d{3,} names\n\z/, said)
  end

  # Rooms of live/ by what they require.
  def test_no_rooms_of_the_running_shows_form_a_circle
    rooms = Dir["#{LIB}/live/*/"].map { |folder| File.basename(folder) }
    left = rooms.to_h { |room| [room, Dir["#{LIB}/live/#{room}/*.rb"].flat_map { |file| rooms_of(file) }.uniq - [room]] }
    assert_operator left.each_value.sum(&:size), :>, 10
    left.select! { |_, on| on.intersect?(left.keys) } while left.any? { |_, on| !on.intersect?(left.keys) }
    assert_empty left
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

  def rooms_of(file) = File.read(file).scan(/require_relative "([^"]+)"/).flatten.filter_map { |path| File.expand_path(path, File.dirname(file))[%r{\A#{LIB}/live/(\w+)/}o, 1] }

  def parts = Dir["#{LIB}/core/*/"].map { |folder| File.basename(folder) }.sort

  # @return [Array<String>] other parts of the core that its files require or name
  def rests_on(part)
    files = Dir["#{LIB}/core/#{part}/**/*.rb"]
    named = files.map { |file| File.read(file).lines.reject { |line| line.lstrip.start_with?("#") }.join }.join
    own = named.scan(/^      (?:module|class) (\w+)/).flatten
    required = files.flat_map { |file| File.read(file).scan(/require_relative "([^"]+)"/).flatten.map { |path| File.expand_path(path, File.dirname(file)) } }
    (parts - [part]).select do |other|
      name = other.split("_").map(&:capitalize).join
      required.any? { |path| path.start_with?("#{LIB}/core/#{other}/") } || (!own.include?(name) && named.match?(/(?<![:\w])(?:Core::)?#{name}::/))
    end
  end

  def requires(file)
    File.read(file).scan(/^\s*require_relative "([^"]+)"/).flatten.filter_map do |path|
      File.expand_path(path, File.dirname(file)).then { |full| full[%r{\A#{LIB}/([^/]+)}o, 1] }
    end.uniq
  end
end
