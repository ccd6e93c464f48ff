# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/ladder"

class LadderTest < Minitest::Test
  include Lines

  Ladder = Bavard::Core::Gate::Ladder

  def verdict(text, prefixes: "!", names: "", commands_on: true, left_out_on: true, **person)
    document = Ladder.document(commands_on:, prefixes:, left_out_on:, names:)
    Ladder.from(document).judge(line(1, text, **person))
  end

  def test_a_command_line_is_dropped_and_the_verdict_says_what_was_seen
    judged = verdict("!ring K41207")
    assert_equal [:drop, "command_lines", "!ring"], judged.to_a
  end

  def test_feelings_are_no_commands
    ["!!!", "! what", "wow!", "!", "?!"].each { |text| assert_predicate verdict(text), :pass?, text }
  end

  def test_any_prefix_can_be_named_and_is_taken_as_it_is_written
    assert_equal(:drop, verdict(".* help", prefixes: ".*").action.then { verdict(".*help", prefixes: ".*").action })
    assert_predicate verdict("xxhelp", prefixes: ".*"), :pass?
  end

  def test_an_action_is_no_command
    assert_predicate verdict("!ring", action: true), :pass?
  end

  def test_who_is_left_out_is_left_out_by_login_or_shown_name_in_any_case
    assert_equal "left_out", verdict("hi", names: "@MudLark7").rule
    assert_equal "left_out", verdict("hi", names: "Osprey Okoro", login: "osprey", name: "osprey okoro").rule
    assert_predicate verdict("hi", names: "somebody"), :pass?
  end

  def test_a_name_that_looks_wide_is_the_same_name
    assert_equal "left_out", verdict("hi", names: "ringbot", login: "ｒｉｎｇｂｏｔ").rule
  end

  def test_rules_that_are_off_say_nothing
    assert_predicate verdict("!ring", commands_on: false), :pass?
    assert_predicate verdict("hi", names: "mudlark7", left_out_on: false), :pass?
  end

  def test_the_first_rule_that_speaks_decides
    assert_equal "command_lines", verdict("!ring", names: "mudlark7").rule
  end

  def test_a_list_that_is_too_long_is_refused_by_name
    error = assert_raises(Bavard::Error) { Ladder.document(commands_on: true, prefixes: ("a".."z").to_a.join(" "), left_out_on: true, names: "") }
    assert_equal "prefixes", error.field
  end

  def test_a_name_that_is_too_long_is_refused
    error = assert_raises(Bavard::Error) { Ladder.document(commands_on: true, prefixes: "", left_out_on: true, names: "x" * 81) }
    assert_equal "names", error.field
  end
end
