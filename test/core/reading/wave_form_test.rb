# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/reading/wave_form"

# A sound drawn small.
class WaveFormTest < Minitest::Test
  WaveForm = Bavard::Core::Reading::WaveForm

  def of(*samples, places: 4) = WaveForm.of(samples.pack("s<*"), places:)

  def test_each_place_reaches_as_far_as_its_loudest_sample
    assert_equal [100, 50, 25, 0], of(0, -32_768, 16_384, 100, -8192, 3, 0, 0)
    assert_equal [1, 2], of(328, 655)
  end

  def test_places_that_share_a_sample_both_have_it
    assert_equal [50, 0, 100], of(16_384, 0, 32_767)
    assert_equal [50, 100], of(0, 16_384, 32_767, places: 2)
    assert_equal [50, 50], of(0, 16_384, 0, places: 2)
  end

  def test_nothing_is_nothing_and_half_a_sample_is_none
    assert_equal [[], []], [of, WaveForm.of("x")]
    assert_equal WaveForm::PLACES, WaveForm.of("\0\0" * 1000).size
  end
end
