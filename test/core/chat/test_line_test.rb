# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/test_line"

# What a host sends to see how a line stands: anything, cleaned as what viewers write is.
class TestLineTest < Minitest::Test
  TestLine = Bavard::Core::Chat::TestLine

  def said(...) = TestLine.said(...).then { |one| [one.display_name, one.text] }

  def test_without_words_it_says_what_it_is
    assert_equal ["Test 2 of 3", "This is a test line from Bavard, number 2."], said("", " ", number: 2, of: 3)
  end

  def test_it_is_what_somebody_says_at_any_length_and_no_longer_than_a_line_can_be
    assert_equal ["Ann", "hello"], said(" Ann ", "hello")
    name, words = said("n" * 500, "w" * 20_000)
    assert_equal TestLine::LONGEST_NAME, name.length
    assert_equal Bavard::Core::Chat::Cleaning::LONGEST, words.length
  end

  def test_what_cannot_be_drawn_is_refused
    assert_raises(Bavard::Error) { said("", "\u0000\u0007") }
  end

  def test_awkward_ones_are_awkward_and_stay_what_they_are
    TestLine::AWKWARD.each_value do |label, name, text|
      called, words = said(name, text)
      assert_equal name, called, label
      refute_empty words
    end
    assert_equal 10, TestLine::AWKWARD.values.map(&:last).uniq.size
  end
end
