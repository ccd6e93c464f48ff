# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/amount"
require_relative "../../../lib/bavard/core/chat/attention"
require_relative "../../../lib/bavard/core/chat/highlight"
require_relative "../../../lib/bavard/core/gate/edits"

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
    [" \u0007 ", "\u3164\u115F", "\u200D\u2066", "\u2800\u{E0001}", ""].each { |name| assert_equal "ann", from(name:).person.display_name, name.inspect }
    ["\u3164a", "\u0301", "🦆", "\u200Fاب"].each { |name| assert_equal name, from(name:).person.display_name }
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

  def test_a_line_from_history_stands_from_when_it_was_said_by_our_clock_however_the_platforms_goes
    said = from(time_ms: 4000, history: true).dup
    intake = intake(time_ms: 4000, history: true)
    assert_equal [9000, 3000], [5000, -1000].map { |behind_ms| Bavard::Core::Chat::Line.from(intake, id: 7, behind_ms:).shown_at_ms }
    assert_equal said.platform_time_ms, Bavard::Core::Chat::Line.from(intake, id: 7, behind_ms: 5000).platform_time_ms
  end

  # Whatever any clock says, what is told again after a cut was said since we were there last, and not later than it came.
  def test_a_line_from_history_stands_no_longer_than_since_when_it_can_have_been_said
    [[9000, 9000], [3000, 4000], [99_000, 10_000], [nil, 4000]].each do |since_ms, shown_ms|
      told = intake(time_ms: 4000, history: true).tap { |one| one.since_ms = since_ms }
      assert_equal shown_ms, Bavard::Core::Chat::Line.from(told, id: 7).shown_at_ms, since_ms.inspect
    end
  end

  def said(**more)
    said = Bavard::Core::Said.new("ann", "Ann", nil, [], "hi :owl:", false, false, Bavard::Core::Chat::Placed.new(:code_points, [[3, 5, "http://x/owl"]]))
    more.each { |name, value| said[name] = value }
    Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, 1, "m1", nil, 10_000, said), id: 7)
  end

  def test_all_addresses_of_pictures_that_came_with_it
    assert_equal ["http://x/owl"], said.addresses
    assert_equal ["http://x/owl", "http://x/face"], said(avatar: "http://x/face").addresses
    assert_equal ["http://x/owl", "http://x/badge"], said(badge_pictures: {"ringer/1" => "http://x/badge"}).addresses
  end

  def test_as_it_is_shown_text_name_and_emotes_are_others_and_the_line_itself_stays
    line = said
    shown = Bavard::Core::Gate::Shown.new("••• hi", [[4, 2, "http://x/hi"]], "A••")
    drawn = line.as_shown(shown, nil)
    assert_equal ["••• hi", "A••", [[:text, "••• "], [:emote, "hi", "http://x/hi"]]], [drawn.text, drawn.person.display_name, drawn.fragments]
    assert_equal ["hi :owl:", "Ann", false, true], [line.text, line.person.display_name, line.person.covered ? true : false, drawn.person.covered]
    assert_equal line.person.key, drawn.person.key
    assert_same line, line.as_shown(nil, nil)
    assert_equal "Ann", line.as_shown(Bavard::Core::Gate::Shown.new("x", [], nil), nil).person.display_name
  end

  def test_blanks_around_are_left_out_and_emotes_stay_where_they_are
    assert_equal "a", from(text: "  a  ").text
    said = Bavard::Core::Said.new("ann", nil, nil, [], ":owl:  :owl: ", false, false, Bavard::Core::Chat::Placed.new(:code_points, [[0, 5, "o"], [7, 5, "p"]]))
    line = Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, 1, nil, nil, 5, said), id: 1)
    assert_equal [":owl:  :owl:", [[0, 5, "o"], [7, 5, "p"]]], [line.text, line.placed]
  end

  def test_why_a_reader_may_want_to_jump_to_it
    kinds = ->(text, **more) { Bavard::Core::Chat::Attention.of(said(text:, emotes: nil, **more), "Odalys Fenn") }
    assert_equal [%w[mention], %w[question], %w[question], [], %w[first], %w[supporter], %w[supporter], []],
      [kinds["@Odalys look"], kinds["why?"], kinds["γιατί;"], kinds["see; this"], kinds["hi", first_time: true],
        kinds["hi", badges: ["subscriber/3"]], kinds["hi", paid: Bavard::Core::Amount.own(3, "sparks")], kinds["hi", badges: ["moderator"]]]
    assert_equal %w[mention question first], kinds["@fenn why?", first_time: true]
  end

  def test_a_person_is_one_whatever_case_or_width_the_login_has
    ann = Bavard::Core::Chat::Person.new(3, "Ann_7", "Not_Ann", nil, [])
    assert_equal [%w[host viewer], %w[viewer], %w[viewer]], %w[ＡＮＮ＿７ Not_Ann ann].map { |account| ann.signed_in(account).roles }
    assert_equal [ann, %w[viewer]], [ann.signed_in("ann_7"), ann.roles]
    keys = ["Ann_7", "ann_7", "ＡＮＮ＿７"].map { |login| Bavard::Core::Chat::Person.new(3, login, login, nil, []).key }
    assert_equal ["3/ann_7"], keys.uniq
    assert_equal "3/ann_7", ann.called("kestrel").key
  end

  # What cuts words, and how often it was asked.
  Cutting = Struct.new(:times) do
    def cut(word, _feed_id)
      self.times += 1
      [[:emote, word, "wren.png"]]
    end
  end

  def test_it_is_cut_when_somebody_asks_and_once
    emotes = Cutting.new(0)
    line = Lines.line(1, "wren").dress_later(Bavard::Core::Chat::Line::Uncut.new(emotes))
    assert_equal [0, "wren"], [emotes.times, line.dup.text]
    2.times { assert_equal :emote, line.fragments[0][0] }
    assert_equal 1, emotes.times
  end
end
