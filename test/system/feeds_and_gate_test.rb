# frozen_string_literal: true

require_relative "../support/prepared"

# Feeds and Gate, by mouse and keyboard.
class FeedsAndGateTest < PreparedTest
  def test_the_signal_lines_figures_are_true
    prepare(feed: feed_address)
    until_live
    sign_in
    ["one", "!ring K41207", "two"].each { |text| server.say("ann", text) }
    within(".stations") do
      assert_text "3 in · 1 live"
      assert_text "1 kept off"
      assert_text "2 on air"
    end
  end

  def test_a_feed_is_disconnected_connected_taken_away_and_put_back
    prepare(feed: feed_address)
    until_live
    sign_in
    assert_selector ".lane .chip", text: "live"
    click_on "Disconnect"
    assert_selector ".lane .chip", text: "off"
    click_on "Connect", exact: true
    assert_selector ".lane .chip", text: "live"
    click_on "Take Test away"
    assert_text "No chat is connected yet"
    click_on "Undo"
    assert_selector ".lane .chip", text: "live"
  end

  def test_nobody_broadcasting_is_told_apart_from_connected
    prepare(feed: oxbow.address)
    sign_in
    assert_selector ".lane .chip", text: "live"
    oxbow.post("/broadcast", "on" => "0")
    assert_selector ".lane .chip", text: "connected, nobody is broadcasting"
    oxbow.post("/broadcast", "on" => "1")
    assert_selector ".lane .chip", text: "live"
  end

  def test_a_lost_connection_says_why_and_when_it_tries_again
    prepare(feed: feed_address)
    until_live
    sign_in
    server.stop
    @started.delete(server)
    assert_selector ".lane .chip", text: /lost at \d\d:\d\d, again in \d+ s|connecting/
    assert_text(/Nothing answers at 127\.0\.0\.1|The line broke|The server closed the line/)
  end

  def test_which_tag_carries_what_is_edited
    prepare(feed: feed_address)
    until_live
    sign_in
    find(".lane summary").click
    click_on "Tags"
    fill_in "Shown name", with: "x/shown"
    click_on "Use these"
    assert_text "read this way from now on"
    wait_for("the feed to read again") { server.clients >= 2 }
    open_screen(link)
    server.write("@x/shown=Ann\\sof\\sthe\\smarsh :ann!a@b PRIVMSG #reedmere :named\r\n")
    on_screen { assert_selector ".line .name", text: "Ann of the marsh" }
  end

  def test_who_is_left_out_at_the_gate_stays_off
    prepare(feed: feed_address)
    until_live
    open_screen(link)
    sign_in "/gate"
    fill_in "Whom to leave out", with: "Ann"
    click_on "Leave out"
    assert_selector "#left-out-list li", text: "Ann"
    server.say("ann", "hidden")
    server.say("bo", "seen")
    on_screen { assert_selector ".line", text: "seen" }
    on_screen { assert_no_text "hidden" }
    click_on "Take Ann back"
    assert_no_selector "#left-out-list li"
    server.say("ann", "here again")
    on_screen { assert_selector ".line", text: "here again" }
  end

  def test_a_rule_is_edited_tried_run_over_the_last_hour_and_kept
    prepare(feed: feed_address)
    until_live
    open_screen(link)
    sign_in
    ["hello", "you goosebrain", "bye"].each { |text| server.say("ann", text) }
    on_screen { assert_selector ".line", text: "bye" }
    visit "/gate"
    check "Stopped words in force"
    find("[data-rule=stopped_words] .rule-open").click
    fill_in "Your own, one a line; * for any letters, ? for one", with: "goosebrain"
    find_by_id("trial-text").click
    assert_selector ".replay-list", text: "you ●●●●●●●●●●"
    fill_in "A line to try", with: "g o o s e b r a i n"
    within("#trial-told") { assert_text "written as “g o o s e b r a i n”" }
    server.say("ann", "goosebrain still")
    on_screen { assert_selector ".line", text: "goosebrain still" }
    click_on "Keep edit"
    assert_text "Counts from now on."
    server.say("ann", "goosebrain no more")
    on_screen { assert_selector ".line", text: "●●●●●●●●●● no more" }
  end

  def test_the_brake_takes_chat_off_the_picture_until_it_is_taken_off
    prepare(feed: feed_address)
    until_live
    open_screen(link)
    sign_in
    server.say("ann", "hello")
    on_screen { assert_selector ".line", text: "hello" }
    visit "/gate"
    find("#brake-row summary").click
    click_on "Chat off the picture"
    on_screen { assert_no_selector ".line" }
    within("#brake-on") { assert_text(/By Odalys; ends by itself in \d/) }
    click_on "Take the brake off"
    on_screen { assert_selector ".line", text: "hello" }
    assert_no_selector "#brake-on"
  end
end
