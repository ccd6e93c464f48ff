# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/lines/screen_times"

# From a line's arrival to a screen: the hold is left out, and what no screen could paint says nothing.
class ScreenTimesTest < Minitest::Test
  Line = Struct.new(:origin, :arrived_at_ms, :shown_at_ms)
  State = Struct.new(:name)
  Kept = Struct.new(:id, :line, :state, :shown)

  def setup = @times = Bavard::Live::ScreenTimes.new

  # @param went [Integer, nil] when it left the hold
  def kept(id, state = :aired, at: 1000, went: nil, said: at, origin: :feed)
    Kept.new(id, Line.new(origin, at, said), State.new(state), went && Line.new(origin, at, went))
  end

  def took(kept, at_ms, open: 0) = @times.painted(kept, at_ms, open)&.took_ms

  def test_what_goes_on_air_at_once_counts_from_its_arrival
    assert_equal 41, took(kept(1), 1041)
    assert_equal [41], @times.of_late(1041)
  end

  def test_half_of_them_counted_anew_every_few_seconds
    assert_nil @times.half(1000)
    [20, 30, 90].each_with_index { |ms, id| took(kept(id), 1000 + ms) }
    assert_nil @times.half(2900)
    assert_equal 30, @times.half(3000)
    assert_nil @times.half(3000 + Bavard::Live::ScreenTimes::WITHIN_MS)
  end

  def test_what_was_held_counts_from_when_it_went
    assert_equal 30, took(kept(1, went: 5000), 5030)
  end

  def test_what_a_feed_told_later_counts_from_then
    assert_equal 30, took(kept(1, said: 1, at: 5000), 5030)
  end

  def test_the_first_screen_counts_and_no_second_one
    assert_equal 20, took(kept(1), 1020)
    assert_nil took(kept(1), 9000)
    assert_equal 20, @times.last.took_ms
  end

  def test_nothing_of_lines_that_were_there_before_a_screen_was
    assert_nil took(kept(1), 30_000, open: 1001)
    assert_equal 5, took(kept(1), 1005, open: 1000)
  end

  def test_neither_made_up_lines_nor_what_was_taken_away_meanwhile
    assert_nil took(kept(1, origin: :test), 1020)
    assert_nil took(kept(2, :pulled), 1020)
    assert_nil took(kept(3, :held), 1020)
    assert_nil @times.last
  end

  def test_a_screen_cannot_claim_what_could_not_be
    assert_equal [0, Bavard::Live::ScreenTimes::LONGEST_MS], [took(kept(1), -5), took(kept(2), 10**12)]
  end

  def test_after_ten_minutes_they_are_forgotten
    (1..5).each { |id| took(kept(id, at: id * 1000), (id * 1000) + (60 - id)) }
    assert_equal [55, 56, 57, 58, 59], @times.of_late(5055)
    assert_equal [55, 56], @times.of_late(603_058)
    assert_empty @times.of_late(700_000)
  end
end
