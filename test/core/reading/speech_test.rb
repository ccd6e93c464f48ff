# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/reading/speech"

class SpeechTest < Minitest::Test
  include Lines

  Speech = Bavard::Core::Reading::Speech

  def said(text, again: false, **more) = Speech.of(line(1, text, **more), again:)

  def test_names_are_said_as_somebody_would
    assert_equal "kestrel ann says: morning all", said("morning all", login: "kestrel_ann")
    assert_equal "ann asks: is it a wren?", said("is it a wren?", login: "ann")
    assert_equal "morning all", said("morning all", again: true)
    assert_equal "ann does: waves", said("waves", login: "ann", action: true)
  end

  def test_links_and_emotes_are_said_shortly
    assert_equal "ann says: see a link to reedmere.example", said("see https://www.reedmere.example/log?day=1", login: "ann")
    assert_equal "ann says: nice 5 times emoji", said("nice 🪶🪶🪶🪶🪶", login: "ann")
    placed = Bavard::Core::Chat::Placed.new(:code_points, [[5, 6, "https://p.example/wren"], [12, 6, "https://p.example/wren"]])
    assert_equal "ann says: look 2 times wren", said("look :wren: :wren:", login: "ann", emotes: placed)
    assert_equal "ann says: hello mudlark 7", said("hello @mudlark7", login: "ann")
  end

  def test_what_is_drawn_out_or_repeated_is_shortened
    assert_equal "ann says: wow egg egg", said("wooooooow egg egg egg egg egg".sub("ooooooo", "o"), login: "ann")
    assert_equal "ann says: noo", said("noooooooooo", login: "ann")
    assert_operator said("and more of them by the water " * 40).length, :<=, Speech::LONGEST + 10
  end

  def test_there_is_not_always_something_to_say
    assert_nil said("!!!")
    assert_nil said("●●●●")
    assert_equal "ann says: you", said("you ●●●●●", login: "ann")
  end
end
