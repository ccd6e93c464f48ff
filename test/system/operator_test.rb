# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../../lib/bavard/store/accounts"

# What an operator does, as far as the screens of those it is done to.
class OperatorStationTest < PreparedTest
  def accounts = Bavard::Store::Accounts.new(TestDatabase.db)

  def test_a_closed_show_leaves_its_screens_and_is_there_again_once_it_is_opened
    prepare(feed: feed_address)
    until_live
    open_screen(link)
    server.say("ann", "before")
    on_screen { assert_selector ".line", text: "before" }
    accounts.close(@account_id, by: "test")
    on_screen { assert_no_selector ".line" }
    accounts.reopen(@account_id, by: "test")
    on_screen { assert_selector ".line", text: "before" }
    server.say("ann", "after")
    on_screen { assert_selector ".line", text: "after" }
  end

  def test_an_invitation_leads_to_an_account_and_it_is_closed_in_one_press
    prepare
    TestDatabase.db[:accounts].where(id: @account_id).update(operator: true)
    sign_in "/feeds"
    find("[aria-label='Your account']").click
    click_on "This installation"
    an_account_is_made_and_closed_without_coming_again
    fill_in "Whom the link is for", with: "Nils of the ferry"
    click_on "Make a link"
    invited = wait_for("the link") { find("#invite [aria-label='Seen this once']").value[%r{http://\S+}] }
    email = "nils-#{rand(10**9)}@reedmere.example"
    Capybara.using_session(:nils) { begin_show(invited, email) }
    visit "/operator/"
    within("[data-email='#{email}']") do
      find("summary").click
      click_on "Close"
    end
    assert_selector "[data-email='#{email}'].closed"
    Capybara.using_session(:nils) do
      visit "/feeds"
      assert_selector "#login-form"
    end
  end

  def an_account_is_made_and_closed_without_coming_again
    email = "aaa-#{rand(10**9)}@reedmere.example"
    assert_selector "[data-account]"
    before, closed = ["[data-account]", "[data-account].closed"].map { |rows| all(rows, wait: 0).size }
    within("#make") do
      fill_in "E-mail address", with: email
      fill_in "Name of its show", with: "Dusk watch"
      click_on "Make it"
      assert_match(/\A\w{20}\z/, wait_for("the word") { find("[aria-label='Seen this once']").value.then { |word| word unless word.empty? } })
      assert_field "E-mail address", with: ""
    end
    assert_text "#{before + 1}, #{closed} closed"
    within("[data-email='#{email}']") do
      assert_text "Dusk watch"
      find("summary").click
      click_on "Close"
    end
    assert_selector "[data-email='#{email}'].closed"
    assert_text "#{before + 1}, #{closed + 1} closed"
    assert Bavard::Store::Accounts.new(TestDatabase.db).by_email(email)[:closed_at_ms]
  end

  def begin_show(invited, email)
    visit invited
    fill_in "E-mail address", with: email
    fill_in "Password", with: PASSWORD
    click_on "Make the account"
    assert_text "From chat to air"
  end
end
