# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/prepared"

# axe finds nothing on any screen, day or night; and none is wider than its window, whether that is a desk's or a telephone's.
class AccessibleTest < PreparedTest
  AXE = File.read(File.join(Gem.loaded_specs.fetch("axe-core-api").full_gem_path, "node_modules/axe-core/axe.min.js"))
  SCREENS = {"/feeds" => ".lane", "/gate" => ".rule", "/people/" => ".person", "/prompter/" => ".row", "/dress" => ".emote-button", "/log/" => ".log-entry",
             "/dress/cues/" => ".cue-row", "/dress/files/" => "#sounds .file-none", "/dress/fellows/" => "#empty",
             "/stage" => ".hand", "/links" => ".link-card", "/feeds/nothing-here" => ".problem"}.freeze

  # Nothing beneath an open sheet can be reached, and each screen is looked at without one.
  ASK = <<~JS
    axe.run(document.querySelector(arguments[0]) ?? document, arguments[1]).then(({ violations }) => arguments[2](violations.map((one) =>
      `${one.id}: ${one.nodes.map((node) => `${node.html.slice(0, 120)} ${node.any[0]?.message ?? ""}`).join(" | ")}`)));
  JS
  # By day everything stands where it stands by night, in other colours.
  SCHEMES = {"dark" => {}, "light" => {runOnly: ["color-contrast"]}}.freeze
  # It is to say what is wrong, and no rule of these needs the style sheets once more.
  SAY = {resultTypes: ["violations"], preload: false}.freeze

  # In CSS pixels: a desk's, half of one where somebody enlarges everything twice, and a telephone's.
  WIDTHS = [1280, 640, 390].freeze
  TOO_WIDE = <<~JS
    [...document.querySelectorAll("body *")].filter((one) => one.getBoundingClientRect().right > innerWidth + 1).map((one) => `${one.tagName}.${one.className}`).slice(0, 9)
  JS

  # Each key of a screen is told once, and the one that finds anything is the same on all that have it.
  KEYS = "[...document.querySelectorAll('#keys-list dt')].map((term) => term.textContent).concat(document.querySelector('#find-anything') ? [] : ['f'])"

  def assert_keys(path)
    assert_selector "#keys-list dt", visible: :all, minimum: 1
    keys = page.evaluate_script(KEYS)
    assert_equal [keys, true], [keys.uniq, keys.include?("f")], path
  end

  def test_the_stations
    prepare(feed: feed_address)
    until_live
    server.write("@draft/badges=warden :ann!a@b PRIVMSG #reedmere :hello :wren:\r\n")
    server.say("ann", "!ring")
    sign_in "/dress"
    attach_file("add-files", Drawings.zip({"wren.svg" => Drawings.svg}), make_visible: {display: "block"})
    assert_selector ".emote-button"
    SCREENS.each do |path, there|
      visit path
      assert_selector there
      assert_keys(path)
      assert_nothing_found(path)
    end
  end

  def test_the_bench_and_microphones
    prepare
    sign_in "/feeds/describe/"
    assert_nothing_found("the bench, before anything is described")
    click_on "A WebSocket"
    click_on "Paste"
    fill_in "Frames", with: %({"type":"message","id":1,"user":{"login":"ann"},"text":"one","n":7}\nPING)
    assert_nothing_found("pasting")
    click_on "Read it"
    assert_selector ".frame", count: 2
    page.execute_script("const field = document.querySelector('#text'); field.value = field.value.replace('base', 'bass'); field.dispatchEvent(new Event('input'))")
    assert_selector ".fault"
    click_on "Record"
    assert_nothing_found("the bench, with what is wrong")
    visit "/feeds"
    click_on "Connect a chat", match: :first
    within("#add") do
      find(".kind", text: "Microphones").click
      click_on "Make the room"
    end
    fill_in "Whose microphone comes next", with: "Wilhelmina van der Rietbroek-Oosterschelde of the hide"
    click_on "Make a link"
    assert_selector "#microphone-list li"
    assert_nothing_found("microphones")
    TestDatabase.use(:app)
    path = evaluate_async_script("fetch('/feeds/#{TestDatabase.db[:feeds].where(show_id: @show.id).get(:id)}/microphones').then(r => r.json()).then(arguments[0])")
    visit path["people"].first["link"]
    assert_selector "#says", text: "Your microphone is off."
    assert_nothing_found("a microphone")
  end

  def test_voice_rooms_and_the_cast
    hidewire = RunningStandin.new("Hidewire", SCRIPT: "round_table").start
    prepare(platforms: [hidewire], pieces: [{"kind" => "voices"}, {"kind" => "portraits", "y" => 500}, {"kind" => "room_card", "x" => 900}])
    sign_in "/dress/cast/"
    assert_selector "#empty"
    assert_nothing_found("an empty cast")
    visit "/feeds"
    click_on "Connect a chat", match: :first
    within("#add") { find(".kind", text: "Hidewire").click }
    assert_selector "#rooms .room", count: 2
    assert_nothing_found("choosing a room")
    within("#add") { click_on "Connect", exact: true }
    assert_selector ".lane-room", text: "Odalys"
    find(".lane-menu summary").click
    click_on "Another room"
    assert_selector "#room-list .room", count: 2
    assert_nothing_found("another room")
    {"/dress/cast/" => ".cast-row", "/stage" => ".hand", "/prompter/" => ".voice-person", "/prompter/?voices" => ".voice-person"}.each do |path, there|
      visit path
      assert_selector there
      find("#voices-menu summary").click if path == "/stage"
      assert_nothing_found(path)
    end
  end

  def test_the_gates_and_the_prompters_sheets
    prepare(feed: feed_address, hold_ms: 60_000)
    until_live
    sign_in
    server.say("ann", "see the wing?")
    visit "/gate"
    all(".rule-open").first(4).each_with_index { |_, at| all(".rule-open")[at].click }
    fill_in "A line to try", with: "g o o s e b r a i n"
    within("#trial-told") { assert_text "On screen" }
    find_by_id("hold-more").click
    assert_nothing_found("gate, opened")
    visit "/prompter/"
    find(".scroller .row", text: "see the wing?").click
    all(".menu summary").each(&:click)
    assert_nothing_found("prompter's sheets")
    all(".menu[open] summary").each(&:click)
    find(".action", text: "Where it went").click
    assert_selector ".trace li"
    assert_nothing_found("prompter, a trace")
    find(".action", text: "Person").click
    assert_selector ".side-lines .row"
    assert_nothing_found("prompter, a person")
  end

  def test_forms_and_sheets
    prepare(feed: feed_address, lead: {})
    until_live
    visit "/account/login"
    assert_nothing_found("sign-in")
    visit "/account/create-account"
    assert_nothing_found("a new account")
    sign_in
    click_on "Connect a chat", match: :first
    assert_nothing_found("adding a feed")
    find(".kind", text: "Any IRC server").click
    click_on "Connect", exact: true
    assert_text "Which server?"
    assert_nothing_found("adding a feed, refused")
    each_step_of_the_lead
    visit "/feeds"
    find(".lane summary").click
    assert_nothing_found("a lane's menu")
    click_on "Tags"
    assert_selector "dialog[open]"
    assert_nothing_found("tags")
    visit "/dress"
    assert_text "No shelf yet"
    assert_nothing_found("dress, empty")
    click_on "Make words a picture"
    assert_nothing_found("a small form")
    visit "/account/otp-setup"
    assert_nothing_found("second factor")
  end

  def test_the_stages_parts_and_sheets
    prepare
    sign_in "/stage"
    find(".hand").click
    assert_selector ".measure"
    %w[Name Stack Motion].each do |part|
      within("#part-tags") { click_on part }
      execute_script("for (const group of document.querySelectorAll('.inspector details.more')) group.open = true")
      assert_nothing_found("the part #{part}", within: (".inspector" unless part == "Name"))
    end
    click_on "Looks"
    assert_selector ".look-picture .line"
    assert_nothing_found("the looks")
    within("#looks") { click_on "Close" }
    click_on "Make another stage"
    assert_nothing_found("another stage")
    within("#new-stage") { click_on "Not now" }
    find("#stage-size").click
    assert_selector ".revision"
    assert_nothing_found("the revisions")
    within("#revisions") { click_on "Close" }
    click_on "Add"
    assert_nothing_found("what can be added")
  end

  def test_where_somebody_has_colours_of_their_own_the_picture_keeps_its_own_and_switches_are_seen
    prepare(feed: feed_address, pieces: [{"kind" => "text", "words" => "The east bank", "width" => 900, "height" => 300}])
    sign_in "/gate"
    assert_selector ".rule .switch"
    edge = "getComputedStyle(document.querySelector('.rule .switch input')).borderTopStyle"
    assert_equal "none", evaluate_script(edge)
    with_colours_of_ones_own { assert_equal "solid", evaluate_script(edge) }
    open_screen(link) do
      assert_selector ".text-piece", text: "The east bank"
      drawn = wait_for("the piece to be painted") { picture.then { |one| one if one.extract_band(3).max.positive? } }
      with_colours_of_ones_own { assert_equal drawn.to_a, picture.to_a }
    end
  end

  def with_colours_of_ones_own
    tab = page.driver.browser.page
    tab.command("Emulation.setEmulatedMedia", features: [{name: "forced-colors", value: "active"}])
    assert evaluate_script("matchMedia('(forced-colors: active)').matches")
    yield
  ensure
    tab.command("Emulation.setEmulatedMedia", features: [])
  end

  def test_empty_screens
    prepare(pieces: nil)
    sign_in
    assert_text "No chat is connected yet"
    assert_nothing_found("no feed")
    visit "/stage"
    assert_nothing_found("no stage")
  end

  private

  def each_step_of_the_lead
    visit "/lead/"
    assert_selector "[data-state=now]"
    assert_nothing_found("from chat to air")
    all(".lead-head").each do |head|
      head.click
      assert_selector ".lead-step.open", text: head.find("b").text
      assert_nothing_found("from chat to air: #{head.find("b").text}", within: ".lead-step.open")
    end
  end

  # @param within [String, nil] what is another now, where the rest of the page was looked at before
  def assert_nothing_found(where, within: nil)
    SCHEMES.each do |scheme, options|
      page.driver.browser.page.command("Emulation.setEmulatedMedia", features: [{name: "prefers-color-scheme", value: scheme}])
      found = page.driver.browser.page.evaluate_async("#{AXE unless evaluate_script("Boolean(window.axe)")}\n#{ASK}", 60, within || "dialog[open]", {**SAY, **options})
      assert_empty found, "#{where}, #{scheme}"
    end
    WIDTHS.each { |width| assert_no_wider(width, where) }
    wide_again
  end

  def assert_no_wider(width, where)
    tab = page.driver.browser.page
    tab.command("Emulation.setDeviceMetricsOverride", width:, height: 800, deviceScaleFactor: 1, mobile: false)
    assert_equal width, evaluate_script("Math.max(innerWidth, document.documentElement.scrollWidth)"), "#{where} is wider than its window. #{evaluate_script(TOO_WIDE)}"
  ensure
    tab.command("Emulation.clearDeviceMetricsOverride")
  end

  # Whoever goes on takes hold of things where they stand then.
  def wide_again
    wait_for("the window to be as it was") { evaluate_script("innerWidth") == WIDTHS.first }
    page.driver.evaluate_async_script("requestAnimationFrame(() => requestAnimationFrame(() => arguments[0]()))")
  end
end
