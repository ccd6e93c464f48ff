# frozen_string_literal: true

require_relative "../support/prepared"

# With Skein, where events come from.
class SkeinBrowserTest < PreparedTest
  ALERTS = {"kind" => "alerts", "x" => 100, "y" => 100, "width" => 1200, "height" => 500, "motion_in" => "none", "motion_out" => "none"}.freeze

  def setup
    super
    @skein = RunningStandin.new("Skein", BEAT_MS: 1000).start
  end

  def read_skein
    visit "/feeds"
    click_on "Connect a chat", match: :first
    within("#add") do
      find(".kind", text: "Skein").click
      fill_in "skein.room", with: "reedmere"
      click_on "Connect", exact: true
    end
    assert_selector ".lane[aria-label=Skein] .chip", text: "live"
  end

  def fire(kind, text = "") = @skein.post("/event", "login" => "birdbath", "kind" => kind, "text" => text)
end

# What is counted is there again after a restart.
class GoalBrowserTest < SkeinBrowserTest
  GOAL = {"kind" => "goal", "counted" => "worth", "unit" => "EUR", "to" => 10, "title" => "Seed", "reached" => "Full"}.freeze

  def test_a_goal_counts_what_comes_in_and_is_reached
    prepare(own: true, pieces: [ALERTS, GOAL], platforms: [@skein])
    sign_in
    read_skein
    open_screen(link)
    on_screen { assert_selector ".goal-words", text: "0 of 10 EUR" }
    fire("tip")
    on_screen { assert_selector ".goal-words", text: "5 of 10 EUR" }
    fire("tip")
    on_screen { assert_selector ".goal.reached .goal-title", text: "Full" }
    @app.stop
    @app.start
    open_screen(link)
    on_screen { assert_selector ".goal.reached" }
  end
end

# From an event on a platform to an alert on the picture, and the cue sheet.
class CuesBrowserTest < SkeinBrowserTest
  FLURRY = {"kind" => "flurry", "x" => 0, "y" => 0, "width" => 1920, "height" => 1080, "length_s" => 40}.freeze

  def setup
    super
    prepare(pieces: [ALERTS, FLURRY], platforms: [@skein])
    sign_in
  end

  def test_an_alert_with_words_message_and_picture_and_a_renewal_that_differs
    visit "/dress/cues/"
    find(".cue-row", text: "Tips").click
    attach_file "Picture of this cue", File.expand_path("../../demo/pictures/cast/teo.svg", __dir__), make_visible: true
    assert_selector "#cue-picture img"
    read_skein
    open_screen(link)
    fire("tip", "<i>for</i> a nest box")
    on_screen do
      assert_selector ".alert .alert-amount", text: "5.00 EUR"
      assert_selector ".alert .alert-message", text: "<i>for</i> a nest box"
      assert_selector ".alert img.alert-picture"
    end
    visit "/dress/cues/"
    skip_alert
    fire("subscription")
    on_screen { assert_selector ".alert-words", text: "subscribed" }
    skip_alert
    fire("renewal")
    on_screen { assert_selector ".alert-words", text: "renewed, 12 months now" }
  end

  def skip_alert
    click_on "Skip"
    on_screen { assert_no_selector ".alert" }
  end

  # Until it is kept.
  def each_waits
    assert_selector "#approve[data-kept=false]", visible: :all
    check "Each waits until somebody lets it go", allow_label_click: true
    assert_selector "#approve[data-kept=true]", visible: :all
  end

  # @return [String] a sound that lasts, as a host has it on the computer
  def sound(name, lasts_s: 4)
    File.join(Dir.mktmpdir, name).tap do |path|
      system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "sine=frequency=600:duration=#{lasts_s}", path, exception: true)
    end
  end

  # @return [Array<Symbol>] screens that play a sound
  def sounding(*screens)
    screens.select { |name| on_screen(name) { evaluate_script("Boolean(document.documentElement.dataset.heard)") } }
  end

  def test_a_sound_is_brought_and_heard_on_one_screen_of_two_and_another_takes_over
    visit "/dress/files/"
    attach_file("bring-files", sound("Small bell.wav", lasts_s: 59), make_visible: {display: "block", visibility: "visible"})
    assert_field "Name of Small bell", with: "Small bell"
    assert_selector "#sounds .wave rect", minimum: 20
    assert_text(/59\.0 s · −?[\d.]+ → −2[23]\.\d LUFS/)
    visit "/dress/cues/"
    find(".cue-row", text: "Follows").click
    within("#edit") do
      find("summary", text: "What is heard").click
      select "Small bell", from: "sound"
      find("summary", text: "What plays").click
      find("summary", text: "What plays").click
      fill_in "length_s", with: "120\n"
    end
    assert_selector ".cue-row", text: "a sound"
    assert_selector ".score-time", text: "120 s"
    within("#try") { click_on "On the screens" }
    assert_selector "#queue", text: "kestrel_ann"
    open_screen(link, name: :first)
    open_screen(link, name: :second)
    %i[first second].each { |name| on_screen(name) { assert_selector ".alert-words", text: "kestrel_ann follows" } }
    wait_for("the sound") { sounding(:first, :second).any? }
    heard = sounding(:first, :second)
    assert_equal 1, heard.size
    on_screen(heard.first) { visit "about:blank" }
    other = (%i[first second] - heard).first
    wait_for("the other screen to be heard") { sounding(other) == [other] }
    visit "/dress/files/"
    assert_equal "Plays with Follows: choose another one there first.", find_button("Take Small bell away", disabled: true)[:title]
  end

  def test_an_event_is_tried_without_sound
    visit "/dress/files/"
    attach_file("bring-files", sound("Bell.wav"), make_visible: {display: "block", visibility: "visible"})
    assert_field "Name of Bell", with: "Bell"
    fill_in "Shelf of Bell", with: "Small\t"
    assert_selector ".file-shelf", text: "Small"
    attach_file("bring-files", film, make_visible: {display: "block", visibility: "visible"})
    assert_field "Name of reeds.mp4"
    id, film_id = %w[sound film].map { |kind| TestDatabase.db[:files].where(kind:).get(:id) }
    visit "/dress/cues/"
    assert_equal 200, evaluate_async_script("fetch('/dress/cues/cues/cue_follow', {method: 'POST', headers: {'Content-Type': 'application/json', 'X-CSRF-Token': document.querySelector('meta[name=csrf]').content}, body: JSON.stringify({sound: '#{id}', film: '#{film_id}', length_s: 60})}).then((answer) => arguments[0](answer.status))")
    open_screen(link)
    within("#try") do
      check "Without sound", allow_label_click: true
      click_on "On the screens"
    end
    on_screen { assert_selector ".alert-words", text: "kestrel_ann follows" }
    assert_empty sounding(:screen)
    on_screen { assert_selector "video" }
    assert_equal [true], films("v.muted")
    click_on "Skip"
    within("#try") do
      uncheck "Without sound", allow_label_click: true
      click_on "On the screens"
    end
    wait_for("the sound") { sounding(:screen).any? }
    wait_for("the film to be heard") { films("!v.muted && !v.paused") == [true] }
  end

  # @return [Array] what is asked of each film on the picture
  def films(of_it) = on_screen { evaluate_script("[...document.querySelectorAll('video')].map((v) => #{of_it})") }

  # @return [String] a film of a moment that is heard, as a host has it on the computer
  def film
    File.join(Dir.mktmpdir, "reeds.mp4").tap do |path|
      system(*%w[ffmpeg -v error -nostdin -f lavfi -i testsrc=duration=20:size=64x36:rate=5 -f lavfi -i sine=frequency=500:duration=20 -shortest],
        path, exception: true)
    end
  end

  # How many flew at any time, also where nobody looks while they do.
  HOW_MANY_FLY = <<~JS
    window.flew = [];
    new MutationObserver(([{ target }]) => window.flew.push(target.dataset.flying)).observe(document.querySelector(".flurry"), { attributes: true });
  JS

  def test_emotes_fly_on_a_follow_inside_the_frame
    visit "/dress"
    attach_file("add-files", File.expand_path("../../demo/pictures/emotes/avocet.svg", __dir__), make_visible: {display: "block", visibility: "visible"})
    assert_selector ".emote-button", text: ":avocet:"
    visit "/dress/cues/"
    find(".cue-row", text: "Follows").click
    within("#edit") do
      find("summary", text: "Emotes that fly").click
      fill_in "flurry_count", with: "12\n"
    end
    assert_selector ".cue-row", text: "12 emotes fly"
    read_skein
    open_screen(link) { assert_selector(".flurry", visible: :all) && execute_script(HOW_MANY_FLY) }
    fire("follow")
    wait_for("twelve to fly") { on_screen { evaluate_script("flew") }.include?("12") }
    wait_for("emotes to be painted") do
      # They land after some seconds, which a busy machine may take for a picture.
      fire("follow") if on_screen { evaluate_script("document.querySelector('.flurry').dataset.flying") } == "0"
      on_screen { painted_inside(picture, 0, 200, 1920, 880) } > 500
    end
  end

  def test_from_a_cue_to_the_piece_that_plays_it_and_back
    visit "/dress/cues/#cue_tip"
    click_on "On Main"
    assert_selector ".hand.chosen[data-piece=alerts1]"
    click_on "What plays here"
    assert_selector ".cue-row[aria-pressed=true]", text: "Follows"
  end

  # Shorter words, a message that comes later: seen on the sheet, kept, and so on air.
  def test_parts_of_a_cue_come_and_go_by_its_score
    visit "/dress/cues/#cue_tip"
    assert_selector "#seen .alert-words", text: "kestrel_ann gave 5.00 EUR"
    find(".score-bar[data-part=message]").send_keys(*[:right] * 10)
    find("summary", text: "How it moves").click
    select "letter by letter", from: "words_in"
    wait_for("its words to come by letter") { cue("cue_tip")["words_in"] == "letters" }
    assert_selector "#seen .alert-words .unit", minimum: 10
    wait_for("the message to come later") { (cue("cue_tip")["message_begins_s"] * 10).round == 10 }
    read_skein
    open_screen(link)
    fire("tip", "for a nest box")
    on_screen { assert_selector ".alert-words", text: "gave" }
    begins = on_screen { evaluate_script("document.querySelector('.alert-message').getAnimations()[0]?.effect.getTiming().delay") }
    assert_equal 1000, begins
    on_screen { assert_selector ".alert-words .unit", text: "g", exact_text: true }
    assert_equal "birdbath gave 5.00 EUR", on_screen { evaluate_script("document.querySelector('.alert-words').textContent") }
  end

  def cue(id) = JSON.parse(TestDatabase.db[:shows].where(id: @show.id).get(Sequel.cast(:cues, String)))["cues"].find { |one| one["id"] == id }

  def test_a_narrower_cue_is_added_tried_and_told
    visit "/dress/cues/"
    click_on "Another cue for tips"
    within("#edit") do
      find("summary", text: "Only where").click
      fill_in "amount_from", with: "50\n"
      fill_in "words", with: "{name} is far too kind\t"
    end
    assert_selector ".cue-row", text: "amount from 50"
    assert_selector "#seen .alert-words", text: "kestrel_ann is far too kind"
    within("#score") { click_on "In the drafts" }
    assert_text "Plays “Another”."
    assert_field "Amount", with: "50"
    click_on "Skip"
    assert_text "Nothing waits."
    open_screen(link)
    within("#try") do
      select "tips", from: "What happens"
      fill_in "Amount", with: "60"
      click_on "On the screens"
      assert_text "Plays “Another”."
    end
    on_screen { assert_selector ".alert-words", text: "is far too kind" }
    click_on "Skip"
    on_screen { assert_no_selector ".alert" }
    within("#try") do
      fill_in "Amount", with: "6"
      click_on "On the screens"
      assert_text "Plays “Tips”."
    end
    on_screen { assert_selector ".alert-words", text: "gave 6.00 EUR" }
  end

  def test_a_moderator_sees_the_queue_in_the_prompter_and_directs_it
    visit "/dress/cues/"
    each_waits
    open_screen(link)
    2.times { within("#try") { click_on "On the screens" } }
    visit "/prompter/"
    assert_selector "#cues .cue-line", text: "2 follows from kestrel_ann"
    within("#cues") { click_on "Let it play" }
    on_screen { assert_selector ".alert-words", text: "2 follows from kestrel_ann" }
    within("#cues") { click_on "Skip" }
    on_screen { assert_no_selector ".alert" }
    assert_no_selector "#cues"
    visit "/people/"
    assert_selector ".deed-list", text: "skipped an alert"
  end

  def test_each_waits_until_it_is_let_go
    visit "/dress/cues/"
    each_waits
    open_screen(link)
    within("#try") { click_on "On the screens" }
    assert_selector "#queue .cue-waiting", text: "kestrel_ann follows"
    on_screen { assert_no_selector ".alert" }
    click_on "Let it play"
    on_screen { assert_selector ".alert-words", text: "kestrel_ann follows" }
  end
end
