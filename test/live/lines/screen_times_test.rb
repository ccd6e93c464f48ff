# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/lines/screen_times"

# From a line's arrival to a screen: the hold is left out, and what no screen could paint says nothing.
class ScreenTimesTest < Minitest::Test
  Line = Struct.new(:origin, :arrived_at_ms)
  State = Struct.new(:name)
  Kept = Struct.new(:id, :line, :state)

  def setup
    @open = true
    @times = Bavard::Live::ScreenTimes.new { @open }
  end

  def kept(id, state = :aired, at: 1000, origin: :feed) = Kept.new(id, Line.new(origin, at), State.new(state))
  def took(id, at_ms) = @times.painted(id, at_ms)&.took_ms

  def test_what_goes_on_air_at_once_counts_from_its_arrival
    @times.came(kept(1), 1010)
    assert_equal 41, took(1, 1041)
    assert_equal [41], @times.of_late(1041)
  end

  def test_what_was_held_counts_from_when_it_went
    @times.came(kept(1, :held), 1000)
    @times.moved(kept(1), :air, :held, 5000)
    assert_equal 30, took(1, 5030)
  end

  def test_the_first_screen_counts_and_no_second_one
    @times.came(kept(1), 1000)
    assert_equal 20, took(1, 1020)
    assert_nil took(1, 9000)
    assert_equal 20, @times.last.took_ms
  end

  def test_nothing_of_lines_that_were_there_before_a_screen_was
    @open = false
    @times.came(kept(1), 1000)
    @open = true
    assert_nil took(1, 30_000)
  end

  def test_neither_made_up_lines_nor_what_was_taken_away_nor_what_nobody_knows
    @times.came(kept(1, origin: :test), 1000)
    @times.came(kept(2), 1000)
    @times.moved(kept(2, :pulled), :pull, :aired, 1010)
    @times.came(kept(3), 1000)
    @times.forgot(kept(3))
    assert_equal [nil] * 4, [1, 2, 3, 4].map { |id| took(id, 1020) }
  end

  def test_a_screen_cannot_claim_what_could_not_be
    @times.came(kept(1), 1000)
    @times.came(kept(2), 1000)
    assert_equal [0, Bavard::Live::ScreenTimes::LONGEST_MS], [took(1, -5), took(2, 10**12)]
  end

  def test_after_ten_minutes_they_are_forgotten_and_no_more_are_kept_than_there_may_be
    (1..5).each do |id|
      @times.came(kept(id, at: id * 1000), id * 1000)
      @times.painted(id, (id * 1000) + (60 - id))
    end
    assert_equal [55, 56, 57, 58, 59], @times.of_late(5055)
    assert_equal [55, 56], @times.of_late(603_058)
    (1..2100).each { |id| @times.came(kept(id), 1000) }
    assert_equal [nil, 5], [took(100, 1005), took(101, 1005)]
  end
end
