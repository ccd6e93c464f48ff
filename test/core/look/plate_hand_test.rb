# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/pieces/pieces"
require_relative "../../../lib/bavard/core/stage/document_reading"
require_relative "../../../lib/bavard/core/style/piece_style"

# Outlines of plates, at any size: within the plate, around the words, and written so that a page draws the same.
class PlateHandTest < Minitest::Test
  include Bavard::Core

  Shape = Bavard::Core::Look::PlateShape
  Hand = Bavard::Core::Look::PlateHand
  SHAPED = Shape::SHAPES - [Shape::PLAIN]
  SEED = 20_261_129
  A_LITTLE = 1e-6

  def piece(kind = "alerts", **values)
    values = {"text_size_px" => 40, "plate_for" => "text", "plate_opacity" => 100}.merge(values.transform_keys(&:to_s))
    built = Pieces.kind(kind).build("#{kind}1", values)
    Stage::Document.drawn(built, Look::HouseStyle::DEFAULT)
  end

  def clip(width, shape = "burst") = Shape.css(piece(width:, plate_shape: shape))["--plate-clip"]

  def test_an_outline_is_drawn_once_and_those_not_asked_for_are_let_go
    first = clip(700)
    assert_same first, clip(700)
    other = clip(701)
    refute_equal first, clip(700, "scalloped")
    Shape::MOST_KEPT.times do |at|
      clip(800 + at, "torn")
      assert_same first, clip(700)
    end
    again = clip(701)
    assert_equal other, again
    refute_same other, again
  end

  # Plates of every size that a piece can have, and outlines of every depth.
  def each_plate
    chance = Random.new(SEED)
    SHAPED.each do |shape|
      25.times do
        depth = chance.rand(10..300) / 100.0
        room = Look::ShapeOutlines::ALL.fetch(shape).room(depth)
        size = [room[1] + room[3] + chance.rand(0.4..40.0), room[0] + room[2] + chance.rand(0.4..12.0)]
        yield shape, depth, size, room
      end
    end
  end

  def outline(shape, depth, size)
    Shape.points(shape, depth, size.map { |length| length + 2 }).map { |point| Shape.at(point, size) }
  end

  def test_rays_are_as_far_apart_on_both_halves_of_a_side
    across = outline("burst", 1.0, [20, 8])[1..17].map(&:first)
    across.zip(across.reverse).each { |left, right| assert_in_delta 20, left + right, A_LITTLE }
  end

  # [whether left and right are alike, whether top and bottom are]
  ALIKE = {"cut" => [true, true], "stepped" => [true, true], "bitten" => [true, true], "pointed" => [true, true], "ribbon" => [true, true],
           "stamp" => [true, true], "scalloped" => [true, true], "tape" => [true, false], "torn" => [true, false]}.freeze

  def test_sides_that_are_alike_are_each_others_mirror_image
    ALIKE.each do |shape, (sideways, upright)|
      points = outline(shape, 0.5, [10.0, 4.0]).map { |point| point.map { |at| at.round(6) } }.sort
      assert_equal points, points.map { |x, y| [(10 - x).round(6), y] }.sort, shape if sideways
      assert_equal points, points.map { |x, y| [x, (4 - y).round(6)] }.sort, shape if upright
    end
  end

  # As far as teeth, tears and rounds go along their sides: none is left straight.
  def test_what_goes_along_a_side_goes_along_all_of_it
    longest = ->(shape, on) { outline(shape, 0.5, [30.0, 12.0]).each_cons(2).map { |one, other| (one[on] - other[on]).abs.round(6) } }
    assert_operator longest["torn", 0].reject { |step| step == 30 }.max, :<=, 0.3
    assert_operator longest["tape", 1].max, :<=, 0.35
    assert_operator longest["scalloped", 0].reject { |step| step > 27 }.max, :<=, 0.8
    assert_operator longest["stamp", 0].reject { |step| step > 27 }.max, :<=, 0.9
  end

  def test_corners_are_as_deep_as_was_asked
    near = ->(shape) { outline(shape, 0.6, [10.0, 4.0]).select { |x, y| x < 2 && y < 2 }.map { |point| point.map { |at| at.round(6) } } }
    assert_equal [[0, 0.6], [0.2, 0.6], [0.2, 0.4], [0.4, 0.4], [0.4, 0.2], [0.6, 0.2], [0.6, 0]], near["stepped"]
    assert_includes near["burst"], [0.09, 0.09]
    assert_equal [[0, 0], [9.4, 0], [10, 0.6], [10, 4], [0, 4], [0, 0]], outline("label", 0.6, [10.0, 4.0]).first(6)
  end

  # How often an outline goes round a point.
  def winding(points, (x, y))
    points.zip(points.rotate).sum do |(ax, ay), (bx, by)|
      left = ((bx - ax) * (y - ay)) - ((x - ax) * (by - ay))
      if ay <= y then by > y && left.positive? ? 1 : 0
      else by <= y && left.negative? ? -1 : 0
      end
    end
  end

  def test_no_outline_leaves_its_plate
    each_plate do |shape, depth, size, _|
      outline(shape, depth, size).each do |x, y|
        inside = x.between?(-A_LITTLE, size[0] + A_LITTLE) && y.between?(-A_LITTLE, size[1] + A_LITTLE)
        assert inside, "#{shape} #{depth} of #{size}: #{x}, #{y}"
      end
    end
  end

  def test_words_stand_within_it_wherever_they_are
    each_plate do |shape, depth, size, (top, right, bottom, left)|
      points = outline(shape, depth, size)
      (0..8).to_a.product([0.01, 0.5, 0.99]).each do |step, down|
        x = left + A_LITTLE + ((size[0] - left - right - (2 * A_LITTLE)) * step / 8)
        y = top + ((size[1] - top - bottom) * down)
        assert_equal 1, winding(points, [x, y]), "#{shape} #{depth} of #{size}: nothing behind #{x}, #{y}"
      end
    end
  end

  # Somewhere at the edge the plate is gone, or it would be a box.
  def test_each_takes_something_away
    SHAPED.each do |shape|
      points = outline(shape, 0.5, [10.0, 4.0])
      gone = (0..100).to_a.product([0.03, 1.0, 2.0, 3.97]).count { |step, y| winding(points, [0.003 + (step * 0.0999), y]) != 1 }
      assert_operator gone, :>=, 2, shape
    end
  end

  def test_a_label_has_a_hole_and_the_words_begin_behind_it
    points = outline("label", 1.0, [10.0, 3.0])
    assert_equal 0, winding(points, [1.15, 1.5])
    assert_equal 1, winding(points, [1.7, 1.5])
    assert_operator Look::ShapeOutlines::ALL.fetch("label").room(1.0)[3], :>=, 1.5
  end

  # What the style sheet gets says the same as the points, for a plate of this size.
  def test_what_is_written_for_the_page_says_the_same
    SHAPED.each do |shape|
      css = Shape.css(piece(plate_shape: shape, width: 480, height: 160))
      written = css["--plate-clip"][/\Apolygon\((.*)\)\z/m, 1].scan(/(?:\A|, )(#{COORDINATE}) (#{COORDINATE})/o)
      size = [12.0, 4.0]
      read = written.map { |point| point.zip(size).map { |one, length| evaluated(one, length) } }
      wanted = Shape.points(shape, 0.45, size).map { |point| Shape.at(point, size) }
      assert_equal wanted.size, read.size, shape
      wanted.zip(read).each { |there, here| there.zip(here).each { |a, b| assert_in_delta a, b, 0.006, shape } }
    end
  end

  COORDINATE = /(?:min|max|clamp)\([^()]*\)|-?[\d.]+%/

  # As a style sheet reckons it, in em.
  def evaluated(written, length)
    sum = lambda do |terms|
      terms.delete(" ").scan(/([+-]?)([\d.]+)(%|em)/).sum { |sign, number, unit| "#{sign}#{number}".to_f * (unit == "%" ? length / 100 : 1) }
    end
    inner = written[/\((.*)\)/, 1] or return sum[written]
    values = inner.gsub("+ -", "- ").split(",").map { |terms| sum[terms] }
    return values[1].clamp(values[0], values[2]) if values.size == 3

    written.start_with?("max") ? values.max : values.min
  end

  def test_an_edge_goes_along_the_outline_and_takes_room_of_its_own
    plain, edged = [0, 20].map { |border| Shape.css(piece(plate_shape: "cut", plate_border: border)) }
    refute plain.key?("--plate-ring")
    assert_equal %w[0 ""], edged.values_at("--plate-border", "--plate-ring-drawn")
    assert_includes edged["--plate-clip"], "min(0.2em, 50%)"
    rooms = [0, 20].map { |border| Shape.room(piece(plate_shape: "cut", plate_border: border)) }
    rooms.transpose.each { |before, after| assert_in_delta before + 0.2, after }
  end

  def test_a_plate_that_is_not_drawn_has_no_outline_and_rows_are_boxes
    assert_empty Shape.css(piece(plate_shape: "burst", plate_for: "none"))
    assert_empty Shape.css(piece(plate_shape: "burst", plate_for: "rows"))
    refute_empty Shape.css(piece("captions", plate_shape: "burst", plate_for: "rows"))
    assert_equal "boxed", Hand.choices(piece(plate_shape: "burst", plate_for: "none"))["plate_drawn"]
  end

  # The corners of what is turned, its shadow and what holds it are within the piece.
  def test_there_is_room_for_what_hangs
    assert_nil Hand.css(piece)["--plate-inset"]
    turned = Hand.css(piece(plate_turn: 3, width: 800, height: 200))["--plate-inset"].split.map(&:to_i)
    assert_equal [21, 6, 21, 6], turned
    held = Hand.css(piece(plate_held_by: "string"))["--plate-inset"]
    assert_equal "40px 0px 0px 0px", held
    low = Hand.css(piece(plate_shadow_opacity: 50, plate_shadow_y: 50, plate_shadow_blur: 25))["--plate-inset"]
    assert_equal "0px 5px 25px 5px", low
    assert_nil Hand.css(piece(plate_held_by: "pin", plate_for: "none"))["--plate-held"]
  end

  def test_a_shadow_that_there_is_no_room_for_is_smaller_as_a_whole
    shadow = ->(of) { of.values_at("plate_shadow_x", "plate_shadow_y", "plate_shadow_blur") }
    wide = piece(plate_shadow_opacity: 50, plate_shadow_x: 10, plate_shadow_y: 20, plate_shadow_blur: 50, text_size_px: 40, width: 800, height: 400)
    assert_same wide, Hand.shaded_within(wide)
    low = Hand.shaded_within(wide.merge("height" => 60))
    # 18 px below are wanted, 7.2 are there.
    assert_equal [4.0, 8.0, 20.0], shadow[low]
    assert_equal low, Hand.shaded_within(low)
    none = piece(plate_shadow_opacity: 0, plate_shadow_blur: 300, height: 20)
    assert_same none, Hand.shaded_within(none)
  end

  def test_what_was_ruled_before_is_a_pattern_now
    before = {"id" => "chat1", "kind" => "chat", "plate_ruled" => true, "plate_rule_colour" => "#d3c8ab"}
    document = Stage::Document.complete(Stage::Document.empty.merge("pieces" => [before]))
    now = document["pieces"].first
    assert_equal ["ruled", "#d3c8ab", 100], now.values_at("plate_pattern", "plate_pattern_colour", "plate_pattern_opacity")
    refute now.key?("plate_ruled")
    look = {"format" => Pieces::LookDocument::FORMAT, "kind" => "chat", "name" => "Mine", "set" => {"plate_ruled" => false, "plate_rule_colour" => "#d3c8ab"}}
    assert_equal({"plate_pattern_colour" => "#d3c8ab"}, Pieces::LookDocument.read(look)["set"])
  end

  def test_pictures_that_something_is_drawn_from_go_along_and_get_their_new_ids
    ids = ["a" * 32, "b" * 32]
    goal = Pieces.kind("goal").build("goal1", "plate_frame" => ids[0], "goal_shape" => ids[1])
    document = Stage::Document.empty.merge("pieces" => [goal])
    assert_equal ids.map { |id| ["picture", id] }, Stage::DocumentReading.files(document)
    moved = Stage::DocumentReading.with_files(document, ids[0] => "c" * 32)["pieces"].first
    assert_equal ["c" * 32, ids[1]], moved.values_at("plate_frame", "goal_shape")
  end
end
