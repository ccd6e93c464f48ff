# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/look/letter_shadow"

# The soft shadow round letters: drawn as often as it takes, and what is seen of it.
class LetterShadowTest < Minitest::Test
  LetterShadow = Bavard::Core::Look::LetterShadow

  def shadow(opacity: 85, blur: 7, x: 0, y: 1, size: 30)
    LetterShadow.new({"text_size_px" => size, "text_shadow_opacity" => opacity, "text_shadow_x_px" => x, "text_shadow_y_px" => y,
                      "text_shadow_blur_px" => blur, "text_shadow_colour" => "#0a0e12"}, "text")
  end

  # By numbers: an opaque bar of the stroke's width, blurred, some layers of it, as far as it is away.
  def by_sampling(shadow, size:, blur:, away:)
    reach = (-4000..4000).map { |step| step * blur / 1000.0 }
    weights = reach.map { |at| Math.exp(-(at**2) / (2 * ((blur / 2.0)**2))) }
    bar = reach.zip(weights).sum { |at, weight| (at - away).between?(0, LetterShadow::STROKE * size) ? weight : 0 } / weights.sum
    1 - shadow.css.map { |layer| 1 - (bar * layer[/#\h{6}(\h\h)/, 1].hex / 255.0) }.reduce(:*)
  end

  def test_at_a_letters_edge_its_opacity_is_what_is_seen
    [[20, 7, 30], [50, 7, 30], [85, 12, 60], [90, 3, 24]].each do |opacity, blur, size|
      assert_in_delta opacity / 100.0, by_sampling(shadow(opacity:, blur:, size:), size:, blur:, away: 0), 0.01, [opacity, blur, size].inspect
    end
  end

  def test_what_is_seen_beside_the_letter_is_less_on_the_side_it_turns_away_from
    assert_in_delta by_sampling(shadow, size: 30, blur: 7, away: LetterShadow::NEAR_PX + 1), shadow.seen, 0.01
    away = [0, 1, 4, 12].map { |y| shadow(y:).seen }
    assert_equal away.sort.reverse, away
    assert_equal shadow(x: 3, y: 4).seen, shadow(x: 0, y: 5).seen
  end

  def test_it_is_drawn_as_seldom_as_it_can_be
    assert_equal [1, 2], [5, 50].map { |opacity| shadow(opacity:).css.size }
  end

  def test_a_hard_shadow_is_drawn_once_and_helps_nothing_on_its_other_side
    hard = shadow(blur: 0, x: 2, y: 2, opacity: 60)
    assert_equal ["2px 2px 0px #0a0e1299"], hard.css
    assert_in_delta(0.0, hard.seen)
  end

  def test_none_is_none_and_no_shadow_takes_endless_layers
    assert_equal [[], 0.0], [shadow(opacity: 0).css, shadow(opacity: 0).seen]
    [[100, 60, 8], [100, 1, 400], [1, 60, 8]].each do |opacity, blur, size|
      assert_includes 1..LetterShadow::MOST_LAYERS, shadow(opacity:, blur:, size:).css.size
    end
    assert_equal "ff", shadow(opacity: 100, blur: 60, size: 8).css.first[-2..]
  end
end
