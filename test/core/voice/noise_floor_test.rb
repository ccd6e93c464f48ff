# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/voice/noise_floor"

# How quiet it is where somebody sits.
class NoiseFloorTest < Minitest::Test
  Floor = Bavard::Core::Voice::NoiseFloor

  def setup = @floor = Floor.new

  def hear(from_ms, to_ms, dbov) = (from_ms...to_ms).step(100) { |at_ms| @floor.hear(at_ms, dbov) }

  def test_before_anything_was_heard_a_quiet_room_is_supposed = assert_in_delta(-60.0, @floor.dbov)

  def test_the_first_word_is_not_yet_noise
    hear(0, 1000, -20)
    assert_in_delta(-44.0, @floor.dbov)
  end

  def test_after_three_seconds_what_never_ends_is_noise_as_far_as_noise_goes
    hear(0, 2500, -20)
    assert_in_delta(-44.0, @floor.dbov)
    hear(2500, 2600, -20)
    assert_in_delta(-32.0, @floor.dbov)
  end

  def test_it_is_a_little_above_the_least_of_the_last_three_seconds
    hear(0, 300, -40)
    hear(300, 400, -50)
    hear(400, 3000, -40)
    assert_equal(-48, @floor.dbov)
    hear(3000, 3100, -40)
    assert_equal(-38, @floor.dbov)
  end

  def test_of_each_half_second_the_least_counts_however_it_goes_on
    hear(0, 300, -40)
    hear(300, 400, -50)
    hear(400, 500, -45)
    hear(500, 600, -30)
    assert_equal(-48, @floor.dbov)
  end

  def test_no_room_is_quieter_than_a_good_microphone
    hear(0, 500, -127)
    assert_in_delta(-75.0, @floor.dbov)
  end

  def test_whoever_was_away_for_long_is_listened_to_anew
    hear(0, 3000, -60)
    @floor.hear(2900 + 10_000, -20)
    assert_equal(-58, @floor.dbov)
    @floor.hear(12_900 + 10_001, -20)
    assert_in_delta(-44.0, @floor.dbov)
  end
end
