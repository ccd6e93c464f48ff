# frozen_string_literal: true

require "minitest/autorun"
require "stringio"
require_relative "../../lib/bavard/copies/reading"
require_relative "../../lib/bavard/copies/unpack"
require_relative "../../lib/bavard/core/stage/edit"

# What goes out comes back, and what comes from elsewhere is read as if it were hostile.
class CopiesTest < Minitest::Test
  Core = Bavard::Core
  Copies = Bavard::Copies
  Document = Core::Stage::Document
  Stage = Struct.new(:name, :backdrop, :draft)
  FILE = "0f" * 16

  def stage(picture: nil)
    edits = [{"do" => "add", "kind" => "chat"}]
    edits << {"do" => "add", "kind" => "picture", "values" => {"pictures" => [{"file" => picture}]}} if picture
    Core::Stage::Edit.apply(Document.empty, {"do" => "many", "edits" => edits}).document
  end

  def read(bytes) = Copies::Reading.of(bytes) { |reading| yield reading }
  def kind(bytes) = read(bytes, &:kind)
  def refused(bytes) = assert_raises(Bavard::Error) { read(bytes, &:document) }

  def show(**more)
    Copies::ShowDocument.of("Dawn", [Stage.new("Main", "dawn", stage)], Core::Gate::Settings::DEFAULT.merge("brake" => {"kind" => "slow"}),
      cues: Core::Cues::Settings.default.merge("began_ms" => 5), fellows: [], looks: [], files: []).merge(more.transform_keys(&:to_s))
  end

  def test_a_stage_goes_out_and_comes_back_as_it_was
    read(Copies::Writing.json(stage)) do |reading|
      assert_equal ["stage", stage, [stage], []], [reading.kind, reading.document, reading.stages, reading.files]
    end
  end

  def test_with_its_files_as_a_zip
    bytes = {"picture" => "bytes of a picture"}
    zipped = Copies::Writing.zip("stage", stage(picture: FILE), [["picture", FILE], ["font", FILE]]) { |sort, _id| bytes[sort] }
    read(zipped) do |reading|
      assert_equal [["picture", FILE]], reading.files
      assert reading.brings?("picture", FILE)
      refute reading.brings?("font", FILE)
      assert_equal "bytes of a picture", reading.bytes("picture", FILE)
    end
  end

  def test_a_look_has_no_stages_and_no_files
    piece = stage["pieces"].first
    read(Copies::Writing.json(Core::Pieces::LookDocument.of(piece, "Chat"))) { |reading| assert_equal ["look", [], []], [reading.kind, reading.stages, reading.files] }
  end

  def test_a_look_brings_what_it_is_drawn_from
    piece = stage["pieces"].first.merge("plate_frame" => FILE)
    look = Core::Pieces::LookDocument.of(piece, "Chat")
    zipped = Copies::Writing.zip("look", look, Copies::OwnLooks.files(look)) { "bytes of a picture" }
    read(zipped) { |reading| assert_equal [[["picture", FILE]], true], [reading.files, reading.brings?("picture", FILE)] }
    assert_equal "1" * 32, Copies::OwnLooks.with_ids(look, FILE => "1" * 32).dig("set", "plate_frame")
  end

  def test_of_a_show_what_belongs_to_one_broadcast_stays_where_it_is
    assert_equal %w[cues queue], show["cues"].keys
    read(Copies::Writing.json(show)) do |reading|
      assert_equal ["show", nil, "Main"], [reading.kind, reading.document["gate"]["brake"], reading.document["stages"][0]["name"]]
      assert_equal [stage], reading.stages
    end
  end

  def test_what_is_no_copy_is_refused_in_words
    {"" => "not JSON", "{" => "not JSON", "[]" => "no stage, look or show", "7" => "no stage, look or show", "{}" => "no stage, look or show",
     %({"format":"bavard/stage@9"}) => "no stage, look or show", "[" * 100 => "not JSON", "\xFF\xFE" => "not JSON"}.each do |bytes, words|
      error = refused(bytes)
      assert_equal "file", error.field, bytes
      assert_includes error.message, words, bytes
    end
  end

  def test_a_zip_that_is_none_or_holds_nothing_of_ours
    assert_includes refused("PK\u0003\u0004 and nothing more").message, "no ZIP"
    assert_includes refused(Copies::Writing.zip("other", {}, [])).message, "no stage, look or show in this ZIP"
    assert_includes refused(Copies::Writing.zip("stage", {"format" => "x"}, [])).message, "no stage, look or show"
  end

  def test_a_zip_of_too_many_files_or_with_too_large_ones
    many = Zip::OutputStream.write_buffer { |out| (Copies::Unpack::MOST_ENTRIES + 1).times { |number| out.put_next_entry("f#{number}") } }.string
    assert_includes refused(many).message, "more than #{Copies::Unpack::MOST_ENTRIES} files"
    most = Copies::Reading::LARGEST_FILE_BYTES["font"]
    zipped = Copies::Writing.zip("stage", stage, [["font", FILE]]) { "\0" * (most + 1) }
    read(zipped) { |reading| assert_includes assert_raises(Bavard::Error) { reading.bytes("font", FILE) }.message, "too large" }
  end

  def test_json_that_is_too_large_is_not_read
    assert_includes refused("{\"a\":\"#{"x" * Copies::Reading::LARGEST_JSON_BYTES}\"}").message, "more than 8 MB"
    zipped = Copies::Writing.zip("stage", {"a" => "x" * (Copies::Reading::LARGEST_JSON_BYTES + 1)}, [])
    assert_includes refused(zipped).message, "more than 8 MB"
  end

  def refused_show(**more) = refused(Copies::Writing.json(show(**more)))

  def test_what_does_not_fit_in_a_show_is_named
    stages = [[], nil, "x", ["x"], [show["stages"][0]] * (Copies::ShowDocument::MOST_STAGES + 1)]
    stages.each { |value| assert_equal "stages", refused_show(stages: value).field, value.inspect[0, 40] }
    [7, "x", [], {"sets" => 7}, {"other" => 1}].each { |value| assert_equal "gate", refused_show(gate: value).field, value.inspect }
    [{"cues" => 7}, {"cues" => [7]}].each { |value| assert_equal "cues", refused_show(cues: value).field, value.inspect }
    assert_equal "rules", refused_show(gate: {"sets" => [{"name" => "A", "rules" => 7}]}).field
  end

  def test_cards_of_fellow_hosts_are_made_whole_and_their_files_are_none_but_files
    given = show(fellows: [{"name" => "Saltpan Hide", "picture" => "../etc/passwd", "clips" => [FILE, "x", 7], "more" => 1}, "x"])
    read(Copies::Writing.json(given)) do |reading|
      card = reading.document["fellows"]
      assert_equal 1, card.size
      assert_equal ["Saltpan Hide", "", nil, [FILE]], card[0].values_at("name", "words", "picture", "clips")
    end
  end

  def test_names_are_short_and_a_stage_without_one_is_called_a_stage
    given = show(name: "x" * 100, stages: [show["stages"][0].merge("name" => " ", "backdrop" => "b" * 99)], files: {FILE => {"name" => "y" * 99, "path" => "/"}, "x" => {}})
    read(Copies::Writing.json(given)) do |reading|
      document = reading.document
      assert_equal [60, "Stage", 40, {FILE => {"name" => "y" * 60}}], [document["name"].length, document["stages"][0]["name"], document["stages"][0]["backdrop"].length, document["files"]]
    end
  end

  def test_without_gate_and_sheet_a_show_is_its_stages
    read(Copies::Writing.json(show.slice("format", "stages"))) do |reading|
      assert_equal [nil, nil, [], {}], reading.document.values_at("gate", "cues", "fellows", "files")
    end
  end
end
