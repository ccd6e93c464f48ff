# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/media/espeak"

# Words said aloud by the machine.
class EspeakTest < Minitest::Test
  Espeak = Bavard::Media::Espeak

  def seconds(parts, **manner) = (Espeak.wav(parts, **manner).bytesize - 44) / 44_100.0

  def test_what_it_writes_is_whole_and_no_longer_than_it_may_be
    wav = Espeak.wav([["good morning to all of you on the east bank", nil]], most_s: 1)
    assert_equal ["RIFF", wav.bytesize - 8, "WAVEfmt ", 16, 1, 1, 22_050, 44_100, 2, 16, "data", wav.bytesize - 44], wav.unpack("a4Va8VvvVVvva4V")
    assert_equal 44 + 44_100, wav.bytesize
  end

  def test_parts_are_said_one_after_the_other_each_by_its_voice
    one = seconds([["good morning", nil]])
    assert_in_delta (2 * one) + 0.25, seconds([["good morning", nil], ["good morning", nil]]), 0.01
    refute_equal Espeak.wav([["sind", nil]]), Espeak.wav([%w[sind de]])
    assert_equal Espeak.wav([["sind", nil]], voice: "de"), Espeak.wav([%w[sind de]])
  end

  def test_it_speaks_as_fast_and_as_high_as_it_is_told
    words = [["good morning to all of you", nil]]
    assert_operator seconds(words, speed: 200), :<, seconds(words) * 0.75
    refute_equal Espeak.wav(words, pitch: 60), Espeak.wav(words, pitch: 160)
  end

  def test_a_voice_is_found_by_the_name_of_its_language
    assert_equal %w[ja cmn fr-fr en-gb nb], %w[ja zh fr en no].map { |language| Espeak.voice_for(language).sub("en-029", "en-gb") }
    assert_equal [true, false], %w[ja xx].map { |language| Espeak.include?(language) }
    assert_equal Espeak.wav([["hello", nil]]), Espeak.wav([["hello", nil]], voice: "--help")
  end

  # Read from its input: none of it is an option, a command or markup.
  def test_hostile_words_are_words
    ["--voices", "-w /tmp/x", "$(touch /tmp/x)", "<voice xml:lang='ja'>", "[[h@l'oU]]", "\u0000a", "x" * 5000].each do |words|
      assert_operator seconds([[words, nil]], most_s: 60), :<=, 60, words[0, 20]
    end
    assert_nil Espeak.wav([["", nil]])
  end

  def test_where_both_are_busy_nobody_waits
    2.times { Espeak::ROOM.push(true) }
    assert_nil Espeak.wav([["hello", nil]])
  ensure
    2.times { Espeak::ROOM.pop }
  end
end
