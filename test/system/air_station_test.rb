# frozen_string_literal: true

require_relative "../support/prepared"

# Air, by mouse and keyboard.
class AirStationTest < PreparedTest
  def test_a_screen_tells_its_size_and_what_to_change
    prepare
    open_screen(link, width: 640, height: 360)
    sign_in "/links"
    assert_text "drawn at 640 × 360, so 25 px text shows at 8 px"
    assert_text "Set width 1920 and height 1080"
    assert_text "shows r1"
  end

  def test_a_test_reaches_the_screens_and_clearing_takes_it_off
    prepare
    open_screen(link)
    sign_in "/links"
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
    sign_in "/links"
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
    sign_in "/links"
    find("summary", text: "Options in the link").click
    find("[data-options]").send_keys("?Sizee=40&sparkle=1")
    assert_text "Understood: text size: 40 px."
    assert_text "Not understood: sparkle=1."
  end

  def test_link_and_numbers_are_copied_in_one_press
    prepare
    sign_in "/links"
    find("summary", text: "Options in the link").click
    {"Copy link" => link, /Width/ => "1920", /Height/ => "1080", /Frames a second/ => "60"}.each do |button, copied|
      button.is_a?(String) ? click_on(button) : find("button", text: button).click
      assert_text "#{button.is_a?(String) ? "The link" : button.source} is copied."
      assert_equal copied, pasted
    end
  end

  private

  # What Ctrl-V puts into a field that is otherwise empty.
  def pasted
    field = find("[data-options]")
    field.set("")
    keys = {key: "v", code: "KeyV", modifiers: 2, commands: ["paste"]}
    page.driver.browser.page.command("Input.dispatchKeyEvent", type: "keyDown", **keys)
    page.driver.browser.page.command("Input.dispatchKeyEvent", type: "keyUp", **keys.except(:commands))
    wait_for("something pasted") { field.value unless field.value.empty? }.tap { field.set("") }
  end
end
