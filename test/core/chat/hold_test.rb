# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/hold"

class HoldTest < Minitest::Test
  include Lines

  Hold = Bavard::Core::Chat::Hold

  def hold(ms = 4000, by_role: {}, leaves: nil, per_minute: nil) = Hold.new(Hold::Settings.new(ms, by_role, leaves, per_minute))
  def released(hold, now_ms) = hold.advance(now_ms).released.map(&:id)
  def passing(hold, from, to) = (from..to).step(1000).flat_map { |now| released(hold, now) }

  def test_lines_go_by_themselves_when_their_time_is_over_in_order
    hold = hold()
    [1, 2, 3].each { |id| hold.add(line(id), now_ms: id * 100) }
    assert_equal [[], [1, 2], [3]], [released(hold, 4000), released(hold, 4200), released(hold, 5000)]
    assert_equal 0, hold.size
  end

  def test_some_roles_are_held_for_another_time
    hold = hold(by_role: {"moderator" => 0, "host" => 1000})
    hold.add(line(1), now_ms: 0, roles: %w[viewer])
    hold.add(line(2), now_ms: 0, roles: %w[moderator viewer host])
    assert_equal [2], released(hold, 0)
  end

  def test_what_is_pulled_does_not_go_and_can_be_put_back_with_the_time_it_had_left
    hold = hold()
    hold.add(line(1), now_ms: 0)
    hold.advance(1000)
    assert_equal 1, hold.pull(1).id
    assert_nil hold.pull(1)
    assert_empty passing(hold, 2000, 9000)
    hold.put_back(1)
    assert_equal [1], released(hold, 9001)
  end

  def test_what_is_let_go_goes_at_once
    hold = hold()
    hold.add(line(1), now_ms: 0)
    hold.add(line(2), now_ms: 0, waits: true)
    hold.let_go(2)
    assert_equal [2], released(hold, 1)
  end

  def test_what_waits_for_a_person_goes_never_or_leaves_after_a_time
    waiting = hold
    waiting.add(line(1), now_ms: 0, waits: true)
    assert_empty passing(waiting, 0, 120_000)
    assert_nil waiting.next_due_ms
    leaving = hold(leaves: 10_000)
    leaving.add(line(1), now_ms: 0, waits: true)
    leaving.advance(5000)
    assert_equal [[], [1]], leaving.advance(10_000).to_a.map { |lines| lines.map(&:id) }
  end

  def test_a_clock_that_is_set_back_or_jumps_ahead_neither_keeps_lines_nor_lets_all_go
    back = hold
    back.add(line(1), now_ms: 1_000_000)
    assert_empty released(back, 0)
    assert_equal [1], passing(back, 1000, 5000)
    ahead = hold(30_000)
    ahead.add(line(1), now_ms: 0)
    assert_empty released(ahead, 3_600_000)
    assert_equal 25_000, ahead.report.first[2]
  end

  def test_another_length_counts_for_what_is_held_already
    hold = hold(60_000)
    hold.add(line(1), now_ms: 0)
    hold.advance(5000)
    hold.settings = Hold::Settings.new(6000, {}, nil, nil)
    assert_equal [1], released(hold, 6000)
  end

  def test_other_settings_count_only_for_what_they_are_about
    hold = hold(4000, leaves: 20_000)
    hold.add(line(1), now_ms: 0)
    hold.add(line(2), now_ms: 0, waits: true)
    hold.advance(3000)
    hold.settings = Hold::Settings.new(4000, {"moderator" => 0}, 50_000, nil)
    assert_equal [[1, 1000], [2, 47_000]], hold.report.map { |one, _, left| [one.id, left] }
    hold.settings = Hold::Settings.new(1000, {}, nil, nil)
    assert_equal [[1, 0], [2, nil]], hold.report.map { |one, _, left| [one.id, left] }
    assert_equal [[1], [2]], [released(hold, 3000), hold.each_line.map(&:id)]
  end

  def test_what_leaves_after_a_time_does_so_from_when_it_came_also_where_nothing_else_is_due
    hold = hold(4000, leaves: 20_000)
    hold.add(line(1), now_ms: 1000, waits: true)
    assert_equal [21_000, [1]], [hold.next_due_ms, (1000..21_000).step(1000).flat_map { |now| hold.advance(now).left.map(&:id) }]
  end

  def test_the_brake_holds_what_is_on_its_way_but_not_what_was_let_go
    hold = hold()
    [1, 2].each { |id| hold.add(line(id), now_ms: 0) }
    hold.let_go(2)
    hold.stop_all
    assert_equal [2], passing(hold, 0, 20_000)
  end

  def test_what_the_brake_holds_leaves_when_it_would_have_from_when_it_came
    hold = hold(4000, leaves: 10_000)
    hold.add(line(1), now_ms: 2000)
    hold.advance(3000)
    hold.stop_all
    assert_equal [[1, true, 9000, 10_000]], hold.report.map { |one, *rest| [one.id, *rest] }
    hold.advance(8000)
    assert_equal [[], [1]], [hold.advance(11_999), hold.advance(12_000)].map { |change| change.left.map(&:id) }
    never = hold()
    never.add(line(1), now_ms: 0)
    never.stop_all
    assert_nil never.next_due_ms
  end

  def test_at_most_so_many_go_a_minute_and_those_that_are_too_late_leave
    hold = hold(0, per_minute: 6)
    20.times { |id| hold.add(line(id), now_ms: 0) }
    gone = []
    left = []
    (0..120_000).step(1000) do |now|
      change = hold.advance(now)
      gone += change.released.map { |line| [now, line.id] }
      left += change.left.map(&:id)
    end
    assert_equal (0..6).map { |at| [at * 10_000, at] }, gone.first(7)
    assert_equal 20, gone.size + left.size
    assert gone.each_cons(2).all? { |before, after| after[0] - before[0] >= 10_000 }
  end

  def test_it_says_when_it_has_something_to_do
    hold = hold()
    assert_nil hold.next_due_ms
    hold.add(line(1), now_ms: 500)
    assert_equal 4500, hold.next_due_ms
  end

  def test_at_that_pace_what_somebody_lets_go_does_not_wait_its_turn
    hold = hold(0, per_minute: 1)
    3.times { |id| hold.add(line(id), now_ms: 0) }
    assert_equal [0], released(hold, 0)
    hold.let_go(2)
    assert_equal [2], released(hold, 100)
    assert_equal [], released(hold, 200)
  end

  def test_at_that_pace_it_says_when_the_next_may_go
    hold = hold(0, per_minute: 6)
    2.times { |id| hold.add(line(id), now_ms: 0) }
    released(hold, 0)
    assert_equal 10_000, hold.next_due_ms
    hold.let_go(1)
    assert_operator hold.next_due_ms, :<=, 0
  end

  def test_a_line_may_be_late_by_so_much_and_no_more
    hold = hold(0, per_minute: 1)
    2.times { |id| hold.add(line(id), now_ms: 0) }
    released(hold, 0)
    last = Hold::LATE_MS
    assert_empty((1000..(last - 1000)).step(1000).flat_map { |now| hold.advance(now).left })
    assert_equal [1], (last..(last + 2000)).step(1000).flat_map { |now| hold.advance(now).then { |change| change.left + change.released } }.map(&:id)
  end

  def test_a_pull_is_forgotten_after_so_many_others
    hold = hold()
    (0..Hold::MOST).each do |id|
      hold.add(line(id), now_ms: 0)
      hold.pull(id)
    end
    assert_nil hold.put_back(0)
    assert_equal 1, hold.put_back(1).id
    assert hold.held?(1)
  end

  def test_what_was_held_before_a_restart_has_the_time_left_that_it_had
    hold = hold(4000)
    hold.add(line(1), now_ms: 10_000, held_for_ms: 3000)
    assert_equal [[], [1]], [released(hold, 10_999), released(hold, 11_000)]
  end

  # Screens are not there yet, and neither is whoever might pull it.
  def test_after_a_restart_it_stays_held_for_a_moment_however_long_it_was
    hold = hold(4000)
    hold.add(line(1), now_ms: 10_000, held_for_ms: 9000, at_least_ms: 2000)
    hold.add(line(2), now_ms: 10_000, held_for_ms: 1000, at_least_ms: 2000)
    assert_equal [[], [1], [2]], [released(hold, 11_999), released(hold, 12_000), released(hold, 13_000)]
  end

  # The settings of the moment come behind it, also where nothing is otherwise.
  def test_what_is_set_meanwhile_does_not_shorten_that_moment_and_whoever_lets_it_go_does
    hold = hold(4000, leaves: 5000)
    hold.add(line(1), now_ms: 10_000, held_for_ms: 9000, at_least_ms: 2000)
    hold.add(line(2), now_ms: 10_000, held_for_ms: 9000, at_least_ms: 2000, waits: true)
    hold.add(line(3), now_ms: 10_000, held_for_ms: 9000, at_least_ms: 2000)
    hold.settings = Hold::Settings.new(1000, {}, 5000, nil)
    hold.let_go(3)
    assert_equal [[[3], []], [[], []], [[1], [2]]], [10_000, 11_999, 12_000].map { |now| hold.advance(now).to_a.map { |lines| lines.map(&:id) } }
  end

  def test_its_report_says_what_waits_how_long_and_out_of_how_much
    hold = hold(4000, leaves: 30_000)
    hold.add(line(1), now_ms: 0)
    hold.add(line(2), now_ms: 0, waits: true)
    hold.advance(1000)
    assert_equal [[1, false, 3000, 4000], [2, true, 29_000, 30_000]], hold.report.map { |one, *rest| [one.id, *rest] }
    hold.let_go(2)
    assert_equal [2, false, 0], hold.report.last.then { |one, waits, left| [one.id, waits, left] }
  end

  def test_pulling_what_is_not_held_and_letting_it_go_is_nothing
    hold = hold()
    assert_equal [nil, nil, nil], [hold.pull(1), hold.let_go(1), hold.put_back(1)]
    hold.add(line(1), now_ms: 0)
    hold.add(line(2), now_ms: 0)
    assert_equal([2], hold.pull_where { |one| one.id == 2 }.map(&:id))
    assert_equal [1], [1, 2].select { |id| hold.held?(id) }
  end
end
