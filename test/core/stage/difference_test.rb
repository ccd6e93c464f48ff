# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/difference"
require_relative "../../../lib/bavard/core/stage/edit"

# What waits to go on air, in words.
class DifferenceTest < Minitest::Test
  Document = Bavard::Core::Stage::Document
  Edit = Bavard::Core::Stage::Edit
  Difference = Bavard::Core::Stage::Difference

  def setup
    @before = after({"do" => "add", "kind" => "chat", "values" => {"x" => 100, "y" => 100, "width" => 400, "height" => 300}}, Document.empty)
    @before = after({"do" => "add", "kind" => "text", "values" => {}}, @before)
  end

  def after(edit, document = @before) = Edit.apply(document, edit).document
  def set(values, piece = "chat1") = after({"do" => "set", "piece" => piece, "values" => values})
  def words(document) = Difference.between(@before, document)

  def test_nothing_is_different_where_nothing_was_done_or_it_was_done_and_taken_back
    assert_empty words(@before)
    assert_empty words(set({"text_size_px" => @before["pieces"][0]["text_size_px"]}))
    done = Edit.apply(@before, {"do" => "set", "piece" => "chat1", "values" => {"x" => 5}})
    assert_empty words(Edit.apply(done.document, done.undo).document)
  end

  def test_a_setting_is_told_from_what_to_what
    assert_equal ["Chat: text size 25 px → 30 px"], words(set({"text_size_px" => 30}))
    assert_equal ["Chat: seconds shown for good → 8 s"], Difference.between(set({"stay_ms" => nil}), set({"stay_ms" => 8000}))
  end

  def test_moved_and_sized_is_one_thing
    assert_equal ["Chat: moved"], words(set({"x" => 5}))
    assert_equal ["Chat: moved"], words(set({"y" => 5}))
    assert_equal ["Chat: sized"], words(set({"width" => 500}))
    assert_equal ["Chat: sized"], words(set({"height" => 500}))
    assert_equal ["Chat: moved and sized"], words(set({"x" => 5, "height" => 500}))
    assert_equal ["Chat: text size 25 px → 30 px", "Chat: moved"], words(set({"x" => 5, "text_size_px" => 30}))
  end

  def test_pieces_that_came_and_went
    assert_equal ["Text: taken off"], words(after({"do" => "remove", "piece" => "text1"}))
    assert_equal ["Clock: new"], words(after({"do" => "add", "kind" => "clock"}))
  end

  def test_another_order_is_told_once_and_not_for_what_is_new_or_gone
    assert_equal ["Pieces: another order from front to back"], words(after({"do" => "order", "piece" => "chat1", "at" => 1}))
    three = after({"do" => "add", "kind" => "clock"})
    assert_equal ["Clock: new"], words(three)
    assert_equal ["Text: taken off", "Clock: new"], words(after({"do" => "remove", "piece" => "text1"}, three))
  end

  def test_the_stages_own_size_and_rate
    assert_equal ["Stage: width of the stage 1920 px → 1280 px", "Stage: frame rate 60 fps → 30 fps"], words(@before.merge("width" => 1280, "frame_rate" => 30))
  end

  def test_the_shows_colours_are_told_by_name
    key, colour = @before["house"]["colours"].first
    house = ->(colours) { @before.merge("house" => @before["house"].merge("colours" => colours)) }
    assert_equal ["The show’s #{colour["name"]}: #{colour["value"]} → #123456"], words(house.call(@before["house"]["colours"].merge(key => colour.merge("value" => "#123456"))))
    assert_equal ["The show’s #{colour["name"]}: taken away"], words(house.call(@before["house"]["colours"].except(key)))
    assert_equal ["The show’s Reed: new"], words(house.call(@before["house"]["colours"].merge("reed" => {"name" => "Reed", "value" => "#123456"})))
  end

  def test_what_the_stage_is_dressed_as_is_told_beside_what_that_changed
    dressed = after({"do" => "outfit", "outfit" => "ring_labels"})
    assert_includes words(dressed), "Stage: dressed as Ring labels"
    assert_includes words(dressed), "Text: text face the show’s text → Fraunces"
    assert_equal ["Stage: no outfit for what comes later"], Difference.between(dressed, dressed.merge("outfit" => ""))
  end

  def test_before_anything_is_on_air_all_of_it_is_new
    assert_equal ["Chat: new", "Text: new"], Difference.between(nil, @before)
  end
end
