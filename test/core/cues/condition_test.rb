# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/amount"
require_relative "../../../lib/bavard/core/cues/challenge"
require_relative "../../../lib/bavard/core/cues/condition"
require_relative "../../../lib/bavard/core/cues/cue"
require_relative "../../../lib/bavard/core/cues/event"

# For which events a cue is, at the edges of each range and against every other condition.
class CueConditionTest < Minitest::Test
  include Bavard::Core::Cues

  Amount = Bavard::Core::Amount

  def event(kind: "tip", amount: nil, **more)
    Event.new(id: 1, kind:, at_ms: 0, feed_id: 3, login: "ann", name: "Ann Reed", roles: ["viewer"], first_ever: false, amount:, **more)
  end

  def condition(**given) = Condition.new(given.transform_keys(&:to_s))
  def fits?(given, event) = condition(**given).fits?(event)
  def euros(cents) = Amount.money(cents, "EUR")

  def test_both_ends_of_a_range_belong_to_it
    range = {amount: [5, 10]}
    assert_equal [false, true, true, true, false], [499, 500, 750, 1000, 1001].map { |cents| fits?(range, event(amount: euros(cents))) }
    assert_equal [true, false], [3, 4].map { |months| fits?({months: [nil, 3]}, event(months:)) }
    assert_equal [false, true], [2, 3].map { |number| fits?({number: [3, nil]}, event(number:)) }
    assert_equal [false, false], [fits?(range, event), fits?({months: [1, nil]}, event)]
  end

  def test_money_counts_in_whole_units_of_its_currency_and_a_platforms_own_as_it_is
    assert fits?({amount: [900, 900], currency: "JPY"}, event(amount: Amount.money(900, "JPY")))
    assert fits?({amount: [300, nil], currency: "sparks"}, event(amount: Amount.own(300, "sparks")))
    refute fits?({amount: [1, nil], currency: "EUR"}, event(amount: Amount.own(300, "sparks")))
  end

  def test_people_by_login_or_shown_name_in_any_case
    assert_equal [true, true, false], ["ANN", "ann REED", "reed"].map { |name| fits?({people: [name]}, event) }
    assert_equal ["ann reed"], condition(people: ["Ann Reed"]).people
  end

  def test_chats_roles_and_firsts
    assert_equal [true, true, false], [[3], %w[2 3], ["4"]].map { |feeds| fits?({feeds:}, event) }
    assert_equal [true, false], [%w[viewer host], %w[host]].map { |roles| fits?({roles:}, event) }
    assert_equal [false, true], [false, true].map { |first_ever| fits?({first: true}, event.tap { |one| one.first_ever = first_ever }) }
  end

  # From what says least to what says most.
  def test_the_more_somebody_named_the_more_specific_it_is
    order = [{}, {feeds: ["3"]}, {roles: ["viewer"]}, {roles: ["viewer"], feeds: ["3"]}, {first: true}, {first: true, roles: ["viewer"], feeds: ["3"]},
      {amount: [5, nil]}, {amount: [5, 9]}, {amount: [5, 5]}, {months: [3, 3], feeds: ["3"]}, {amount: [5, nil], months: [3, nil]}]
    counted = order.map { |given| condition(**given).specific }
    assert_equal counted.sort, counted
    assert_equal counted.uniq, counted
    assert_operator condition(people: ["ann"]).specific, :>=, condition(amount: [5, nil], months: [3, nil]).specific
    assert_operator condition(people: ["ann"]).specific, :>, condition(amount: [5, 5], first: true).specific
  end

  def test_what_can_never_be_met_is_named
    assert_nil condition(amount: [5, 5]).never
    assert_nil condition(amount: [nil, 0]).never
    assert_equal "months cannot be at least 9 and at most 3", condition(amount: [1, 2], months: [9, 3]).never
  end

  def test_which_covers_which
    wide = condition(amount: [5, nil])
    assert wide.covers?(condition(amount: [5, 9]))
    refute wide.covers?(condition(amount: [4, 9]))
    refute wide.covers?(condition)
    assert condition.covers?(wide)
    assert condition(feeds: %w[3 4]).covers?(condition(feeds: ["3"]))
    refute condition(feeds: ["3"]).covers?(condition(feeds: %w[3 4]))
    refute condition(feeds: ["3"]).covers?(condition)
    refute condition(first: true).covers?(condition)
    assert condition(first: true).covers?(condition(first: true))
    refute condition(currency: "EUR").covers?(condition(currency: "JPY"))
    assert condition(people: %w[ann bo]).covers?(condition(people: ["ANN"]))
    refute condition(roles: ["host"]).covers?(condition(roles: ["viewer"]))
    refute condition(amount: [nil, 9]).covers?(condition(amount: [5, nil]))
  end

  def test_both_ends_belong_to_what_covers_and_to_what_crosses
    range = ->(least, most) { condition(amount: [least, most]) }
    assert_equal [true, false, false, true], [[5, 10], [4, 10], [5, 11], [6, 9]].map { |ends| range[5, 10].covers?(range[*ends]) }
    assert_equal [true, true, false, false], [[10, 20], [1, 5], [11, 20], [1, 4]].map { |ends| range[5, 10].meets?(range[*ends]) }
    assert range[5, 10].meets?(condition)
    assert condition.meets?(range[5, 10])
    assert condition(feeds: ["3"]).meets?(condition(roles: ["host"]))
    refute condition(feeds: ["3"]).meets?(condition(feeds: ["4"]))
  end

  def test_which_can_be_met_by_the_same
    assert condition(amount: [1, 5]).meets?(condition(amount: [5, 9]))
    refute condition(amount: [1, 4]).meets?(condition(amount: [5, 9]))
    refute condition(amount: [5, 9]).meets?(condition(amount: [1, 4]))
    assert condition(amount: [1, 4]).meets?(condition(months: [5, 9]))
    refute condition(feeds: ["3"]).meets?(condition(feeds: ["4"]))
    assert condition(feeds: ["3"]).meets?(condition(roles: ["host"]))
    refute condition(people: ["ann"]).meets?(condition(people: ["bo"]))
    refute condition(roles: ["host"]).meets?(condition(roles: ["viewer"]))
  end

  def test_ranges_are_said_as_they_are_meant
    said = ->(**more) { Cue.narrowed(Cue.build("a", more.transform_keys(&:to_s))) }
    assert_equal ["amount from 5", "amount up to 5", "amount 5", "amount 5 to 9"],
      [[5, 0], [0, 5], [5, 5], [5, 9]].map { |from, to| said.call(amount_from: from, amount_to: to) }
    assert_equal "host or guest, on some chats", said.call(roles: %w[host guest], feeds: ["3"])
    assert_equal "at some time of the broadcast", said.call(to_min: 9)
    assert_equal [nil, "a sound, read aloud, 3 emotes fly"], [Cue.also(Cue.build("a")), Cue.also(Cue.build("a", "sound" => "0f" * 16, "aloud" => true, "flurry_count" => 3))]
  end

  # Challenges.

  PIECE = {"total" => 10, "slips" => 6, "minutes" => 5, "begins" => "follow", "ends_with" => "visit", "counts" => [], "runs" => "up", "stages" => "50 25 x 50 0 100"}.freeze

  def running(done: 4.0, at_ms: 0) = Challenge::State.new("running", done, at_ms, 0)

  def test_it_slips_with_time_never_below_nothing_and_ends_when_its_time_is_up
    done = ->(now_ms) { Challenge.advance(PIECE, running, now_ms).then { |state| [state.state, state.done.round(3)] } }
    assert_equal [["running", 4.0], ["running", 3.0], ["running", 0.0], ["running", 0.0], ["missed", 0.0]], [0, 10_000, 40_000, 299_999, 300_000].map { |now| done.call(now) }
    assert_equal 0, Challenge.advance(PIECE, running(at_ms: 9000), 8000).done - 4.0
  end

  def test_what_is_over_stays_as_it_is
    over = Challenge::State.new("reached", 10.0, 0, 0)
    assert_same over, Challenge.advance(PIECE, over, 900_000)
    assert_same over, Challenge.add(PIECE, over, -5)
    assert_nil Challenge.ends_ms(PIECE, over)
    assert_nil Challenge.ends_ms(PIECE.merge("minutes" => 0), running)
  end

  def test_it_is_reached_at_its_total_and_not_before
    assert_equal [["running", 9.9], ["reached", 10.0], ["reached", 10.0], ["running", 0.0]],
      [5.9, 6, 50, -50].map { |number| Challenge.add(PIECE, running, number).then { |state| [state.state, state.done] } }
  end

  def test_stages_are_passed_when_they_are_reached
    assert_equal [25, 50], Challenge.stages(PIECE)
    assert_equal [0, 1, 2], [2.4, 2.5, 5.0].map { |done| Challenge.card(PIECE, running(done:))[:passed] }
  end

  def test_a_stage_that_is_passed_is_told_of_once_and_so_is_the_end
    told = [2.4, 2.5, 2.6, 5.1].map { |done| running(done:) }.each_cons(2).map { |before, after| Challenge.come_to(PIECE, before, after) }
    assert_equal [[["milestone", 25]], [], [["milestone", 50]]], told
    reached = Challenge.add(PIECE, running(done: 2), 50)
    assert_equal [["milestone", 25], ["milestone", 50], ["reached", nil]], Challenge.come_to(PIECE, running(done: 2), reached)
    assert_equal [[], []], [Challenge.come_to(PIECE, reached, running(done: 0)), Challenge.come_to(PIECE, running(done: 3), running(done: 2))]
  end

  def test_small_totals_are_told_with_a_tenth_and_one_that_runs_down_with_what_is_left
    assert_equal [4.3, 4], [Challenge.card(PIECE, running(done: 4.26))[:value], Challenge.card(PIECE.merge("total" => 1000), running(done: 4.26))[:value]]
    assert_in_delta 5.7, Challenge.card(PIECE.merge("runs" => "down"), running(done: 4.26))[:value]
    assert_in_delta 0.426, Challenge.card(PIECE, running(done: 4.26))[:share]
  end
end
