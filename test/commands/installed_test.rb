# frozen_string_literal: true

require "tmpdir"
require_relative "../support/plain"
require_relative "../../lib/bavard/start/installed"

# bin/admin on a server means the Bavard that runs there, with what is set for it.
class InstalledTest < Minitest::Test
  SET = <<~SETTINGS
    # BAVARD_BIND=0.0.0.0
    PORT=4700
    BAVARD_ADDRESS = https://not.a.setting.example
    BAVARD_MAIL="smtps://user:pa$$ word@mail.reedmere.example"
    BAVARD_HOSTS='live.reedmere.example  other.example'
    DATABASE_URL=
  SETTINGS

  def setup
    @folder = Dir.mktmpdir
    File.write(@file = File.join(@folder, "bavard.env"), SET)
  end

  def teardown = FileUtils.rm_rf(@folder)
  def env(typed, project = "/opt/bavard") = Bavard::Start::Installed.env(typed, project, @file)

  def test_it_is_what_the_unit_is_started_with
    assert_equal({"BAVARD_DATA" => "/var/lib/bavard", "PORT" => "4700", "BAVARD_MAIL" => "smtps://user:pa$$ word@mail.reedmere.example",
      "BAVARD_HOSTS" => "live.reedmere.example  other.example", "DATABASE_URL" => ""}, env({}))
  end

  def test_what_is_typed_counts_before_it
    assert_equal %w[4800 /var/lib/bavard], env({"PORT" => "4800", "BAVARD_DATA" => ""}).values_at("PORT", "BAVARD_DATA")
    assert_equal({"BAVARD_DATA" => "/elsewhere"}, env({"BAVARD_DATA" => "/elsewhere"}))
  end

  def test_where_nothing_was_installed_or_set_there_is_nothing_of_it
    assert_equal({"A" => "b"}, env({"A" => "b"}, "/home/odalys/bavard"))
    File.delete(@file)
    assert_equal({"BAVARD_DATA" => "/var/lib/bavard"}, env({}))
  end
end
