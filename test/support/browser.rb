# frozen_string_literal: true

require "capybara/cuprite"
require "capybara/minitest"
require "minitest/autorun"
require "vips"
require_relative "elsewhen"
require_relative "processes"

# A browser as somebody uses it: from test to test pages, cookies and whatever pages keep go; scripts that came once need not come again.
class LastingDriver < Capybara::Cuprite::Driver
  def reset!
    context = browser.contexts.default_context
    old = context.targets.values.select(&:page?)
    origins = old.filter_map { |target| target.page.current_url[%r{\Ahttps?://[^/]+}] }.uniq
    fresh = context.create_target
    old.each { |target| close(context, target) }
    context.instance_variable_set(:@default_target, fresh)
    browser.instance_variable_set(:@page, nil)
    leave_nothing(origins)
  ensure
    @started = false
  end

  private

  def close(context, target)
    target.page.close
    context.delete_target(target.id)
  end

  def leave_nothing(origins)
    browser.page.command("Network.clearBrowserCookies")
    origins.each do |origin|
      browser.page.command("Storage.clearDataForOrigin", origin:, storageTypes: "local_storage,indexeddb,cache_storage,service_workers")
    end
  end
end

# Browsers by name: one for all, and what some tests need of their own.
module Browsers
  OPTIONS = {
    "no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
    "disable-sync" => nil, "disable-quic" => nil, "no-first-run" => nil, "disable-dev-shm-usage" => nil,
    "disable-renderer-backgrounding" => nil, "disable-backgrounding-occluded-windows" => nil, "mute-audio" => nil,
    # As broadcast software has it.
    "autoplay-policy" => "no-user-gesture-required"
  }.freeze

  module_function

  # @param more [Hash] options of Chromium besides
  # @return [Symbol] its name
  def register(name, more = {})
    Capybara.register_driver(name) do |app|
      LastingDriver.new(app, browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1280, 800], timeout: Wait::LIMIT_S,
        env: Elsewhen.env, process_timeout: Wait::LIMIT_S, js_errors: true, extensions: [File.join(__dir__, "messages_stay.js"), *Elsewhen.scripts],
        browser_options: OPTIONS.merge(more))
    end
    name
  end
end

Browsers.register(:bavard)
Capybara.default_driver = :bavard
Capybara.default_max_wait_time = Wait::LIMIT_S
# A look takes longer than the hundredth of a second that stands here otherwise, from the very page that is waited for.
Capybara.default_retry_interval = 0.05
Capybara.run_server = false
Capybara.enable_aria_label = true

# A test in a real browser against the running application.
class BrowserTest < Minitest::Test
  include Capybara::DSL
  include Capybara::Minitest::Assertions
  include Wait

  PASSWORD = "reeds-and-water-42"

  # With an application of its own, which may be stopped and killed.
  def setup
    TestDatabase.use(:house)
    TestDatabase.clean
    @app = RunningApp.new.start
    @started = [@app]
    Capybara.app_host = @app.address
  end

  def teardown
    picture_of_failure unless passed?
    Capybara.reset_sessions!
    @started.reverse_each(&:stop)
    TestDatabase.use(:house)
  end

  def oxbow(pace: 0)
    @oxbow ||= RunningOxbow.new(pace:).start.tap { |oxbow| @started << oxbow }
  end

  # How many times slower than it is a browser is made, to see what rests on its pace.
  SLOW = ENV.fetch("SLOW", "1").to_f

  def visit(...)
    tab = page.driver.browser.page
    hear_console(tab)
    tab.command("Emulation.setCPUThrottlingRate", rate: SLOW) if SLOW > 1
    super
  end

  # By mouse and keyboard, as a new host does.
  def make_account(email: "host#{rand(1_000_000)}@reedmere.example", show: "Test watch")
    visit "/account/login"
    click_on "Make a new account"
    fill_in "Name of your show", with: show
    fill_in "Your name on it", with: "Odalys"
    fill_in "E-mail address", with: email
    fill_in "Password", with: PASSWORD
    click_on "Make the account"
    assert_text "From chat to air"
    email
  end

  def add_feed(address)
    visit "/feeds"
    click_on "Connect a chat", match: :first
    fill_in "Address or channel, in one piece", with: address
    click_on "Connect", exact: true
    assert_selector ".lane .chip", text: "live"
  end

  def make_stage
    visit "/stage"
    find("label", text: "Nothing", exact_text: true).click
    click_on "Make the stage"
    assert_selector "#hint", text: "Drag on the picture"
  end

  # @param box [Array<Integer>] x, y, width, height on the stage, in its own pixels
  def draw_chat(x, y, width, height, stage_width: 1920)
    corner = evaluate_script(<<~JS)
      (() => { const box = document.querySelector("#hands").getBoundingClientRect(); return [box.left, box.top, box.width]; })()
    JS
    ratio = corner[2] / stage_width.to_f
    mouse = page.driver.browser.mouse
    from = [corner[0] + (x * ratio), corner[1] + (y * ratio)]
    mouse.move(x: from[0], y: from[1]).down
    mouse.move(x: from[0] + (width * ratio), y: from[1] + (height * ratio), steps: 6).up
    within("#draw-menu") { click_on "Chat" }
    assert_selector ".hand.chosen"
  end

  def put_on_air
    click_on "Put on air"
    assert_text(/Revision \d+ is on air/)
  end

  # The air link, copied as a host copies it: uncovered on the Air station.
  def air_link
    visit "/links"
    click_on "Show the link", match: :first
    wait_for("the link") { find(".link-text", match: :first).value[%r{http://.*/air/[\w-]{32}\z}] }
  end

  # A screen as broadcast software would open it: another window, without a cookie, with a transparent ground.
  def open_screen(link, width: 1920, height: 1080, name: :screen)
    Capybara.using_session(name) do
      browser = page.driver.browser.page
      browser.command("Emulation.setDeviceMetricsOverride", width:, height:, deviceScaleFactor: 1, mobile: false)
      browser.command("Emulation.setDefaultBackgroundColorOverride", color: {r: 0, g: 0, b: 0, a: 0})
      visit link
      yield if block_given?
    end
  end

  def on_screen(name = :screen, &block)
    Capybara.using_session(name, &block)
  end

  # @return [Vips::Image] of the current session's page, with its alpha
  def picture
    Vips::Image.new_from_buffer(page.driver.browser.page.screenshot(format: "png", encoding: :binary), "")
  end

  # @return [Boolean] whether every pixel outside of the box has alpha 0
  def clear_outside?(image, x, y, width, height)
    image.extract_band(3).draw_rect([0], x, y, width, height, fill: true).max.zero?
  end

  # @return [Float] pixels inside of the box that are painted
  def painted_inside(image, x, y, width, height)
    alpha = image.extract_band(3).crop(x, y, width, height)
    (alpha.relational_const(:more, [0]).avg / 255) * width * height
  end

  private

  # For whoever reads of a failure: what pages said to their console.
  def hear_console(tab)
    @heard ||= {}.compare_by_identity
    @heard[tab] ||= tab.on("Runtime.consoleAPICalled") do |told, *|
      (@console ||= []) << told["args"].map { |one| one["value"] || one["description"] }.join(" ")
    end || true
  end

  def picture_of_failure
    folder = File.join(TestDatabase::PROJECT, "tmp/failures")
    FileUtils.mkdir_p(folder)
    page.driver.browser.screenshot(path: File.join(folder, "#{name}.png"))
    FileUtils.cp(@app.log, File.join(folder, "#{name}.log"))
    warn "\n#{name}: the application's last words:", File.readlines(@app.log).last(12)
    warn "#{name}: the console:", @console.last(12) if @console
    Capybara.instance_variable_get(:@session_pool)&.each_value { |session| warn "#{name}: #{page_state(session)}" }
  rescue StandardError => error
    warn "no picture of the failure: #{error.class}"
  end

  # What a page has and has not got, for whoever reads of a failure on another machine.
  def page_state(session)
    session.evaluate_script("`${location.pathname.slice(0, 12)} ${document.readyState} ${document.visibilityState}, not loaded: " \
                            "${performance.getEntriesByType('resource').filter((one) => one.responseStatus !== 200).map((one) => one.name)}`")
  rescue StandardError => error
    "no state of the page: #{error.class}"
  end
end
