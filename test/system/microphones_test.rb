# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/spoken"
require_relative "../support/stage_hands"

# A microphone as a voice: from the link to the broadcast picture, with a browser's fake device that plays a shipped conversation.
class MicrophonesBrowserTest < PreparedTest
  include StageHands

  VOICES = {"kind" => "voices", "x" => 100, "y" => 100, "width" => 600, "height" => 700, "motion_in" => "none", "motion_out" => "none"}.freeze
  CONVERSATIONS = File.expand_path("../../demo/conversations", __dir__)
  HIDE = "The hide"

  def setup
    super
    prepare(pieces: [VOICES])
    Capybara.current_driver = MicrophonesBrowserTest.hearing
    sign_in
  end

  def teardown
    super
    Capybara.use_default_driver
  end

  # A browser whose microphone hears somebody of a conversation, over and over.
  def self.hearing
    @hearing ||= begin
      # Two and a half seconds of talking, two of silence.
      heard = Spoken.write(Bavard::Core::Voice::Recording.all(CONVERSATIONS).fetch("argument"), "ibrahim", File.join(Suite::Memory.root, "spoken-#{Process.pid}.wav"))
      Browsers.register(:bavard_hearing, "use-fake-device-for-media-stream" => nil, "use-fake-ui-for-media-stream" => nil,
        "use-file-for-fake-audio-capture" => heard)
    end
  end

  def make_room
    visit "/feeds"
    click_on "Connect a chat", match: :first
    within("#add") do
      find(".kind", text: "Microphones").click
      fill_in "What to call the room", with: HIDE
      click_on "Make the room"
    end
    assert_selector "#microphones[open] h2", text: HIDE
  end

  # As it is copied: nobody types it.
  def link_of(name)
    id = TestDatabase.use(:app) && TestDatabase.db[:feeds].where(kind: "microphones", show_id: @show.id).get(:id)
    evaluate_async_script("fetch('/feeds/#{id}/microphones').then(r => r.json()).then(arguments[0])").then do |told|
      name ? told["people"].find { |one| one["name"] == name }["link"] : told["anybody"]
    end
  end

  def make_link(name)
    fill_in "Whose microphone comes next", with: name
    click_on "Make a link"
    assert_selector "#microphone-list li", text: name
    link_of(name)
  end

  def test_a_link_is_opened_and_who_talks_stands_on_the_picture
    make_room
    fill_in "Whose microphone comes next", with: " "
    click_on "Make a link"
    assert_selector "#microphones .error-line", text: "Whose microphone is it?"
    teo = make_link("Teo")
    in_another_tab(teo) do
      assert_text "No sound leaves this page."
      assert_selector "#says", text: "Your microphone is off."
      click_on "Switch it on"
      assert_selector "#says", text: "You are shown as talking."
    end
    assert_selector "#microphone-list li", text: "is there"
    open_screen(link)
    on_screen do
      assert_selector ".voice.talking .voice-name", text: "Teo"
      assert_selector ".voice:not(.talking) .voice-name", text: "Teo"
    end
    in_the_other_tab do
      find("body").send_keys("m")
      assert_selector "#says", text: "Muted. Nobody sees you talk."
    end
    on_screen { assert_selector ".voice:not(.talking) .voice-mark[data-mark=muted]" }
    in_the_other_tab { find("body").send_keys("M") && assert_selector("#says", text: "You are shown as talking.") }
    click_on "Take Teo away"
    in_the_other_tab { assert_selector "#says", text: "This link is not valid any more." }
    on_screen { assert_no_selector ".voice" }
  end

  def test_what_was_chosen_is_kept_and_the_room_comes_back
    make_room
    teo = make_link("Teo")
    within("#microphones") { click_on "Done" }
    in_another_tab(teo) do
      click_on "Switch it on"
      assert_selector "#says", text: "You are shown as talking."
      page.execute_script("const floor = document.querySelector('#floor'); floor.value = -20; floor.dispatchEvent(new Event('input'))")
      assert_selector "#says", text: "Heard. Say something."
      page.refresh
      assert_selector "#floor-told", text: "-20 dB"
      assert_selector "#says", text: "Heard. Say something."
      page.execute_script("const floor = document.querySelector('#floor'); floor.value = -80; floor.dispatchEvent(new Event('input'))")
      assert_selector "#says", text: "You are shown as talking."
    end
    within(".lane[aria-label='#{HIDE}']") { click_on "Disconnect" }
    in_the_other_tab { assert_selector "#says", text: "This room is switched off just now." }
    within(".lane[aria-label='#{HIDE}']") { click_on "Connect" }
    in_the_other_tab { assert_selector "#says", text: "You are shown as talking." }
    within(".lane[aria-label='#{HIDE}']") { assert_selector ".lane-room", text: "Teo" }
  end

  def test_a_name_is_chosen_at_the_link_for_anybody
    make_room
    find("label", text: "One link for anybody").click
    assert_button "Copy the link"
    in_another_tab(link_of(nil)) do
      click_on "Come in"
      assert_selector ".error-line", text: "What are you called?"
      fill_in "Your name", with: "Sunniva"
      click_on "Come in"
      assert_selector "h1", text: "Sunniva"
      click_on "Switch it on"
      assert_selector "#says", text: "You are shown as talking."
    end
    assert_selector "#microphone-list li", text: "Sunniva"
    open_screen(link)
    on_screen { assert_selector ".voice .voice-name", text: "Sunniva" }
  end

  def test_the_hosts_own_microphone_at_the_prompter
    visit "/prompter/"
    find("[aria-label='Your microphone']").click
    click_on "Switch it on"
    assert_selector "#microphone-sheet", text: "You are shown as talking."
    assert_selector "#microphone-mark.talks"
    assert_selector ".voices-strip .voice-person.talks", text: "Odalys"
    open_screen(link)
    on_screen { assert_selector ".voice.talking .voice-name", text: "Odalys" }
    within("#microphone-sheet") { click_on "Mute" }
    assert_selector "#microphone-sheet", text: "Muted. Nobody sees you talk."
    on_screen { assert_selector ".voice:not(.talking) .voice-mark[data-mark=muted]" }
  end

  private

  def in_another_tab(address, &block)
    @other = open_new_window
    within_window(@other) { visit address }
    in_the_other_tab(&block)
  end

  def in_the_other_tab(&block) = within_window(@other, &block)
end
