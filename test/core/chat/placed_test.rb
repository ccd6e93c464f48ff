# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/placed"

# Where a platform says its emotes stand, in each of the units that platforms count in.
class PlacedTest < Minitest::Test
  Placed = Bavard::Core::Chat::Placed
  # 🦆 is 1 code point, 2 UTF-16 code units, 4 bytes; é is 1, 1, 2.
  TEXT = "🦆 é :owl: x"

  def test_code_points_bytes_and_utf16_mean_the_same_place
    assert_equal [[4, 5, "owl"]], Placed.new(:code_points, [[4, 5, "owl"]]).in_code_points(TEXT)
    assert_equal [[4, 5, "owl"]], Placed.new(:utf16, [[5, 5, "owl"]]).in_code_points(TEXT)
    assert_equal [[4, 5, "owl"]], Placed.new(:bytes, [[8, 5, "owl"]]).in_code_points(TEXT)
  end

  def test_at_the_beginning_of_a_line_too
    units = {code_points: 1, utf16: 2, bytes: 4}
    units.each { |unit, length| assert_equal [[0, 1, "duck"]], Placed.new(unit, [[0, length, "duck"]]).in_code_points(TEXT), unit }
  end

  def test_a_range_into_the_middle_of_a_character_is_left_out
    assert_empty Placed.new(:utf16, [[1, 2, "x"]]).in_code_points(TEXT)
    assert_empty Placed.new(:bytes, [[1, 3, "x"]]).in_code_points(TEXT)
  end

  def test_ranges_outside_empty_ones_and_those_over_another_are_left_out
    ranges = [[4, 5, "first"], [6, 2, "over it"], [0, 0, "empty"], [99, 3, "outside"], [10, 9, "beyond the end"], [0, 1, "duck"]]
    assert_equal [[0, 1, "duck"], [4, 5, "first"]], Placed.new(:code_points, ranges).in_code_points(TEXT)
  end

  def test_of_more_emotes_than_a_line_may_have_the_first_are_drawn
    most = Placed::MOST
    ranges = Array.new(most + 2) { |index| [index * 2, 1, index.to_s] }
    assert_equal ranges.first(most), Placed.new(:code_points, ranges).in_code_points("a " * (most + 2))
  end

  def test_a_line_cuts_its_text_there_and_offsets_follow_what_cleaning_takes_out
    said = Bavard::Core::Said.new("ann", nil, nil, [], "  \u0007look\u0000 :owl:  ", false, false, Placed.new(:code_points, [[9, 5, "http://x/owl"]]))
    line = Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, 1, nil, nil, 5, said), id: 1)
    assert_equal "look :owl:", line.text
    assert_equal [[:text, "look "], [:emote, ":owl:", "http://x/owl"]], line.fragments
    assert_equal [[5, 5, "http://x/owl"]], line.placed
  end

  def test_however_wild_the_ranges_the_fragments_are_the_text
    random = Random.new(11)
    300.times do
      text = Array.new(random.rand(1..30)) { ["a", " ", "é", "🦆", "\t", "\u0007", "👨‍👩‍👧", ":owl:"].sample(random:) }.join
      ranges = Array.new(random.rand(0..6)) { [random.rand(-3..40), random.rand(-2..12), "x"] }.reject { |from, *| from.negative? }
      unit = %i[code_points utf16 bytes].sample(random:)
      said = Bavard::Core::Said.new("ann", nil, nil, [], text, false, false, Placed.new(unit, ranges))
      line = Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, 1, nil, nil, 5, said), id: 1)
      assert_equal line.text, line.fragments.map { |fragment| fragment[1] }.join, [text, ranges, unit].inspect
    end
  end
end
