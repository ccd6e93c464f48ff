# frozen_string_literal: true

require_relative "../support/prepared"

# The ways that come after the first, each where it is done, to what was seen on the picture: a second platform, voices, alerts, and
# somebody who helps.
class SmallLeadsTest < PreparedTest
  ALERTS = {"kind" => "alerts", "x" => 1000, "y" => 100, "width" => 800, "height" => 300, "motion_in" => "none", "motion_out" => "none"}.freeze
  VOICES = {"kind" => "voices", "x" => 1000, "y" => 500, "width" => 600, "height" => 500, "motion_in" => "none", "motion_out" => "none"}.freeze

  def teardown
    TestDatabase.use(:app)
    db = TestDatabase.db
    db.transaction(retry_on: Sequel::SerializationFailure) { db[:accounts].where(email: helpers_email).delete }
    super
  end

  def helpers_email = "ibrahim-#{@account_id}@reedmere.example"

  def begin_with(*pieces)
    @hidewire = RunningStandin.new("Hidewire", BEAT_MS: 1000).start
    prepare(feed: feed_address, pieces:, platforms: [@hidewire])
    open_screen(link) { assert_selector "[data-piece]", minimum: pieces.size }
    sign_in
  end

  def lead(key) = ".small-lead[data-lead=#{key}]"
  def count(key, text) = assert_selector("#{lead(key)} .figure", text:)
  def state(key, at, state) = assert_selector("#{lead(key)} li:nth-child(#{at})[data-state=#{state}]")
  def open_way(key) = find("#{lead(key)} summary").click

  # It does not come again, whoever asks.
  def finish(key, page_path)
    click_on "Done"
    assert_no_selector lead(key), visible: :all
    visit page_path
    assert_selector "h1"
    assert_no_selector lead(key), visible: :all
  end

  def connect_hidewire
    click_on "Connect a chat", match: :first
    within("#add") { find(".kind", text: "Hidewire").click }
    assert_selector "#rooms .room", count: 2
    within("#add") do
      select "in Sightings", from: "What is written"
      click_on "Connect", exact: true
    end
    assert_selector ".lane[aria-label=Hidewire] .chip", text: "live"
  end

  def test_a_second_platform_and_voices_end_on_the_picture
    begin_with(PIECE, VOICES)
    open_way("platform")
    open_way("voices")
    state("platform", 1, "now")
    state("voices", 1, "now")
    state("voices", 2, "done")
    connect_hidewire
    count("platform", "1 of 3")
    count("voices", "2 of 3")
    server.say("ann", "from the marsh")
    @hidewire.post("/voices", "do" => "write", "who" => "bram", "room" => "sightings", "text" => "from the hide")
    on_screen do
      assert_selector ".line", text: "from the marsh"
      assert_selector ".line", text: "from the hide"
    end
    count("platform", "3 of 3")
    @hidewire.post("/voices", "do" => "talk", "who" => "teo", "on" => "1")
    within(lead("voices")) { assert_text "Teo talked, and your program showed it." }
    within(lead("platform")) { click_on "Done" }
    assert_no_selector lead("platform"), visible: :all
    finish("voices", "/feeds")
  end

  def test_alerts_end_on_the_picture
    begin_with(ALERTS)
    visit "/dress/cues/"
    open_way("alerts")
    state("alerts", 1, "done")
    state("alerts", 2, "now")
    within(".cue-try") { click_on "On the screens" }
    on_screen { assert_selector ".alert" }
    count("alerts", "2 of 2")
    finish("alerts", "/dress/cues/")
  end

  def test_somebody_who_helps_is_seen_on_the_picture
    begin_with(PIECE)
    visit "/people/"
    open_way("moderators")
    fill_in "Name, as others see it", with: "Ibrahim"
    click_on "Make a link"
    invitation = wait_for("the link") { find("#invited input").value.then { |value| value unless value.empty? } }
    state("moderators", 1, "done")
    server.say("ann", "not to be seen")
    on_screen { assert_selector ".line", text: "not to be seen" }
    Capybara.using_session(:helper) { help(URI(invitation).path) }
    on_screen { assert_no_selector ".line" }
    within(lead("moderators")) { assert_text "Ibrahim pulled a line, and it left the picture." }
    finish("moderators", "/people/")
  end

  def help(invitation)
    theirs = TestDatabase.db[:accounts].insert(email: helpers_email, password_hash: Argon2::Password.create(PASSWORD, **CHEAP))
    Bavard::Store::Shows.new(TestDatabase.db).create(theirs, name: "Of their own", host_name: "Ibrahim")
    visit invitation
    fill_in "E-mail address", with: helpers_email
    fill_in "Password", with: PASSWORD
    click_on "Sign in"
    click_on "Join"
    find(".row", text: "not to be seen").click
    page.driver.browser.keyboard.type("x")
    assert_selector ".row.pulled", text: "not to be seen"
  end
end
