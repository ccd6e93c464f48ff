# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/style/chat_css"
require_relative "../../../lib/bavard/core/palette/colour"
require_relative "../../../lib/bavard/core/contrast/name_colour"

class ColourTest < Minitest::Test
  Colour = Bavard::Core::Palette::Colour
  NameColour = Bavard::Core::Contrast::NameColour
  CHANNEL = PropCheck::Generators.choose(0..255)
  HEX = PropCheck::Generators.tuple(CHANNEL, CHANNEL, CHANNEL).map { |channels| format("#%02x%02x%02x", *channels) }

  def test_black_on_white_is_twenty_one_to_one
    assert_in_delta 21.0, Colour.parse("#000").contrast_ratio(Colour.parse("#ffffff")), 0.001
  end

  # WCAG 2.2, understanding 1.4.3: #767676 on white is the lightest grey with 4.5 : 1.
  def test_the_known_grey_has_the_known_ratio
    assert_operator Colour.parse("#767676").contrast_ratio(Colour.parse("#fff")), :>=, 4.5
    assert_operator Colour.parse("#777777").contrast_ratio(Colour.parse("#fff")), :<, 4.5
  end

  def test_what_is_no_colour_is_nil
    [nil, 7, "", "red", "#12345", "#gggggg", "#fff\n", "x#ffffff"].each { |text| assert_nil Colour.parse(text), text.inspect }
  end

  # Ottosson's table: pure red is L 0.628, C 0.258, h 29.2°.
  def test_oklch_of_red
    lightness, chroma, hue = Colour.parse("#ff0000").oklch
    assert_in_delta 0.628, lightness, 0.001
    assert_in_delta 0.2577, chroma, 0.001
    assert_in_delta 29.23, hue * 180 / Math::PI, 0.1
  end

  def test_oklch_there_and_back_is_the_same_colour
    PropCheck.forall(HEX) { |hex| assert_equal hex, Colour.oklch(*Colour.parse(hex).oklch).to_s }
  end

  def test_every_name_is_readable_on_every_plate
    PropCheck.forall(HEX, HEX) do |given, ground|
      plate = Colour.parse(ground)
      drawn = Colour.parse(NameColour.new(ground).for("1/ann", given))
      best = [Colour.parse("#fff"), Colour.parse("#000")].map { |end_of_scale| end_of_scale.contrast_ratio(plate) }.max
      assert_operator drawn.contrast_ratio(plate), :>=, [4.5, best - 0.05].min, "#{given} on #{ground}"
    end
  end

  def test_a_readable_colour_stays_as_it_is
    assert_equal "#f3b634", NameColour.new("#10151a").for("1/ann", "#f3b634")
  end

  def test_who_has_no_colour_gets_the_same_one_every_time_and_others_get_others
    one = NameColour.new("#10151a")
    two = NameColour.new("#10151a")
    assert_equal one.for("1/ann", nil), two.for("1/ann", nil)
    assert_operator (1..30).map { |number| one.for("1/viewer#{number}", nil) }.uniq.size, :>, 15
  end

  def test_the_hue_of_a_dark_blue_is_kept
    _, _, before = Colour.parse("#22229a").oklch
    _, _, after = Colour.parse(NameColour.new("#10151a").for("1/ann", "#22229a")).oklch
    assert_in_delta before, after, 0.06
  end

  def test_a_piece_becomes_custom_properties
    css = Bavard::Core::Style::ChatCss.of_options("text_size_px" => 25, "plate_opacity" => 72, "text_colour" => "#ffffff", "plate_colour" => "#10151a")
    assert_equal({"--text-size" => "25px", "--plate-opacity" => "0.72", "--text-colour" => "#ffffff", "--plate-rgb" => "16 21 26"}, css)
  end
end
