# frozen_string_literal: true

require "json"
require "minitest/autorun"
require "open3"
require "socket"
require_relative "../../lib/bavard/aside"

# What somebody gains whose file breaks the program that reads it: no more rights than it has, no network, no files without end.
class BesideTest < Minitest::Test
  Aside = Bavard::Aside

  def inside(script, *given)
    said, status = Open3.capture2e(*Aside.sealed("ruby", "-rsocket", "-rjson", "-e", script, *given), **Aside::LIMITS)
    assert_predicate status, :success?, said
    JSON.parse(said)
  end

  def test_rights_of_another_program
    assert_equal ["1"], inside("puts JSON.generate([File.read(\"/proc/self/status\")[/NoNewPrivs:\\s+(\\d)/, 1]])")
  end

  # The very gems that were chosen, not what else happens to be on the machine.
  def test_another_version_of_what_reads_files
    script = "puts JSON.generate([$LOADED_FEATURES.grep(/\\/vips\\.rb\\z/).first, defined?(Gem)])"
    said, status = Open3.capture2e(Aside.found, *Aside.sealed("ruby", "-rjson", "-rvips", "-e", script), **Aside::LIMITS)
    assert_predicate status, :success?, said
    assert_equal [File.join(Gem.loaded_specs.fetch("ruby-vips").full_gem_path, "lib/vips.rb"), nil], JSON.parse(said)
  end

  def test_a_server_in_the_house
    server = TCPServer.new("127.0.0.1", 0)
    reached = inside("puts JSON.generate([(TCPSocket.new(\"127.0.0.1\", Integer(ARGV.first)) && true rescue false)])", server.addr[1].to_s)
    assert_equal [!Aside.cut_off?], reached
  ensure
    server.close
  end

  def test_more_files_than_it_needs
    assert_operator inside("n = 0; begin; 1000.times { (@all ||= []) << File.open(File::NULL); n += 1 }; rescue Errno::EMFILE; end; puts JSON.generate([n])").first,
      :<, Aside::FILES
  end

  # Every program that is started with what somebody brought.
  def test_a_program_that_was_forgotten
    root = File.expand_path("../../lib/bavard", __dir__)
    readers = {"pictures/workshop.rb" => 1, "pictures/typeface.rb" => 1, "media/ffmpeg.rb" => 2, "copies/reading.rb" => 1, "live/pictures/imports.rb" => 1, "media/espeak.rb" => 2}
    starting = /\b(?:spawn|popen|capture[23]e?|system|exec)\(/
    # What runs on no file of anybody's: the database, the application itself, faces that ship, the log; and what a press runs in turn.
    others = %w[aside.rb start/ commands/ live/pictures/faces_unpacked.rb live/moderation/replays.rb web/stations/log/export_stream.rb pictures/moving.rb]
    files = Dir[File.join(root, "**/*.rb")].select { |file| File.read(file).match?(starting) }.map { |file| file.delete_prefix("#{root}/") }
    assert_equal readers.keys.sort, files.reject { |file| file.start_with?(*others) }.sort
    readers.each { |file, number| assert_equal number, File.read(File.join(root, file)).scan("Aside.sealed(").size, file }
  end
end
