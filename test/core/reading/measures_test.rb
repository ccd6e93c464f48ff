# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/reading/chat_measure"
require_relative "../../../lib/bavard/core/reading/pace"
require_relative "../../../lib/bavard/core/reading/voices_measure"
require_relative "../../../lib/bavard/core/stage/document"

# How much room words take, setting by setting, with letters that are all as wide as each other.
class MeasuresTest < Minitest::Test
  include Lines

  Reading = Bavard::Core::Reading
  Stage = Bavard::Core::Stage
  Pieces = Bavard::Core::Pieces
  # Half as wide as they are high.
  EVEN = Class.new { def width(_family, _weight, text, stretch = 100) = text.length * 0.5 * stretch / 100.0 }.new
  # As little as can be: 20 px, one row of 20, no gap, no plate, nothing before the text.
  BARE = {"text_size_px" => 20, "text_line_spacing" => 100, "gap" => 0, "plate_for" => "none", "plate_tail" => "none", "marks" => "none", "badges" => "none",
          "avatars" => "none", "times" => "none", "names" => "none", "width" => 400, "height" => 200, "line_turn" => 0, "plate_shadow_opacity" => 0,
          "plate_border" => 0, "name_plate_opacity" => 0, "time_plate_opacity" => 0, "at_most" => 30}.freeze

  def chat(**values)
    given = BARE.merge(values.transform_keys(&:to_s))
    piece = Pieces::ChatPiece.build("chat1", {})
    Stage::Document.drawn(piece, Stage::Document.empty["house"]).merge(given)
  end

  def measure(**values) = Reading::ChatMeasure.new(chat(**values), EVEN)
  def height(text = "x" * 30, **values) = measure(**values).height(line(1, text, login: "ann"))

  def test_a_text_takes_as_many_rows_as_it_needs
    assert_in_delta 400, measure.row_width
    assert_equal [20, 20, 40, 60], [1, 40, 41, 81].map { |letters| height("x" * letters) }
    assert_equal [24, 48], [40, 41].map { |letters| height("x" * letters, text_line_spacing: 120) }
    assert_in_delta 26, height(gap: 30)
    assert_equal [40, 60, 40], ["ab #{"x" * 40}", "ab #{"x" * 41}", "x" * 41].map { |text| height(text) }
  end

  def test_letters_are_as_wide_as_they_are_set
    assert_in_delta 100, measure.width("text", "x" * 10)
    assert_in_delta 120, measure(text_letter_spacing: 10).width("text", "x" * 10)
    assert_in_delta 150, measure(text_stretch: 150).width("text", "x" * 10)
    assert_in_delta 50, measure(name_size: 50, name_letter_spacing: 0, name_stretch: 100).width("name", "x" * 10)
  end

  # What stands before it: in pixels, for a text that fills its row to the last letter.
  def before(**values)
    (0..400).bsearch { |left| height("x" * ((400 - left) / 10.0).floor, **values) == 20 }
  end

  def test_what_stands_before_the_text_takes_its_room
    parts = %w[mark avatar badges time name text]
    assert_equal 0, before(parts:)
    assert_in_delta 20 * (0.9 + 0.34), before(parts:, marks: "shown", mark_size: 90), 10
    assert_in_delta 20 * (1.5 + 0.3), before(parts:, avatars: "shown", avatar_size: 150), 10
    assert_in_delta (3 * 10) + (0.3 * 20), before(parts:, names: "shown", name_size: 100, name_letter_spacing: 0, name_stretch: 100), 10
    assert_in_delta (5 * 10) + (0.45 * 20), before(parts:, times: "shown", time_form: "minutes", time_size: 100, time_letter_spacing: 0, time_stretch: 100), 10
    assert_equal 0, before(parts: %w[text mark], marks: "shown", mark_size: 400)
    assert_in_delta (3 * 10) + (0.3 * 20) + (2 * 0.5 * 20),
      before(parts:, names: "shown", name_size: 100, name_letter_spacing: 0, name_stretch: 100, name_plate_opacity: 50, name_plate_padding_x: 50), 10
  end

  def test_each_badge_takes_its_room
    badges = ->(count, letters) { measure(parts: %w[badges text], badges: "shown", badge_size: 100).height(line(1, "x" * letters, badges: %w[ringer] * count)) }
    assert_equal [[20, 40], [20, 40]], [[1, 37], [3, 32]].map { |count, most| [badges[count, most], badges[count, most + 1]] }
  end

  def test_a_name_above_has_a_row_of_its_own_as_high_as_the_larger_of_both
    assert_equal [40, 60, 20], [{names: "shown", name_size: 50}, {names: "shown", name_size: 200}, {names: "none", name_size: 200}].map { |more| height(name_place: "above", **more) }
  end

  def test_a_column_for_names_leaves_less_for_the_text_and_never_more_than_half
    assert_in_delta 400 - 100 - 12, measure(name_place: "column", name_column: 500).row_width
    assert_in_delta 400 - 200 - 12, measure(name_place: "column", name_column: 3000).row_width
  end

  def test_a_plate_round_each_line_takes_room_on_all_sides
    plate = {plate_for: "line", plate_padding_x: 50, plate_padding_y: 25}
    assert_in_delta 400 - 20, measure(**plate).row_width
    assert_in_delta 20 + 10, height(**plate)
    assert_in_delta 400 - 20, measure(**plate, plate_for: "rows").row_width
    assert_in_delta 20, height(**plate, plate_for: "rows")
    assert_in_delta 400, measure(**plate, plate_for: "none").row_width
    assert_in_delta 30, height(plate_tail: "left")
  end

  def test_a_border_where_it_is_and_room_for_a_shadow_or_a_turn
    border = {plate_for: "line", plate_padding_x: 0, plate_padding_y: 0, plate_border: 10}
    sides = ->(side) { [measure(**border, plate_border_side: side).row_width, height(**border, plate_border_side: side)].map(&:round) }
    assert_equal [[396, 24], [398, 20], [398, 20], [400, 22], [400, 22]], %w[around start end top bottom].map { |side| sides.call(side) }
    assert_in_delta 380, measure(plate_for: "line", plate_padding_x: 0, plate_shadow_opacity: 10).row_width
    assert_in_delta 380, measure(plate_for: "rows", plate_padding_x: 0, line_turn: 2).row_width
    assert_in_delta 400, measure(line_turn: 2, plate_shadow_opacity: 10).row_width
  end

  # Pace.

  def pace(texts, per_minute:, **values)
    lines = texts.each_with_index.map { |text, at| line(at + 1, text) }
    Reading::Pace.new(chat(stay_by: "time", stay_ms: nil, reading_speed: 20, flow: "stack", keep_last: 1, **values), lines, per_minute:, type: EVEN)
  end

  def test_as_many_fit_as_there_is_room_for_by_the_middling_line
    assert_equal [10, 3, 1], [pace(["x"] * 3, per_minute: 0).fits, pace(["x"] * 3, per_minute: 0, at_most: 3).fits, pace(["x" * 500], per_minute: 0).fits]
    assert_equal 5, pace(["x", "x" * 50, "x" * 400], per_minute: 0).fits
    assert_equal 5, pace(["x", "x", "x" * 50, "x" * 400], per_minute: 0).fits
    assert_equal 1, pace([], per_minute: 0).room
  end

  def test_lines_stay_until_their_time_is_over_or_others_push_them_out
    assert_nil pace(["x"], per_minute: 0).stays_ms
    assert_equal [8000, 8000, 6000], [0, 60, 100].map { |rate| pace(["x"], per_minute: rate, stay_ms: 8000).stays_ms }
    assert_equal 10_000, pace(["x"], per_minute: 60).stays_ms
    assert_equal 3000, pace(["x" * 20], per_minute: 0, stay_by: "reading").stays_ms
  end

  def test_its_word_changes_where_a_line_can_just_be_read
    word = ->(stay_ms) { pace(["x" * 20, "x" * 20, "x" * 100], per_minute: 0, stay_ms:).word }
    # Noticed in 1.5 s, and read at twenty letters a second: 2.5 s and 6.5 s.
    assert_equal ["too fast", "brisk", "brisk", "calm", "calm", "stale"], [2499, 2500, 6499, 6500, 180_000, 180_001].map { |stay| word.call(stay) }
    assert_equal 6500, pace(["x" * 20, "x" * 100], per_minute: 0).longest_needs_ms
    assert_equal 0, pace([], per_minute: 0).longest_needs_ms
  end

  # Every two seconds one that stays four: two of them stand on the average, and none with the chance of e to the minus two.
  def test_it_is_empty_as_often_as_lines_that_come_by_chance_leave_it
    often = pace(["x"] * 3, per_minute: 30, stay_ms: 4000, keep_last: 0)
    assert_equal [8120, "calm"], [often.empty_ms, often.word]
    seldom = pace(["x"] * 3, per_minute: 1, stay_ms: 15_946, keep_last: 0)
    assert_equal [46_000, "empty", {"keep_last" => 5}], [seldom.empty_ms.round(-3), seldom.word, seldom.mending]
    assert_match(/\AIt is empty 4[56] s of each minute/, seldom.advice)
    assert_match(/\ANobody wrote/, pace(["x"], per_minute: 0, stay_ms: 9000, keep_last: 0).advice)
  end

  def test_what_stays_or_was_never_written_is_not_empty
    kept = {per_minute: 1, stay_ms: 9000}
    assert_equal [0, 0, 0], [pace(["x"], **kept), pace([], **kept, keep_last: 0), pace(["x"], per_minute: 1, keep_last: 0)].map(&:empty_ms)
    assert_equal "too fast", pace(["x" * 300], **kept, keep_last: 0).word
  end

  def test_one_press_mends_what_takes_no_more_room
    assert_equal({"stay_by" => "reading"}, pace(["x"], per_minute: 0).mending)
    assert_equal [{"stay_by" => "reading", "keep_last" => 5}, {"stay_by" => "reading", "keep_last" => 9}],
      [1, 9].map { |keep_last| pace(["x" * 100], per_minute: 0, stay_ms: 2000, keep_last:).mending }
    assert_nil pace(["x" * 100], per_minute: 300, height: 60).mending
    assert_nil pace(["x"], per_minute: 0, stay_ms: 8000).mending
  end

  def test_advice_says_what_would_do
    assert_nil pace(["x"], per_minute: 0, stay_ms: 8000).advice
    assert_match(/set time/, pace(["x"], per_minute: 0).advice)
    assert_equal "Let them stand for 7 s, or as long as they take to read.", pace(["x" * 100], per_minute: 0, stay_ms: 2000).advice
    assert_equal "Room for 11 lines would do: a taller piece, smaller text, or a smaller gap.", pace(["x" * 100], per_minute: 100, height: 60).advice
    assert_match(/hold back/, pace(["x" * 100], per_minute: 300, height: 60).advice)
  end

  def test_a_ticker_shows_a_line_as_long_as_it_takes_to_run_by
    assert_equal [1, 5000], pace(["x" * 10], per_minute: 60, flow: "ticker", ticker_speed: 100).then { |one| [one.room, one.stays_ms] }
    assert_equal 6000, pace(["x" * 20, "x" * 90, "x" * 10], per_minute: 60, flow: "ticker", ticker_speed: 100).stays_ms
  end

  # Voices.

  SEATS = {"text_size_px" => 20, "text_line_spacing" => 100, "text_letter_spacing" => 0, "text_stretch" => 100, "text_case" => "typed", "gap" => 50, "sign_size" => 0, "sign" => "ring",
           "faces" => "shown", "face_size" => 200, "names" => "full", "name_width" => 500, "name_place" => "beside", "plate_for" => "none", "arranged" => "upright",
           "columns" => 2, "at_most" => 9, "width" => 400, "height" => 300}.freeze

  def voices(**values)
    piece = Stage::Document.drawn(Pieces.kind("voices").build("voices1", {}), Stage::Document.empty["house"])
    Reading::VoicesMeasure.new(piece.merge(SEATS, values.transform_keys(&:to_s)), EVEN)
  end

  def test_one_below_another_side_by_side_and_in_a_grid
    names = ["x" * 4, "x" * 10, "x" * 6]
    # A face of 40, a gap of 10, then the name; around all of it two pixels for a sign each.
    assert_equal [[154, 144], [374, 44], [274, 94]], %w[upright level grid].map { |arranged| voices(arranged:).size(names) }
    assert_equal [[154, 144], [374, 44]], [1, 9].map { |columns| voices(arranged: "grid", columns:).size(names) }
  end

  def test_on_an_arc_there_is_room_for_two_rows
    assert_equal [(150 / 1.6) + 4, 84].map(&:ceil), voices(arranged: "arc").size(["x" * 10])
    assert_equal [(150 * 3 / 1.6) + 4, 84].map(&:ceil), voices(arranged: "arc").size(["x" * 10] * 3)
  end

  def test_a_seat_is_as_wide_as_face_and_name
    assert_in_delta 150, voices.seat_width("x" * 10)
    assert_in_delta 40, voices.seat_width("")
    assert_in_delta 110, voices(faces: "none").seat_width("x" * 10)
    assert_in_delta 100, voices(names: "cut", name_width: 250).seat_width("x" * 10)
    assert_in_delta 184, voices(sign: "guillemets").seat_width("x" * 10)
    assert_in_delta 170, voices(plate_for: "each", plate_padding_x: 50).seat_width("x" * 10)
    assert_in_delta 200, voices(text_stretch: 150).seat_width("x" * 10)
    assert_in_delta 170, voices(text_letter_spacing: 10).seat_width("x" * 10)
    assert_equal 155, voices(gap: 51, face_size: 201, sign_size: 1).size(["x" * 10]).first
  end

  def test_below_its_face_a_name_may_be_a_little_wider
    assert_in_delta 68, voices(name_place: "below").seat_width("x" * 10)
    assert_in_delta 50, voices(name_place: "below").seat_width("x" * 5)
    assert_in_delta 40, voices(name_place: "over").seat_width("x" * 10)
    assert_equal 65 + 4, voices(name_place: "below").size(["x"]).last
  end

  def test_whether_it_has_that_room
    names = ["x" * 10] * 3
    word = ->(**more) { voices(**more).report(names)[:word] }
    assert_equal %w[good cut good cut], [word.call, word.call(width: 153), word.call(width: 154, height: 144), word.call(height: 143)]
    assert_equal "tight", word.call(width: 100, names: "cut")
    assert_equal [3, [154, 144], [400, 300]], voices.report(names).values_at(:people, :needs_px, :has_px)
    assert_equal [2, 5], [voices(at_most: 2).report(names)[:people], voices.report([])[:people]]
  end
end
