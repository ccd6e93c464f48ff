# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/document"

# What stands on a stage, and where.
class DocumentTest < Minitest::Test
  Document = Bavard::Core::Stage::Document

  def document(*pieces) = {"pieces" => pieces.map.with_index(1) { |piece, at| {"id" => "clock#{at}", "kind" => "clock"}.merge(piece) }}

  def test_something_stands_behind_the_camera_where_a_piece_does_that_is_drawn
    before = {"side" => "before", "hidden" => false}
    behind = {"side" => "behind", "hidden" => false}
    assert Document.behind?(document(before, behind))
    refute Document.behind?(document(before, before))
    refute Document.behind?(document(before, behind.merge("hidden" => true)))
    refute Document.behind?(document)
  end

  def test_a_new_piece_takes_the_first_number_that_is_free
    assert_equal "clock1", Document.free_id(document, "clock")
    assert_equal "clock3", Document.free_id(document({}, {}, {"id" => "clock4"}), "clock")
    assert_equal "chat1", Document.free_id(document({}), "chat")
  end

  def test_chats_that_are_hidden_are_not_drawn
    chats = document({"kind" => "chat", "hidden" => true}, {"kind" => "chat", "hidden" => false}, {"hidden" => false})
    assert_equal ["clock2"], Document.chat_pieces(chats).map { |piece| piece["id"] }
  end
end
