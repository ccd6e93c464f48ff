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

  def test_emotes_move_along_or_go_with_what_they_stand_in
    placed = [[0, 4, "a"], [9, 4, "b"], [14, 4, "c"]]
    shown = Edits.apply("Wren long Wren Wren", [Edit.new(5, 9, "x"), Edit.new(15, 16, "")], [[0, 4, "a"], [10, 4, "b"], [15, 4, "c"]])
    assert_equal ["Wren x Wren ren", [[0, 4, "a"], [7, 4, "b"]]], [shown.text, shown.placed]
    assert_equal placed, Edits.apply("x" * 20, [], placed).placed
  end
end
