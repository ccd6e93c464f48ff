# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/difference"
require_relative "../../../lib/bavard/core/stage/document"
require_relative "../../../lib/bavard/core/stage/edit"

class EditTest < Minitest::Test
  Document = Bavard::Core::Stage::Document
  Edit = Bavard::Core::Stage::Edit
  Difference = Bavard::Core::Stage::Difference

  def with_chat(values = {})
    Edit.apply(Document.empty, {"do" => "add", "kind" => "chat", "values" => values}).document
  end

  def test_adding_gives_a_whole_piece_with_a_free_id
    document = with_chat("x" => "12 px")
    assert_equal ["chat1", 12, 25], Document.piece(document, "chat1").values_at("id", "x", "text_size_px")
    assert_equal "chat2", Document.free_id(document, "chat")
  end

  def test_nothing_that_is_given_is_changed
    before = with_chat.freeze
    before["pieces"].each(&:freeze)
    Edit.apply(before, {"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 40}})
    assert_equal 25, Document.piece(before, "chat1")["text_size_px"]
  end

  def test_every_edit_has_a_way_back
    edits = [
      {"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => "40", "newest" => "Top"}},
      {"do" => "remove", "piece" => "chat1"}, {"do" => "add", "kind" => "chat"}, {"do" => "size", "values" => {"width" => 1280}}
    ]
    edits.each do |edit|
      before = with_chat
      done = Edit.apply(before, edit)
      refute_equal before, done.document
      assert_equal before, Edit.apply(done.document, done.undo).document, edit.inspect
    end
  end

  def test_what_does_not_fit_is_refused_by_name_with_the_way_out
    {"text_size_px" => "900", "text_face" => "Comic", "text_colour" => "red", "stay_ms" => 10, "at_most" => "many", "width" => nil,
     "wobble" => 1}.each do |name, value|
      error = assert_raises(Bavard::Error, name) { Edit.apply(with_chat, {"do" => "set", "piece" => "chat1", "values" => {name => value}}) }
      assert_equal name, error.field
      refute_empty error.message
    end
  end

  def test_hostile_edits_are_refused_and_never_crash
    [nil, 7, [], {}, {"do" => "set"}, {"do" => "set", "piece" => "chat1", "values" => 7}, {"do" => "put"},
      {"do" => "put", "piece" => "x", "at" => "y"},
      {"do" => "size", "values" => {"width" => 5}}, {"do" => "add", "kind" => "hologram"}, {"do" => "add", "kind" => "chat", "values" => {"x" => {}}},
      {"do" => "remove", "piece" => {}}].each do |edit|
      assert_raises(Bavard::Error, edit.inspect) { Edit.apply(with_chat, edit) }
    end
  end

  def test_put_takes_only_a_whole_piece_that_fits
    piece = Document.piece(with_chat, "chat1")
    assert_raises(Bavard::Error) { Edit.apply(Document.empty, {"do" => "put", "piece" => piece.merge("text_size_px" => 9999), "at" => 0}) }
    assert_raises(Bavard::Error) { Edit.apply(with_chat, {"do" => "put", "piece" => piece, "at" => 0}) }
    assert_raises(Bavard::Error) { Edit.apply(Document.empty, {"do" => "put", "piece" => piece.merge("id" => "<b>"), "at" => 0}) }
  end

  def test_a_stage_holds_only_so_many_pieces
    document = (1..Document::MOST_PIECES).reduce(Document.empty) { |one, _| Edit.apply(one, {"do" => "add", "kind" => "chat"}).document }
    assert_raises(Bavard::Error) { Edit.apply(document, {"do" => "add", "kind" => "chat"}) }
  end

  def test_differences_are_told_in_words
    before = with_chat
    after = Edit.apply(before, {"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 30, "x" => 9, "stay_ms" => "for good"}}).document
    assert_equal ["Chat: text size 25 px → 30 px", "Chat: seconds shown 14 s → for good", "Chat: moved"], Difference.between(before, after)
    assert_equal ["Chat: new"], Difference.between(nil, before)
    assert_equal ["Stage: width of the stage 1920 px → 1280 px", "Chat: taken off"],
      Difference.between(before, Document.empty(width: 1280))
  end

  def test_nothing_is_different_from_itself
    assert_empty Difference.between(with_chat, with_chat)
  end
end
