# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/lead/steps"

# The way of a new show to its first line on the picture: each step counts when it was seen to work.
class StepsTest < Minitest::Test
  Lead = Bavard::Core::Lead
  NOTHING = {feeds: 0, live: 0, lines: 0, last_ms: nil, last_from: nil, picture: nil, outfit: nil, revision: 0, screens: [], painted: nil}.freeze
  SCREEN = {drawn: [1920, 1080], right: true, words: "drawn at its own size", advice: nil}.freeze
  SMALL = {drawn: [640, 360], right: false, words: "drawn at 640 × 360", advice: "Set its size to 1920 × 1080."}.freeze

  def steps(done = {}, **facts) = Lead::Steps.of(Lead::Steps::Facts.new(**NOTHING, **facts), done)
  def states(...) = steps(...).map(&:state)
  def words(key, **facts) = steps(**facts).find { |step| step.key == key }.words

  def test_they_are_done_one_by_one_in_whatever_order
    assert_equal %w[now later later later later], states
    assert_equal %w[done now later later later], states(lines: 1, last_ms: 0, last_from: "Oxbow")
    assert_equal %w[now done later done later], states(picture: "A white sky", screens: [SCREEN])
    all = {lines: 1, last_ms: 0, last_from: "Oxbow", picture: "A white sky", outfit: "Quiet", revision: 1, screens: [SCREEN], painted: Lead::Steps::Painted.new("ann", "Oxbow", 41)}
    assert_equal %w[done] * 5, states(**all)
  end

  def test_what_was_seen_to_work_stays_done
    done = {"chat" => 1, "program" => 2}
    assert_equal %w[done now later done later], states(done)
    assert_equal %w[done done now done later], states(done, picture: "A white sky")
  end

  def test_an_outfit_counts_once_it_is_on_air
    assert_equal "now", states({"chat" => 1, "picture" => 1}, outfit: "Quiet")[2]
    assert_equal "done", states({"chat" => 1, "picture" => 1}, outfit: "Quiet", revision: 1)[2]
    assert_equal "later", states({"chat" => 1}, revision: 1)[2]
  end

  def test_chat_says_how_it_stands
    assert_equal Lead::Steps::ASKED["chat"], words("chat")
    assert_equal "Not connected yet. Why stands in its lane on Feeds.", words("chat", feeds: 1)
    assert_equal "Connected, and nobody has written yet. Write a line there yourself.", words("chat", feeds: 1, live: 1)
    assert_equal "Oxbow is heard: 1 line so far, the last just now.", words("chat", lines: 1, last_ms: 1999, last_from: "Oxbow")
    assert_equal "Oxbow is heard: 2 lines so far, the last 89 s ago.", words("chat", lines: 2, last_ms: 89_999, last_from: "Oxbow")
    assert_equal "Oxbow is heard: 2 lines so far, the last 1 min ago.", words("chat", lines: 2, last_ms: 90_000, last_from: "Oxbow")
  end

  def test_a_screen_that_is_too_small_does_not_count_and_says_what_to_change
    assert_equal "now", states({"chat" => 1, "picture" => 1, "look" => 1}, screens: [SMALL])[3]
    assert_equal "A screen of 640 × 360 shows it. Set its size to 1920 × 1080.", words("program", screens: [SMALL])
    assert_equal "A screen of 1920 × 1080 shows it, as large as the stage.", words("program", screens: [SMALL, SCREEN])
    assert_equal "A screen has opened the link, and has not said how it is drawn yet.", words("program", screens: [{words: "has not said how it is drawn yet"}])
  end

  def test_the_proof_names_who_where_and_how_long
    painted = ->(ms) { words("proof", painted: Lead::Steps::Painted.new("ann", "Oxbow", ms)) }
    assert_equal "ann wrote on Oxbow; your program had painted it 999 ms later.", painted.call(999)
    assert_equal "ann wrote on Oxbow; your program had painted it 1.2 s later.", painted.call(1249)
  end
end
