# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/contrast/names"
require_relative "../../../lib/bavard/core/stage/document"

class NamesTest < Minitest::Test
  Names = Bavard::Core::Contrast::Names
  FEED = "#5fb8d6"

  def piece(**values)
    document = Bavard::Core::Stage::Document
    document.drawn(Bavard::Core::Pieces::ChatPiece.build("chat1", values.transform_keys(&:to_s)), document.empty["house"])
  end

  def names(**values) = Names.new(piece(**values))
  def line(id = 1, login: "kestrel_ann", colour: "#ff0000") = Lines.line(id, login:, name: "Kestrel_Ann", colour:)
  def readable?(colour, on = "#10151a") = Bavard::Core::Palette::Colour.parse(colour).contrast_ratio(Bavard::Core::Palette::Colour.parse(on)) >= 4.5

  def test_three_forms
    person = line.person
    assert_equal ["Kestrel_Ann", "kestrel_ann", "Kestrel Ann"], %w[shown login spoken].map { |form| names(name_form: form).written(person) }
  end

  def test_one_colour_is_as_it_was_chosen_even_where_it_cannot_be_read
    assert_equal "#10151a", names(name_colour: "one", one_name_colour: "#10151a").colour(line, feed: FEED)
  end

  def test_every_other_colour_can_be_read_whatever_it_was
    %w[theirs person line feed].product(%w[#000000 #10151a #0000ff #123456]) do |how, given|
      assert readable?(names(name_colour: how).colour(line(colour: given), feed: given)), [how, given].inspect
    end
    assert readable?(names(name_colour: "theirs", plate_colour: "#ffffff").colour(line(colour: "#ffff00"), feed: FEED), "#ffffff")
  end

  def test_what_each_way_goes_by
    one = line(1)
    other = line(2, colour: "#00ff00")
    same = ->(how, before, after, feeds = [FEED, FEED]) { names(name_colour: how).then { |all| all.colour(before, feed: feeds[0]) == all.colour(after, feed: feeds[1]) } }
    refute same.call("theirs", one, other)
    assert same.call("person", one, other)
    refute same.call("person", one, line(1, login: "bob"))
    refute same.call("line", one, other)
    assert same.call("line", one, line(1 + Names::LINE_COLOURS))
    assert same.call("feed", one, line(1, login: "bob"))
    refute same.call("feed", one, one.dup.tap { |copy| copy.person = line(1, login: "bob").person }, [FEED, "#e58fb0"])
  end

  def test_a_plate_of_its_person_has_the_hue_they_chose_or_one_of_their_own
    colour = Bavard::Core::Palette::Colour
    plate = ->(line, **values) { names(plate_by: "person", **values).plate(line) }
    of_hue = ->(hue) { colour.oklch(Names::PLATE_LIGHTNESS, Names::PLATE_CHROMA, hue).to_s }
    assert_equal of_hue[colour.parse("#ff0000").oklch.last], plate[line]
    assert_equal of_hue[Zlib.crc32(line.person.key) % 360 * Math::PI / 180], plate[line(colour: nil)]
    assert_equal plate[line(1, colour: nil)], plate[line(2, colour: nil)]
    assert_nil plate[line, plate_by: "one"]
  end

  def test_names_stay_the_same_while_nothing_of_theirs_is_set_otherwise
    assert Names.new(piece).same?(piece.merge("text_size_px" => 60))
    %w[name_form name_colour plate_colour one_name_colour].each { |property| refute Names.new(piece).same?(piece.merge(property => "#123456")), property }
  end

  def test_a_crowd_without_colours_costs_no_more_than_as_many_as_can_be_told_apart
    counted = Class.new(Bavard::Core::Contrast::NameColour) do
      attr_reader :worked_out

      def readable(colour)
        @worked_out = @worked_out.to_i + 1
        super
      end
    end.new("#10151a")
    colours = Array.new(20_000) { |number| counted.for("1/viewer#{number}", nil) }
    assert_equal Bavard::Core::Contrast::NameColour::OWN_HUES, counted.worked_out
    assert_operator colours.uniq.size, :>, 300
    assert_equal colours.first(50), Array.new(50) { |number| Bavard::Core::Contrast::NameColour.new("#10151a").for("1/viewer#{number}", nil) }
  end
end
