# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/event"
require_relative "../../../lib/bavard/core/cues/goal"
require_relative "../../../lib/bavard/core/cues/tally"

class TallyTest < Minitest::Test
  include Bavard::Core::Cues

  KINDS_GIVEN = %w[follow gift tip].freeze
  Amount = Bavard::Core::Amount

  def event(kind, **more)
    Event.new(id: 1, kind:, at_ms: 0, feed_id: 1, login: "ann", name: "Ann", roles: [], **more)
  end

  def tally(*events) = Tally.new.tap { |tally| events.each { |one| tally.count(one) } }

  def test_gifts_count_by_their_number_and_all_else_one_by_one
    counted = tally(event("follow"), event("subscription"), event("renewal", months: 12), event("gift", number: 5), event("gift"), event("visit", number: 41))
    assert_equal [1, 8, 6, 1], %w[followers subscriptions gifts visits].map { |what| counted.value(what) }
  end

  def test_everything_that_came_is_a_change_and_an_amount_without_a_unit_none
    tally = Bavard::Core::Cues::Tally.new
    tally.add("tip", 1, 500, nil)
    tally.add("tip", 1, nil, "EUR")
    assert_equal [2, 0], [tally.changes, tally.value("worth")]
    tally.add("tip", 1, 500, "EUR")
    assert_equal [3, 5], [tally.changes, tally.value("worth")]
  end

  def test_money_is_counted_by_its_currency
    counted = tally(event("tip", amount: Amount.money(1250, "EUR")), event("paid", amount: Amount.money(250, "EUR")), event("tip", amount: Amount.money(900, "JPY")),
      event("purchase", amount: Amount.own(300, "sparks")), event("tip"))
    assert_equal [15.0, 900, 300, 0.0], %w[EUR JPY sparks USD].map { |unit| counted.value("worth", unit) }
  end

  def test_it_is_the_same_whatever_the_order
    events = (1..200).map { |number| event(KINDS_GIVEN[number % 3], number:, amount: Amount.money(number, "EUR")) }
    wanted = all_of(tally(*events))
    20.times do |seed|
      assert_equal wanted, all_of(tally(*events.shuffle(random: Random.new(seed)))), seed
    end
  end

  def all_of(tally) = [tally.value("followers"), tally.value("gifts"), tally.value("worth")]

  def goal(counted, **piece) = Goal.of({"from" => 0, "to" => 60, "falls" => false}.merge(piece.transform_keys(&:to_s)), counted)

  def test_a_goal_goes_up_or_falls_and_is_reached
    assert_equal [45, 0.1667, false], goal(3, from: 42).values_at(:value, :share, :reached)
    assert_equal [45, 0.75], goal(3, already: 42).values_at(:value, :share)
    assert_equal [{value: 70, from: 0, to: 60, share: 1.0, reached: true, title: "Go", passed: 0}], [goal(70, title: "Go")]
    assert_equal [40, 0.3333, false], goal(20, from: 60, to: 0, falls: true).values_at(:value, :share, :reached)
    assert_equal [true, 1.0], goal(0, from: 5, to: 5).values_at(:reached, :share)
  end

  def test_a_title_is_written_with_its_numbers
    titles = ["On the way to {to}", "{value} of {to}, {left} to go", "{reached} {}", ""].map { |title| goal(1234.5, title:, to: 20_000)[:title] }
    assert_equal ["On the way to 20\u00A0000", "1\u00A0234.50 of 20\u00A0000, 18\u00A0765.50 to go", "{reached} {}", ""], titles
    assert_equal ["-1\u00A0234", "999", "1\u00A0000\u00A0000", "-0.50"], [-1234, 999, 1_000_000, -0.5].map { |number| Goal.written(number) }
    assert_equal ["On the way to 60", "Of, still"], ["On the way to {to}", "Of{value}, still {left}"].map { |title| Goal.called("title" => title, "to" => 60) }
    assert_equal "All 90 seeds", Goal.called("title" => "All {to} seeds", "total" => 90)
  end

  def test_milestones_are_passed_one_by_one_and_told_once
    one = {"milestones" => "25, 50 and 75; 150, 0, 50", "from" => 0, "to" => 60, "falls" => false}
    cards = [0, 14, 15, 46, 61].map { |counted| Goal.of(one, counted) }
    assert_equal [0, 0, 1, 3, 3], cards.map { |card| card[:passed] }
    told = cards.each_cons(2).map { |before, after| Goal.come_to(one, before, after) }
    assert_equal [[], [["milestone", 25]], [["milestone", 50], ["milestone", 75]], [["reached", nil]]], told
    assert_empty Goal.come_to(one, cards.last, cards.first)
  end

  def test_it_has_the_face_of_what_it_has_come_to
    faces = {"face" => "a", "face_1" => "b", "face_3" => "d", "face_reached" => "z", "milestones" => "20, 40, 60, 80"}
    assert_equal %w[a b b d d z], [0, 12, 24, 36, 48, 60].map { |counted| goal(counted, **faces)[:face] }
    assert_equal [nil, "b", "b"], [0, 12, 60].map { |counted| goal(counted, "face_1" => "b", "milestones" => "20")[:face] }
    refute goal(3).key?(:face)
  end

  def test_since_ever_it_goes_from_one_number_there_was_to_another
    assert_equal [4180, 0.36, false], goal(4180, since: "ever", from: 4000, to: 4500).values_at(:value, :share, :reached)
    assert_equal [3990, 0.0], goal(3990, since: "ever", from: 4000, to: 4500).values_at(:value, :share)
    assert_equal 4012, goal(12, since: "broadcast", from: 4000, to: 4500)[:value]
  end

  def test_until_when_it_counts
    assert_equal [[nil, nil, nil, 18, 30], [2026, 12, 24, nil, nil], [2026, 12, 24, 6, 5]], ["18:30", "2026-12-24", " 2026-12-24 06:05 "].map { |text| Goal.until(text) }
    ["", "soon", "25:00", "2026-12"].each { |text| assert_nil Goal.until(text), text }
  end

  def test_how_fast_it_goes_and_how_long_that_takes
    goal = {"from" => 0, "to" => 100, "since" => "broadcast"}
    assert_equal({per_hour: 30.0, left_ms: 10_200_000}, Bavard::Core::Cues::Goal.pace(goal, 15, 1_800_000))
    assert_equal 3_600_000, Bavard::Core::Cues::Goal.pace(goal, 15, 1_800_000, 70)[:left_ms]
    nobody_can_say = [[2, 1_800_000], [15, 0], [100, 1_800_000]]
    assert_equal [nil] * 3, nobody_can_say.map { |counted, passed| Bavard::Core::Cues::Goal.pace(goal, counted, passed) }
    assert_equal 60_000, Bavard::Core::Cues::Goal.left_ms(goal.merge("from" => 10, "to" => 4, "falls" => true), 3, 60_000)
  end

  def test_when_it_would_be_reached
    piece = {"from" => 0, "to" => 60, "falls" => false}
    assert_equal 3_600_000, Goal.left_ms(piece, 30, 3_600_000)
    assert_equal 1_200_000, Goal.left_ms(piece, 30, 3_600_000, 50)
    assert_nil Goal.left_ms(piece, 2, 3_600_000)
    assert_nil Goal.left_ms(piece, 60, 3_600_000)
  end
end
