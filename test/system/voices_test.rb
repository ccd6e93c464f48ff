# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/stage_hands"

# Voice rooms, from the service to the broadcast picture.
class VoicesBrowserTest < PreparedTest
  include StageHands

  VOICES = {"kind" => "voices", "x" => 100, "y" => 100, "width" => 600, "height" => 700, "motion_in" => "none", "motion_out" => "none"}.freeze
  PNG = File.expand_path("../../demo/pictures/cast", __dir__)

  # @param room [String, nil] that is read already
  def with_voices(*pieces, room: "hides")
    @hidewire = RunningStandin.new("Hidewire", BEAT_MS: 1000).start
    prepare(pieces:, platforms: [@hidewire])
    return unless room

    sign_in
    choose_hidewire
    within("#add") { click_on "Connect", exact: true }
    assert_selector ".lane[aria-label=Hidewire] .chip", text: "live"
  end

  def choose_hidewire
    visit "/feeds"
    click_on "Connect a chat", match: :first
    within("#add") { find(".kind", text: "Hidewire").click }
    assert_selector "#rooms .room", count: 2
  end

  def do_it(**values) = @hidewire.post("/voices", values.transform_keys(&:to_s))
  def talk(who, on: true) = do_it(do: "talk", who:, on: on ? "1" : "0")

  # Names on the picture, in their order.
  def names = on_screen { page.all(".voice:not(.leaving) .voice-name").map(&:text) }

  def test_a_room_is_chosen_by_who_is_in_it
    with_voices(room: nil)
    sign_in
    choose_hidewire
    within("#rooms") do
      assert_text "5 there: Odalys, Ibrahim, Sunniva, Teo, Wilhelmina"
      find(".room", text: "Night shift").click
    end
    within("#add") do
      select "in Sightings", from: "What is written"
      click_on "Connect", exact: true
    end
    assert_selector ".lane-room", text: "Night shift"
    do_it(do: "write", who: "bram", room: "sightings", text: "a bittern, booming")
    assert_selector ".lane-line", text: "a bittern, booming"
    assert_selector ".lane-room", text: "Bram, Linnea"
    do_it(do: "move", who: "teo", room: "night")
    assert_selector ".lane-room", text: "Bram, Linnea, Teo"
  end

  def test_only_while_talking_and_the_host_first
    with_voices(VOICES, VOICES.merge("x" => 900, "shown" => "talking", "called" => "Talkers"))
    open_screen(link)
    on_screen { assert_selector "[data-piece=voices1] .voice", count: 5 }
    assert_equal "Odalys", names.first
    on_screen { assert_no_selector "[data-piece=voices2] .voice" }
    talk("teo")
    on_screen do
      assert_selector "[data-piece=voices2] .voice.talking", text: "Teo"
      assert_selector "[data-piece=voices1] .voice.talking", count: 1
    end
    talk("odalys")
    on_screen { assert_selector "[data-piece=voices2] .voice", count: 2 }
    wait_for("the host to stand first") { on_screen { page.all("[data-piece=voices2] .voice-name").map(&:text) } == %w[Odalys Teo] }
    talk("teo", on: false)
    talk("odalys", on: false)
    on_screen { assert_no_selector "[data-piece=voices2] .voice" }
  end

  def test_names_and_marks_of_every_kind_stay_in_the_box
    with_voices(VOICES.merge("width" => 260))
    open_screen(link)
    do_it(do: "rename", who: "teo", name: "<b>T</b>#{"W" * 480}")
    do_it(do: "rename", who: "ibrahim", name: "")
    do_it(do: "mark", who: "sunniva", mark: "muted", on: "1")
    on_screen do
      assert_selector ".voice[data-voice=sunniva] .voice-mark[data-mark=muted]"
      assert_selector ".voice[data-voice=ibrahim] .voice-name", text: "ibrahim"
      assert_selector ".voice[data-voice=teo] .voice-name", text: "<b>T</b>"
      wide = page.evaluate_script("Math.max(...[...document.querySelectorAll('.voice')].map((one) => one.getBoundingClientRect().right))")
      assert_operator wide, :<=, 361
    end
  end

  # What the people of a piece take, with the room around them.
  TAKEN = <<~JS
    (() => {
      const seats = document.querySelector("[data-piece=%s] .seats");
      const all = [...seats.querySelectorAll(".seat")];
      const around = 2 * parseFloat(getComputedStyle(seats).paddingLeft);
      const right = Math.max(...all.map((one) => one.parentElement.offsetLeft + one.offsetWidth));
      return [right - Math.min(...all.map((one) => one.parentElement.offsetLeft)) + around, seats.offsetHeight];
    })()
  JS

  def test_the_room_that_names_need_is_what_the_page_takes
    with_voices(VOICES.merge("at_most" => 8), VOICES.merge("y" => 500, "arranged" => "grid", "columns" => 2, "name_place" => "below", "sign" => "ring"))
    visit "/stage"
    draft { assert_selector ".voice", minimum: 10 }
    %w[voices1 voices2].each do |id|
      told = evaluate_async_script("fetch(`${location.pathname}/measures?piece=#{id}`).then((answer) => answer.json()).then(arguments[0])")
      wide, high = draft { evaluate_script(TAKEN % id) }
      needs = told.dig("room", "needs_px")
      assert_in_delta wide, needs[0], wide * 0.08, id
      assert_in_delta high, needs[1], high * 0.08, id
    end
  end

  def test_a_sound_file_is_heard_as_whoever_it_is_given_to
    with_voices(VOICES.merge("shown" => "talking"))
    open_screen(link)
    sound = File.join(Dir.mktmpdir, "said.wav")
    system("espeak-ng", "-w", sound, "The second net is open, and there are three birds in it already. " * 4, exception: true)
    File.open(sound) { |file| Net::HTTP.post(URI("#{@hidewire.base}/voices"), *form(do: "sound", who: "sunniva", file:)) }
    on_screen { assert_selector ".voice.talking", text: "Sunniva" }
  end

  # @return [Array(String, Hash)] body and header of a form with a file
  def form(file:, **values)
    boundary = "a-boundary-of-ours"
    fields = values.map { |name, value| "--#{boundary}\r\nContent-Disposition: form-data; name=\"#{name}\"\r\n\r\n#{value}\r\n" }
    head = "--#{boundary}\r\nContent-Disposition: form-data; name=\"file\"; filename=\"said.wav\"\r\nContent-Type: audio/wav\r\n\r\n"
    ["#{fields.join}#{head}".b + file.binmode.read + "\r\n--#{boundary}--\r\n".b, {"Content-Type" => "multipart/form-data; boundary=#{boundary}"}]
  end

  def test_the_room_follows_its_host_and_a_lost_service_leaves_what_is_sure
    with_voices(VOICES.merge("dims_after_s" => 1), room: nil)
    sign_in
    choose_hidewire
    within("#add") do
      select "go along with Teo", from: "follow"
      click_on "Connect", exact: true
    end
    open_screen(link)
    on_screen { assert_selector ".voice", count: 5 }
    do_it(do: "move", who: "teo", room: "night")
    on_screen { assert_selector ".voice", text: "Bram" }
    wait_for("the other room") { names.sort == %w[Bram Linnea Teo] }
    @hidewire.stop
    on_screen { assert_selector ".voices.dimmed .voice", count: 3 }
    @hidewire.start
    on_screen { assert_selector ".voices:not(.dimmed) .voice", minimum: 2 }
  end

  def test_faces_and_portraits_are_dropped_by_name_and_change_as_they_talk
    with_voices(VOICES, {"kind" => "portraits", "x" => 900, "y" => 100, "width" => 400, "height" => 400, "swap" => "cut"})
    visit "/dress/cast/"
    assert_selector ".cast-row", count: 5
    attach_file "add-files", %w[teo.svg teo_silent.svg teo_talking.svg].map { |name| File.join(PNG, name) }, make_visible: true
    assert_selector ".cast-row[data-member=teo] .cast-tile img", count: 3
    open_screen(link)
    on_screen do
      assert_selector ".voice[data-voice=teo] img.voice-picture"
      assert_selector ".portrait[data-voice=teo][data-state=silent] img.shown", visible: :all
    end
    talk("teo")
    on_screen { assert_selector ".portrait.talking[data-state=talking] img.shown[data-state=talking]", visible: :all }
    talk("teo", on: false)
    on_screen { assert_selector ".portrait[data-state=silent]", visible: :all }
    within(".cast-row[data-member=teo]") { find(".cast-tile[data-which=talking]").click }
    click_on "Take it off"
    assert_selector ".cast-row[data-member=teo] .chip", text: "no picture for talking"
  end

  def test_what_is_written_in_the_room_is_a_chat_and_who_talks_is_seen_in_the_prompter
    with_voices(PIECE)
    open_screen(link)
    @hidewire.say("hello from the room", login: "kestrel_ann")
    on_screen { assert_selector ".line .text", text: "hello from the room" }
    visit "/prompter/"
    assert_selector ".voice-person", count: 5
    talk("ibrahim")
    assert_selector ".voice-person.talks", text: "Ibrahim"
    visit "/prompter/?voices"
    assert_selector ".voice-person.talks", text: "Ibrahim"
    assert_no_selector ".column-head .tool"
  end

  def test_voices_are_rehearsed_in_the_draft_alone_and_the_cast_talks_by_keys
    with_voices(VOICES)
    open_screen(link)
    on_screen { assert_selector ".voice", count: 5 }
    visit "/stage"
    first(".hand").click
    assert_selector "#specimen .voice-name", text: "Sunniva"
    find("#specimen .voice-name").click
    assert_selector "[role=tab][aria-selected=true]", text: "Name"
    find("#voices-menu summary").click
    choose "Nobody talks", allow_label_click: true
    draft { assert_selector ".voice" }
    # Its words are wider than those before: what stands beside them has moved by then.
    assert_selector "#voices-now", text: "Nobody talks"
    find("#voices-menu summary").click
    assert_no_selector "#voices-menu[open]"
    find(".talker", match: :first, visible: :all)
    page.driver.browser.keyboard.down("1")
    # Told by the show that it is held; then it is drawn.
    assert_selector ".talker.on", count: 1, visible: :all
    draft { assert_selector ".voice.talking", count: 1 }
    page.driver.browser.keyboard.up("1")
    draft { assert_no_selector ".voice.talking" }
    on_screen { assert_no_selector ".voice.talking" }
    find("#voices-menu summary").click
    choose "Forty people", allow_label_click: true
    draft { assert_selector ".voice-more", text: "and 32 more" }
  end

  def draft(&block) = within_frame("draft", &block)
end
