# frozen_string_literal: true

require "tmpdir"
require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../tools/suite/memory"
require_relative "../../../lib/bavard/core/reading/pace"
require_relative "../../../lib/bavard/core/stage/document"
require_relative "../../../lib/bavard/live/pictures/faces_unpacked"

class TypeCaseTest < Minitest::Test
  include Lines

  def self.type = @type ||= Bavard::Live::FacesUnpacked.type_case(File.join(Suite::Memory.root, "faces"))

  def type = self.class.type

  def piece(values = {})
    document = Bavard::Core::Stage::Document
    document.drawn(Bavard::Core::Pieces::ChatPiece.build("chat1", values), document.empty["house"])
  end

  def pace(values = {}, texts: ["that was a clean release"] * 9, per_minute: 24)
    lines = texts.each_with_index.map { |text, index| line(index + 1, text) }
    Bavard::Core::Reading::Pace.new(piece(values), lines, per_minute:, type:)
  end

  def test_every_shipped_face_is_measured_and_none_is_like_another
    families = Bavard::Core::Palette::Faces::SHIPPED.keys
    assert_empty families - type.families
    widths = families.map { |family| type.width(family, 500, "can we see the wing again?").round(3) }
    assert_equal families.size, widths.uniq.size
    assert(widths.all? { |width| width.between?(8, 20) }, widths.inspect)
  end

  def test_bolder_is_wider_where_a_face_has_weights
    assert_operator type.width("Archivo", 800, "mudlark"), :>, type.width("Archivo", 300, "mudlark")
  end

  def test_wider_letters_where_a_face_has_several_widths
    widths = [62, 100, 125].map { |stretch| type.width("Archivo", 500, "reed warbler", stretch) }
    assert_equal widths.sort, widths
    assert_operator widths.last, :>, 1.3 * widths.first
    assert_in_delta type.width("Bitter", 500, "reed warbler"), type.width("Bitter", 500, "reed warbler", 125), 0.001
  end

  def test_what_a_face_does_not_have_is_estimated_and_said_to_be
    assert type.certain?("Bitter", 500, "reed warbler, Łódź")
    ["🌅🌅", "葦原", "مرحبا"].each do |text|
      refute type.certain?("Bitter", 500, text), text
      assert_operator type.width("Bitter", 500, text), :>, 0.5
    end
  end

  def test_estimates_go_by_the_kind_of_letter
    case_of = Bavard::Core::Reading::TypeCase
    width = ->(text) { type.width("Bitter", 500, text) }
    assert_in_delta 2 * case_of::EMOJI_EM, width["🌅🌅"]
    assert_in_delta 2 * case_of::WIDE_EM, width["葦原"]
    assert_in_delta 3 * case_of::OTHER_EM, width["مرح"]
    assert_in_delta width["a"] + case_of::WIDE_EM + width["b"], width["a葦b"]
    refute type.certain?("Bitter", 500, "reeds 葦")
    assert_in_delta 0, width[""]
    assert_in_delta type.width(type.families.first, 500, "reed"), type.width("No such face", 500, "reed")
    refute type.certain?("No such face", 500, "reed")
  end

  def test_a_hosts_own_face_is_found_when_it_is_first_measured_with
    files = type.instance_variable_get(:@files)
    Dir.mktmpdir do |own|
      name = "own-#{"ab" * 16}"
      FileUtils.cp(files.fetch("Bitter").first, File.join(own, "#{name}.ttf"))
      with_own = Bavard::Core::Reading::TypeCase.new(files, own:)
      assert_in_delta type.width("Bitter", 500, "reed warbler"), with_own.width(name, 500, "reed warbler")
      first = type.width(type.families.first, 500, "reed warbler")
      ["own-#{"cd" * 16}", "own-../#{name}", name.upcase].each { |other| assert_in_delta first, with_own.width(other, 500, "reed warbler"), 0.001, other }
      assert_in_delta first, Bavard::Core::Reading::TypeCase.new(files).width(name, 500, "reed warbler")
    end
  end

  def test_what_is_no_font_is_refused
    assert_raises(Bavard::Error) { Bavard::Core::Reading::Font.new(__FILE__, 400) }
    assert_raises(Bavard::Error) { Bavard::Core::Reading::Font.new("/nowhere.ttf", 400) }
  end

  def test_rows_break_between_words_and_within_one_only_where_it_is_longer_than_a_row
    rows = Bavard::Core::Reading::Rows.new(10, &:length)
    assert_equal 1, rows.count("ten letter")
    assert_equal 2, rows.count("eleven letters"[0, 12])
    assert_equal 3, rows.count("a#{"b" * 25}")
    assert_equal 2, rows.count("seven", first: 8)
    assert_equal [2, 3, 2, 1], [rows.count("x", first: 10), rows.count("x", first: 25), rows.count("a b#{"c" * 8}"), rows.count("ab-cd efg")]
    assert_equal [1, 2], [rows.count("ten letter "), rows.count("ten letter x")]
    assert_equal 1, rows.count("")
  end

  def test_pace_is_calm_brisk_too_fast_or_stale
    assert_equal "calm", pace({"height" => 600, "stay_ms" => 14_000}).word
    assert_equal "stale", pace({"stay_ms" => nil}, per_minute: 1).word
    assert_equal "too fast", pace({"height" => 120, "stay_ms" => 14_000}, per_minute: 300).word
    long = (["short one"] * 8) + ["a line that is a good deal longer than all of the others are " * 3]
    assert_equal "brisk", pace({"height" => 500, "width" => 900, "stay_ms" => 6000}, texts: long).word
  end

  def test_it_says_what_would_change_it
    assert_match(/Room for \d+ lines would do/, pace({"height" => 80, "stay_ms" => 14_000}, per_minute: 100).advice)
    assert_match(/hold back/, pace({"height" => 80}, per_minute: 3000).advice)
    assert_match(/as long as they take to read/, pace({"height" => 900, "stay_ms" => 3000, "keep_last" => 1}, texts: ["seven words that are hard to read"] * 9, per_minute: 3).advice)
    assert_nil pace.advice
  end

  def test_lines_that_stay_as_long_as_they_take_are_calm_until_others_push_them
    texts = (["short"] * 8) + ["a line that takes a good deal longer to read than all of the others do"]
    values = {"stay_by" => "reading", "width" => 800, "height" => 600, "keep_last" => 1}
    assert_equal ["calm", nil], pace(values, texts:, per_minute: 5).then { |one| [one.word, one.advice] }
    refute_equal "calm", pace(values.merge("at_most" => 1), texts:, per_minute: 120).word
  end

  def test_no_more_fit_than_are_kept
    assert_equal 3, pace({"height" => 4000, "at_most" => 3}).fits
  end
end
