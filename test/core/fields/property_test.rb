# frozen_string_literal: true

require "json_schemer"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/pieces/pieces"

# What may stand in a property, and how it is written.
class PropertyTest < Minitest::Test
  Property = Bavard::Core::Fields::Property

  # @param cases [Hash] what is given => what is kept, or :refused
  def assert_read(property, cases)
    cases.each do |given, kept|
      next assert_refused(property, given) if kept == :refused

      kept.nil? ? assert_nil(property.read(given), given.inspect) : assert_equal(kept, property.read(given), given.inspect)
      assert_empty JSONSchemer.schema(property.schema).validate(property.read(given)).to_a, "#{given.inspect} does not fit its schema"
    end
  end

  def assert_refused(property, given)
    error = assert_raises(Bavard::Error, given.inspect) { property.read(given) }
    assert_equal property.name, error.field
    assert_operator error.message.length, :>, 10
  end

  def test_numbers_come_with_their_unit_or_without_and_keep_to_their_range
    size = Property.number("text_size_px", "text size", 8..200, 25, unit: "px")
    assert_read size, "30" => 30, "30 px" => 30, " 30px " => 30, "29,6" => 30, 8 => 8, 200.4 => 200, "7.4" => :refused, 7 => :refused, "201" => :refused, "" => :refused,
      "many" => :refused, nil => :refused, Float::NAN => :refused, Float::INFINITY => :refused, [30] => :refused
    assert_equal "Text size goes from 8 px to 200 px.", assert_raises(Bavard::Error) { size.read("900") }.message
    assert_equal "Text size is a number from 8 px to 200 px.", assert_raises(Bavard::Error) { size.read("x") }.message
    assert_equal({name: "text_size_px", label: "Text size", kind: :number, default: 25, min: 8, max: 200, unit: "px", digits: 0}, size.field)
  end

  def test_numbers_with_digits_are_written_without_those_that_say_nothing
    seconds = Property.number("length_s", "length", 0.5..60, 6, unit: "s", digits: 1)
    assert_read seconds, "2.55" => 2.6, "3" => 3.0, "0.44" => :refused
    assert_equal ["6 s", "2.5 s", "7"], [seconds.write(6.0), seconds.write(2.5), Property.number("n", "n", 0..9, 1).write(7)]
  end

  def test_one_of_a_few_words_in_any_case
    side = Property.choice("side", "side", %w[front behind], "front")
    assert_read side, "front" => "front", " BEHIND " => "behind", "" => :refused, nil => :refused, "fro" => :refused
    assert_equal "Side is one of front, behind.", assert_raises(Bavard::Error) { side.read("left") }.message
  end

  def test_a_switch_is_on_or_off
    assert_read Property.switch("on", "in force", true), true => true, "on" => true, "YES" => true, "1" => true, 1 => true, "true" => true,
      false => false, "off" => false, "" => false, "no" => false, 0 => false, nil => false, "maybe" => :refused, 2 => :refused
  end

  def test_colours_are_hexadecimal_or_one_of_the_shows
    colour = Property.colour("plate_colour", "plate", "#101418")
    assert_read colour, "#F3B634" => "#f3b634", "f3b634" => "#f3b634", "#fb3" => "#ffbb33", "house:accent" => "house:accent",
      "house:" => :refused, "house:A" => :refused, "red" => :refused, "#12" => :refused, "#1234567" => :refused, "#f3b634; x" => :refused, "" => :refused
    assert_equal ["the show’s accent", "#f3b634"], [colour.write("house:accent"), colour.write("#f3b634")]
  end

  def test_faces_are_shipped_the_shows_own_files_or_of_the_broadcast_computer
    face = Property.face("text_face", "face", "Archivo")
    shipped = Bavard::Core::Palette::Faces::SHIPPED.keys.first
    assert_read face, shipped => shipped, "house:text" => "house:text", "installed:Reed Sans" => "installed:Reed Sans", "" => :refused, "Reed Sans" => :refused
    assert_read Property.face("name_face", "face of the name", "", inherit: true), "" => "", "nothing of the kind" => :refused
    assert_equal ["as the text", "the show’s text", "Reed Sans", "an own file"], ["", "house:text", "installed:Reed Sans", "file:#{"a" * 32}"].map { |name| face.write(name) }
  end

  def test_lines_stay_for_a_time_or_for_good
    stay = Property.stay("stay_ms", "lines stay", 1000..3_600_000, 12_000)
    assert_read stay, "12000" => 12_000, 1000 => 1000, "for good" => nil, "FOR GOOD" => nil, "" => nil, nil => nil, "999" => :refused, "3600001" => :refused, "soon" => :refused
    assert_equal ["for good", "1 hour", "1.5 s", "12 s"], [nil, 3_600_000, 1500, 12_000].map { |ms| stay.write(ms) }
    assert_equal [1000, 3_600_000], stay.field.values_at(:min, :max)
  end

  def test_text_is_without_control_characters_and_no_longer_than_it_may_be
    text = Property.text("content", "text", 5)
    assert_read text, "héron" => "héron", "a\u0000b\ac" => "abc", "a\nb\tc" => "a\nb\tc", "\xFF" => "", nil => "", "sixsix" => :refused
    assert_equal ["nothing", "“reed”", "“#{"a" * 23}…”"], ["", "reed", "a" * 40].map { |value| text.write(value) }
    assert_equal %i[text lines], [text.field[:kind], Property.lines("words", "words", 5).field[:kind]]
  end

  def test_some_of_a_few_words_each_once
    roles = Property.some("roles", "roles", %w[viewer host bot], [])
    assert_read roles, [] => [], %w[host bot] => %w[host bot], "bot, host" => %w[bot host], "" => [], %w[host host] => :refused, %w[nobody] => :refused, nil => :refused, {} => :refused
    assert_equal ["none", "host, bot"], [roles.write([]), roles.write(%w[host bot])]
    assert_equal "Roles is some of viewer, host, bot.", assert_raises(Bavard::Error) { roles.read(["x"]) }.message
  end

  def test_all_of_them_in_an_order
    parts = Property.some("parts", "parts", %w[mark name text], %w[mark name text], all: true)
    assert_read parts, %w[text name mark] => %w[text name mark], %w[text name] => :refused, %w[text name mark mark] => :refused
    assert_equal :order, parts.field[:kind]
  end

  def test_any_short_words_where_there_are_no_choices
    feeds = Property.some("feeds", "feeds", nil, [])
    assert_read feeds, %w[3 4] => %w[3 4], ["x" * 40] => ["x" * 40], ["x" * 41] => :refused, [3] => :refused, (0...101).map(&:to_s) => :refused, (0...100).map(&:to_s) => (0...100).map(&:to_s)
  end

  def test_rows_have_the_same_fields_each_and_what_is_not_said_is_as_it_comes
    rows = Property.rows("colours", "colours by role", [Property.choice("role", "role", %w[host bot], "host"), Property.colour("colour", "colour", "#ffffff")], 2)
    assert_read rows, [] => [], [{}] => [{"role" => "host", "colour" => "#ffffff"}], [{"role" => "bot", "more" => 1}] => [{"role" => "bot", "colour" => "#ffffff"}],
      [{}, {}, {}] => :refused, ["x"] => :refused, "x" => :refused, [{"role" => "x"}] => :refused
    assert_equal ["1 row", "0 rows"], [rows.write([{}]), rows.write([])]
    assert_equal [2, %w[role colour]], [rows.field[:most], rows.field[:fields].map { |field| field[:name] }]
  end

  def test_a_file_is_one_of_the_shows_own_or_none
    file = Property.file("picture", "picture")
    assert_read file, nil => nil, "" => nil, "0f" * 16 => "0f" * 16, "0F" * 16 => :refused, "../etc" => :refused, "#{"0f" * 16}\n" => :refused, 7 => :refused
    assert_equal %w[set none], [file.write("0f" * 16), file.write(nil)]
  end

  def test_every_property_of_every_piece_keeps_its_default_and_describes_it
    Bavard::Core::Pieces::ALL.each do |kind|
      kind.properties.each_value do |property|
        where = "#{kind::KEY}.#{property.name}"
        property.default.nil? ? assert_nil(property.read(property.default), where) : assert_equal(property.default, property.read(property.default), where)
        assert JSONSchemer.schema(property.schema).valid?(property.default), "#{where}: #{property.default.inspect} is not in its own schema"
        assert_match(/\A[[:upper:]’“]/, property.field[:label], where)
      end
    end
  end
end
