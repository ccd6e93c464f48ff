# frozen_string_literal: true

require_relative "../support/prepared"

# A new host's way from chat to air, from an account that was just made to a line that their program painted: by what they see there,
# and nothing else.
class LeadTest < PreparedTest
  def led
    TestDatabase.use(:app)
    @app = SharedApp.running
    Capybara.app_host = @app.address
    email = make_account
    @account_id = TestDatabase.db[:accounts].where(email:).get(:id)
  end

  def step(key, state) = assert_selector(".lead-step[data-step=#{key}][data-state=#{state}]")

  # Where its link is, as somebody has it who pressed Copy.
  def copied_link
    execute_script("navigator.clipboard.writeText = async (text) => { window.copied = text; }")
    click_on "Copy link"
    wait_for("the link") { evaluate_script("window.copied") }
  end

  def test_five_things_are_done_as_they_are_seen_to_work_and_none_comes_again
    led
    step "chat", "now"
    select "Any IRC server", from: "Where"
    fill_in "Address and channel, in one piece", with: feed_address
    click_on "Connect", exact: true
    assert_text "Connected, and nobody has written yet."
    until_live
    server.say("ann", "is this on?")
    step "chat", "done"

    step "picture", "now"
    find("[data-picture=white]").click
    step "picture", "done"
    assert_selector "#draft"
    server.say("ann", "over the kiln")
    within_frame(find("#draft")) { assert_selector ".line", text: "over the kiln" }

    step "look", "now"
    assert_button "Choose one below", disabled: true
    find("[data-outfit=field_notes]").click
    click_on "Take Field notes"
    step "look", "done"

    step "program", "now"
    link = copied_link
    open_screen(link, width: 640, height: 360) { assert_selector ".piece" }
    assert_text "A screen of 640 × 360 shows it. Set width 1920 and height 1080"
    on_screen { page.driver.browser.page.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false) }
    step "program", "done"

    assert_no_button "Done, to the stations"
    server.say("ben", "hello picture")
    on_screen { assert_selector ".line", text: "hello picture" }
    step "proof", "done"
    assert_text(/ben wrote on .+; your program had painted it \d+ ms later\./)
    click_on "Done, to the stations"
    assert_text "What comes in"
    visit "/lead/"
    assert_text "What comes in"
  end

  def test_it_can_be_put_aside_and_taken_up_again
    led
    click_on "Not now"
    assert_text "What comes in"
    visit "/"
    assert_text "What comes in"
    find("summary[aria-label='Your account']").click
    click_on "From chat to air"
    step "chat", "now"
    visit "/"
    step "chat", "now"
  end

  def test_a_chat_that_cannot_be_reached_says_why_and_stands_there_to_be_mended
    led
    select "Any IRC server", from: "Where"
    fill_in "Address and channel, in one piece", with: "irc://127.0.0.1:1/#reedmere"
    click_on "Connect", exact: true
    assert_selector "#lead-chat-error"
    assert_field "Address and channel, in one piece", with: "irc://127.0.0.1:1/#reedmere"
    assert_button "Connect it anyway"
    step "chat", "now"
  end
end
