# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/cue"
require_relative "../../../lib/bavard/core/cues/score"

# The type a cue has of its own.
class OwnTypeTest < Minitest::Test
  Cues = Bavard::Core::Cues

  def css(**given) = Cues::OwnType.css(Cues::Cue.build("a", given.transform_keys(&:to_s)))

  def test_it_is_the_pieces_until_it_is_its_own
    assert_nil css(type_size: 200, type_name_colour: "#123456")
    refute Cues::Score.moved(Cues::Cue.build("a")).key?(:y)
    own = css(own_type: true, type_size: 120, type_name_colour: "#123456")
    assert_equal ["120%", "600", "#123456", "#ffffff"], own.values_at("font-size", "--text-weight", "--name-colour", "--message-colour")
    refute own.keys.any? { |name| name.end_with?("-face") || name == "font-family" }
  end

  def test_a_face_is_set_for_all_parts_with_the_weight_it_has
    own = css(own_type: true, type_face: "Anton", type_weight: 800)
    assert_equal ["400", 5], [own["--text-weight"], own.values.count { |value| value.include?("Anton") }]
  end

  def test_colours_of_the_show_stand_for_nothing_here
    assert_raises(Bavard::Error) { css(type_name_colour: "red;}") }
    refute css(own_type: true, type_name_colour: "house:accent").key?("--name-colour")
    assert_raises(Bavard::Error) { css(type_face: "url(x)") }
  end
end
