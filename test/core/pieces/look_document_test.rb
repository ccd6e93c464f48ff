# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/style/piece_style"
require_relative "../../../lib/bavard/core/pieces/look_document"
require_relative "../../../lib/bavard/core/stage/edit"

class LookTest < Minitest::Test
  Look = Bavard::Core::Pieces::LookDocument
  Document = Bavard::Core::Stage::Document
  Edit = Bavard::Core::Stage::Edit
  Motion = Bavard::Core::Look::Motion

  def with_chat(values = {}) = Edit.apply(Document.empty, {"do" => "add", "kind" => "chat", "values" => values}).document

  def put_on(document, look) = Edit.apply(document, {"do" => "look", "piece" => "chat1", "set" => look["set"]}).document

  def test_at_least_eight_looks_ship_and_each_has_a_form_for_bright_pictures
    assert_operator Look.shipped.size, :>=, 8
    Look.shipped.each { |key, look| refute_empty look["set"].fetch("bright"), key }
  end

  def test_no_two_looks_are_drawn_alike
    drawn = Look.shipped.values.map do |look|
      document = put_on(with_chat, look)
      Bavard::Core::Style::PieceStyle.of(document["pieces"][0], document["house"])
    end
    assert_equal drawn.size, drawn.uniq.size
  end

  def test_a_look_leaves_nothing_of_the_one_before_and_goes_back_in_one_step
    document = with_chat("text_size_px" => 33, "at_most" => 4, "x" => 7)
    Look.shipped.each_value do |look|
      straight = put_on(document, look)
      over = Look.shipped.values.reduce(document) { |before, other| put_on(before, other) }
      assert_equal straight, put_on(over, look)
      assert_equal [33, 4, 7], straight["pieces"][0].values_at("text_size_px", "at_most", "x")
      done = Edit.apply(document, {"do" => "look", "piece" => "chat1", "set" => look["set"]})
      assert_equal document, Edit.apply(done.document, done.undo).document
    end
  end

  def test_a_look_comes_back_from_its_own_document
    document = put_on(with_chat, Look.shipped.fetch("balloons"))
    saved = Look.read(JSON.parse(JSON.generate(Look.of(document["pieces"][0], "Mine"))))
    assert_equal document, put_on(with_chat, saved)
  end

  def test_what_is_no_look_is_refused_by_name
    good = Look.shipped.fetch("quiet")
    {nil => "format", [] => "format", {} => "format", good.merge("format" => "other") => "format", good.merge("kind" => "hologram") => "kind",
     good.merge("set" => 7) => "set", good.merge("set" => {"x" => 5}) => "x", good.merge("set" => {"text_weight" => 9999}) => "text_weight"}.each do |given, field|
      assert_equal field, assert_raises(Bavard::Error, given.inspect) { Look.read(given) }.field
    end
  end

  def test_ten_motions_and_more_and_none_of_them_alike
    moving = Motion::WAYS.except("none", "typed")
    assert_operator moving.size, :>=, 10
    assert_equal moving.size, moving.values.uniq.size
    moving.each { |name, frames| assert_operator frames.size, :>=, 2, name }
  end

  def test_going_out_is_the_way_back
    out = Motion.of(with_chat("motion_out" => "hatch")["pieces"][0])[:out]
    assert_equal Motion::WAYS["hatch"].map { |frame| frame["transform"] }.reverse, out.map { |frame| frame["transform"] }
    assert_in_delta 0.35, out[1]["offset"]
  end

  def test_motion_grows_calmer_with_the_rate_and_stops_in_a_flood
    assert_equal [1.0, 1.0, 0.5, 0.0, 0.0], [0, 4, 8, 12, 200].map { |rate| Motion.liveliness(rate) }
  end
end
