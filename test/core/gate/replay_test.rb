# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/replay"
require_relative "../../../lib/bavard/core/gate/rule_set"

class ReplayTest < Minitest::Test
  include Lines

  Gate = Bavard::Core::Gate

  def ladder(*rules) = Gate::Ladder.from(Gate::RuleSet.read("name" => "A", "rules" => rules)["rules"])

  def replay(before, after, *texts)
    replay = Gate::Replay.new(ladder(*before), ladder(*after), from_ms: 0, to_ms: 6000) { Gate::Memory.new }
    texts.each_with_index { |text, at| replay.hear(line(at + 1, text, at_ms: at * 1000)) }
    replay.to_h
  end

  def test_what_would_be_newly_kept_off_let_through_and_written_otherwise_is_counted_with_examples
    told = replay([{"kind" => "command_lines"}], [{"kind" => "stopped_words", "words" => "goosebrain\n*muckle*", "action" => "drop"},
      {"kind" => "shouting"}], "hello", "!ring", "you goosebrain", "BIRDERS ASSEMBLE NOW")
    assert_equal [4, 1, 1, 1], told.values_at(:lines, :off, :through, :otherwise)
    assert_equal([[:through, "command_lines"], [:off, "stopped_words"], [:otherwise, "shouting"]], told[:examples].map { |one| one.values_at(:change, :rule) })
    assert_equal "Birders assemble now", told[:examples].last[:shown]
  end

  def test_lines_stand_where_they_came_in_the_picture_over_time
    bars = replay([{"kind" => "command_lines", "on" => false}], [{"kind" => "command_lines"}], "a", "!ring", "b")[:bars]
    assert_equal Gate::Replay::BARS, bars.size
    assert_equal [[1, 0, 0], [1, 1, 0], [1, 0, 0]], bars.values_at(0, 10, 20)
  end

  def test_each_ladder_remembers_for_itself
    told = replay([{"kind" => "repeats", "times" => 3}], [{"kind" => "repeats", "times" => 2}], "egg egg", "egg egg", "egg egg")
    assert_equal [1, 0], told.values_at(:off, :through)
  end

  def test_held_instead_of_dropped_is_otherwise_and_the_same_is_nothing
    assert_equal [0, 0, 1], replay([{"kind" => "command_lines"}], [{"kind" => "command_lines", "action" => "hold"}], "!ring", "hi").values_at(:off, :through, :otherwise)
    assert_equal [0, 0, 0], replay([{"kind" => "command_lines"}], [{"kind" => "command_lines"}], "!ring", "hi").values_at(:off, :through, :otherwise)
    long = replay([{"kind" => "command_lines", "on" => false}], [{"kind" => "command_lines"}], "!ring #{"x" * 300}")[:examples].first
    assert_equal 160, long[:text].length
  end

  def test_before_and_after_the_time_it_looks_at_lines_stand_at_its_ends
    replay = Gate::Replay.new(ladder, ladder, from_ms: 6000, to_ms: 12_000) { Gate::Memory.new }
    [0, 6000, 6099, 6100, 11_999, 12_000, 99_000].each { |at_ms| replay.hear(line(at_ms, "a", at_ms:)) }
    assert_equal [3, 1, 3], replay.bars.values_at(0, 1, -1).map(&:first)
    assert_equal [1, 0], Gate::Replay.new(ladder, ladder, from_ms: 5, to_ms: 5) { Gate::Memory.new }.tap { |one| one.hear(line(1, "a", at_ms: 5)) }.bars.first(2).map(&:first)
  end

  def test_of_more_examples_of_several_changes_the_last_are_kept
    replay = Gate::Replay.new(ladder({"kind" => "asked_for"}), ladder({"kind" => "command_lines"}), from_ms: 0, to_ms: 6000) { Gate::Memory.new }
    100.times { |at| replay.hear(line(at + 1, at.even? ? "!what? #{at}" : "plain", at_ms: at)) }
    kept = replay.to_h[:examples]
    assert_equal [Gate::Replay::MOST_EXAMPLES, 99], [kept.size, kept.last[:at_ms]]
    assert_equal kept.map { |one| one[:at_ms] }.sort, kept.map { |one| one[:at_ms] }
  end

  def test_only_so_many_examples_are_kept
    told = replay([{"kind" => "command_lines", "on" => false}], [{"kind" => "command_lines"}], *Array.new(200) { |at| "!ring #{at}" })
    assert_equal [200, Gate::Replay::MOST_EXAMPLES], [told[:off], told[:examples].size]
  end

  # What was said in the ten minutes before counts, whichever part a line is in: each line by itself a second apart, many of them repeated.
  def test_two_halves_one_by_one_come_to_the_same_as_the_whole
    random = Random.new(5)
    texts = Array.new(900) { ["!ring", "the reeds are up", "again and again and again", "seen at #{random.rand(9)}"].sample(random:) }
    lines = texts.each_with_index.map { |text, at| line(at + 1, text, at_ms: at * 1000, login: "p#{random.rand(5)}") }
    whole, early, late = [0..900, 0..449, 0..900].map.with_index do |range, part|
      rules = [ladder({"kind" => "repeats", "times" => 2, "within_s" => 300}), ladder({"kind" => "command_lines"}, {"kind" => "floods", "lines" => 2})]
      replay = Gate::Replay.new(*rules, from_ms: 0, to_ms: 900_000, counted_from_id: part == 2 ? 451 : 0) { Gate::Memory.new }
      lines[range].each { |one| replay.hear(one) }
      replay.part
    end
    assert_equal Gate::Replay.together([whole]), Gate::Replay.together([early, late])
    assert_operator whole[:off], :>, 4
    assert_operator late[:through], :>, 4
  end
end
