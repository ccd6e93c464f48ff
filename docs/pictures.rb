# frozen_string_literal: true

# Takes the pictures of docs/screenshots/ from a running demo show; see bin/pictures.

require "ferrum"
require "net/http"
require_relative "pictures_beside_feeds"

# A browser that goes through the stations and takes a picture of each.
class Pictures
  include PicturesBesideFeeds

  FOLDER = File.join(__dir__, "screenshots")
  SIZE = [1280, 800].freeze
  OPTIONS = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
             "disable-sync" => nil, "use-fake-device-for-media-stream" => nil, "use-fake-ui-for-media-stream" => nil}.freeze
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
    @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: SIZE, timeout: 60,
      browser_options: OPTIONS)
    size(*SIZE)
  end

  def take
    day_or_night("dark")
    lead
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
    station("/operator/", "[data-account]", "operator")
    dressed
    stages
    air
    voices
    goals
    beside_feeds
    @browser.quit
  end

  private

  # What belongs to Dress besides emotes and badges.
  def dressed
    station("/dress/cast/", ".cast-tile img", "cast")
    cues
  end

  # A host of their own, half way from chat to air.
  def lead
    @browser.go_to("#{@address}/account/create-account")
    {"show_name" => "Kiln night", "host_name" => "Maren", "login" => "maren-#{rand(100_000)}@kiln.example", "password" => "reeds-and-water-42"}
      .each { |name, value| @browser.at_css("input[name=#{name}]").focus.type(value) }
    @browser.css("form [type=submit]").last.click
    until_there("[data-step=chat].open")
    @browser.at_css("#lead-address").focus.type("reedmere", :enter)
    until_there("[data-step=picture].open")
    @browser.at_css("[data-picture=table]").click
    until_there("[data-outfit=field_notes] .line")
    @browser.at_css("[data-outfit=field_notes]").click
    sleep 12
    shot("lead")
    @browser.cookies.clear
  end

  # A line tried.
  def gate
    station("/gate", ".rule", nil)
    type_into("#trial-text", "y0u are such a g o o s e b r a i n see oxb0w.example/win")
    until_there("#trial-told .trial-end")
    shot("gate")
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

  # The first stage with its measures.
  def stages = station("/stage", ".measure", "stage")

  def sign_in(page = @browser)
    page.go_to("#{@address}/account/login")
    page.at_css("#login").focus.type(EMAIL)
    page.at_css("#password").focus.type(@password, :enter)
    sleep 0.05 until page.at_css(".lane")
  end

  # Lantern's broadcast, found by its channel, so that all three platforms are on the picture.
  def find_todays_number
    40.times { @browser.at_css("form.address") ? break : sleep(0.5) }
    form = @browser.at_css("form.address") or return
    form.at_css("input").focus.type("reedmere", :enter)
    until_there(".lane:nth-child(2) .lane-line")
  end

  # Somebody does something on Skein.
  def happen(kind, login, text = "")
    Net::HTTP.post_form(URI("#{@address[/.*:/]}#{@address[/\d+\z/].to_i + 14}/event"), "login" => login, "kind" => kind, "text" => text)
  end

  # The station Air with two screens, one of them drawn too small, and the picture of the right one over the dawn, while
  # somebody comes to visit.
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
    happen("visit", "birdbath")
    sleep 0.1 until right.evaluate("document.querySelector('.alert') !== null")
    sleep 2.4
    right.screenshot(path: File.join(FOLDER, "air-page.png"))
    station("/links/report", ".report-bars rect", "report")
    [small, right].each(&:close)
  end

  # A cue chosen.
  def cues
    station("/dress/cues/", ".cue-row", nil)
    @browser.execute("[...document.querySelectorAll('.cue-row')].find((row) => row.textContent.includes('A large tip')).click()")
    until_there("#edit-title")
    sleep 0.5
    shot("cues")
  end

  # Voices in three looks over portraits.
  def voices
    on_air(2, "voices", "dawn") { |page| sleep 0.05 until page.evaluate("document.querySelector('.talking') !== null") }
  end

  # Goals in each form, a challenge, the newest and best, a heap of emotes, a fellow host's card and captions.
  def goals
    on_air(3, "goals", "white") do |page|
      happen("follow", "mudlark7")
      happen("tip", "kestrel_ann", "for the feeder")
      3.times { |number| happen("subscription", %w[hoopoe_fan noctule marshmallow_ed][number]) }
      sleep 6
      happen("visit", "heron_house")
      # The card stands there for some seconds only, while emotes of chat fly all the time.
      sleep 0.1 until page.evaluate("document.querySelector('.shout') !== null && Number(document.querySelector('.flurry').dataset.flying) > 3")
      sleep 1
    end
  end

  # One stage's page over a picture of a broadcast.
  def on_air(number, name, backdrop)
    station("/links", ".link-card", nil)
    link = @browser.evaluate("[...document.querySelectorAll('[data-link]')].map((link) => link.dataset.link)")[number]
    page = @browser.create_page
    page.command("Emulation.setDeviceMetricsOverride", width: 1920, height: 1080, deviceScaleFactor: 1, mobile: false)
    page.go_to(link)
    page.execute(BEHIND.sub("dawn", backdrop))
    sleep 3
    yield page
    page.screenshot(path: File.join(FOLDER, "#{name}.png"))
    page.close
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
