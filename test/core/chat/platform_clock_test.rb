# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/core/chat/line"
require_relative "../../../lib/bavard/core/chat/platform_clock"

class PlatformClockTest < Minitest::Test
  PlatformClock = Bavard::Core::Chat::PlatformClock
  HOUR_MS = 3_600_000

  def setup = @clock = PlatformClock.new

  # @param apart_ms [Integer] how much later it came than its platform says it was said
  # @param age_ms [Integer] of one from history, when it came
  def hear(apart_ms, age_ms: 0)
    arrived_ms = @now_ms = (@now_ms || (100 * HOUR_MS)) + 1000
    line = Bavard::Core::Chat::Line.new(1).tap do |one|
      one.arrived_at_ms = arrived_ms
      one.platform_time_ms = arrived_ms - apart_ms
      one.shown_at_ms = arrived_ms - age_ms
    end
    @clock.heard(line)
  end

  def test_nobody_knows_before_anything_was_said = assert_nil(@clock.behind_ms)

  def test_the_way_here_is_no_difference
    [30, 1999, -1999].each { |apart_ms| hear(apart_ms) }
    assert_equal 0, @clock.behind_ms
  end

  def test_it_is_as_far_off_as_what_came_soonest_says
    [HOUR_MS + 900, HOUR_MS + 40, HOUR_MS + 5000].each { |apart_ms| hear(apart_ms) }
    assert_equal HOUR_MS + 40, @clock.behind_ms
  end

  def test_one_that_is_ahead_is_behind_by_less_than_nothing
    hear(40 - HOUR_MS)
    assert_equal 40 - HOUR_MS, @clock.behind_ms
  end

  def test_what_is_told_from_history_says_nothing_of_now
    hear(20 * 60_000, age_ms: 20 * 60_000)
    assert_nil @clock.behind_ms
  end

  def test_after_a_clock_was_set_what_came_before_is_soon_forgotten
    5.times { hear(20) }
    PlatformClock::LATEST.times { hear(HOUR_MS) }
    assert_equal HOUR_MS, @clock.behind_ms
  end

  def test_where_ours_was_set_what_came_before_counts_by_the_new_time
    [20, 900].each { |apart_ms| hear(apart_ms) }
    @clock.set(HOUR_MS)
    assert_equal HOUR_MS + 20, @clock.behind_ms
    @clock.set(-HOUR_MS)
    assert_equal 0, @clock.behind_ms
  end

  def test_a_time_that_is_no_time_of_day_is_left_alone
    hear(PlatformClock::MOST_MS)
    assert_equal PlatformClock::MOST_MS, @clock.behind_ms
    @clock = PlatformClock.new
    hear(PlatformClock::MOST_MS + 1)
    assert_nil @clock.behind_ms
  end
end
