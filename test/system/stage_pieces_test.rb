# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/stage_hands"

# Pieces placed, fitted, styled and put on air, as a host does it.
class StagePiecesTest < PreparedTest
  include StageHands

  def test_what_is_drawn_becomes_what_is_chosen_there
    prepare
    on_the_stage
    draw(1000, 200, 1500, 400)
    within("#draw-menu") { click_on "Text" }
    assert_selector ".hand.chosen[data-kind=text]"
    assert_in_delta 1000, place[0], 4
    assert_in_delta 500, place[2], 6
    fill_in "words", with: "Dawn ringing\t"
    within_frame(find("#draft")) { assert_selector ".text-piece .text", text: "Dawn ringing" }
  end

  def test_a_moved_piece_comes_to_rest_at_the_middle_of_the_stage_and_says_so
    prepare
    on_the_stage
    hold_and_move(hand("chat1"), (960 - 500) + 4, 0) { assert_selector ".guide.v", minimum: 1 }
    wait_for("the piece in the middle") { place[0] == 560 }
    assert_no_selector ".guide", visible: true
    press(:ctrl, "z")
    wait_for("the piece back") { place[0] == 100 }
  end

  def test_several_are_chosen_brought_into_line_grouped_and_taken_off_with_a_way_back
    prepare(pieces: [PIECE, PIECE.merge("x" => 1000, "y" => 160, "width" => 300)])
    on_the_stage
    press(:ctrl, "a")
    assert_text "2 pieces"
    within("#for-many") { click_on "Top" }
    wait_for("both at the top") { tops.uniq.size == 1 }
    within("#for-many") { click_on "Group", exact: true }
    assert_button "Group", exact: true, disabled: true
    press(:escape)
    assert_no_selector ".hand.chosen"
    hand("chat1").click
    assert_selector ".hand.chosen", count: 2
    press(:delete)
    assert_no_selector ".hand"
    within("#messages") { click_on "Undo" }
    assert_selector ".hand", count: 2
  end

  def test_a_flurry_over_everything_lets_what_is_under_it_be_chosen
    prepare(pieces: [{"kind" => "text", "x" => 100, "y" => 100, "width" => 400, "height" => 200}, {"kind" => "flurry", "width" => 1920, "height" => 1080}])
    on_the_stage
    find("[data-order-of=flurry2]").click
    assert_selector ".hand.chosen[data-kind=flurry]"
    find("[data-order-of=text1]").click
    assert_no_selector ".hand.chosen[data-kind=flurry]"
    mouse.move(**at(1200, 700)).down.up
    mouse.move(**at(200, 150)).down.up
    assert_selector ".hand.chosen[data-kind=text]"
  end

  def test_chat_fits_beside_the_camera
    prepare
    on_the_stage
    press("s")
    assert_selector ".hand.chosen[data-kind=space]"
    hand("chat1").click
    within("#fit-how") { click_on "Inside" }
    wait_for("the camera's place") { place == [77, 432, 768, 594] }
    within("#fit-how") { click_on "Beside" }
    wait_for("beside it") { place[0] > 77 + 768 && place[1] == 432 }
  end

  def test_the_specimen_is_clicked_and_its_parts_put_in_another_order
    prepare(feed: feed_address)
    until_live
    on_the_stage
    server.say("ann", "hello there")
    find("#specimen .name").click
    choose_in("Place", "Above")
    within_frame(find("#draft")) { assert_selector ".chat[data-name-place=above] .head .name", text: "ann" }
    find("#specimen .text").click
    tag = find("[data-part=text]")
    tag.send_keys(%i[alt left])
    wait_for("the text before the name") { draft_piece("chat1")["parts"].then { |parts| parts.index("text") < parts.index("name") } }
  end

  def test_a_look_is_put_on_in_one_press_and_off_again
    prepare
    on_the_stage
    click_on "Looks"
    assert_selector "#looks .look-card", minimum: 8
    find("[data-look=bold_blocks]").click
    within_frame(find("#draft")) { assert_selector ".chat[data-plate-for=rows]" }
    within("#messages") { click_on "Undo" }
    within_frame(find("#draft")) { assert_selector ".chat[data-plate-for=line]" }
  end

  def test_a_stage_is_dressed_in_one_press_and_what_is_added_later_with_it
    prepare(pieces: [PIECE, {"kind" => "clock", "x" => 1000, "y" => 100, "width" => 400, "height" => 120}])
    on_the_stage
    press(:escape)
    click_on "Outfits"
    assert_selector "#looks .look-card", count: 8
    assert_text "Dresses all 2 pieces, and what you add later."
    find("[data-look=balloons]").click
    wait_for("all to wear it") { %w[chat1 clock2].all? { |id| draft_piece(id)["text_face"] == "Playpen Sans" } }
    within_frame(find("#draft")) { assert_selector ".clock" }
    find("#add-piece").click
    within("#draw-menu") { click_on "Goal" }
    wait_for("what is added to wear it") { draft_piece("goal1")&.fetch("text_face") == "Playpen Sans" }
    2.times { find("#undo").click }
    wait_for("it to be off again") { draft_piece("goal1").nil? && %w[chat1 clock2].none? { |id| draft_piece(id)["text_face"] == "Playpen Sans" } }
  end

  def test_a_colour_of_the_show_changes_every_piece_that_uses_it
    prepare
    on_the_stage
    press(:escape)
    set_colour("Colour of Ink", "#123456")
    assert_colour "rgb(18, 52, 86)"
    click_on "Undo"
    assert_colour "rgb(255, 255, 255)"
  end

  def test_a_revision_is_compared_and_restored
    prepare
    on_the_stage
    fill_in "Size", with: "60\t"
    assert_text "1 change waiting"
    click_on "Put on air"
    assert_text "Revision 2 is on air."
    find("#stage-size").click
    within("#revisions") do
      within(".revision", text: "r1") do
        click_on "Compare"
        assert_text "Chat: text size 60 px → 25 px"
        click_on "Restore"
      end
    end
    assert_text "Revision 1 is the draft now."
    assert_text "1 change waiting"
    wait_for("the size of revision 1") { draft_piece("chat1")["text_size_px"] == 25 }
  end

  def test_what_is_waiting_is_set_back
    prepare
    on_the_stage
    fill_in "Size", with: "60\t"
    find("#waiting", text: "1 change waiting").click
    click_on "Set back to what is on air"
    assert_text "nothing waiting"
    wait_for("the size as it was") { draft_piece("chat1")["text_size_px"] == 25 }
  end

  def test_every_edit_goes_on_air_at_once_where_that_is_wanted
    prepare
    open_screen(link)
    on_the_stage
    find("#waiting").click
    find("label", text: "Every edit goes on air at once").click
    assert_text "every edit on air"
    fill_in "Size", with: "61\t"
    on_screen { assert_equal "61px", wait_for("the size") { text_size.then { |size| size if size == "61px" } } }
  end

  def test_pieces_behind_the_camera_and_in_front_have_a_link_each
    prepare(pieces: [PIECE, PIECE.merge("x" => 1000, "side" => "behind")])
    sign_in "/links"
    assert_text "Some pieces stand behind the camera"
    open_screen(link) { assert_selector ".piece", count: 1 }
    on_screen { assert_selector "[data-piece=chat1]" }
    open_screen("#{link}/behind", name: :behind) { assert_selector ".piece", count: 1 }
    on_screen(:behind) { assert_selector "[data-piece=chat2]" }
    assert_text "behind the camera"
  end

  def test_a_stage_is_copied_out_changed_and_taken_in_again
    prepare
    on_the_stage
    click_on "Hand on a copy, or take one in"
    copy = wait_for("the text of the copy") { find("#copy-text").value.then { |text| text unless text.empty? } }
    changed = JSON.parse(copy).tap { |document| document["pieces"][0]["text_size_px"] = 52 }
    execute_script("const text = document.querySelector('#copy-paste'); text.value = arguments[0]; text.dispatchEvent(new Event('input'));", JSON.generate(changed))
    assert_text "Chat: text size 25 px → 52 px"
    click_on "In the place of this draft"
    assert_text "1 change waiting"
    click_on "Undo", match: :first
    assert_text "nothing waiting"
  end

  def test_a_stage_is_made_from_a_layout_named_and_taken_away_with_a_way_back
    prepare
    on_the_stage
    click_on "Make another stage"
    within("#new-stage") do
      fill_in "What to call it", with: "Interval"
      find("label", text: "Around a camera").click
      click_on "HD", exact: true
      click_on "Make the stage"
    end
    assert_text "1280 × 720 · nothing on air yet"
    assert_selector ".hand", count: 3
    find("#stage-menu summary").click
    click_on "Take it away"
    assert_text "“Interval” is taken away."
    within("#messages") { click_on "Undo" }
    assert_text "1280 × 720"
  end

  private

  def text_size = evaluate_script("getComputedStyle(document.querySelector('.chat')).fontSize")

  def set_colour(label, value)
    execute_script("const input = document.querySelector(`[aria-label='#{label}']`); input.value = '#{value}'; input.dispatchEvent(new Event('input', {bubbles: true}));")
  end

  def assert_colour(wanted)
    within_frame(find("#draft")) { wait_for("the colour #{wanted}") { evaluate_script("getComputedStyle(document.querySelector('.chat')).color") == wanted } }
  end
end
