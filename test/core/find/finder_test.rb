# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/find/everyday"
require_relative "../../../lib/bavard/core/find/finder"
require_relative "../../../lib/bavard/core/pieces/pieces"

# Whatever is looked for, by any of the words that people use for it, also misspelt.
class FinderTest < Minitest::Test
  include Bavard::Core::Find

  Pieces = Bavard::Core::Pieces

  def entry(label, kind: "setting", where: nil, also: []) = Entry.new(kind:, label:, where:, at: "/#{label}", also:)

  # All that can be set about a chat.
  def chat
    Pieces::ChatPiece.properties.map { |name, property| entry(property.label, where: "Chat", also: Everyday.of(name)).tap { |one| one.at = name } }
  end

  def found(text, entries = [entry("Gate", kind: "station"), entry("Newest line"), entry("Text size"), entry("Élan vital"), entry("Shadow blur")])
    Finder.new(entries).find(text).map(&:label)
  end

  def test_whole_words_their_beginnings_and_what_is_within_them
    assert_equal ["Text size"], found("size")
    assert_equal ["Shadow blur"], found("shad")
    assert_equal ["Newest line"], found("ewest")
    assert_empty found("ew")
    assert_equal ["Élan vital"], found("ELAN")
  end

  def test_slips_of_the_finger
    assert_equal ["Shadow blur"], found("shadwo blr")
    assert_equal ["Newest line"], found("newset")
    assert_empty found("sise") - ["Text size"]
    assert_equal ["Text size"], found("sise")
    assert_empty found("xyzzy")
  end

  def test_what_is_called_so_comes_before_what_people_call_so_and_stations_before_settings
    entries = [entry("Opacity", also: %w[gate]), entry("Gate width"), entry("Gate", kind: "station")]
    assert_equal ["Gate", "Gate width", "Opacity"], found("gate", entries)
  end

  def test_the_same_setting_of_many_pieces_leaves_room_for_others
    many = Array.new(20) { |at| entry("Side of the camera", where: "Piece #{at}") }
    assert_equal ["Camera", *["Side of the camera"] * 3], found("camera", [*many, entry("Camera", kind: "piece")])
    assert_equal ["Side of the camera"] * 3, found("camera", many)
  end

  def test_what_fits_much_worse_than_the_best_is_left_out
    entries = [entry("People left out", also: %w[ban]), entry("Fan of reeds"), entry("Banner")]
    assert_equal ["People left out", "Banner"], found("ban", entries)
    assert_equal ["Fan of reeds"], found("ban", [entry("Fan of reeds")])
  end

  def test_nothing_and_hostile_text_find_nothing
    ["", "   ", "%_\\", "\u0000", "\xff".b, "((((", "🐦"].each { |text| assert_empty found(text), text.inspect }
    assert_kind_of Array, found("a" * 100_000)
    assert_kind_of Array, found("word " * 10_000)
  end

  def test_everyday_words_lead_to_the_setting
    {"goes away too fast" => "stay_ms", "behind camera" => "side", "blurry" => "text_shadow_blur_px", "letters bigger" => "text_size_px",
     "emoji big" => "emote_size", "upside down" => "newest", "backgruond" => "plate_opacity", "timestamp" => "times", "corners" => "plate_round_top_start"}.each do |words, name|
      found = Finder.new(chat).find(words).map(&:at)
      assert found.any? { |one| one.end_with?(name) }, "#{words}: #{found.join(", ")}"
    end
  end

  def test_every_everyday_word_is_of_a_setting_that_there_is
    names = Pieces::ALL.flat_map { |kind| kind.properties.keys }.uniq
    nowhere = Everyday::WORDS.keys.reject { |ending| names.any? { |name| name.end_with?(ending) } }
    assert_empty nowhere
    assert_equal Everyday::WORDS["text_size_px"], Everyday.of("text_size_px")
    assert_empty Everyday.of("zzz")
  end
end
