# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/reading/language"

# Which language somebody writes in, of lines as they are written.
class LanguageTest < Minitest::Test
  Language = Bavard::Core::Reading::Language

  def test_lines_are_known_by_their_language
    lines = {
      "best hour of my day, thank you" => "en", "gracias por todo, saludos desde Chile" => "es", "bonjour à tous" => "fr", "danke für alles" => "de",
      "おはようございます、今日も霧がきれい" => "ja", "早上好，大家" => "zh", "안녕하세요 여러분" => "ko", "صباح الخير من شرفة الطيور" => "ar", "שלום לכולם" => "he",
      "мы из Киева" => "ru", "kiitos paljon" => "fi", "obrigado pela live" => "pt"
    }
    assert_equal(lines, lines.to_h { |text, _| [text, Language.of(text)] })
  end

  def test_what_is_too_short_or_says_nothing_is_of_no_language
    assert_equal [nil] * 7, ["", "lol", "gg", "!!!", "🦆🦆🦆", "12345678", "あ"].map { |text| Language.of(text) }
    assert_equal "ja", Language.of("はい")
  end

  def test_hostile_text_is_looked_at_no_longer_than_its_beginning
    ["a" * 100_000, "\u0000\u202E<b>" * 500, "é" * 351, "\u{1F986}" * 4000].each { |text| assert_includes [nil, String], Language.of(text)&.class }
    assert_includes [nil, "de"], Language.of("danke für alles " * 60)
    assert_equal "de", Language.of("#{"Heute ist der Nebel über dem Fluss besonders schön, und die Rohrsänger singen. " * 3}#{"あ" * 300}".byteslice(0, 240))
  end

  # Taken for Serbian, Tajik, Luxembourgish, Somali, Welsh and Azerbaijani by the network alone.
  def test_a_few_words_are_not_taken_for_a_language_that_hardly_anybody_writes
    lines = ["hello everybody here", "nice one mate", "what a bird", "omg omg omg no way", "happy birthday dear friend", "dziękuję bardzo"]
    assert_equal [nil], lines.map { |text| Language.of(text) }.uniq
    assert_equal "cy", Language.of("Bore da i bawb, mae'r adar yn canu ar lan yr afon heddiw ac mae'n braf iawn")
  end

  def test_languages_are_called_in_english
    assert_equal %w[Georgian Hebrew xx], %w[ka he xx].map { |code| Language.name(code) }
  end

  def test_several_threads_look_at_once
    found = Array.new(4) { |at| Thread.new { Array.new(50) { Language.of(at.even? ? "danke für alles" : "best hour of my day") }.uniq } }.map(&:value)
    assert_equal [["de"], ["en"], ["de"], ["en"]], found
  end
end
