# frozen_string_literal: true

require "pg"
require_relative "../support/plain"
require_relative "../../lib/bavard/start/data_folder"
require_relative "../../lib/bavard/start/least_rights"
require_relative "../../lib/bavard/start/postgres"
require_relative "../../lib/bavard/start/standins"

# A start that was cut off in between, or a disk that was full while something was written.
class HalfStartTest < Minitest::Test
  def setup
    @folder = Dir.mktmpdir("bavard-half").tap { |folder| FileUtils.chmod(0o755, folder) }
    @data = Bavard::Start::DataFolder.new(@folder).lock
  end

  def teardown
    @postgres&.stop
    FileUtils.rm_rf(@folder)
  end

  def start
    @postgres = Bavard::Start::Postgres.new(@data, fleeting: true)
    url = @postgres.start
    PG.connect(url).then { |connection| connection.exec("SELECT 1").getvalue(0, 0).tap { connection.close } }
  end

  def test_a_database_that_was_cut_off_while_it_was_made_is_made_again
    FileUtils.mkdir_p("#{@folder}/postgres/base")
    File.write("#{@folder}/postgres/PG_VERSION", "15\n")
    FileUtils.mkdir_p("#{@folder}/postgres.new/base")
    assert_equal "1", start
    refute_path_exists "#{@folder}/postgres.new"
  end

  # Whatever became of it, it is not for us to throw away.
  def test_a_database_with_something_in_it_that_lost_a_file_is_left_as_it_is
    start
    @postgres.stop
    File.rename("#{@folder}/postgres/global/pg_control", "#{@folder}/control")
    assert_raises(Bavard::Start::Postgres::NotStarted) { start }
    File.rename("#{@folder}/control", "#{@folder}/postgres/global/pg_control")
    assert_equal "1", start
  end

  def test_passwords_that_are_empty_are_given_anew_and_nothing_is_lost
    assert_equal "1", start
    @postgres.stop
    %w[database application].each { |name| File.write("#{@folder}/#{name}.password", "") }
    assert_equal "1", start
    assert_equal 0o600, File.stat("#{@folder}/database.password").mode & 0o777
  end

  def test_a_key_that_is_empty_is_made_and_one_that_is_there_stays
    File.write("#{@folder}/session.key", "")
    key = @data.key("session")
    assert_equal 64, key.bytesize
    assert_equal key, @data.key("session")
    assert_equal 0o600, File.stat("#{@folder}/session.key").mode & 0o777
  end

  def test_places_of_made_up_platforms_that_cannot_be_read_are_chosen_anew
    ["", "{", "[]", '{"irc":"x"}'].each do |broken|
      File.write("#{@folder}/standins.json", broken)
      ports = Bavard::Start::Standins.new(@data, 4600, {}).place.ports
      assert_equal Bavard::Start::Standins::OFFSETS.keys, ports.keys, broken
      assert_equal JSON.parse(File.read("#{@folder}/standins.json")), ports
    end
  end

  # Killed while it writes, it leaves what was there before.
  def test_what_is_written_is_there_whole_or_not_at_all
    @data.write("standins.json", "before")
    broken = Class.new(StandardError)
    assert_raises(broken) { @data.write("standins.json", Object.new.tap { |one| one.define_singleton_method(:to_s) { raise broken } }) }
    assert_equal "before", File.read("#{@folder}/standins.json")
  end
end
