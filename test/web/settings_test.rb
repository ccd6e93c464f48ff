# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/settings"

# What the operator set is read before anything begins, and what cannot be read is named.
class SettingsTest < Minitest::Test
  NEEDED = {"BAVARD_DATA" => "/nowhere", "DATABASE_URL" => "postgres://x"}.freeze

  def settings(more = {}) = Bavard::Settings.new(NEEDED.merge(more))

  def test_what_nobody_set_is_as_the_readme_says
    usual = settings
    assert_equal [4600, "127.0.0.1", "http://127.0.0.1:4600", "open"], [usual.port, usual.bind, usual.address, usual.accounts]
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
end
