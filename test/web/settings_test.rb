# frozen_string_literal: true

require "tmpdir"
require_relative "../support/plain"
require_relative "../../lib/bavard/settings"

# What the operator set is read before anything begins, and what cannot be read is named.
class SettingsTest < Minitest::Test
  NEEDED = {"BAVARD_DATA" => "/nowhere", "DATABASE_URL" => "postgres://x"}.freeze

  def settings(more = {}) = Bavard::Settings.new(NEEDED.merge(more))

  def test_what_nobody_set_is_as_the_readme_says
    usual = settings
    assert_equal [4600, "127.0.0.1", "http://127.0.0.1:4600", "open"], [usual.port, usual.bind, usual.address, usual.accounts]
    assert_equal "http://[::1]:4600", settings("BAVARD_BIND" => "::1").address
    refute_predicate usual.letters, :delivered?
  end

  # Of what a document holds there is never more than it holds.
  def test_an_operator_sets_less_than_documents_hold
    assert_equal({"pieces" => 200, "cues" => 7}, settings("BAVARD_CEILINGS" => "pieces=5000 cues=7").ceilings)
  end

  def test_what_cannot_be_read_is_named
    {"BAVARD_ACCOUNTS" => "everybody", "BAVARD_MAIL" => "mail", "BAVARD_CEILINGS" => "feeds=many", "BAVARD_PROXIES" => "a proxy"}.each do |name, value|
      assert_includes assert_raises(Bavard::Error, name) { settings(name => value) }.message, name
    end
  end

  def test_a_list_with_what_is_no_description_says_what_it_is
    Dir.mktmpdir do |folder|
      list = File.join(folder, "list.json")
      File.write(list, JSON.generate([{key: "skein", name: "Skein", kind: "socket", base: "http://127.0.0.1:1"}]))
      error = assert_raises(Bavard::Error) { settings("BAVARD_PLATFORMS" => list) }
      assert_includes error.message, "“skein” is of the kind “socket”: such a platform is described (docs/platforms.md)"
    end
  end

  def test_described_platforms_stand_beside_listed_ones_and_never_in_their_place
    Dir.mktmpdir do |folder|
      list = File.join(folder, "list.txt")
      File.write(list, JSON.generate([{key: "skein", name: "Skein", kind: "irc", shape: "triangle", colour: "#b79cf0", base: "http://127.0.0.1:1"}]))
      %w[skein kettle].each { |name| FileUtils.cp(File.expand_path("../../docs/platforms/#{name}.json", __dir__), folder) }
      File.write(File.join(folder, "odd.json"), "{")
      set = nil
      _, said = capture_io { set = settings("BAVARD_PLATFORMS" => list, "BAVARD_DESCRIPTIONS" => folder) }
      assert_equal({"kettle" => "described", "skein" => "irc"}, set.platforms.transform_values(&:kind))
      assert_equal ["platform left out: #{folder}/odd.json: /: this is no JSON", "platform left out: “skein” is listed already"], said.lines.map { |line| line[/\A.*?(?:JSON|already)/] }
    end
  end
end
