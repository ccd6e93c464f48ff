# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/contrast/clearer"
require_relative "../../../lib/bavard/core/contrast/ground"
require_relative "../../../lib/bavard/core/look/motion"
require_relative "../../../lib/bavard/core/contrast/names"
require_relative "../../../lib/bavard/core/stage/document"

# What lies behind letters, layer by layer; and what follows from that.
class GroundTest < Minitest::Test
  Look = Bavard::Core::Look
  Contrast = Bavard::Core::Contrast
  Palette = Bavard::Core::Palette
  Ground = Contrast::Ground
  Colour = Palette::Colour
  # No plate, no shadow, no outline.
  BARE = {"plate_for" => "none", "plate_by" => "one", "plate_gradient" => "none", "plate_colour" => "#000000", "plate_opacity" => 50, "plate_to_opacity" => 20,
          "text_size_px" => 50, "text_shadow_opacity" => 0, "text_shadow_x_px" => 0, "text_shadow_y_px" => 0, "text_shadow_blur_px" => 0, "text_shadow_colour" => "#000000",
          "text_outline_px" => 0, "text_outline_colour" => "#000000", "name_shadow_opacity" => 0, "name_outline_px" => 0, "name_outline_colour" => "#000000",
          "name_plate_opacity" => 0, "name_plate_by" => "one", "name_plate_colour" => "#000000", "text_plate_colour" => "#000000"}.freeze
  WHITE = [255, 255, 255].freeze
  INK = Colour.parse("#000000")

  # The grey that lies behind, 0 to 255, as black letters tell it by their contrast.
  def grey(part = "text", plate: nil, picture: WHITE, **more)
    luminance = (Ground.new(BARE.merge(more.transform_keys(&:to_s)), part, plate:).ratio(INK, picture) * 0.05) - 0.05
    (0..255).min_by { |value| (Ground::LINEAR[value] - luminance).abs }
  end

  # What is worst counts: every other plate's colour, and a pattern that lies under some letters.
  def test_the_worst_of_several_grounds_counts
    white, ink = ["#ffffff", "#101010"].map { |colour| Bavard::Core::Palette::Colour.parse(colour) }
    plate = BARE.merge("plate_for" => "line", "plate_opacity" => 100, "plate_other_colour" => "#ffffff")
    ratio = ->(more, written = white) { Ground.new(plate.merge(more), "text").ratio(written, [0, 0, 0]) }
    assert_in_delta 21.0, ratio[{}], 0.01
    assert_in_delta 1.0, ratio[{"plate_by" => "turn"}], 0.01
    assert_operator ratio[{"plate_by" => "turn"}, ink], :<, 1.3
    printed = {"plate_pattern" => "stripes", "plate_pattern_colour" => "#ffffff", "plate_pattern_opacity" => 50}
    assert_in_delta ratio[{"plate_colour" => "#808080"}], ratio[printed], 0.1
  end

  def test_the_picture_shows_through_a_plate_by_what_it_lacks
    assert_equal [255, 128, 0], [grey, grey(plate_for: "line"), grey(plate_for: "line", plate_opacity: 100)]
    assert_equal 204, grey(plate_for: "line", plate_gradient: "down")
    assert_equal 192, grey(plate_for: "line", plate_colour: "#808080")
  end

  def test_a_plate_of_its_person_has_their_colour_where_plates_are_by_person
    own = {plate: "#ffffff", picture: [0, 0, 0], plate_for: "line"}
    assert_equal [128, 0, 0], [grey(**own, plate_by: "person"), grey(**own), grey(**own, plate: nil, plate_by: "person")]
  end

  def test_over_the_lines_plate_lies_that_of_the_part_alone
    assert_equal 191, grey("name", name_plate_opacity: 25)
    assert_equal 64, grey("name", plate_for: "line", name_plate_opacity: 50)
    assert_equal 255, grey("text", name_plate_opacity: 100)
    theirs = {plate: "#ffffff", picture: [0, 0, 0], name_plate_opacity: 50}
    assert_equal [128, 0, 0], [grey("name", **theirs, name_plate_by: "theirs"), grey("name", **theirs), grey("name", **theirs, plate: nil, name_plate_by: "theirs")]
    assert_equal 0, grey("text", **theirs, text_plate_opacity: 50, name_plate_by: "theirs")
  end

  def test_a_shadow_counts_as_much_as_is_seen_of_it_beside_the_letter
    shadow = ->(x, y, blur = 12) { grey(text_shadow_opacity: 100, text_shadow_x_px: x, text_shadow_y_px: y, text_shadow_blur_px: blur) }
    seen = Look::LetterShadow.new(BARE.merge("text_shadow_opacity" => 100, "text_shadow_blur_px" => 12), "text").seen
    assert_in_delta 255 * (1 - seen), shadow[0, 0], 1
    assert_equal [shadow[0, 0], shadow[6, 8], shadow[12, 16], 255].sort, [shadow[0, 0], shadow[6, 8], shadow[12, 16], shadow[30, 40]]
    assert_equal 255, shadow[0, 0, 0]
  end

  def test_an_outline_hides_as_much_as_it_is_wide_against_the_letters
    assert_equal [255, 128, 0, 0], [0, 1.5, 3, 9].map { |width| grey(text_outline_px: width) }
    assert_equal 191, grey(text_size_px: 100, text_outline_px: 1.5)
  end

  def test_contrast_is_the_same_whichever_is_brighter
    bare = Ground.new(BARE, "text")
    assert_in_delta 21, bare.ratio(INK, WHITE)
    assert_in_delta 21, bare.ratio(Colour.parse("#ffffff"), [0, 0, 0])
    assert_in_delta 1, bare.ratio(INK, [0, 0, 0])
  end

  # What would make it clearer looks at few patches and people, the darkest and brightest among them.

  Patch = Contrast::Patches::Patch

  def chat(**values)
    document = Bavard::Core::Stage::Document
    document.drawn(Bavard::Core::Pieces::ChatPiece.build("chat1", {"name_colour" => "one", "one_name_colour" => "#ffffff"}.merge(values.transform_keys(&:to_s))), document.empty["house"])
  end

  def patch(grey) = Patch.new(grey, grey, grey, 0, 0, 1, 1, 1)
  def ways(patches, people: [], **values) = Contrast::Clearer.new(chat(**values), patches, people:).ways

  def test_however_many_patches_there_are_the_hardest_count
    dark = (0..99).map { |grey| patch(grey / 5) }
    [dark + [patch(255)], [patch(255)] + dark, dark.first(23) + [patch(255)], dark.first(24) + [patch(255)]].each do |patches|
      assert_equal ways([patch(255)], plate_opacity: 20).map(&:sets), ways(patches, plate_opacity: 20).map(&:sets), patches.size
    end
    assert_empty ways(dark, plate_opacity: 20)
  end

  def test_however_many_people_there_are_those_hardest_to_read_count
    all = %w[#ffffff #f0f0f0 #eeeeee #dddddd #cccccc #bbbbbb #aaaaaa #999999].map { |colour| [colour, nil] }
    [all, all.reverse, all.last(2), all.last(6), all.last(7)].each do |people|
      refute_empty ways([patch(60)], people:, plate_opacity: 0), people.inspect
    end
    [6, 7].each { |count| assert_empty ways([patch(60)], people: all.first(count), plate_opacity: 0) }
  end

  def test_a_gradient_stays_at_least_as_thick_as_its_other_end
    sets = ways([patch(255)], plate_gradient: "down", plate_opacity: 10, plate_to_opacity: 100).map(&:sets).find { |one| one.key?("plate_opacity") }
    assert_equal 100, sets["plate_to_opacity"]
  end

  # Names.

  def names(**values) = Contrast::Names.new(chat(**values))
  def line(id = 1, **more) = Lines.line(id, login: "kestrel_ann", name: "Kestrel_Ann", **more)

  def test_somebodys_own_colour_goes_before_all_others_by_login_or_shown_name
    rows = ->(who) { names(name_colour: "theirs", person_colours: [{"person" => who, "colour" => "#123456"}]).colour(line(colour: "#ff0000"), feed: "#5fb8d6") }
    assert_equal %w[#123456 #123456], [rows["KESTREL_ANN"], rows["Kestrel_Ann"]]
    refute_equal "#123456", rows["bo"]
  end

  def test_by_role_the_first_of_their_badges_that_has_a_colour
    by_role = names(name_colour: "role", role_colours: [{"role" => "host", "colour" => "#111111"}, {"role" => "moderator", "colour" => "#222222"}])
    colours = [["moderator/1", "host"], ["subscriber/3", "host"], ["subscriber/3"], []].map { |badges| by_role.colour(line(badges:), feed: "#5fb8d6") }
    assert_equal %w[#222222 #111111 #ffffff #ffffff], colours
    assert_equal "#ffffff", names(name_colour: "role", role_colours: []).colour(line(badges: ["host"]), feed: "#5fb8d6")
  end

  # Motion.

  def test_the_faster_lines_come_the_less_moves
    from = Look::Motion::CALMER_FROM
    to = Look::Motion::STILL_FROM
    assert_equal [1.0, 1.0, 0.5, 0.0, 0.0], [0, from, (from + to) / 2.0, to, to + 1].map { |rate| Look::Motion.liveliness(rate) }
  end
end
