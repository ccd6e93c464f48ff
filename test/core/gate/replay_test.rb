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
    texts.each_with_index { |text, at| replay.take(line(at + 1, text, at_ms: at * 1000)) }
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

  def test_only_so_many_examples_are_kept
    told = replay([{"kind" => "command_lines", "on" => false}], [{"kind" => "command_lines"}], *Array.new(200) { |at| "!ring #{at}" })
    assert_equal [200, Gate::Replay::MOST_EXAMPLES], [told[:off], told[:examples].size]
  end
end
