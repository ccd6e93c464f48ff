# frozen_string_literal: true

require "json_schemer"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/style/piece_style"
require_relative "../../../lib/bavard/core/stage/edit"

class HouseStyleTest < Minitest::Test
  Document = Bavard::Core::Stage::Document
  Edit = Bavard::Core::Stage::Edit
  PieceStyle = Bavard::Core::Style::PieceStyle

  def setup
    @document = Edit.apply(Document.empty, {"do" => "add", "kind" => "chat"}).document
  end

  def css(document) = PieceStyle.of(document["pieces"][0], document["house"])[:css]

  def test_its_schema_knows_what_it_begins_with_and_nothing_more
    style = Bavard::Core::Look::HouseStyle
    schema = JSONSchemer.schema(style.schema)
    assert_empty schema.validate(style::DEFAULT).to_a
    ink = {"name" => "Ink", "value" => "#000000"}
    [style::DEFAULT.merge("smells" => {}), style::DEFAULT.except("faces"), style::DEFAULT.merge("colours" => {"ink" => ink.merge("more" => 1)}),
      style::DEFAULT.merge("colours" => {"Ink!" => ink}), style::DEFAULT.merge("colours" => {"ink" => {"name" => "Ink"}})].each { |given| refute schema.valid?(given), given.inspect }
  end

  def test_what_is_no_house_style_is_refused_and_none_is_the_one_there_always_is
    style = Bavard::Core::Look::HouseStyle
    assert_equal style::DEFAULT, style.read(nil)
    assert_equal "house", assert_raises(Bavard::Error) { style.read([1]) }.field
    assert_equal "colours", assert_raises(Bavard::Error) { style.read("colours" => [1]) }.field
  end

  def test_colours_in_rows_follow_too_and_others_stay
    rows = [{"role" => "host", "colour" => "house:ink"}, {"role" => "guest", "colour" => "#123456"}]
    given = Edit.apply(@document, {"do" => "set", "piece" => "chat1", "values" => {"role_colours" => rows}}).document
    drawn = Document.drawn(given["pieces"][0], given["house"])
    assert_equal [given["house"]["colours"]["ink"]["value"], "#123456"], drawn["role_colours"].map { |row| row["colour"] }
  end

  def test_pieces_follow_when_a_colour_or_face_of_the_show_is_changed
    assert_equal "#ffffff", css(@document)["--text-colour"]
    blue = Edit.apply(@document, {"do" => "house", "sort" => "colours", "key" => "ink", "value" => {"name" => "Ink", "value" => "#00f"}}).document
    assert_equal "#0000ff", css(blue)["--text-colour"]
    other = Edit.apply(blue, {"do" => "house", "sort" => "faces", "key" => "text", "value" => {"name" => "Text", "value" => "Bitter"}}).document
    assert_match(/\A"Bitter"/, css(other)["--text-face"])
  end

  def test_a_name_that_is_taken_away_leaves_no_piece_without_a_colour
    named = Edit.apply(@document, {"do" => "house", "sort" => "colours", "key" => "reed", "value" => {"name" => "Reed", "value" => "#a8c46a"}}).document
    used = Edit.apply(named, {"do" => "set", "piece" => "chat1", "values" => {"text_colour" => "house:reed"}}).document
    assert_equal "#a8c46a", css(used)["--text-colour"]
    gone = Edit.apply(used, {"do" => "house", "sort" => "colours", "key" => "reed", "value" => nil})
    assert_equal "#ffffff", css(gone.document)["--text-colour"]
    assert_equal used, Edit.apply(gone.document, gone.undo).document
  end

  def test_a_name_stands_for_no_other_name_and_for_nothing_that_is_no_colour
    ["house:ink", "red", "#12", nil, 7].each do |value|
      edit = {"do" => "house", "sort" => "colours", "key" => "loop", "value" => {"name" => "Loop", "value" => value}}
      assert_raises(Bavard::Error, value.inspect) { Edit.apply(@document, edit) }
    end
  end

  def test_colours_and_faces_that_are_no_objects_are_refused
    read = ->(given) { Bavard::Core::Look::HouseStyle.read(Bavard::Core::Look::HouseStyle::DEFAULT.merge(given)) }
    [nil, [], "red", 7].each do |given|
      assert_equal "colours", assert_raises(Bavard::Error) { read.call("colours" => given) }.field
      assert_equal "faces", assert_raises(Bavard::Error) { read.call("faces" => given) }.field
    end
  end

  def test_on_bright_pictures_a_piece_has_a_form_of_its_own
    dark = Edit.apply(@document, {"do" => "set", "piece" => "chat1", "values" => {"plate_opacity" => 40}}).document
    bright = Edit.apply(dark, {"do" => "set", "piece" => "chat1", "values" => {"form" => "bright"}}).document
    set = Edit.apply(bright, {"do" => "set", "piece" => "chat1", "values" => {"text_colour" => "#112233", "text_size_px" => 44}})
    assert_equal [{"text_colour" => "#112233"}, 44], set.document["pieces"][0].values_at("bright", "text_size_px")
    assert_equal "#112233", css(set.document)["--text-colour"]
    form, other = PieceStyle.of(set.document["pieces"][0], set.document["house"])[:other]
    assert_equal ["dark", {"--text-colour" => "#ffffff"}], [form, other]
    assert_equal bright, Edit.apply(set.document, set.undo).document
  end
end
