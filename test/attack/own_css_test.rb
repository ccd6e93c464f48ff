# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../../lib/bavard/core/own_code/own_css"

# What somebody gains by CSS of their own: another piece's pixels, or the rest of the picture.
class OwnCssAttackTest < PreparedTest
  OwnCss = Bavard::Core::OwnCode::OwnCss
  BOX = {"x" => 200, "y" => 120, "width" => 240, "height" => 120, "stay_ms" => "for good"}.freeze
  OTHER = BOX.merge("x" => 20, "y" => 20, "width" => 160, "height" => 300).freeze
  # Ways to name something that is not one's own.
  SELECTORS = [".chat", ".chat.chat", ".chat[data-kind]", ".chat:first-child", ".chat:is(.chat)", ".chat:not(.name)", ".chat::before", ".chat::after", ".chat ~ .chat",
    ".chat + .chat", ".chat ~ *", ".chat~.chat .name", ".chat+*", ".chat:has(.name) ~ .chat", "*", "* ~ *", "*.chat", ":is(.chat)", ":where(.chat) ~ *", ".line ~ .line", ".line",
    ".line::before", ".plate", ".name", ".text::after", ".stack", ":has(.chat)", ":not(.chat)", ".chat .chat", ".chat > *", ":root", "html", "body", "#stage",
    ".piece", ".chat, .piece", ".chat , html", "::backdrop", ".chat::backdrop", "[data-piece]", ".chat[data-piece=chat2]", ".chat:has(~ .chat)"].freeze
  # Ways to paint outside of a box, or to become another one.
  DECLARATIONS = ["position: fixed; inset: 0; background: red", "position: absolute; inset: -999px; background: red; z-index: 2147483647",
    "margin: -999px; padding: 999px; background: red", "box-shadow: 0 0 0 999px red", "outline: 999px solid red", "filter: drop-shadow(300px 0 0 red) blur(40px)",
    "transform: translate(-150px, -60px) scale(9); background: red", "translate: -200px; scale: 5; rotate: 45deg; background: red", "width: 999px !important; height: 999px; background: red",
    "border: 300px solid red; box-sizing: content-box", "border-image: linear-gradient(red, red) 30 / 9px / 300px", "animation: fly 1ms infinite; background: red",
    "transition: all 9s; left: 0; top: 0; background: red", "overflow: visible; contain: none; clip-path: none; background: red", "display: contents; background: red",
    "--x: 0px; --y: 0px; --width: 999px; --height: 999px; background: red", "content: \"x\"; position: absolute; left: -300px; top: -200px; width: 999px; height: 999px; background: red; z-index: 99",
    "letter-spacing: 99px; font-size: 400px; color: red; text-shadow: -200px 0 red", "backdrop-filter: invert(1); mix-blend-mode: difference; background: red",
    "visibility: hidden; opacity: 0", "perspective: 1px; transform-style: preserve-3d; background: red", "float: left; columns: 9; background: red", "color: red; background: red !important"].freeze
  FLY = "@keyframes fly { from { transform: translate(-200px, -100px); position: fixed; width: 999px; left: 0 } to { transform: scale(9); box-shadow: 0 0 0 999px red; left: 300px } }"

  # What stands in its box is covered; the cover's colour is the number of the sheet that is worn.
  COVER = <<~JS
    const cover = document.createElement("div");
    cover.id = "cover";
    cover.style.cssText = "position:fixed;z-index:2147483647;left:200px;top:120px;width:240px;height:120px";
    document.body.append(cover);
    document.body.style.background = "#123";
    window.ownSheet = new CSSStyleSheet();
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, window.ownSheet];
  JS
  COVERED = [200, 120, 240, 120].freeze
  MIDDLE = [320, 180].freeze

  # Whether the page is still drawn; Chromium has been seen to stop at that, with its scripts going on.
  FRAME = "requestAnimationFrame(() => requestAnimationFrame(() => arguments[0](true)))"
  FRAME_WITHIN_S = 15

  def open_covered
    open_screen(link) { assert_selector ".piece", minimum: 3 }
    on_screen do
      assert_selector "[data-piece=chat2] .line", text: "hello there"
      page.driver.resize(640, 360)
      execute_script(COVER)
    end
    wait_for("everything to stand still") { on_screen { evaluate_script("document.getAnimations().length === 0 && document.fonts.status === 'loaded'") } }
  end

  def wear(css)
    @number = @number.to_i + 1
    @worn = "#{css} #cover { background: rgb(#{@number} 0 0) }"
    on_screen { execute_script("window.ownSheet.replaceSync(#{@worn.to_json})") }
  end

  def drawn?
    on_screen { page.driver.browser.evaluate_async(FRAME, FRAME_WITHIN_S) }
  rescue Ferrum::ScriptTimeoutError
    false
  end

  def open_again
    on_screen { Capybara.current_session.reset! }
    open_covered
    on_screen { execute_script("window.ownSheet.replaceSync(#{@worn.to_json})") }
  end

  # @return [Vips::Image] outside of the box, once what is worn is drawn
  def outside
    wait_for("sheet #{@number} to be drawn", limit_s: 200) do
      open_again unless drawn?
      image = pictured
      image.draw_rect([0, 0, 0], *COVERED, fill: true) if image&.getpoint(*MIDDLE) == [@number, 0, 0]
    end
  end

  # Nothing where the page stops being drawn just then.
  def pictured
    on_screen { picture }.extract_band(0, n: 3)
  rescue Ferrum::TimeoutError
    open_again
    nil
  end

  # @return [Array<String>] each of the declarations with all selectors: what one of them paints outside of the box, no other one takes away
  def sheets
    DECLARATIONS.map do |declarations|
      bound = SELECTORS.map { |selector| OwnCss.read("#{FLY} #{selector} { #{declarations} }", "chat1").css }
      @bound = @bound.to_i + bound.grep(/\]/).size
      bound.join
    end
  end

  # A browser that is busy may show a part of a picture before the rest of it: what is changed stays changed.
  def changes?(css, before)
    wear(css)
    5.times.none? { (outside - before).abs.max.zero? }
  end

  def test_no_sheet_changes_a_pixel_outside_of_its_piece
    prepare(feed: feed_address, pieces: [BOX, OTHER, BOX.merge("kind" => "text", "x" => 460).except("stay_ms")], width: 640, height: 360)
    until_live
    server.say("ann", "hello there")
    open_covered
    wear("")
    before = outside
    changed = sheets.select { |css| changes?(css, before) }
    assert_operator @bound, :>=, 500
    assert_empty changed.first(5), "#{changed.size} sheets"
    # What this would have seen: the same without being bound.
    assert changes?("[data-piece=chat1].chat ~ .chat { background: red }", before)
  end
end
