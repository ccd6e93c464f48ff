# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/edit"
require_relative "../../../lib/bavard/core/stage/starts"

class LargerEditsTest < Minitest::Test
  Document = Bavard::Core::Stage::Document
  Edit = Bavard::Core::Stage::Edit
  Starts = Bavard::Core::Stage::Starts

  def stage(*pieces, width: 1920, height: 1080)
    pieces.reduce(Document.empty(width:, height:)) do |document, (kind, values)|
      Edit.apply(document, {"do" => "add", "kind" => kind, "values" => values}).document
    end
  end

  def boxes(document) = document["pieces"].map { |piece| piece.values_at("x", "y", "width", "height") }

  # Also goes back, and has to come out where it was.
  def after(document, edit)
    done = Edit.apply(document, edit)
    assert_equal document, Edit.apply(done.document, done.undo).document
    done.document
  end

  def test_pieces_are_brought_into_line_with_each_other_and_one_alone_with_the_stage
    two = stage(["text", {"x" => 100, "y" => 10, "width" => 200, "height" => 50}], ["text", {"x" => 400, "y" => 90, "width" => 100, "height" => 50}])
    ids = two["pieces"].map { |piece| piece["id"] }
    {"left" => [100, 100], "right" => [300, 400], "centre" => [200, 250]}.each do |how, xs|
      assert_equal xs, after(two, {"do" => "arrange", "pieces" => ids, "how" => how})["pieces"].map { |piece| piece["x"] }, how
    end
    assert_equal 860, after(two, {"do" => "arrange", "pieces" => ids.first(1), "how" => "centre"})["pieces"][0]["x"]
  end

  def test_pieces_are_spread_with_equal_gaps_and_locked_ones_stay
    three = stage(["text", {"x" => 0, "width" => 100}], ["text", {"x" => 120, "width" => 100}], ["text", {"x" => 500, "width" => 100}])
    ids = three["pieces"].map { |piece| piece["id"] }
    assert_equal [0, 250, 500], after(three, {"do" => "arrange", "pieces" => ids, "how" => "across"})["pieces"].map { |piece| piece["x"] }
    locked = Edit.apply(three, {"do" => "set", "piece" => "text2", "values" => {"locked" => true}}).document
    assert_equal 120, after(locked, {"do" => "arrange", "pieces" => ids, "how" => "left"})["pieces"][1]["x"]
  end

  def test_a_piece_fits_to_a_space_in_four_ways
    document = stage(["space", {"x" => 1344, "y" => 648, "width" => 518, "height" => 367}], ["chat", {"width" => 600, "height" => 400}])
    fit = ->(how) { after(document, {"do" => "fit", "piece" => "chat1", "to" => "space1", "how" => how})["pieces"][1] }
    assert_equal [1344, 648, 518, 367], fit["inside"].values_at("x", "y", "width", "height")
    assert_equal [1320, 624, 566, 415], fit["around"].values_at("x", "y", "width", "height")
    assert_equal [720, 648, 600, 367], fit["beside"].values_at("x", "y", "width", "height")
    tucked = fit["tucked"]
    assert_equal ["behind", "glide"], tucked.values_at("side", "motion_in")
    assert_operator tucked["x"] + tucked["width"], :>, 1344
  end

  def test_beside_is_where_there_is_more_room_and_never_wider_than_that
    beside = lambda do |x, width|
      document = stage(["space", {"x" => x, "y" => 100, "width" => 400, "height" => 300}], ["chat", {"width" => width, "height" => 200}])
      after(document, {"do" => "fit", "piece" => "chat1", "to" => "space1", "how" => "beside"})["pieces"][1].values_at("x", "y", "width", "height")
    end
    assert_equal [[524, 100, 600, 300], [448, 100, 500, 300]], [beside[100, 600], beside[972, 500]]
    assert_equal [[424, 100, 1472, 300], [24, 100, 1472, 300]], [beside[0, 1800], beside[1520, 1800]]
  end

  def test_beside_the_camera_a_piece_comes_out_from_under_its_edge
    tucked = lambda do |x|
      document = stage(["space", {"x" => x, "y" => 100, "width" => 400, "height" => 300}], ["chat", {"width" => 600, "height" => 200}])
      after(document, {"do" => "fit", "piece" => "chat1", "to" => "space1", "how" => "tucked"})["pieces"][1].values_at("x", "width")
    end
    under = (400 * Bavard::Core::Stage::Fitting::TUCKED).round
    assert_equal [[500 - under, 600 + under], [820, 600 + under]], [tucked[100], tucked[1420]]
  end

  def test_what_stands_in_the_middle_stays_there_and_what_is_as_near_to_both_edges_as_well
    document = stage(["text", {"x" => 860, "y" => 515, "width" => 200, "height" => 50}], ["text", {"x" => 600, "y" => 0, "width" => 120, "height" => 50}])
    kept = after(document, {"do" => "resize", "values" => {"width" => 1280, "height" => 720}, "how" => "keep"})
    assert_equal [[540, 335], [600, 0]], boxes(kept).map { |x, y| [x, y] }
  end

  def test_one_or_two_pieces_have_no_gaps_to_make_equal
    two = stage(["text", {"x" => 0, "width" => 100}], ["text", {"x" => 420, "width" => 100}])
    ids = two["pieces"].map { |piece| piece["id"] }
    [1, 2].each { |count| assert_equal [0, 420], after(two, {"do" => "arrange", "pieces" => ids.first(count), "how" => "across"})["pieces"].map { |piece| piece["x"] } }
  end

  def test_another_size_scales_everything_or_keeps_it_where_it_is_anchored
    document = stage(["chat", {"x" => 1500, "y" => 900, "width" => 400, "height" => 160, "text_size_px" => 30}], ["text", {"x" => 20, "y" => 30}])
    half = after(document, {"do" => "resize", "values" => {"width" => 960, "height" => 540}, "how" => "scale"})
    assert_equal [750, 450, 200, 80], boxes(half)[0]
    assert_equal [15, 960, 540], [half["pieces"][0]["text_size_px"], half["width"], half["height"]]
    kept = after(document, {"do" => "resize", "values" => {"width" => 1280, "height" => 720}, "how" => "keep"})
    assert_equal [[860, 540, 400, 160], [20, 30]], [boxes(kept)[0], boxes(kept)[1].first(2)]
  end

  def test_copies_get_ids_of_their_own_and_stay_together
    document = stage(["text", {"called" => "Title"}], ["clock", {}])
    grouped = after(document, {"do" => "group", "pieces" => %w[text1 clock1]})
    twice = after(grouped, {"do" => "duplicate", "pieces" => %w[text1 clock1]})
    assert_equal %w[text1 clock1 text2 clock2], twice["pieces"].map { |piece| piece["id"] }
    assert_equal %w[group1 group1 group2 group2], twice["pieces"].map { |piece| piece["group"] }
    assert_equal "Title again", twice["pieces"][2]["called"]
    pasted = after(Document.empty, {"do" => "paste", "pieces" => grouped["pieces"]})
    assert_equal grouped["pieces"].map { |piece| piece["kind"] }, pasted["pieces"].map { |piece| piece["kind"] }
    assert_empty(after(grouped, {"do" => "ungroup", "pieces" => %w[text1]})["pieces"].map { |piece| piece["group"] } - [""])
  end

  def test_the_order_from_back_to_front_is_an_edit_too
    document = stage(["text", {}], ["clock", {}], ["space", {}])
    assert_equal %w[clock1 space1 text1], after(document, {"do" => "order", "piece" => "text1", "at" => 99})["pieces"].map { |piece| piece["id"] }
    assert_equal %w[space1 text1 clock1], after(document, {"do" => "order", "piece" => "space1", "at" => -3})["pieces"].map { |piece| piece["id"] }
    assert_equal "text1", after(document, {"do" => "order", "piece" => "text1"})["pieces"].last["id"]
  end

  def test_what_cannot_be_arranged_fitted_or_resized_is_refused
    document = stage(["text", {}])
    [{"do" => "arrange", "pieces" => [], "how" => "left"}, {"do" => "arrange", "pieces" => %w[text1], "how" => "sideways"},
      {"do" => "fit", "piece" => "text1", "to" => "text1", "how" => "inside"}, {"do" => "fit", "piece" => "text1", "to" => "space9", "how" => "inside"},
      {"do" => "resize", "values" => {"width" => 1_000_000}, "how" => "scale"}, {"do" => "resize", "values" => {"width" => 0}, "how" => "keep"},
      {"do" => "resize", "values" => {"width" => 500}, "how" => "wish"}, {"do" => "paste", "pieces" => [{"kind" => "hologram"}]}, {"do" => "paste", "pieces" => 7},
      {"do" => "duplicate", "pieces" => %w[gone1]}, {"do" => "look", "piece" => "text1", "set" => {"wobble" => 1}}, {"do" => "many", "edits" => 7},
      {"do" => "house", "sort" => "smells", "key" => "a", "value" => {}}, {"do" => "house", "sort" => "colours", "key" => "ink", "value" => nil}].each do |edit|
      error = assert_raises(Bavard::Error, edit.inspect) { Edit.apply(document, edit) }
      refute_empty error.message
    end
  end

  def test_a_piece_nobody_drew_a_place_for_stands_within_any_stage
    [[1920, 1080], [100, 100], [1080, 1920], [7680, 4320]].each do |width, height|
      Bavard::Core::Pieces::KINDS.each_key do |kind|
        x, y, across, down = boxes(after(stage(width:, height:), {"do" => "place", "kind" => kind}))[0]
        assert x >= 0 && y >= 0 && x + across <= width && y + down <= height, [kind, width].inspect
      end
    end
    assert_raises(Bavard::Error) { Edit.apply(stage, {"do" => "place", "kind" => "hologram"}) }
  end

  def test_text_begins_as_large_as_its_stage_lets_it
    sizes = [[100, 100], [1920, 1080], [1080, 1920], [7680, 4320]].map { |width, height| Starts.usual("text", {"width" => width, "height" => height})["text_size_px"] }
    assert_equal [14, 28, 28, 112], sizes
  end

  def test_each_kind_begins_with_room_for_what_it_shows
    boxes = ->(width, height) { %w[alerts flurry clock].map { |kind| Starts.usual(kind, {"width" => width, "height" => height}).values } }
    assert_equal [[461, 65, 998, 389], [0, 0, 1920, 1080], [1574, 54, 288, 86]], boxes.call(1920, 1080)
    assert_equal [[43, 115, 994, 691], [0, 0, 1080, 1920], [788, 96, 292, 154]], boxes.call(1080, 1920)
  end

  def test_every_layout_begins_a_stage_that_stands_within_it
    [[1920, 1080], [1080, 1920], [100, 100], [7680, 4320]].each do |width, height|
      Starts::LAYOUTS.each_key do |layout|
        document = Starts.document(layout, width:, height:)
        assert(boxes(document).all? { |x, y, across, down| x >= 0 && y >= 0 && x + across <= width + 16 && y + down <= height + 16 }, [layout, width].inspect)
      end
    end
    assert_raises(Bavard::Error) { Starts.document("pyramid", width: 100, height: 100) }
    assert_raises(Bavard::Error) { Starts.document("side", width: 99, height: 100) }
  end
end
