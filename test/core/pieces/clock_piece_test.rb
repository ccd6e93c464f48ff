# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/document"

# What a clock shows, and which way it goes.
class ClockPieceTest < Minitest::Test
  HOUR_MS = 3_600_000

  def state(clock, at_ms: 0, ran_ms: 0, running: true, **more)
    Bavard::Core::Pieces::ClockPiece.state({"clock" => clock, **more.transform_keys(&:to_s)}, time_of_day_ms: at_ms, ran_ms:, running:).values
  end

  def test_the_time_goes_on_whether_the_show_does_or_not
    assert_equal [20 * HOUR_MS, :up], state("time", at_ms: 20 * HOUR_MS, running: false)
  end

  def test_until_a_time_counts_down_and_over_midnight
    assert_equal [1.5 * HOUR_MS, :down], state("until", at_ms: 20 * HOUR_MS, until: "21:30")
    assert_equal [2 * HOUR_MS, :down], state("until", at_ms: 23 * HOUR_MS, until: "01:00")
    assert_equal [0, :down], state("until", at_ms: HOUR_MS, until: "01:00")
    assert_equal [61_000, :down], state("until", at_ms: (12 * HOUR_MS) - 1000, until: "12:01")
  end

  def test_a_length_counts_down_to_nothing_while_the_show_runs
    assert_equal [60_000, :down], state("length", minutes: 1.5, ran_ms: 30_000)
    assert_equal [60_000, :stands], state("length", minutes: 1.5, ran_ms: 30_000, running: false)
    assert_equal [0, :down], state("length", minutes: 1.5, ran_ms: 90_001)
  end

  def test_what_has_run_counts_up_while_it_runs
    assert_equal [30_000, :up], state("stopwatch", ran_ms: 30_000)
    assert_equal [30_000, :stands], state("stopwatch", ran_ms: 30_000, running: false)
  end
end
