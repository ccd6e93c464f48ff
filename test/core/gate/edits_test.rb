# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/edits"

class EditsTest < Minitest::Test
  Edits = Bavard::Core::Gate::Edits
  Edit = Bavard::Core::Gate::Edit

  def test_covering_counts_what_is_drawn_and_cuts_no_cluster_in_two
    assert_equal [4, 8, "●●●●"], Edits.cover("you bird", 4, 8).to_a
    text = "e\u0301a👩🏽‍🌾x"
    assert_equal text.length, Edits.cover(text, 1, text.length - 1).then { |edit| edit.from.zero? ? text.length : 0 }
    assert_equal "●●", Edits.cover("e\u0301a", 0, 3).instead
    assert_equal "●●●", Edits.cover("a.b.c", 0, 5).instead
  end

  def test_edits_are_put_in_from_left_to_right_and_where_two_overlap_the_first_counts
    shown = Edits.apply("one two three", [Edit.new(8, 13, "3"), Edit.new(4, 7, "2"), Edit.new(5, 9, "no")])
    assert_equal "one 2 3", shown.text
    assert_equal "abc", Edits.apply("abc", []).text
  end

  def test_what_only_touches_does_not_overlap
    assert_equal "xyc", Edits.apply("aabbc", [Edit.new(2, 4, "y"), Edit.new(0, 2, "x")]).text
    placed = [[0, 2, "a"], [4, 2, "b"]]
    assert_equal [[0, 2, "a"], [3, 2, "b"]], Edits.apply("aaxxbb", [Edit.new(2, 4, "-")], placed).placed
    assert_equal [[0, 1, "c"]], Edits.apply("ab c", [Edit.new(0, 2, "")], [[3, 1, "c"]]).placed
  end

  def test_between_letters_of_several_characters
    text = "ae\u0301\u0302bc"
    cover = ->(from, to) { Edits.cover(text, from, to).to_a.first(2) }
    assert_equal [[0, 1], [1, 4], [1, 4], [1, 5], [0, 4], [4, 5], [4, 6]], [[0, 1], [1, 2], [2, 3], [3, 5], [0, 2], [4, 5], [4, 9]].map { |from, to| cover[from, to] }
    assert_equal ["●", "●●"], [Edits.cover(text, 1, 2).instead, Edits.cover("...", 0, 3, letters: 2).instead]
  end

  def test_emotes_move_along_or_go_with_what_they_stand_in
    placed = [[0, 4, "a"], [9, 4, "b"], [14, 4, "c"]]
    shown = Edits.apply("Wren long Wren Wren", [Edit.new(5, 9, "x"), Edit.new(15, 16, "")], [[0, 4, "a"], [10, 4, "b"], [15, 4, "c"]])
    assert_equal ["Wren x Wren ren", [[0, 4, "a"], [7, 4, "b"]]], [shown.text, shown.placed]
    assert_equal placed, Edits.apply("x" * 20, [], placed).placed
  end
end
