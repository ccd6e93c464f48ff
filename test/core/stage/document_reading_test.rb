# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/document_reading"

# A stage that comes from elsewhere is a claim until each piece of it was read.
class DocumentReadingTest < Minitest::Test
  Stage = Bavard::Core::Stage
  Pieces = Bavard::Core::Pieces
  Document = Stage::Document
  Reading = Stage::DocumentReading
  FONT = "f0" * 16
  OTHER = "0a" * 16
  THIRD = "3" * 32

  def document(*pieces, **more) = Document.empty.merge("pieces" => pieces, **more.transform_keys(&:to_s))
  def piece(id = "clock1", kind = "clock", **values) = {"id" => id, "kind" => kind, **values.transform_keys(&:to_s)}

  def assert_refused(words, given)
    error = assert_raises(Bavard::Error) { Reading.read(given) }
    assert_match words, error.message
    error
  end

  def test_what_was_written_is_read_as_it_was
    written = Reading.read(document(piece, piece("chat1", "chat"), width: 1280, height: 720, frame_rate: 30))
    assert_equal [1280, 720, 30], written.values_at("width", "height", "frame_rate")
    assert_equal written, Reading.read(written)
  end

  def test_what_is_missing_is_as_it_comes
    read = Reading.read({"format" => Document::FORMAT, "house" => Bavard::Core::Look::HouseStyle::DEFAULT, "pieces" => [piece]})
    assert_equal [1920, 1080, 60], read.values_at("width", "height", "frame_rate")
    assert_equal "time", read.dig("pieces", 0, "clock")
  end

  def test_what_is_no_stage_is_refused
    [nil, [], "", 7, {}, {"format" => "bavard/show@1"}, document.except("format")].each { |given| assert_refused(/no stage/, given) }
  end

  def test_pieces_are_a_list_of_objects
    [nil, {}, "clock1", [nil], [[]], ["clock1"], [piece, 7]].each do |pieces|
      assert_equal "pieces", assert_refused(/list of pieces/, document.merge("pieces" => pieces)).field
    end
  end

  def test_two_hundred_pieces_and_no_more
    most = Array.new(Document::MOST_PIECES) { |at| piece("clock#{at}") }
    assert_equal 200, Reading.read(document(*most))["pieces"].size
    assert_refused(/at most 200/, document(*most, piece("clock999")))
  end

  def test_no_two_have_one_id
    assert_refused(/same id/, document(piece, piece("chat1", "chat"), piece))
  end

  def test_an_id_is_a_word_and_a_number
    [nil, 7, "", "clock", "1", "Clock1", "clock1\n", "clock1 ", "clock1234567", "#{"a" * 21}1", "<b>1", ["clock1"]].each do |id|
      assert_equal "id", assert_refused(/an id such as/, document(piece(id))).field, id.inspect
    end
    assert_equal "#{"a" * 20}123456", Reading.read(document(piece("#{"a" * 20}123456"))).dig("pieces", 0, "id")
  end

  def test_a_kind_or_a_value_that_does_not_exist_is_refused
    assert_raises(Bavard::Error) { Reading.read(document(piece("clock1", "clocks"))) }
    assert_raises(Bavard::Error) { Reading.read(document(piece("clock1", nil))) }
    assert_raises(Bavard::Error) { Reading.read(document(piece(clock: "sundial"))) }
    assert_raises(Bavard::Error) { Reading.read(document(piece(x: "twelve"))) }
  end

  def test_names_of_earlier_versions_are_read
    assert_equal 77, Reading.read(document(piece("chat1", "chat", size_px: 77))).dig("pieces", 0, "text_size_px")
  end

  def test_files_are_named_once_each_and_renamed_where_they_stand
    house = {"faces" => {"text" => {"name" => "Text", "value" => "file:#{FONT}"}, "heading" => {"name" => "Headings", "value" => "file:#{THIRD}"}}}
    given = {"house" => house, "pieces" => [{"id" => "a1", "text_face" => "file:#{FONT}", "pictures" => [{"file" => "3", "for" => "x"}]},
      {"id" => "b1", "film" => "9", "name_face" => "file:#{FONT}", "text" => "3"}]}
    assert_equal [%w[picture 3], ["font", FONT], %w[film 9], ["font", THIRD]], Reading.files(given)

    renamed = Reading.with_files(given, "3" => "30", FONT => OTHER, "9" => "90")
    assert_equal [%w[picture 30], ["font", OTHER], %w[film 90], ["font", THIRD]], Reading.files(renamed)
    assert_equal [{"file" => "30", "for" => "x"}], renamed["pieces"][0]["pictures"]
    assert_equal "3", renamed["pieces"][1]["text"]
    assert_equal Reading.files(given), Reading.files(Reading.with_files(given, {}))
  end
end
