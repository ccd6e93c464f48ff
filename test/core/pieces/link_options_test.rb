# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/drawing"
require_relative "../../../lib/bavard/core/pieces/link_options"

class LinkOptionsTest < Minitest::Test
  def read(query) = Bavard::Core::Pieces::LinkOptions.read(query)

  def test_options_are_read_in_any_case_and_spelling_that_can_be_understood
    {"size" => "30", "SIZE" => "30px", "Text-Size" => "30 PX", "font_size" => "30,0", "sizee" => "30", "fontsiez" => "30"}.each do |name, value|
      result = read({name => value})
      assert_equal({"text_size_px" => 30}, result.properties, name)
      assert_empty result.not_understood
    end
  end

  def test_values_too_are_read_leniently
    assert_equal "Bitter", read({"face" => "bitter"}).properties["text_face"]
    assert_equal "Atkinson Hyperlegible Next", read({"font" => "atkinson-hyperlegible"}).properties["text_face"]
    assert_equal "top", read({"newest" => "TOP"}).properties["newest"]
    assert_equal "#ffcc00", read({"color" => "FC0"}).properties["text_colour"]
  end

  def test_what_cannot_be_understood_is_named_as_it_stands
    assert_equal ["sparkle=1", "size=huge"], read({"sparkle" => "1", "size" => "huge"}).not_understood
  end

  def test_one_colour_for_names_is_one_for_all
    assert_equal({"one_name_colour" => "#ffcc00", "name_colour" => "one"}, read({"names" => "#fc0"}).properties)
  end

  def test_parts_of_a_line_are_there_or_not_on_that_screen
    %w[0 no None OFF hide false].each { |off| assert_equal({"badges" => "none"}, read({"Badges" => off}).properties, off) }
    assert_equal({"avatars" => "shown", "marks" => "none", "times" => "shown", "names" => "none"},
      read({"faces" => "yes", "platforms" => "without", "bages" => "maybe", "time" => "1", "names" => "off"}).properties)
    assert_equal({"badges" => "none"}, read({"bagdes" => "off"}).properties)
    assert_equal ["badges=maybe"], read({"badges" => "maybe"}).not_understood
    assert_equal({"one_name_colour" => "#ffcc00", "name_colour" => "one"}, read({"names" => "#fc0"}).properties)
  end

  def test_only_some_pieces_are_drawn_on_that_screen
    assert_equal %w[chat goal2], read({"Pieces" => "Chat, goal2 chat"}).pieces
    assert_empty read({}).pieces
    ["", "sparkle", "chat,sparkle", "chat1;DROP", "x" * 500].each { |given| assert_equal [[], 1], read({"only" => given}).then { |one| [one.pieces, one.not_understood.size] }, given }
  end

  def test_no_more_lines_stand_there_and_none_longer
    assert_equal({"at_most" => 5, "stay_ms" => 8000}, read({"Lines" => "5", "seconds" => "8 s"}).properties)
    assert_equal %w[lines=0 seconds=1], read({"lines" => "0", "seconds" => "1"}).not_understood
  end

  def test_a_kind_or_one_piece_is_told_by_itself
    result = read({"goal.size" => "40px", "Goal.Plate" => "0", "chat2.lines" => "3", "size" => "30", "chat.badges" => "off"})
    assert_equal({"goal" => {"text_size_px" => 40, "plate_opacity" => 0}, "chat2" => {"at_most" => 3}, "chat" => {"badges" => "none"}}, result.of)
    assert_equal({"text_size_px" => 30}, result.properties)
    assert_empty result.not_understood
  end

  def test_what_a_piece_has_not_is_not_understood_of_it
    given = {"goal.badges" => "off", "goal.lines" => "3", "picture.size" => "30", "sparkle.size" => "30", "goal.pieces" => "chat", ".size" => "1", "goal." => "1",
             "chat1;.size" => "30"}
    assert_equal([given.map { |one| one.join("=") }, {}, []], read(given).then { |result| [result.not_understood, result.of, result.pieces] })
  end

  def test_the_shorter_a_name_the_less_may_be_wrong_with_it
    assert_equal [[], [], ["siez2=30"], ["siz=30"]], %w[sizr isze siez2 siz].map { |name| read({name => "30"}).not_understood }
  end

  def test_a_flood_of_options_is_cut
    assert_operator read((1..500).to_h { |number| ["nonsense#{number}", "x" * 500] }).not_understood.sum(&:length), :<=, 40 * 60
  end

  def test_a_screen_of_another_size_is_told_in_words
    drawing = Bavard::Core::Stage::Drawing.new(1920, 1080, 640, 360)
    assert_equal "drawn at 640 × 360, so 25 px text shows at 8 px", drawing.words(25)
    assert_includes drawing.advice, "Set width 1920 and height 1080"
    narrow = Bavard::Core::Stage::Drawing.new(1920, 1080, 640, 1080)
    assert_equal "drawn at 640 × 1080, so 30 px text shows at 10 px", narrow.words(30)
  end

  def test_a_screen_of_the_right_size_needs_no_advice
    drawing = Bavard::Core::Stage::Drawing.new(1920, 1080, 1920, 1081)
    assert_equal ["drawn at its true size", nil], [drawing.words(25), drawing.advice]
  end

  def test_a_screen_shrunk_to_nothing_is_said_to_be
    assert_includes Bavard::Core::Stage::Drawing.new(1920, 1080, 0, 0).words(25), "shrunk to nothing"
  end
end
