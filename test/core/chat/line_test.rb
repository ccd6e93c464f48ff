# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"

class LineTest < Minitest::Test
  def intake(text: "hello", name: nil, history: false, time_ms: nil, login: "ann")
    said = Bavard::Core::Said.new(login, name, nil, [], text, false, history)
    Bavard::Core::Intake.new(:line, 1, "m1", time_ms, 10_000, said)
  end

  def from(...) = Bavard::Core::Chat::Line.from(intake(...), id: 7)

  def test_controls_are_left_out_and_tabs_become_blanks
    assert_equal "a b c", from(text: "a\tb\u0007 c\u2028\u0000").text
  end

  def test_zero_width_joiners_stay_for_emoji_need_them
    assert_equal "👨‍👩‍👧", from(text: "👨‍👩‍👧").text
  end

  def test_a_line_ends_at_its_longest
    assert_equal 8191, from(text: "x" * 9000).text.length
  end

  def test_who_has_no_shown_name_goes_by_the_login
    assert_equal "ann", from(name: nil).person.display_name
    assert_equal "ann", from(name: " \u0007 ").person.display_name
  end

  def test_a_live_line_stands_from_its_arrival_whatever_the_platform_says
    assert_equal 10_000, from(time_ms: 4000).shown_at_ms
  end

  def test_a_line_from_history_stands_from_when_it_was_said
    assert_equal 4000, from(time_ms: 4000, history: true).shown_at_ms
  end

  def test_a_line_from_history_never_stands_from_the_future
    assert_equal 10_000, from(time_ms: 99_000, history: true).shown_at_ms
  end

  def test_a_person_is_one_whatever_case_or_width_the_login_has
    keys = ["Ann_7", "ann_7", "ＡＮＮ＿７"].map { |login| Bavard::Core::Chat::Person.new(3, login, login, nil, []).key }
    assert_equal ["3/ann_7"], keys.uniq
  end
end
