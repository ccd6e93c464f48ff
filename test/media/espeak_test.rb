# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/wait"
require_relative "../../lib/bavard/media/espeak"

# Words said aloud by the machine.
class EspeakTest < Minitest::Test
  include Wait

  Espeak = Bavard::Media::Espeak

  def setup
    @held = Queue.new
    @busy = []
  end

  # Nobody of one test speaks, or waits for it, in the next one.
  def teardown
    @held.close
    @busy.each(&:join)
  end

  def wav(parts, of: 1, **manner) = Espeak.wav(parts, of:, **manner)
  def seconds(parts, **manner) = (wav(parts, **manner).bytesize - 44) / 44_100.0

  def test_what_it_writes_is_whole_and_no_longer_than_it_may_be
    wav = wav([["good morning to all of you on the east bank", nil]], most_s: 1)
    assert_equal ["RIFF", wav.bytesize - 8, "WAVEfmt ", 16, 1, 1, 22_050, 44_100, 2, 16, "data", wav.bytesize - 44], wav.unpack("a4Va8VvvVVvva4V")
    assert_equal 44 + 44_100, wav.bytesize
  end

  def test_parts_are_said_one_after_the_other_each_by_its_voice
    one = seconds([["good morning", nil]])
    assert_in_delta (2 * one) + 0.25, seconds([["good morning", nil], ["good morning", nil]]), 0.01
    refute_equal wav([["sind", nil]]), wav([%w[sind de]])
    assert_equal wav([["sind", nil]], voice: "de"), wav([%w[sind de]])
  end

  def test_it_speaks_as_fast_and_as_high_as_it_is_told
    words = [["good morning to all of you", nil]]
    assert_operator seconds(words, speed: 200), :<, seconds(words) * 0.75
    refute_equal wav(words, pitch: 60), wav(words, pitch: 160)
  end

  def test_a_voice_is_found_by_the_name_of_its_language
    assert_equal %w[ja cmn fr-fr en-gb nb], %w[ja zh fr en no].map { |language| Espeak.voice_for(language).sub("en-029", "en-gb") }
    assert_equal [true, false], %w[ja xx].map { |language| Espeak.include?(language) }
    assert_equal wav([["hello", nil]]), wav([["hello", nil]], voice: "--help")
  end

  # Read from its input: none of it is an option, a command or markup.
  def test_hostile_words_are_words
    ["--voices", "-w /tmp/x", "$(touch /tmp/x)", "<voice xml:lang='ja'>", "[[h@l'oU]]", "\u0000a", "x" * 5000].each do |words|
      assert_operator seconds([[words, nil]], most_s: 60), :<=, 60, words[0, 20]
    end
    assert_nil wav([["", nil]])
  end

  # @return [Thread] one that says something of a show, until it is told to go on
  def busy(show)
    Thread.new { Espeak::TURNS.take(show) { (Thread.current[:speaks] = true) && @held.pop } }.tap { |thread| @busy << thread }
  end

  # Whoever says much waits for themselves, and others' turn comes meanwhile.
  def test_shows_take_turns
    speaking = [busy(:one), busy(:two)]
    wait_for("both to speak") { speaking.all? { |thread| thread[:speaks] } }
    said = [1, 1, 2].map { |show| Thread.new { wav([["hello", nil]], of: show) } }
    wait_for("all to wait") { Espeak::TURNS.waiting == 3 }
    @held.close
    assert_equal [wav([["hello", nil]])], said.map(&:value).uniq
  end

  def test_of_one_show_so_many_are_said_at_once_and_another_still_speaks
    6.times { busy(:mine) }
    wait_for("five to wait") { Espeak::TURNS.waiting == 5 }
    assert_match(/said aloud just now/, assert_raises(Bavard::Busy) { wav([["hello", nil]], of: :mine) }.message)
    assert_equal "RIFF", wav([["hello", nil]], of: :yours)[0, 4]
  end
end
