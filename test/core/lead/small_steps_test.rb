# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/lead/small_steps"

# The ways to a second platform, voices, alerts and somebody who helps: each step counts when it was seen.
class SmallStepsTest < Minitest::Test
  Small = Bavard::Core::Lead::SmallSteps
  NOTHING = {chats: [], rooms: [], voices_on: [], alerts_on: [], talked: nil, played: nil, invited: nil, joined: nil, pulled: nil}.freeze

  def steps(lead, done = {}, **facts) = Small.of(lead, Small::Facts.new(**NOTHING, **facts), done)
  def states(...) = steps(...).map(&:state)
  def chat(name, service = name, live: false, heard: false, painted: false) = Small::Chat.new(name, service, live, heard, painted)

  UNTOUCHED = %w[now later later].freeze

  def test_each_asks_for_its_first_thing_while_nothing_is_there
    Small::LEADS.each do |lead, (_title, asked)|
      assert_equal UNTOUCHED.first(asked.size), states(lead), lead
      assert_equal asked.values.map { |_title, words, *| words }, steps(lead).map(&:words)
    end
  end

  def test_two_chats_of_one_platform_are_no_second_platform
    assert_equal %w[now later later], states("platform", chats: [chat("Marsh", "irc", live: true), chat("Fen", "irc", live: true)])
    both = [chat("Oxbow", live: true, heard: true, painted: true), chat("Skein", live: true, heard: true)]
    assert_equal %w[done done now], states("platform", chats: both)
    assert_equal "Oxbow and Skein are heard.", steps("platform", chats: both)[1].words
    both.last.painted = true
    assert_equal %w[done done done], states("platform", chats: both)
    assert_equal "Lines of Oxbow, Skein and Lantern were painted.", steps("platform", chats: [*both, chat("Lantern", painted: true)])[2].words
  end

  def test_voices_need_a_room_a_place_and_somebody_who_talks
    assert_equal %w[done now later], states("voices", rooms: ["The hides"])
    assert_equal ["/stage", nil], [steps("voices")[1].to, steps("voices", voices_on: ["Main"])[1].to]
    assert_equal ["The hides is connected, with somebody in it.", "On air, on Main.", "Teo talked, and your program showed it."],
      steps("voices", rooms: ["The hides"], voices_on: ["Main"], talked: "Teo").map(&:words)
  end

  def test_alerts_and_whoever_helps_end_in_what_was_seen
    assert_equal ["On air, on Main.", "“A tip” has played in your program."], steps("alerts", alerts_on: ["Main"], played: "A tip").map(&:words)
    assert_equal ["Ibrahim is invited.", "Ibrahim is here.", "Ibrahim pulled a line, and it left the picture."],
      steps("moderators", invited: "Ibrahim", joined: "Ibrahim", pulled: "Ibrahim").map(&:words)
  end

  def test_what_was_seen_stays_done
    assert_equal %w[done now later], states("voices", {"room" => 1})
    assert_equal %w[done done done], states("voices", {"room" => 1, "on" => 1, "talked" => 1})
  end
end
