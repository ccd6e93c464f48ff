# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/document"

# What others set while the broadcast goes on.
class NowLineTest < Minitest::Test
  NowLine = Bavard::Core::Pieces.kind("now_line")

  def test_each_line_is_one_text_and_empty_ones_are_none
    assert_equal ["In the net: heron", "Tea at nine"], NowLine.lines("  In the net:\theron \r\n\n   \nTea at nine\n")
    assert_equal [[], []], [NowLine.lines(nil), NowLine.lines("\u0000\u0007\n")]
    assert_equal ["ab"], NowLine.lines("a\xFFb")
  end

  def test_it_is_bounded
    lines = NowLine.lines("#{"x" * 500}\n" * 30)
    assert_equal [NowLine::MOST, [NowLine::LONGEST]], [lines.size, lines.map(&:length).uniq]
    assert_equal "line 0", NowLine.lines(Array.new(30) { |number| "line #{number}" }.join("\n")).first
  end
end
