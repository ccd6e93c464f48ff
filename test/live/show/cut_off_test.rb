# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/live/show/cut_off"

# Whether one process alone does not reach the database.
class CutOffTest < Minitest::Test
  def setup
    @let_go = 0
    @cut_off = Bavard::Live::CutOff.new(away: -> { @away }, others: -> { (@asked = @asked.to_i + 1) && @other }) { @let_go += 1 }
  end

  def looks(away, other)
    @away = away
    @other = other
    @cut_off.look
    [@let_go, @cut_off.instead]
  end

  def test_where_nobody_reaches_it_all_go_on
    5.times { assert_equal [0, nil], looks(true, nil) }
    assert_equal [0, nil], looks(false, "b")
    assert_equal 5, @asked, "whoever reaches it asks nobody"
  end

  def test_where_another_reaches_it_twice_in_a_row_all_is_let_go
    assert_equal [0, nil], looks(true, "b")
    assert_equal [0, nil], looks(true, nil)
    assert_equal [0, nil], looks(true, "b")
    assert_equal [1, "b"], looks(true, "b")
    # What began since goes as well.
    assert_equal [2, "c"], looks(true, "c")
    assert_equal [2, nil], looks(false, "b")
  end

  # It comes back while the other is asked.
  def test_one_that_came_back_meanwhile_is_not_cut_off
    cut_off = Bavard::Live::CutOff.new(away: -> { @away }, others: -> { (@away = false) || "b" }) { @let_go += 1 }
    3.times do
      @away = true
      cut_off.look
    end
    assert_equal [0, nil], [@let_go, cut_off.instead]
  end
end
