# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/look/legibility"

class LegibilityTest < Minitest::Test
  def of(text: "#ffffff", plate: "#000000", opacity: 100)
    Bavard::Core::Look::Legibility.new({"text_colour" => text, "plate_colour" => plate, "plate_opacity" => opacity})
  end

  def test_a_full_plate_counts_as_it_is
    assert_equal "Text on its plate: 21.0 : 1 at worst", of.words
  end

  def test_a_plate_that_lets_the_picture_through_counts_with_the_worse_picture
    assert_operator of(opacity: 72).worst_ratio, :<, of.worst_ratio
    assert_in_delta 1.0, of(opacity: 0).worst_ratio, 0.001
    assert_in_delta 1.0, of(text: "#000000", plate: "#ffffff", opacity: 0).worst_ratio, 0.001
  end

  # Black at 50 % over white is #808080 before rounding: white text on it has 3.95 : 1.
  def test_what_is_seen_of_both_is_what_a_browser_draws
    assert_in_delta 3.98, of(opacity: 50).worst_ratio, 0.05
    assert_includes of(opacity: 50).words, "4.5 is the least"
  end

  def test_it_is_never_told_better_than_it_is
    assert_includes of(text: "#777777", plate: "#ffffff").words, "4.4 : 1"
    assert_includes of(text: "#767676", plate: "#ffffff").words, "4.5 : 1 at worst"
  end
end
