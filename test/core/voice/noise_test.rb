# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/voice/noise"

# What it is like where somebody sits.
class NoiseTest < Minitest::Test
  EVERY_MS = 20

  def setup
    @noise = Bavard::Core::Voice::Noise.new
    @at_ms = 0
  end

  # @yieldparam step [Integer]
  # @yieldreturn [Numeric] dBov
  def hear(ms, learn: true)
    (ms / EVERY_MS).times do |step|
      dbov = yield(step)
      @noise.hear(@at_ms, dbov)
      @noise.learn(@at_ms, dbov, EVERY_MS) if learn
      @at_ms += EVERY_MS
    end
  end

  def swinging(around, by) = ->(step) { around + (step.even? ? by : -by) }

  def test_the_first_word_is_not_yet_noise
    @noise.hear(0, -20)
    assert_equal [-44.0, 4.0], [@noise.level, @noise.spread]
  end

  def test_its_level_and_its_spread_are_learnt
    hear(8000, &swinging(-50, 3))
    assert_in_delta(-50, @noise.level, 0.5)
    assert_in_delta 3, @noise.spread, 0.3
    hear(8000) { -60 }
    assert_in_delta(-60, @noise.level, 0.5)
    assert_operator @noise.spread, :<, 1.5
  end

  def test_it_grows_quiet_sooner_than_loud
    hear(8000) { -50 }
    hear(600) { -70 }
    quieter = -50 - @noise.level
    setup
    hear(8000) { -70 }
    hear(600) { -50 }
    assert_operator quieter, :>, 1.3 * (@noise.level + 70)
  end

  def test_one_that_is_far_away_moves_the_spread_no_further_than_it_may
    hear(8000) { -50 }
    before = @noise.spread
    hear(20) { -10 }
    assert_operator @noise.spread, :<, 1.1 * before
  end

  def test_what_goes_on_without_a_dip_and_varies_as_noise_does_is_noise_that_has_begun
    hear(4000) { -65 }
    hear(860, learn: false, &swinging(-45, 2))
    refute @noise.begun?(-55), "it has not gone on for long enough"
    hear(100, learn: false, &swinging(-45, 2))
    refute @noise.begun?(-46), "it dips"
    assert @noise.begun?(-55)
    assert_in_delta(-45, @noise.level, 0.5)
  end

  def test_speech_and_what_does_not_vary_at_all_are_no_noise
    [->(step) { step % 5 < 2 ? -40 : -22 }, ->(_) { -25 }].each do |talk|
      setup
      hear(2000) { -65 }
      hear(1200, learn: false, &talk)
      refute @noise.begun?(-55)
    end
  end

  def test_whoever_was_away_for_long_is_listened_to_anew
    hear(3000) { -60 }
    @noise.hear(@at_ms + 9000, -20)
    assert_in_delta(-60, @noise.level, 1)
    @noise.hear(@at_ms + 9000 + 10_001, -20)
    assert_in_delta(-44.0, @noise.level)
  end
end
