# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/fragments"

class FragmentsTest < Minitest::Test
  def cut(text) = Bavard::Core::Chat::Fragments.cut(text)

  def test_plain_text_stays_one_fragment
    assert_equal [[:text, "morning all"]], cut("morning all")
  end

  def test_nothing_gives_nothing
    assert_empty cut("")
  end

  def test_a_mention_is_cut_out
    assert_equal [[:text, "hi "], [:mention, "@Odalys"], [:text, ", look"]], cut("hi @Odalys, look")
  end

  def test_an_e_mail_address_is_no_mention
    assert_equal [:text], cut("ann@reedmere").map(&:first)
  end

  def test_mentions_take_names_in_any_script
    assert_equal [[:mention, "@かわせみ"], [:text, " !"]], cut("@かわせみ !")
  end

  def test_a_link_leaves_the_full_stop_behind
    assert_equal [[:text, "see "], [:link, "https://reedmere.example/log"], [:text, ". ok"]], cut("see https://reedmere.example/log. ok")
  end

  def test_a_link_ends_at_a_blank_of_any_width
    assert_equal [[:link, "https://reedmere.example/log"], [:text, "　です "], [:link, "reedmere.example/win"], [:text, "\u00A0ok"]],
      cut("https://reedmere.example/log　です reedmere.example/win\u00A0ok")
  end

  def test_a_bare_host_is_a_link
    assert_equal [[:link, "reedmere.example/win"]], cut("reedmere.example/win")
  end

  def test_a_sentence_without_a_blank_after_the_stop_is_a_link_only_where_it_could_be_one
    assert_equal [[:text, "1.31 m"]], cut("1.31 m")
  end

  def test_emoji_are_whole_grapheme_clusters
    family = "\u{1F468}\u200D\u{1F469}\u200D\u{1F467}\u200D\u{1F466}"
    assert_equal [[:emoji, family], [:emoji, "👏🏽"], [:emoji, "🏳️‍🌈"], [:emoji, "🇫🇮"], [:emoji, "1️⃣"]], cut("#{family}👏🏽🏳️‍🌈🇫🇮1️⃣")
  end

  def test_digits_and_signs_are_no_emoji
    assert_equal [[:text, "K41 207 # * © ™"]], cut("K41 207 # * © ™")
  end

  def test_a_sign_asked_to_be_drawn_as_emoji_is_one
    assert_equal [[:emoji, "©️"]], cut("©️")
  end

  def test_combining_marks_stay_with_their_letter
    assert_equal [[:text, "Plu\u0301ie"]], cut("Plu\u0301ie")
  end

  def test_long_chains_of_dots_take_no_time_to_speak_of
    text = "a.#{"a." * 4000}!"
    assert_equal text, cut(text).map(&:last).join
  end
end
