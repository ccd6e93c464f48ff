# frozen_string_literal: true

require "json"
require_relative "../support/prepared"
require_relative "../support/proxy"

# What viewers see, in a real browser.
class AirPageTest < PreparedTest
  AWKWARD = JSON.parse(File.read(File.expand_path("../../demo/scripts/awkward_lines.json", __dir__)))["lines"]
  WIDTHS = [160, 300, 541, 1920].freeze
  HEIGHT = 320

  # Four pieces side by side, one of each width, so that one picture tells of all.
  def test_no_awkward_line_paints_a_pixel_outside_its_piece
    x = 10
    boxes = WIDTHS.map { |width| [x, 40, width, HEIGHT].tap { x += width + 20 } }
    prepare(feed: feed_address, width: x, height: 400,
      pieces: boxes.map { |left, top, width, height| {"x" => left, "y" => top, "width" => width, "height" => height, "at_most" => 4} })
    until_live
    open_screen(link, width: x, height: 400)
    newest = []
    AWKWARD.each do |nick, text|
      server.say(nick.tr(" ", "_"), text)
      on_screen do
        newest = wait_for("the line #{text[0, 30]}") { newest_lines.then { |now| now if now.size == 4 && now.uniq.size == 1 && now != newest } }
        assert outside_clear?(picture, boxes), "#{text[0, 30]} paints outside of its piece"
      end
    end
    on_screen { assert(boxes.all? { |box| painted_inside(picture, *box).positive? }) }
  end

  def test_twelve_pages_of_one_browser_all_get_every_line
    prepare(feed: feed_address)
    until_live
    on_screen do
      visit link
      windows = [current_window] + Array.new(11) { open_new_window.tap { |window| within_window(window) { visit link } } }
      server.say("ann", "to all twelve")
      windows.each { |window| within_window(window) { assert_selector ".line", text: "to all twelve", count: 1 } }
      within_window(windows.last) do
        visit "#{@app.address}/healthz"
        assert_text "answers"
      end
    end
  end

  def test_a_line_deleted_while_a_screen_was_away_is_never_painted
    prepare(feed: oxbow.address)
    proxy = Proxy.new(@app.port)
    @started << proxy
    say("before")
    open_screen("http://127.0.0.1:#{proxy.port}/air/#{@stage.token}") { assert_selector ".line", text: "before" }
    on_screen { execute_script(WATCH) }
    proxy.cut
    say("slip of the tongue")
    oxbow.post("/delete", "id" => oxbow.lines.find { |line| line["text"] == "slip of the tongue" }["id"])
    say("after")
    proxy.mend
    on_screen do
      assert_selector ".line", text: "after"
      assert_equal ["after"], evaluate_script("[...document.seen]")
      assert_selector ".line", text: "before", count: 1
    end
  end
  WATCH = <<~JS
    document.seen = new Set();
    new MutationObserver((changes) => changes.forEach((change) => change.addedNodes.forEach((node) => document.seen.add(node.querySelector(".text").textContent))))
      .observe(document.querySelector(".chat .stack"), { childList: true });
  JS

  def test_a_page_whose_scripts_did_not_all_come_asks_for_them_again
    prepare(feed: oxbow.address)
    say("hello")
    on_screen { page.driver.browser.page.command("Network.setBlockedURLs", urls: ["*/voices_piece.js"]) }
    open_screen(link)
    on_screen do
      wait_for("a script to fail") { evaluate_script("performance.getEntriesByType('resource').some((one) => one.name.endsWith('/voices_piece.js'))") }
      assert_no_selector ".line"
      page.driver.browser.page.command("Network.setBlockedURLs", urls: [])
      assert_selector ".line", text: "hello"
    end
  end

  def test_a_delete_takes_the_line_off
    prepare(feed: oxbow.address)
    say("oops")
    say("fine")
    open_screen(link) { assert_selector ".line", count: 2 }
    oxbow.post("/delete", "id" => oxbow.lines.first["id"])
    on_screen { assert_no_selector ".line", text: "oops" }
    on_screen { assert_selector ".line", text: "fine" }
  end

  def test_a_screen_of_another_size_draws_the_text_anew_and_a_resize_empties_nothing
    prepare(feed: feed_address)
    until_live
    server.say("ann", "sharp at every size")
    open_screen(link, width: 960, height: 540) { assert_selector ".line", text: "sharp" }
    small = on_screen { settled_picture }
    resize(1920, 1080)
    large = on_screen { settled_picture }
    on_screen { assert_selector ".line", text: "sharp", count: 1 }
    stretched = small.resize(2, kernel: :cubic)
    assert_operator edges(large), :>, 1.3 * edges(stretched)
  end

  def test_options_in_the_link_change_that_screen_alone
    prepare(feed: feed_address)
    until_live
    server.say("ann", "hello")
    open_screen("#{link}?Text-Size=60&newest=TOP&sparkle=1") { assert_selector ".line", text: "hello" }
    on_screen do
      assert_equal "60px", evaluate_script("getComputedStyle(document.querySelector('.text')).fontSize")
      assert_no_text "sparkle"
    end
    open_screen(link, name: :other) { assert_selector ".line", text: "hello" }
    on_screen(:other) { assert_equal "25px", evaluate_script("getComputedStyle(document.querySelector('.text')).fontSize") }
  end

  def test_newest_at_the_bottom_or_at_the_top
    prepare(feed: feed_address, pieces: [PIECE, PIECE.merge("x" => 1000, "newest" => "top")])
    until_live
    open_screen(link)
    %w[older newer].each do |text|
      server.say("ann", text)
      on_screen { assert_selector ".line", text:, count: 2 }
    end
    on_screen do
      wait_for("all to stand still") { evaluate_script("document.getAnimations().length === 0") }
      assert_operator height_of("chat1", "older"), :<, height_of("chat1", "newer")
      assert_operator height_of("chat2", "newer"), :<, height_of("chat2", "older")
      assert_equal 100, height_of("chat2", "newer")
    end
  end

  def test_viewers_words_are_words
    prepare(feed: feed_address)
    until_live
    server.say("ann", "<b>bold?</b> <script>document.title='gone'</script> <img src=x onerror=alert(1)>")
    open_screen(link) { assert_selector ".line", text: "<img src=x onerror=alert(1)>" }
    on_screen { assert_equal "Bavard", page.title }
  end

  private

  def height_of(piece, text)
    find(".chat[data-piece=#{piece}] .line", text:).evaluate_script("this.getBoundingClientRect().top").round
  end

  # The newest line's id in each piece.
  def newest_lines
    evaluate_script("[...document.querySelectorAll('.chat .stack')].map((stack) => stack.querySelector('.line:not(.leaving)')?.dataset.line).filter(Boolean)")
  end

  def say(text)
    oxbow.post("/say", "login" => "birdbath", "text" => text)
  end

  def outside_clear?(image, boxes)
    boxes.reduce(image.extract_band(3)) { |alpha, box| alpha.draw_rect([0], *box, fill: true) }.max.zero?
  end

  def resize(width, height)
    on_screen { page.driver.browser.page.command("Emulation.setDeviceMetricsOverride", width:, height:, deviceScaleFactor: 1, mobile: false) }
  end

  # Once two pictures after each other are the same.
  def settled_picture
    before = picture
    wait_for("the picture to settle") do
      now = picture
      same = now.size == before.size && (now - before).abs.max.zero?
      before = now
      same
    end
    before
  end

  # How much fine detail there is.
  def edges(image)
    kernel = Vips::Image.new_from_array([[0, -1, 0], [-1, 4, -1], [0, -1, 0]])
    image.extract_band(0, n: 3).colourspace("b-w").crop(0, 0, [image.width, 1800].min, [image.height, 1000].min).conv(kernel).abs.avg
  end
end
