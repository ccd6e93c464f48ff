# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/covering"
require_relative "../../../lib/bavard/core/stage/document"

# Pieces that cannot be seen where they stand.
class CoveringTest < Minitest::Test
  Covering = Bavard::Core::Stage::Covering
  Document = Bavard::Core::Stage::Document
  Pieces = Bavard::Core::Pieces

  def piece(kind, left, top, width, height)
    Pieces.kind(kind).build("#{kind}1", {"x" => left, "y" => top, "width" => width, "height" => height})
  end

  def found(*pieces) = Covering.findings(Document.empty.merge("pieces" => pieces)).map { |one| [one.piece, one.how, one.percent] }

  def test_the_share_of_one_in_another
    box = ->(x, y, width, height) { {"x" => x, "y" => y, "width" => width, "height" => height} }
    assert_in_delta 0.25, Covering.share(box[0, 0, 10, 10], box[5, 5, 10, 10])
    assert_in_delta 0.0, Covering.share(box[0, 0, 10, 10], box[10, 0, 10, 10])
    assert_in_delta 1.0, Covering.share(box[4, 4, 2, 2], box[0, 0, 10, 10])
  end

  def test_what_is_mostly_outside_of_the_picture_and_where_it_would_be_inside
    assert_equal [["chat1", :outside, 30]], found(piece("chat", 1500, 0, 600, 400))
    assert_empty found(piece("chat", 1499, 0, 600, 400))
    one = Covering.findings(Document.empty.merge("pieces" => [piece("chat", -500, 900, 600, 400)])).first
    assert_equal({"x" => 0, "y" => 680}, one.moved)
  end

  def test_what_lies_under_a_picture_of_its_own_side
    clock = piece("clock", 100, 100, 200, 80)
    assert_equal [["clock1", :under, 100]], found(clock, piece("picture", 0, 0, 800, 600))
    assert_empty found(piece("picture", 0, 0, 800, 600), clock)
    assert_empty found(clock.merge("side" => "behind"), piece("picture", 0, 0, 800, 600))
    assert_empty found(clock, piece("picture", 0, 0, 800, 600).merge("hidden" => true))
  end

  def test_what_lies_over_the_camera
    camera = piece("space", 1200, 600, 500, 400)
    assert_equal [["chat1", :over, 50]], found(camera, piece("chat", 1200, 600, 500, 200))
    assert_empty found(camera, piece("chat", 1200, 600, 500, 159))
    assert_empty found(camera, piece("chat", 1200, 600, 500, 400).merge("side" => "behind"))
    assert_empty found(camera, piece("alerts", 1200, 600, 500, 400))
  end
end
