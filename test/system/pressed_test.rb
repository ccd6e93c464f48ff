# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/prepared"
require_relative "../../lib/bavard/store/accounts"

# Everything on every station is pressed once, also what only then appears: no fault, no error that is not of a field, and a layout in
# which each thing has a name, room to be met, and says all of itself.
class PressedTest < PreparedTest
  SCRIPT = File.read(File.expand_path("../support/presses.js", __dir__))
  # What leads away from the page, and what would take away what the others need.
  SKIP = %w[#stage-copy #stage-remove #stage-earlier #stage-later #remove #copy-in-do .own-test].freeze
  MOST = 70
  SMALL = [[1024, 768], [390, 844]].freeze
  PAGES = {"/feeds" => ".lane", "/gate" => ".rule", "/people/" => ".person", "/log/" => ".log-entry", "/dress" => ".emote-button", "/dress/cast/" => "#empty",
           "/dress/cues/" => ".cue-row", "/dress/files/" => "#sounds", "/dress/fellows/" => "#empty", "/links" => ".check", "/links/report" => ".report-totals",
           "/prompter/" => ".row", "/operator/" => "[data-account]"}.freeze
  KINDS = %w[chat alerts goal voices text clock counter].freeze

  def prepare_all
    prepare(feed: feed_address, pieces: KINDS.each_with_index.map do |kind, at|
      PIECE.merge("kind" => kind, "x" => 40 + (at * 20)).except(*("stay_ms" unless kind == "chat"))
    end)
    until_live
    # With somebody else's account to see to.
    TestDatabase.db[:accounts].where(id: @account_id).update(operator: true)
    Bavard::Store::Accounts.new(TestDatabase.db).make("ibrahim-#{rand(10**9)}@reedmere.example", "Ferry watch", by: "test")
    server.write("@draft/badges=warden :ann!a@b PRIVMSG #reedmere :hello :wren:\r\n")
    server.say("bob", "!ring")
    sign_in "/dress"
    attach_file("add-files", Drawings.zip({"wren.svg" => Drawings.svg}), make_visible: {display: "block"})
    assert_selector ".emote-button"
  end

  # In the page itself, not in a frame of it.
  def js(expression)
    found = page.driver.browser.page.command("Runtime.evaluate", expression: "#{SCRIPT}\n#{expression}", awaitPromise: true, returnByValue: true)
    refute found["exceptionDetails"], found["exceptionDetails"].to_s[0, 600]
    found.dig("result", "value")
  end

  def walk(**how) = js("walk(#{JSON.generate({most: MOST, skip: SKIP, lints: 6, **how})})")

  # As it stands in a small window, and on a telephone, by day.
  def small(path, there)
    browser = page.driver.browser.page
    browser.command("Emulation.setEmulatedMedia", features: [{name: "prefers-color-scheme", value: "light"}])
    SMALL.each_with_index.flat_map do |(width, height), at|
      browser.command("Emulation.setDeviceMetricsOverride", width:, height:, deviceScaleFactor: 1, mobile: false)
      visit path if at.zero?
      assert_selector there
      js("look()").map { |wrong| ["#{width} px", *wrong] }
    end
  ensure
    browser.command("Emulation.clearDeviceMetricsOverride")
    browser.command("Emulation.setEmulatedMedia", features: [])
  end

  # @return [Array<String>]
  def wrong_at(path, there)
    visit path
    assert_selector there
    told = walk
    assert_operator told["pressed"], :>, 1, path
    (told["wrong"] + small(path, there)).map { |wrong| [path, *wrong].join(" | ") }
  end

  def test_each_control_of_each_station
    prepare_all
    assert_empty(PAGES.flat_map { |path, there| wrong_at(path, there) })
  end

  def test_each_control_of_the_stage
    prepare_all
    assert_empty wrong_at("/stage", ".hand")
  end
end
