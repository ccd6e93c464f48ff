# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/amount"
require_relative "../../../lib/bavard/core/reading/captions"
require_relative "../../../lib/bavard/core/reading/speech"
require_relative "../../../lib/bavard/core/reading/wave_form"

# What is said, written under what is said, and drawn of what is heard: the edges of each.
class SaidTest < Minitest::Test
  include Lines

  Core = Bavard::Core
  Captions = Core::Reading::Captions
  Speech = Core::Reading::Speech
  WaveForm = Core::Reading::WaveForm

  def said(text, login: "ann", **more) = Speech.of(line(1, text, login:, **more))
  def placed(*places) = Core::Chat::Placed.new(:code_points, places.map { |at, length| [at, length, "https://p.example/#{at}"] })

  def event(kind, text = "", paid: nil, number: nil)
    body = Core::Said.new("ann", nil, nil, [], text, false, false).tap { |made| made.paid = paid }
    Core::Chat::Line.from(Core::Intake.new(:event, 1, "e", nil, 0, Core::Happened.new(kind, body, number)), id: 1)
  end

  def test_a_question_in_any_script_is_asked
    assert_equal %w[asks asks asks says says], ["really?", "本当？", "هل هذا صحيح؟ ", "really? yes", "ok"].map { |text| said(text).split[1].delete(":") }
  end

  def test_what_happened_is_said_with_what_was_said_to_it
    assert_match(/\Aann .+\z/, Speech.of(event(:follow)))
    with = Speech.of(event(:tip, "for a nest box", paid: Core::Amount.money(500, "EUR")))
    assert_operator with, :end_with?, "for a nest box"
    assert_operator with, :start_with?, "ann "
  end

  def test_the_message_alone_has_no_name
    assert_equal "for a nest box", Speech.message(line(1, "for a nest box"))
    assert_nil Speech.message(line(1, "!!!"))
  end

  def test_emotes_side_by_side_are_one_thing_and_others_are_named_up_to_three
    two = placed([0, 6], [7, 5])
    assert_equal "ann says: wren, owl and a reed", said(":wren: :owl: and a reed", emotes: two)
    three = placed([0, 6], [7, 5], [13, 5])
    assert_equal "ann says: wren, owl, egg", said(":wren: :owl: :egg:", emotes: three)
    four = placed([0, 6], [7, 5], [13, 5], [19, 6])
    assert_equal "ann says: 4 emotes", said(":wren: :owl: :egg: :reed:", emotes: four)
    assert_equal "ann says: wren reed owl", said(":wren: reed :owl:", emotes: placed([0, 6], [12, 5]))
  end

  def test_signs_are_not_read_out_and_blanks_before_commas_are_taken_up
    assert_equal "ann says: 5 % of it, in €", said("5 % of it , in € ★☆★")
    assert_equal "ann says: a b", said("a\n\n  b")
  end

  def test_what_is_repeated_is_said_twice_and_no_more
    assert_equal "ann says: egg egg", said("egg egg egg EGG egg")
    assert_equal "ann says: egg egg owl", said("egg egg owl")
    assert_equal "ann says: hmm 1000000", said("hmmmmmmmm 1000000")
  end

  def test_long_lines_end_at_a_word
    long = said((1..100).map { |number| "reed#{number}" }.join(" "))
    assert_operator long, :end_with?, ", and more"
    assert_operator long.delete_suffix(", and more").length, :<=, Speech::LONGEST
    whole = Speech.message(line(1, (1..40).map { |number| "w#{number}x" }.join(" ")))
    assert_equal whole.delete_suffix(", and more").split.last, whole.delete_suffix(", and more")[/\S+\z/]
    unbroken = Speech.message(line(1, "ab" * 200))
    assert_equal "#{"ab" * (Speech::LONGEST / 2)}, and more", unbroken
  end

  # Captions.

  def times(text) = Captions.parse(text).map { |one| [one.from_ms, one.to_ms, one.text] }

  def test_times_with_and_without_hours_and_of_the_older_kind
    assert_equal [[1500, 3000, "one"], [3_661_000, 3_662_250, "two"]], times("WEBVTT\n\n00:01.500 --> 00:03.000\none\n\n2\n01:01:01,000 --> 01:01:02,250 align:start\ntwo")
  end

  def test_what_ends_before_it_begins_or_says_nothing_is_passed_over
    assert_empty times("00:02.000 --> 00:02.000\nx\n\n00:03.000 --> 00:02.000\nx\n\n00:03.000 --> 00:04.000\n<b></b>\n\n00:61.000 --> 00:62.000\nx")
  end

  def test_they_come_in_the_order_of_their_beginnings_and_those_of_the_same_moment_as_written
    assert_equal %w[b a c], times("00:02.000 --> 00:03.000\na\n\n00:01.000 --> 00:03.000\nb\n\n00:02.000 --> 00:03.000\nc").map(&:last)
  end

  def test_rows_become_one_tags_go_and_escapes_are_what_they_stand_for
    assert_equal ["Ann: a < b & c &copy;"], times("\uFEFFWEBVTT\r\n\r\n00:01.000 --> 00:02.000\r\n<v Ann>Ann:\r\na &lt; b &amp; c&nbsp;&copy;</v>").map(&:last)
  end

  def test_only_so_much_of_a_file_is_read
    many = (0...6000).map { |number| format("%02d:%02d.000 --> %02d:%02d.500\nc", number / 60 % 60, number % 60, number / 60 % 60, number % 60) }.join("\n\n")
    assert_operator Captions.parse(many).size, :<=, Captions::MOST
    assert_empty Captions.parse(nil)
  end

  def test_what_is_posted_is_cut_at_sentences_and_long_ones_at_words
    assert_equal ["One.", "Two!", "三。", "Four"], Captions.cut("One. Two! 三。 Four")
    parts = Captions.cut("reeds " * 40)
    assert(parts.all? { |part| part.length <= Captions::LONGEST && !part.start_with?(" ") && !part.end_with?(" ") })
    assert_equal 40, parts.join(" ").split.size
    assert_operator parts.map(&:length).minmax.then { |least, most| most - least }, :<, Captions::LONGEST / 2
    assert_equal ["x" * 84, "x" * 16], Captions.cut("x" * 100)
    assert_empty Captions.cut(" \n ")
  end

  def test_each_stays_as_long_as_it_takes_to_read_within_its_bounds
    piece = {"reading_speed" => 10, "least_s" => 2, "longest_s" => 6}
    assert_equal [2000, 3000, 6000], [5, 30, 100].map { |letters| Captions.stays_ms(piece, "x" * letters) }
    assert_equal 7000, Captions.stays_ms(piece.merge("least_s" => 7), "x")
  end

  # Wave forms.

  def samples(*values) = values.pack("s<*")

  def test_each_place_reaches_as_far_as_its_loudest
    assert_equal [0, 50, 100], WaveForm.of(samples(0, 0, 16_384, -100, 5, -32_768), places: 3)
    assert_equal [100, 50], WaveForm.of(samples(32_767, -16_384))
    assert_empty WaveForm.of("")
    assert_equal WaveForm::PLACES, WaveForm.of(samples(*Array.new(1000, 10))).size
  end

  def test_nothing_is_left_out_however_samples_and_places_divide
    [7, 95, 97, 1000].each do |count|
      (0...count).step([count / 5, 1].max) { |at| assert_includes WaveForm.of(samples(*Array.new(count) { |place| place == at ? 32_767 : 0 })), 100, "#{at} of #{count}" }
    end
  end
end
