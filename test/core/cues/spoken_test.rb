# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/cue"

# What is said aloud with a cue.
class SpokenCueTest < Minitest::Test
  Cue = Bavard::Core::Cues::Cue
  Spoken = Bavard::Core::Cues::Spoken
  WORDS = [["name", "kestrel_ann"], ["text", " gave "], ["amount", "5.00 EUR"], ["text", "  ●●"]].freeze

  def parts(text = nil, voices: nil, **cue)
    cue = Cue.build("a", cue.transform_keys(&:to_s))
    Spoken.parts(cue, words: WORDS, name: "kestrel_ann", line: text && Lines.line(1, text), voices:).map(&:to_a)
  end

  def test_name_sentence_and_message_each_or_none
    assert_empty parts("hello everybody")
    assert_equal [["kestrel ann", nil]], parts("hello everybody", spoken_name: true)
    assert_equal [["kestrel ann gave 5.00 EUR", nil]], parts("hello", spoken_name: true, spoken_words: true)
    assert_equal [["kestrel ann", nil], ["hello everybody here", nil]], parts("hello everybody here", spoken_name: true, aloud: true)
    assert_empty parts(nil, aloud: true)
    assert_empty parts("●●● !!", aloud: true)
    assert_equal [true, true, true, false], [{"spoken_name" => true}, {"spoken_words" => true}, {"aloud" => true}, {}].map { |given| Spoken.any?(Cue.build("a", given)) || false }
  end

  def test_a_message_is_said_in_its_own_language_where_there_is_a_voice
    text = "おはようございます、今日も霧がきれい"
    said = [["おはようございます 今日も霧がきれい", "ja"]]
    assert_equal [said, said], [parts(text, aloud: true), parts(text, aloud: true, voices: %w[en ja])]
    assert_equal [["something in Japanese", nil]], parts(text, aloud: true, voices: %w[en de])
  end

  def test_the_hosts_own_language_is_said_by_the_hosts_own_voice
    assert_equal [["danke für alles, ihr Lieben", nil]], parts("danke für alles, ihr Lieben", aloud: true, spoken_voice: "de", voices: %w[en])
    assert_equal [["danke für alles, ihr Lieben", "de"]], parts("danke für alles, ihr Lieben", aloud: true, spoken_voice: "en-gb", voices: %w[en de])
  end
end
