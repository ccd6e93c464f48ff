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

  def test_the_brake_holds_what_is_on_its_way_but_not_what_was_let_go
    hold = hold()
    [1, 2].each { |id| hold.add(line(id), now_ms: 0) }
    hold.let_go(2)
    hold.stop_all
    assert_equal [2], passing(hold, 0, 20_000)
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
end
