# frozen_string_literal: true

# Takes the pictures of docs/screenshots/ from a running demo show; see bin/pictures.

require "ferrum"

# A browser that goes through the stations and takes a picture of each.
class Pictures
  FOLDER = File.join(__dir__, "screenshots")
  SIZE = [1280, 800].freeze
  OPTIONS = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
             "disable-sync" => nil}.freeze
  EMAIL = "odalys@reedmere.example"
  # A dawn behind the transparent page, as the broadcast program puts it there.
  BEHIND = <<~JS
    document.documentElement.style.background = 'url("/assets/backdrops/dawn.svg") center / cover';
  JS

  # How many platforms' marks are on the picture.
  MARKS = "new Set([...document.querySelectorAll('.line .mark path')].map((path) => path.getAttribute('fill'))).size"

  def initialize(address, password)
    @address = address
    @password = password
    @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium", headless: "new", window_size: SIZE, timeout: 20, browser_options: OPTIONS)
    size(*SIZE)
  end

  def take
    day_or_night("dark")
    @browser.go_to("#{@address}/account/login")
    shot("sign-in")
    sign_in
    station("/feeds", ".lane-line", "feeds")
    find_todays_number
    # Twice: badges that nobody asked for yet are fetched by the first.
    station("/dress", ".badge-button", nil)
    station("/dress", ".badge-button img", "dress")
    station("/log/", ".log-entry", "log")
    gate
    prompter
    station("/people/", ".person", "people")
    station("/dress/cast/", ".cast-tile img", "cast")
    cues
    stages
    air
    voices
    day_or_night("light")
    station("/stage", ".hand.chosen", "stage-day")
    @browser.quit
  end

  private

  # A line tried, and what an edit would have changed; the edit is let be.
  def gate
    station("/gate", ".rule", nil)
    type_into("#trial-text", "y0u are such a g o o s e b r a i n see oxb0w.example/win")
    until_there("#trial-told .trial-end")
    shot("gate")
    @browser.at_css("[data-rule=links] [role=switch]").click
    until_there(".replay-line, .replay-list .said")
    until_there(".replay-figure")
    sleep 1
    shot("gate-replay")
    @browser.at_css("#edit-undo").click
  end

  # Wide with where a line went, and as narrow as a panel.
  def prompter
    screen = shown_somewhere
    station("/prompter/", ".row.aired", nil)
    # A line that came while the screen was there.
    sleep 20
    @browser.execute("[...document.querySelectorAll('.row.aired')].at(-3).click()")
    @browser.execute("[...document.querySelectorAll('.action')].find((one) => one.textContent.includes('Where it went')).click()")
    until_there(".trace li")
    sleep 0.5
    shot("prompter")
    size(360, 720)
    station("/prompter/", ".row.aired", nil)
    sleep 1
    shot("prompter-narrow")
    size(*SIZE)
    screen.close
  end

  # A screen of the first stage.
  def shown_somewhere
    station("/links", ".link-card", nil)
    link = first_link
    @browser.create_page.tap do |page|
      page.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
      page.go_to(link)
    end
  end

  def first_link = @browser.evaluate("document.querySelector('[data-link]').dataset.link")

  def type_into(field, text)
    @browser.execute(<<~JS, field, text)
      const field = document.querySelector(arguments[0]);
      field.value = arguments[1];
      field.dispatchEvent(new Event("input", { bubbles: true }));
    JS
  end

  # The first stage with its measures, the gallery of looks, two more looks, and what is hard to read.
  def stages
    station("/stage", ".measure", "stage")
    @browser.at_css("#open-looks").click
    until_there(".look-picture .line")
    sleep 1.5
    shot("looks")
    legibility
  end

  def stage_at(number)
    @browser.evaluate("document.querySelectorAll('#stage-tabs a')[#{number - 1}].getAttribute('href')")
  end

  # A look without a plate over the bright sky, taken back afterwards.
  def legibility
    station(stage_at(1), ".measure", nil)
    edit('{ do: "set", piece: "chat1", values: { plate_for: "none", y: 170, height: 400 } }')
    until_there(".worst-patch.bad")
    sleep 0.5
    shot("legibility")
    edit("undo")
  end

  def edit(what)
    path = what == "undo" ? "undo" : "edits"
    body = what == "undo" ? "undefined" : "JSON.stringify(#{what})"
    @browser.evaluate_async(<<~JS, 10)
      const done = arguments[0];
      const headers = { "X-CSRF-Token": document.querySelector("meta[name=csrf]").content, "X-Requested-With": "XMLHttpRequest", "Content-Type": "application/json" };
      fetch(`${location.pathname.replace(/\\/$/, "")}/#{path}`, { method: "POST", headers, body: #{body} }).then(done);
    JS
  end

  def sign_in
    @browser.at_css("#login").focus.type(EMAIL)
    @browser.at_css("#password").focus.type(@password, :enter)
    until_there(".lane")
  end

  # Lantern's broadcast, found by its channel, so that all three platforms are on the picture.
  def find_todays_number
    return unless @browser.at_css(".broadcast")

    @browser.at_css(".broadcast button[type=button]").click
    until_there(".broadcast input[name=channel]:not([hidden])")
    @browser.at_css(".broadcast input[name=channel]").focus.type("reedmere", :enter)
    until_there(".lane:nth-child(2) .lane-line")
  end

  # The station Air with two screens, one of them drawn too small, and the picture of the right one over the dawn.
  def air
    station("/links", ".link-card", nil)
    link = first_link
    small = @browser.create_page
    small.command("Emulation.setDeviceMetricsOverride", width: 640, height: 360, deviceScaleFactor: 1, mobile: false)
    small.go_to(link)
    right = @browser.create_page
    right.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
    right.go_to(link)
    sleep 0.1 until right.evaluate(MARKS) == 3
    until_there(".screen:nth-child(2) .figure:not(:empty)")
    sleep 2
    shot("air")
    right.execute(BEHIND)
    sleep 0.5
    sleep 0.1 until right.evaluate(MARKS) == 3
    right.screenshot(path: File.join(FOLDER, "air-page.png"))
    [small, right].each(&:close)
  end

  # A cue chosen, and an event tried in the drafts.
  def cues
    station("/dress/cues/", ".cue-row", nil)
    @browser.execute("[...document.querySelectorAll('.cue-row')].find((row) => row.textContent.includes('Tips')).click()")
    until_there("#edit-title")
    type_into("#try [name=amount]", "25")
    type_into("#try [name=message]", "for a nest box on the east bank")
    @browser.execute("document.querySelector('#try-kind').value = 'tip'")
    @browser.at_css("#try [value=draft]").click
    until_there(".cue-waiting.playing")
    shot("cues")
  end

  # Voices in three looks over portraits; portraits with a room card.
  def voices
    station("/links", ".link-card", nil)
    links = @browser.evaluate("[...document.querySelectorAll('[data-link]')].map((link) => link.dataset.link)")
    {"voices" => [links[2], "dawn"], "portraits" => [links[3], "thermal"]}.each do |name, (link, backdrop)|
      page = @browser.create_page
      page.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
      page.go_to(link)
      page.execute(BEHIND.sub("dawn", backdrop))
      sleep 3
      sleep 0.05 until page.evaluate("document.querySelector('.talking') !== null")
      page.screenshot(path: File.join(FOLDER, "#{name}.png"))
      page.close
    end
  end

  def station(path, there, name)
    @browser.go_to("#{@address}#{path}")
    until_there(there)
    sleep 1
    shot(name) if name
  end

  def until_there(selector)
    sleep 0.05 until @browser.at_css(selector)
  end

  def shot(name)
    @browser.screenshot(path: File.join(FOLDER, "#{name}.png"))
  end

  def size(width, height)
    @browser.page.command("Emulation.setDeviceMetricsOverride", width:, height:, deviceScaleFactor: 1, mobile: false)
  end

  def day_or_night(scheme)
    @browser.page.command("Emulation.setEmulatedMedia", features: [{name: "prefers-color-scheme", value: scheme}])
  end
end

data = ENV.fetch("BAVARD_DATA", File.expand_path("../var", __dir__))
Pictures.new("http://127.0.0.1:#{ENV.fetch("PORT", "4600")}", File.read(File.join(data, "sign-in.txt"))).take
