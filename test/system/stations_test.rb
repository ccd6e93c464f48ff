# frozen_string_literal: true

require_relative "../support/prepared"

# The host's own screens, by mouse and keyboard.
class StationsTest < PreparedTest
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
    oxbow.post("/topic", "on" => "0")
    assert_selector ".lane .chip", text: "connected, nobody is broadcasting"
    oxbow.post("/topic", "on" => "1")
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
    click_on "Tags"
    fill_in "Shown name", with: "x/shown"
    click_on "Use these"
    assert_text "read this way from now on"
    wait_for("the feed to read again") { server.clients >= 2 }
    open_screen(link)
    server.write("@x/shown=Ann\\sof\\sthe\\smarsh :ann!a@b PRIVMSG #reedmere :named\r\n")
    on_screen { assert_selector ".line .name", text: "Ann of the marsh" }
  end

  def test_a_piece_is_moved_and_sized_by_keys_numbers_and_mouse
    prepare
    on_the_stage
    hand = find(".hand")
    hand.send_keys(:right, %i[shift down], %i[alt left])
    assert_place [101, 110, 799, 600]
    fill_in "X", with: "40 px\t"
    assert_place [40, 110, 799, 600]
    wait_for("the hand at 40") { evaluate_script("parseFloat(document.querySelector('.hand').style.left) / #{ratio}").round == 40 }
    drag_grip("s e", 100, 60)
    placed = wait_for("the new size") { place.then { |now| now if now[2] > 850 } }
    assert_in_delta 899, placed[2], 6
    assert_equal [40, 110], placed.first(2)
  end

  def test_what_is_waiting_is_counted_named_undone_and_put_on_air
    prepare
    on_the_stage
    assert_text "nothing waiting"
    fill_in "Size", with: "40\t"
    assert_text "1 change waiting"
    find("#waiting").click
    assert_text "Chat: text size 25 px → 40 px"
    click_on "Undo"
    assert_text "nothing waiting"
    click_on "Redo"
    assert_text "1 change waiting"
    click_on "Put on air"
    assert_text "Revision 2 is on air"
    assert_text "r2 is on air"
  end

  def test_a_value_that_cannot_be_is_refused_in_words
    prepare
    on_the_stage
    fill_in "Size", with: "9000\t"
    assert_text "Text size goes from 8 px to 200 px."
    assert_text "nothing waiting"
  end

  def test_rehearsing_shows_made_up_lines_in_the_draft_alone
    prepare
    open_screen(link)
    on_the_stage
    find("label", text: "Awkward lines").click
    click_on "Rehearse"
    within_frame(find("iframe")) { assert_selector ".line[data-origin=rehearsal]", minimum: 2 }
    click_on "Stop"
    click_on "Clear"
    within_frame(find("iframe")) { assert_no_selector ".line" }
    on_screen { assert_no_selector ".line" }
  end

  def test_lines_stay_for_good_at_the_flip_of_a_switch
    prepare(pieces: [PIECE.merge("stay_ms" => 14_000)])
    on_the_stage
    click_on "Stack"
    find("label", text: "Lines stay for good").click
    assert_text "1 change waiting"
    assert_field "Seconds shown", with: "for good"
  end

  def test_a_screen_tells_its_size_and_what_to_change
    prepare
    open_screen(link, width: 640, height: 360)
    sign_in
    visit "/links"
    assert_text "drawn at 640 × 360, so 25 px text shows at 8 px"
    assert_text "Set width 1920 and height 1080"
    assert_text "shows r1"
  end

  def test_a_test_reaches_the_screens_and_clearing_takes_it_off
    prepare
    open_screen(link)
    sign_in
    visit "/links"
    assert_text "1 screen"
    fill_in "Test lines", with: "3"
    click_on "Send a test"
    assert_text "3 test lines sent to 1 screen."
    on_screen { assert_selector ".line[data-origin=test]", count: 3 }
    click_on "Clear the screen"
    on_screen { assert_no_selector ".line" }
  end

  def test_the_link_is_covered_until_it_is_asked_for_and_a_new_one_ends_it
    prepare
    open_screen(link)
    sign_in
    visit "/links"
    refute_includes find(".link-text").value, @stage.token
    click_on "Show the link"
    assert_equal link, find(".link-text").value
    click_on "New link"
    assert_text "The old one shows nothing from now on"
    on_screen { assert_no_selector ".piece" }
    refute_equal link, find(".link-text").value
  end

  def test_options_are_explained_before_they_are_used
    prepare
    sign_in
    visit "/links"
    find("summary", text: "Options in the link").click
    find("[data-options]").send_keys("?Sizee=40&sparkle=1")
    assert_text "Understood: text size: 40 px."
    assert_text "Not understood: sparkle=1."
  end

  def test_keys_explain_themselves
    prepare
    on_the_stage
    page.driver.browser.keyboard.type("?")
    assert_selector "dialog[open]", text: "Put on air"
  end

  def test_who_is_left_out_at_the_gate_stays_off
    prepare(feed: feed_address)
    until_live
    open_screen(link)
    sign_in
    visit "/gate"
    find_by_id("names").send_keys("ann", :tab)
    assert_text "Counts from now on."
    server.say("ann", "hidden")
    server.say("bo", "seen")
    on_screen { assert_selector ".line", text: "seen" }
    on_screen { assert_no_text "hidden" }
    assert_selector ".kept-off-line", text: "hidden"
  end

  private

  def on_the_stage
    sign_in
    visit "/stage"
    find(".hand").click
    assert_selector ".hand.chosen"
  end

  def place = %w[X Y W H].map { |name| find_field(name, exact: true).value.to_i }

  def assert_place(wanted)
    wait_for("the piece at #{wanted}") { place == wanted }
  end

  # How much smaller than it is the stage is drawn here.
  def ratio = evaluate_script("document.querySelector('#hands').getBoundingClientRect().width / 1920")

  def drag_grip(side, right, down)
    box = evaluate_script(<<~JS)
      (() => { const box = document.querySelector('.grip[data-side="#{side}"]').getBoundingClientRect(); return [box.left + 7, box.top + 7]; })()
    JS
    mouse = page.driver.browser.mouse
    mouse.move(x: box[0], y: box[1]).down
    mouse.move(x: box[0] + (right * ratio), y: box[1] + (down * ratio), steps: 5).up
  end
end
