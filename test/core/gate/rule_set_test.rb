# frozen_string_literal: true

require "json_schemer"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/settings"
require_relative "../../../lib/bavard/core/gate/lists"

class RuleSetTest < Minitest::Test
  Gate = Bavard::Core::Gate

  def refused(given) = assert_raises(Bavard::Error) { Gate::RuleSet.read(given) }

  def test_what_a_show_begins_with_fits_its_own_schema
    schema = JSONSchemer.schema(Gate::RuleSet.schema)
    assert_empty schema.validate(Gate::RuleSet::DEFAULT).to_a
    refute schema.valid?(Gate::RuleSet::DEFAULT.merge("rules" => [{"kind" => "links"}]))
  end

  def test_a_set_from_elsewhere_is_completed_or_refused_naming_what_does_not_fit
    read = Gate::RuleSet.read("name" => " Rush ", "rules" => [{"kind" => "links", "id" => "x"}, {"kind" => "links"}])
    assert_equal ["Rush", %w[links links2], %w[drop drop]], [read["name"], read["rules"].map { |rule| rule["id"] }, read["rules"].map { |rule| rule["action"] }]
    assert_equal "kind", refused("name" => "A", "rules" => [{"kind" => "telepathy"}]).field
    assert_equal "name", refused("name" => "", "rules" => []).field
    assert_equal "action", refused("name" => "A", "rules" => [{"kind" => "links", "action" => "explode"}]).field
    assert_equal "sparkle", refused("name" => "A", "rules" => [{"kind" => "links", "sparkle" => 1}]).field
    assert_equal "rules", refused("name" => "A", "rules" => Array.new(41) { {"kind" => "links"} }).field
    assert_equal "rules", refused([1, 2]).field
    assert_equal "times", refused("name" => "A", "rules" => [{"kind" => "repeats", "times" => 900}]).field
  end

  def test_a_list_of_a_million_words_is_refused_above_a_stated_limit
    error = refused("name" => "A", "rules" => [{"kind" => "stopped_words", "words" => (1..50_001).map { |n| "w#{n}" }.join("\n")}])
    assert_equal ["words", "There is room for 50000 words; these are 50001."], [error.field, error.message]
    assert_match(/at most 1500000/, refused("name" => "A", "rules" => [{"kind" => "stopped_words", "words" => "x" * 1_500_001}]).message)
  end

  def test_gates_of_before_are_read
    read = Gate::Settings.read("command_lines" => {"on" => false, "prefixes" => %w[! ?]}, "left_out" => {"on" => true, "names" => ["a"]})
    rules = Gate::Settings.in_force(read)["rules"].to_h { |rule| [rule["kind"], rule] }
    assert_equal [false, "! ?", true], [rules["command_lines"]["on"], rules["command_lines"]["prefixes"], rules["left_out"]["on"]]
    assert_equal read, Gate::Settings.read(read)
  end

  def test_the_hold_goes_to_a_minute
    assert_equal 4000, Gate::Settings.hold("ms" => "4000")["ms"]
    assert_raises(Bavard::Error) { Gate::Settings.hold("ms" => 60_001) }
    assert_raises(Bavard::Error) { Gate::Settings.hold("ms" => "soon") }
    assert_equal({"moderator" => 0}, Gate::Settings.hold("by_role" => {"moderator" => 0, "king" => 1})["by_role"])
  end

  def test_lists_are_read_and_written_as_text_csv_and_json
    words = ["goose*", "shut up", "a,b"]
    Gate::Lists::FORMATS.each { |format| assert_equal words.join("\n"), Gate::Lists.read(Gate::Lists.write(words, format), field: "words", most: 10), format }
    assert_raises(Bavard::Error) { Gate::Lists.read("[1, {", field: "words", most: 10) }
    assert_equal "words", assert_raises(Bavard::Error) { Gate::Lists.read("a\nb\nc", field: "words", most: 2) }.field
  end
end
