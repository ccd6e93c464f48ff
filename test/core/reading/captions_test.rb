# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/reading/captions"

class CaptionsTest < Minitest::Test
  Captions = Bavard::Core::Reading::Captions

  def test_webvtt_is_read_with_its_tags_and_escapes_taken_off
    file = "\uFEFFWEBVTT - dawn\r\n\r\nNOTE not this\r\n\r\n1\r\n00:01.500 --> 00:03.000 line:0\r\n<v Odalys>A reed <b>warbler</b>\r\nsings &amp; stops\r\n\r\n01:00:00.000 --> 01:00:02.000\nlater &lt;i&gt;"
    read = Captions.parse(file)
    assert_equal [[1500, 3000, "A reed warbler sings & stops"], [3_600_000, 3_602_000, "later <i>"]], read.map(&:to_a)
  end

  def test_what_cannot_be_read_is_passed_over
    assert_empty Captions.parse("no captions at all")
    assert_empty Captions.parse("WEBVTT\n\n00:05.000 --> 00:01.000\nbackwards\n\n00:01.000 --> 00:02.000\n\n")
    assert_equal ["fine"], Captions.parse("WEBVTT\n\n00:99.000 --> 01:00.000\nodd\n\n00:00:01,000 --> 00:00:02,000\nfine\xFF".b).map(&:text)
  end

  def test_what_is_posted_is_cut_into_what_can_be_read
    assert_equal ["A wren. ".strip, "And now?", "Yes"], Captions.cut("A wren. And now?  Yes")
    long = Captions.cut("reed " * 60)
    assert_operator long.map(&:length).max, :<=, 84
    assert_operator long.map(&:length).min, :>, 40
    assert_equal 60, long.sum { |part| part.split.size }
    assert_operator Captions.cut("x" * 500).map(&:length).max, :<=, 84
    assert_empty Captions.cut(" \u0000 ")
  end

  def test_at_its_longest_it_is_one_and_longer_it_is_even_parts
    longest = Captions::LONGEST
    one = "#{"a" * (longest - 5)} bcde"
    assert_equal [one], Captions.cut(one)
    two = Captions.cut("#{"ab " * 28}abc")
    assert_equal [2, 29], [two.size, two.sum { |part| part.split.size }]
    assert_operator (two[0].length - two[1].length).abs, :<=, 4
    assert_equal [84, 84, 32], Captions.cut("x" * 200).map(&:length)
    assert_equal ["y" * 84, "y.", "And more."], Captions.cut("#{"y" * 85}. And more.")
  end

  def test_of_more_captions_than_are_read_the_first_are
    blocks = Array.new(Captions::MOST + 5) { |at| "#{format("%02d:%02d:%02d", at / 3600, at / 60 % 60, at % 60)}.000 --> 99:00:00.000\nc#{at}\n" }
    read = Captions.parse("WEBVTT\n\n#{blocks.join("\n")}")
    assert_equal [Captions::MOST, "c0", "c#{Captions::MOST - 1}"], [read.size, read.first.text, read.last.text]
  end

  def test_it_stays_as_long_as_it_takes_to_read_within_bounds
    piece = {"reading_speed" => 10, "least_s" => 1.5, "longest_s" => 5}
    assert_equal [1500, 3000, 5000], ["a wren", "a" * 30, "a" * 80].map { |text| Captions.stays_ms(piece, text) }
    assert_equal 4000, Captions.stays_ms(piece.merge("least_s" => 4, "longest_s" => 1), "a" * 90)
  end
end
