# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/fragments"
require_relative "../../../lib/bavard/core/dress/emote_index"

class EmoteIndexTest < Minitest::Test
  include Bavard::Core

  def emote(code, any_case: false, from: "own") = Dress::Emote.new(code.sum, code, "#{from}#{code}", false, any_case, false, 1.0)
  def shelf(name, *emotes, on: true, off_feeds: [], feed_id: nil) = Dress::Shelf.new(name.sum, name, on, off_feeds, emotes, feed_id)
  def index(*shelves, phrases: []) = Dress::EmoteIndex.new(shelves, phrases)

  # What is found in a text, emotes in brackets.
  def found(index, text, feed_id = 1)
    parts = index.cut(text, feed_id) or return text
    assert_equal text, parts.map { |part| part[1] }.join
    parts.map { |kind, words| kind == :emote ? "[#{words}]" : words }.join
  end

  def test_codes_count_as_whole_words_and_in_their_own_case
    all = index(shelf("own", emote("wren"), emote(":owl:")))
    assert_equal "a [wren] here", found(all, "a wren here")
    assert_equal "wrens and Wren", found(all, "wrens and Wren")
    assert_equal "[:owl:]", found(all, ":owl:")
  end

  def test_punctuation_around_a_code_does_not_matter_and_the_longer_code_wins
    all = index(shelf("own", emote("wren"), emote("wren!")))
    assert_equal "([wren]), “[wren]”…", found(all, "(wren), “wren”…")
    assert_equal "[wren!]! [wren]?", found(all, "wren!! wren?")
  end

  def test_whatever_is_a_blank_stands_between_words
    all = index(shelf("own", emote("owl"), emote("wren!")))
    assert_equal "鳥　[owl]　です　[wren!]", found(all, "鳥　owl　です　wren!")
    assert_equal "[owl]\u00A0\u2009[owl]", found(all, "owl\u00A0\u2009owl")
  end

  def test_codes_between_colons_count_anywhere
    all = index(shelf("own", emote(":wren:"), emote(":owl:")))
    assert_equal "look[:wren:][:owl:]now 12:30[:wren:]", found(all, "look:wren::owl:now 12:30:wren:")
    assert_equal ":wren :nothing: a:b", found(all, ":wren :nothing: a:b")
  end

  def test_a_code_for_any_case
    all = index(shelf("own", emote("Reed", any_case: true)))
    assert_equal "[REED] [reed], reeds", found(all, "REED reed, reeds")
    assert_equal "a [rEED] here", found(all, "a rEED here")
    assert_equal "a reed", found(index(shelf("own", emote("wren"))), "a reed")
  end

  def test_only_what_several_shelves_have_clashes
    all = index(shelf("own", emote("wren"), emote("owl")), shelf("pack", emote("owl"), emote("tern", any_case: true)))
    assert_equal [["owl", %w[own pack]]], all.clashes.map { |code, contenders| [code, contenders.map { |contender| contender.shelf.name }] }
    assert_equal [%w[pack], []], [all.contenders("TERN"), all.contenders("WREN")].map { |list| list.map { |contender| contender.shelf.name } }
  end

  def test_the_first_shelf_wins_and_it_is_told
    all = index(shelf("own", emote(":wren:", from: "own")), shelf("pack", emote(":wren:", from: "pack")))
    assert_equal "own:wren:", all.cut(":wren:", 1).first[2].picture
    assert_equal %w[own pack], all.contenders(":wren:").map { |contender| contender.shelf.name }
    assert_equal [":wren:"], all.clashes.map(&:first)
  end

  def test_a_shelf_that_is_off_or_not_worn_on_a_feed_lets_the_next_one_through
    all = index(shelf("own", emote(":wren:", from: "own"), off_feeds: [2]), shelf("pack", emote(":wren:", from: "pack")),
      shelf("off", emote("x"), on: false))
    assert_equal "own:wren:", all.cut(":wren:", 1).first[2].picture
    assert_equal "pack:wren:", all.cut(":wren:", 2).first[2].picture
    assert_nil all.cut("x", 1)
  end

  def test_what_a_platform_sends_along_is_not_looked_for
    assert_nil index(shelf("From X", emote(":owl:"), feed_id: 1)).cut(":owl:", 1)
  end

  def test_phrases_in_any_case_and_the_longest_first
    phrases = [Dress::Phrase.new(1, "reed", emote("one")), Dress::Phrase.new(2, "Reed  Warbler", emote("two"))]
    all = index(shelf("own", emote(":owl:")), phrases:)
    assert_equal "a [REED warbler]! or [reed]; reeds",
      found(all, "a REED warbler! or reed; reeds").sub("warbler!]", "warbler]!").sub("[reed;]", "[reed];")
    assert_equal "two", all.cut("reed warbler", 1).first[2].code
    assert_equal "one", all.cut("reed marsh", 1).first[2].code
    assert_equal %w[one two], ["ＲＥＥＤ marsh", "ｒｅｅｄ　ｗａｒｂｌｅｒ"].map { |text| all.cut(text, 1).first[2].code }
  end

  def test_a_line_is_cut_once_with_links_mentions_and_emoji_left_alone
    all = index(shelf("own", emote("wren"), emote("reedmere.example")))
    kinds = Chat::Fragments.cut("@wren see reedmere.example 🌅 wren", emotes: all, feed_id: 1).map(&:first)
    assert_equal %i[mention text link text emoji text emote], kinds
  end

  def test_whatever_is_written_the_fragments_are_the_text
    random = Random.new(5)
    all = index(shelf("own", emote(":a:"), emote("a"), emote("b!"), emote("Ü", any_case: true)), phrases: [Dress::Phrase.new(1, "a b", emote("p"))])
    500.times do
      text = Array.new(random.rand(1..25)) { [":", "a", "b", " ", "!", "ü", "(", "»", ".", "@", "🦆", "  ", "　"].sample(random:) }.join
      assert_equal text, Chat::Fragments.cut(text, emotes: all, feed_id: 1).map { |part| part[1] }.join, text
    end
  end
end
