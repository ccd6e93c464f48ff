# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/dress/emote"
require_relative "../../../lib/bavard/core/dress/stack"

class StackTest < Minitest::Test
  Stack = Bavard::Core::Dress::Stack

  def emote(overlay: false, animated: false) = Bavard::Core::Dress::Emote.new(1, ":x:", "p", overlay, false, animated, 1.5)
  def stacked(*fragments) = Stack.of(fragments) { |emote| emote.is_a?(String) ? {"there" => "q"}[emote] : emote.picture }

  def test_an_emote_gets_its_picture_its_ratio_and_whether_it_moves
    assert_equal [[:text, "a "], [:emote, ":x:", "p", 1.5, 1]], stacked([:text, "a "], [:emote, ":x:", emote(animated: true)])
  end

  def test_a_platforms_own_is_drawn_once_its_picture_is_there
    assert_equal [[:emote, ":o:", "q", 0, 0], [:text, ":o:"]], stacked([:emote, ":o:", "there"], [:emote, ":o:", "not there"])
  end

  def test_overlays_lie_over_the_emote_before_them_with_or_without_a_blank
    over = [:emote, ":y:", emote(overlay: true)]
    assert_equal [[:emote, ":x:", "p", 1.5, 0, [":y:", "p"], [":y:", "p"]]], stacked([:emote, ":x:", emote], [:text, " "], over, over)
    assert_equal [[:emote, ":o:", "q", 0, 0, [":y:", "p"]]], stacked([:emote, ":o:", "there"], over)
    assert_equal [[:emote, ":x:", "p", 1.5, 0, [":y:", "p"]]], stacked([:emote, ":x:", emote], [:text, "　"], over)
    two = stacked([:emote, ":o:", "there"], [:emote, ":x:", emote], over)
    assert_equal [[:emote, ":o:", "q", 0, 0], [:emote, ":x:", "p", 1.5, 0, [":y:", "p"]]], two
  end

  def test_an_overlay_with_nothing_to_lie_over_is_an_emote_like_others
    over = [:emote, ":y:", emote(overlay: true)]
    drawn = [:emote, ":y:", "p", 1.5, 0]
    assert_equal [drawn], stacked(over)
    assert_equal [[:text, "a "], drawn], stacked([:text, "a "], over)
    assert_equal [[:emote, ":x:", "p", 1.5, 0], [:text, " and "], drawn], stacked([:emote, ":x:", emote], [:text, " and "], over)
  end

  def test_words_before_an_emote_are_not_what_an_overlay_lies_over
    over = [:emote, ":y:", emote(overlay: true)]
    assert_equal [[:text, "hello "], [:emote, ":x:", "p", 1.5, 0, [":y:", "p"]]], stacked([:text, "hello "], [:emote, ":x:", emote], [:text, " "], over)
  end

  def test_alone
    pictures = [[:emote, ":x:", emote], [:text, "  "], [:emoji, "🦆"]]
    assert Stack.alone?(pictures)
    assert Stack.alone?([*pictures, [:text, "　"], *pictures])
    refute Stack.alone?([*pictures, [:text, "a"]])
    refute Stack.alone?([*pictures, [:mention, "@ann"]])
    refute Stack.alone?([])
    refute Stack.alone?([[:text, " "]])
    assert Stack.alone?([[:emoji, "🦆"]])
    assert Stack.alone?([[:emoji, "🦆"]] * 12)
    refute Stack.alone?([[:emoji, "🦆"]] * 13)
  end
end
