# frozen_string_literal: true

require "prop_check"
require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/timeline"
require_relative "../../../lib/bavard/core/moderation/line_state"

class TimelineTest < Minitest::Test
  include Lines

  Timeline = Bavard::Core::Chat::Timeline

  def timeline(at_most: 5, stay_ms: 10_000, keep_last: 0, lines: [])
    Timeline.new(Timeline::Settings.new(at_most, stay_ms, keep_last), lines)
  end

  def standing(timeline, now_ms)
    timeline.advance(now_ms)
    timeline.standing.map(&:id)
  end

  def test_a_line_stands_from_its_time_until_its_seconds_are_over
    shown = timeline.tap { |one| one.add(line(1, at_ms: 1000)) }
    assert_equal [1], shown.advance(1000).in_lines.map(&:id)
    assert_empty shown.advance(10_999).out_ids
    assert_equal [1], shown.advance(11_000).out_ids
  end

  def test_for_good_is_for_good
    assert_equal [1], standing(timeline(stay_ms: nil).tap { |one| one.add(line(1)) }, 10**12)
  end

  def test_the_oldest_makes_room
    shown = timeline(at_most: 2)
    3.times { |number| shown.add(line(number + 1)) }
    assert_equal [2, 3], standing(shown, 10)
  end

  def test_the_last_stay_even_when_their_seconds_are_over
    shown = timeline(keep_last: 2)
    3.times { |number| shown.add(line(number + 1)) }
    assert_equal [2, 3], standing(shown, 50_000)
  end

  def test_a_pulled_line_goes_at_once_and_nothing_older_comes_back
    lines = (1..3).map { |id| on_picture(id) }
    shown = timeline(at_most: 2, lines:)
    standing(shown, 10)
    lines.last.state.move(:pull)
    assert_equal [3], shown.advance(11).out_ids
    assert_equal [2], shown.standing.map(&:id)
  end

  def test_a_line_pulled_before_it_was_shown_never_stands
    shown = timeline
    shown.add(on_picture(1).tap { |one| one.state.move(:pull) })
    assert_predicate shown.advance(2), :empty?
  end

  def test_all_of_somebody_are_pulled_and_one_put_back_stands_again
    lines = (1..4).map { |id| on_picture(id) }
    shown = timeline(lines:)
    standing(shown, 10)
    lines.each { |one| one.state.move(:pull) if one.id.even? }
    assert_equal [[2, 4], [1, 3]], [shown.advance(11).out_ids, shown.standing.map(&:id)]
    lines[3].state.move(:put_back)
    assert_equal [[4], [1, 3, 4]], [shown.advance(12).in_lines.map(&:id), shown.standing.map(&:id)]
  end

  # A rule kept it off; it was let go, that was taken back, and now it is let go again.
  def test_a_line_that_comes_again_as_another_one_has_the_place_and_the_time_of_that
    shown = timeline(stay_ms: 1000)
    first = on_picture(1)
    [first, line(2, at_ms: 500)].each { |one| shown.add(one) }
    again = first.dup.tap { |one| one.shown_at_ms = 900 }
    2.times { shown.add(again) }
    assert_equal [2, 1], standing(shown, 950)
    assert_equal [1], standing(shown, 1600)
  end

  def test_what_is_read_stands_as_long_as_noticing_and_reading_it_takes_at_least_three_seconds
    reading = Timeline::Settings.method(:reading_ms)
    assert_equal [3000, 3000, 3050, 6500], [[0, 20], [30, 20], [31, 20], [100, 20]].map { |letters, speed| reading.call(letters, speed) }
  end

  def test_the_same_line_counts_once
    shown = timeline
    2.times { shown.add(line(1)) }
    assert_equal [1], standing(shown, 2)
  end

  def test_a_line_told_again_from_history_finds_its_place
    shown = timeline
    shown.add(line(5, at_ms: 5000))
    shown.add(line(6, at_ms: 3000))
    assert_equal [6, 5], standing(shown, 5000)
  end

  def test_other_settings_count_for_what_already_stands
    shown = timeline
    3.times { |number| shown.add(line(number + 1)) }
    standing(shown, 10)
    shown.settings = Timeline::Settings.new(1, 10_000, 0)
    assert_equal [1, 2], shown.advance(11).out_ids
    shown.settings = Timeline::Settings.new(3, 10_000, 0)
    assert_equal [1, 2], shown.advance(12).in_lines.map(&:id)
  end

  def test_the_same_lines_given_again_stand_again_with_the_time_they_had_left
    again = timeline(lines: [line(1, at_ms: 1000), line(2, at_ms: 9000)])
    assert_equal [1, 2], standing(again, 10_500)
    assert_equal [1], again.advance(11_000).out_ids
    assert_equal 19_000, again.next_due_ms
  end

  def test_where_lines_stay_as_long_as_they_take_to_read_each_goes_by_itself
    shown = Timeline.new(Timeline::Settings.new(5, 10_000, 1, 20), [line(1, "x" * 100, at_ms: 1000), line(2, "short", at_ms: 2000), line(3, "x", at_ms: 2500)])
    assert_equal [[1, 2, 3], 5000], [standing(shown, 2500), shown.next_due_ms]
    assert_equal [[], [2], [], [1]], [4999, 5000, 7499, 7500].map { |now| shown.advance(now).out_ids }
    assert_equal [[3], nil], [shown.standing.map(&:id), shown.next_due_ms]
  end

  def test_it_remembers_so_many_and_what_is_forgotten_is_new_again
    shown = timeline(at_most: 3, stay_ms: nil)
    most = Timeline::REMEMBERED
    (1..most).each { |id| shown.add(line(id)) }
    assert shown.known?(1)
    shown.add(line(most + 1))
    assert_equal [false, true, most], [shown.known?(1), shown.known?(2), shown.remembered.size]
    shown.clear
    refute shown.known?(2)
    again = timeline(at_most: most, stay_ms: nil, lines: (1..(most + 5)).map { |id| line(id) })
    assert_equal [6, most + 5], [again.remembered.first.id, again.remembered.last.id]
    again.add(line(6))
    assert_equal most, standing(again, 10**6).size
  end

  def test_lines_of_the_same_moment_stand_as_they_came
    shown = timeline
    [[1, 5], [2, 3], [3, 5], [4, 3]].each { |id, at_ms| shown.add(line(id, at_ms:)) }
    assert_equal [2, 4, 1, 3], standing(shown, 10)
  end

  def test_nothing_is_due_where_lines_stay_for_good
    assert_nil timeline(stay_ms: nil, lines: [line(1)]).tap { |one| one.advance(2) }.next_due_ms
  end

  def test_clearing_takes_everything_away
    shown = timeline(lines: [line(1), line(2)])
    standing(shown, 5)
    shown.clear
    assert_equal [1, 2], shown.advance(6).out_ids
  end

  # Whatever happens in whatever order, what the changes tell is what stands.
  def test_changes_add_up_to_what_stands
    steps = PropCheck::Generators.array(PropCheck::Generators.tuple(PropCheck::Generators.choose(0..5), PropCheck::Generators.choose(1..40)))
    PropCheck.forall(steps) { |list| assert_equal(*run_steps(list)) }
  end

  def test_never_more_than_at_most
    steps = PropCheck::Generators.array(PropCheck::Generators.tuple(PropCheck::Generators.choose(0..5), PropCheck::Generators.choose(1..40)))
    PropCheck.forall(steps) { |list| assert_operator run_steps(list).first.size, :<=, 6 }
  end

  private

  def run_steps(list)
    shown = timeline(at_most: 6, keep_last: 2, stay_ms: 3000)
    @made = {}
    seen = []
    list.each_with_index do |(what, number), index|
      now = index * 400
      act(shown, what, number, now)
      change = shown.advance(now)
      seen = (seen + change.in_lines.map(&:id)) - change.out_ids
    end
    [shown.standing.map(&:id).sort, seen.sort]
  end

  def act(shown, what, number, now)
    case what
    when 0..2 then shown.add(@made[number] ||= on_picture(number, at_ms: [now - (number * 10), 0].max))
    when 3 then take([number])
    when 4 then shown.settings = Timeline::Settings.new(1 + (number % 6), 3000 + number, number % 3)
    else take(@made.keys.select(&:even?))
    end
  end

  def take(ids) = @made.values_at(*ids).compact.each { |one| one.state.move(:pull) if one.state.can?(:pull) }

  def on_picture(...) = line(...).tap { |one| one.state = Bavard::Core::Moderation::LineState.new(:aired) }
end
