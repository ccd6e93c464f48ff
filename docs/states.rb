# frozen_string_literal: true

require "cgi"
require "ferrum"
require "fileutils"
require "json"
require "tmpdir"
require "vips"

# Walks every screen of a running demo show: each station and what opens on it (menus, sheets, dialogs, kinds of pieces, groups of the
# inspector), then the same pages empty and with long and right-to-left names, and what is broken; on sheets of twelve, to be looked at.
#   bin/pictures --states [FOLDER [night|day [WIDTHxHEIGHT]]]
class States
  OPTIONS = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
             "disable-sync" => nil, "hide-scrollbars" => nil, "use-fake-device-for-media-stream" => nil, "use-fake-ui-for-media-stream" => nil}.freeze
  EMAIL = "odalys@reedmere.example"
  PASSWORD = "reeds-and-water-42"
  PAGES = %w[/feeds /feeds/describe/ /gate /people/ /log/ /dress /dress/cast/ /dress/cues/ /dress/files/ /dress/fellows/ /stage /links /links/report
    /prompter/ /prompter/?over /account/places /account/change-password /account/multifactor-manage].freeze
  BROKEN = %w[/nothing /stage/999999 /people/join/gone /air/00000000000000000000000000000000 /account/login /account/create-account
    /account/reset-password-request].freeze
  # What opens something, and is closed: of those that are alike, one. Kinds of pieces, groups of the inspector and rules are each their own.
  OPENERS = <<~JS
    const there = [...document.querySelectorAll("summary, [aria-haspopup], [aria-expanded=false], [role=tab], #order .button, .cue-row, .row.aired, " +
      "[id$=-open], [id$=-add], #hand-on, .edit")].filter((one) => one.checkVisibility() && !one.disabled && !one.closest(".station") && !one.matches("a[href]"));
    const own = (one) => one.dataset.piece?.replace(/\\d+$/, "") || (one.closest("#order") && one.textContent) || one.dataset.part || (one.matches(".rule-open") && one.textContent) || one.id;
    const alike = (one) => `${one.closest("[id]")?.id} ${one.tagName} ${one.className} ${one.closest("details")?.className}`;
    const first = [...new Map(there.map((one) => [own(one) || alike(one), one]).reverse()).values()].reverse();
    const label = (one) => (own(one) || one.getAttribute("aria-label") || one.textContent).trim().replace(/\\s+/g, " ").slice(0, 40);
  JS
  # On every page the same.
  ACCOUNT = "Your account"
  SHEET = [3, 4].freeze
  ACROSS = 620
  LONG = "Wilhelmina van der Rietbroek-Oosterschelde’s very long night watch at the reedbeds of the northern shore"
  RIGHT_TO_LEFT = "هدهد الفجر على الشاطئ الشمالي"

  def initialize(address, password, folder, scheme, size)
    @address = address
    @password = password
    @folder = folder
    @scheme = scheme
    @size = size
    @taken = []
    @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: size, timeout: 60,
      browser_options: OPTIONS)
  end

  # @return [Integer] how many states there were
  def take
    FileUtils.mkdir_p(@folder)
    Dir.mktmpdir do |kept|
      @kept = kept
      broken
      sign_in
      PAGES.each { |path| walk("demo", path) }
      sign_up("Kiln night", "Maren")
      walk("lead", "/lead/")
      ask("/lead/leave")
      PAGES.each { |path| look("empty", path) }
      sign_up(LONG, RIGHT_TO_LEFT)
      lengthen
      PAGES.each { |path| look("long", path) }
      sheets
    end
    @taken.size
  ensure
    @browser.quit
  end

  private

  def go(path)
    @browser.go_to("#{@address}#{path}")
    @browser.page.command("Emulation.setEmulatedMedia", features: [{name: "prefers-color-scheme", value: @scheme}])
    sleep 0.9
  end

  def js(expression)
    answer = @browser.page.command("Runtime.evaluate", expression:, awaitPromise: true, returnByValue: true)
    raise answer["exceptionDetails"].to_s[0, 400] if answer["exceptionDetails"]

    answer.dig("result", "value")
  end

  def sign_in
    go("/account/login")
    @browser.at_css("#login").focus.type(EMAIL)
    @browser.at_css("#password").focus.type(@password, :enter)
    sleep 0.1 until @browser.at_css(".signal")
  end

  def sign_up(show, host)
    @browser.cookies.clear
    go("/account/create-account")
    {"show_name" => show[0, 60], "host_name" => host, "login" => "states-#{rand(1_000_000)}@kiln.example", "password" => PASSWORD}
      .each { |name, value| @browser.at_css("input[name=#{name}]").focus.type(value) }
    @browser.css("form [type=submit]").last.click
    sleep 0.1 until @browser.at_css("#lead-steps")
  end

  def ask(path, values = {})
    asked = "send(#{JSON.generate(path)}, #{JSON.generate(values)})"
    js("import('#{modules}house/send.js').then(({ send }) => #{asked}).catch(({ message }) => ({ error: message }))")
  end

  def modules = js("[...document.scripts].map(({ src }) => src).find((src) => /js\\/\\w+\\/main.js/.test(src)).replace(/\\w+\\/main.js.*/, '')")

  # As much as there may be of each name.
  def lengthen
    stage = ask("/lead/stage")["stage"]
    ask("/lead/leave")
    ask("/feeds/", "kind" => "irc", "paste" => "irc://127.0.0.1:1/#reedmere", "name" => LONG[0, 60], "anyway" => "1")
    ask("/stage/#{stage}/rename", "name" => RIGHT_TO_LEFT)
    go("/stage")
    %w[alerts goal text].each { |kind| ask("/stage/#{stage}/edits", "do" => "add", "kind" => kind) }
    ask("/people/invite", "role" => "moderator", "name" => LONG[0, 60])
    ask("/prompter/links", "name" => LONG[0, 60])
  end

  def broken
    @browser.page.command("Emulation.setEmulatedMedia", features: [{name: "prefers-color-scheme", value: @scheme}])
    BROKEN.each { |path| look("broken", path) }
    go("/account/login")
    @browser.at_css("#login").focus.type("nobody@reedmere.example")
    @browser.at_css("#password").focus.type("wrong", :enter)
    sleep 1
    shot("broken /account/login, refused")
  end

  def look(state, path)
    go(path)
    shot("#{state} #{path}")
  end

  def walk(state, path)
    look(state, path)
    js("(() => { #{OPENERS}\nreturn first.map(label); })()").each_with_index do |label, at|
      next if label == ACCOUNT && @taken.any? { |taken, _| taken.end_with?(ACCOUNT) }

      go(path)
      js("(() => { #{OPENERS}\nfirst[#{at}]?.click(); })()")
      sleep 0.6
      shot("#{state} #{path} › #{label}")
    end
  end

  def shot(label)
    path = File.join(@kept, format("%04d.png", @taken.size))
    @browser.screenshot(path:)
    @taken << [label, path]
    warn label if ENV["TOLD"]
  end

  def sheets
    name = "#{@scheme == "dark" ? "night" : "day"}-#{@size.first}"
    @taken.each_slice(SHEET.reduce(:*)).with_index do |slice, number|
      cells = slice.map { |label, path| cell(label, path) }
      sheet = Vips::Image.arrayjoin(cells, across: SHEET.first, shim: 6, background: [90, 90, 90])
      sheet.write_to_file(File.join(@folder, format("%s-%02d.png", name, number + 1)))
    end
  end

  def cell(label, path)
    picture = Vips::Image.new_from_file(path).thumbnail_image(ACROSS).extract_band(0, n: 3)
    words = Vips::Image.text(CGI.escapeHTML(label), font: "sans 12").embed(6, 4, ACROSS, 22)
    Vips::Image.new_from_array([[0]]).embed(0, 0, ACROSS, 22).cast(:uchar).bandjoin([0, 0]).+(words).cast(:uchar).copy(interpretation: :srgb).join(
      picture, :vertical
    )
  end
end

folder = ARGV[0] || File.expand_path("../tmp/states", __dir__)
scheme = {"day" => "light"}.fetch(ARGV[1], "dark")
size = (ARGV[2] || "1280x800").split("x").map(&:to_i)
data = ENV.fetch("BAVARD_DATA", File.expand_path("../var", __dir__))
states = States.new("http://127.0.0.1:#{ENV.fetch("PORT", "4600")}", File.read(File.join(data, "sign-in.txt")).strip, folder, scheme, size)
puts "#{states.take} states in #{folder}"
