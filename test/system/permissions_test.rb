# frozen_string_literal: true

require_relative "../support/platform_browser"

# Permission given, refused, changed and taken back, and answering with it: as a host does it.
class PermissionsTest < PlatformBrowserTest
  def grant(decision, account: nil)
    assert_text "Bavard would like to:"
    select account, from: "account" if account
    click_on decision
  end

  def test_permission_refused_granted_used_and_given_back
    choose("Skein")
    click_on "Ask Skein for permission"
    grant("Refuse")
    assert_text "Skein was not given permission"
    assert_equal 0, TestDatabase.db[:feeds].count
    choose("Skein")
    click_on "Ask Skein for permission"
    grant("Allow it")
    assert_text "Skein is connected as Reedmere."
    lane("Skein") do
      assert_selector ".chip", text: "live"
      assert_text(/Signed in as reedmere.*May read and write, since \d/m)
    end
    fill_in "Your answer", with: "thank you all"
    click_on "Send", exact: true
    assert_selector ".answer-how", text: "went"
    lane("Skein") { assert_selector ".lane-line", text: "thank you all" }
    lane("Skein") do
      find("summary").click
      click_on "Disconnect the account"
      assert_text "Reading as a guest"
    end
    assert_equal 0, @skein.state["grants"]
    assert_no_selector "#answer-form"
    within("#answer-lacks") { assert_selector ".answer-lacking", text: /Give permission to answer in:\s+Skein/ }
  end

  def test_a_permission_given_later_allows_answering
    add("Skein", room: "reedmere")
    assert_no_selector "#answer-form"
    within("#answer-lacks") { click_on "Skein" }
    grant("Allow it")
    lane("Skein") { assert_selector ".chip", text: "live" }
    fill_in "Your answer", with: "at last"
    click_on "Send", exact: true
    assert_selector ".answer-how", text: "went"
    lane("Skein") { assert_selector ".lane-line", text: "at last" }
  end

  def test_another_account_and_its_feed_follows
    choose("Skein")
    click_on "Ask Skein for permission"
    grant("Allow it")
    lane("Skein") do
      assert_selector ".chip", text: "live"
      find("summary").click
      click_on "Change the account"
    end
    grant("Allow it", account: "fenlight")
    lane("Skein") do
      assert_text "Signed in as fenlight"
      assert_selector ".chip", text: "live"
    end
    assert_equal({"room" => "fenlight"}, TestDatabase.db[:feeds].get(:address).to_h)
  end

  def test_a_permission_taken_back_while_live
    choose("Lantern")
    click_on "Ask Lantern for permission"
    grant("Allow it")
    lane("Lantern") { assert_selector ".chip", text: "live" }
    add("Oxbow", channel: "reedmere")
    @lantern.post("/revoke")
    lane("Lantern") do
      assert_selector ".chip", text: "needs permission"
      assert_text "took back the permission of reedmere"
    end
    assert_no_selector "#answer-form"
    within("#answer-lacks") { assert_selector ".answer-lacking", text: /The permission ended; give it again for:\s+Lantern/ }
    oxbow.say("nothing disturbs us")
    lane("Oxbow") { assert_selector ".lane-line", text: "nothing disturbs us" }
  end
end
