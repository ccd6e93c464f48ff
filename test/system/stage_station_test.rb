# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/stage_hands"

# Stage, by mouse and keyboard.
class StageStationTest < PreparedTest
  include StageHands

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
    assert_text "Text size goes from 8 px to 400 px."
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

  def test_a_page_whose_script_or_draft_did_not_come_asks_again
    prepare
    sign_in
    lost = cut_off_once
    %w[/js/stage/drawing.js /draft].each do |ending|
      lost.clear
      @cut = ending
      visit "/stage"
      assert_selector ".hand"
      within_frame(find("iframe")) { assert_selector "#stage .piece", visible: :all }
      assert_equal [ending], lost
    end
  end

  # The first request for an address that ends with @cut is cut off.
  # @return [Array<String>] which that was
  def cut_off_once
    lost = []
    browser = page.driver.browser
    browser.network.clear(:cache)
    browser.network.intercept
    browser.on(:request) do |request|
      next request.continue unless request.url.end_with?(@cut) && lost.empty?

      lost << @cut
      browser.page.command("Fetch.failRequest", async: true, requestId: request.request_id, errorReason: "ConnectionReset")
    end
    lost
  end

  def test_keys_explain_themselves
    prepare
    on_the_stage
    page.driver.browser.keyboard.type("?")
    assert_selector "dialog[open]", text: "Put on air"
    top, whole, seen = page.evaluate_script("(({scrollTop, scrollHeight, clientHeight}) => [scrollTop, scrollHeight, clientHeight])(document.querySelector('#keys'))")
    assert_equal 0, top
    assert_operator whole, :>, seen, "it is long enough to be scrolled"
  end
end
