# frozen_string_literal: true

require "ferrum"
require "vips"
require_relative "scene"
require_relative "stage_visit"

module Bench
  # Hostile lines as the air page draws them, in a real browser: whether anything of them becomes an element, runs, or paints outside of
  # the chat's box.
  class HostileDrawn
    BOX = {"x" => 40, "y" => 40, "width" => 600, "height" => 900}.freeze
    SIZE = [680, 980].freeze
    # So many stand at once: more than the box has room for.
    AT_ONCE = 40
    # What lines are made of, with the picture of a feed's mark; and where a page may take something from.
    PREPARED = <<~JS
      window.struck = 0;
      for (const name of ["alert", "confirm", "prompt", "eval", "open"]) window[name] = () => { window.struck += 1; };
      addEventListener("securitypolicyviolation", () => { window.struck += 1; });
      addEventListener("error", () => { window.struck += 1; });
      const own = new Set(["DIV", "SPAN", "BDI", "WBR", "TIME", "IMG", "svg", "use", "path", "circle", "rect", "polygon"]);
      const foreign = (node) => !own.has(node.tagName) || node.getAttributeNames().some((name) =>
        name.startsWith("on") || (["href", "src"].includes(name) && !/^(\\/pictures\\/|#)/.test(node.getAttribute(name))));
      window.draw = async (cards) => {
        const { lineOf } = await import(new URL("line.js", document.querySelector("script[type=module]").src));
        const stack = document.querySelector("[data-piece=chat1] .stack");
        stack.replaceChildren(...cards.map((card) => lineOf(card, {})));
        const nodes = [...stack.querySelectorAll("*")];
        return [stack.children.length, nodes.filter(foreign).length, window.struck];
      };
    JS

    # @param cards [Array<Hash>] as Live::LineCard makes them
    def initialize(cards)
      @cards = cards
    end

    # @return [Hash] drawn: lines; markup: elements that are none of ours, and what ran; outside: pictures with a pixel outside of the box
    def run
      @scene = Scene.new(**BOX.transform_keys(&:to_sym))
      open
      found = {drawn: 0, markup: 0, outside: 0, pictures: 0}
      @cards.each_slice(AT_ONCE) { |cards| look(cards, found) }
      found
    ensure
      @browser&.quit
      @scene&.stop
    end

    private

    def open
      @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: SIZE, timeout: 120,
        browser_options: StageVisit::BROWSER)
      @page = @browser.create_page
      @page.command("Emulation.setDeviceMetricsOverride", width: SIZE[0], height: SIZE[1], deviceScaleFactor: 1, mobile: false)
      @page.command("Emulation.setDefaultBackgroundColorOverride", color: {r: 0, g: 0, b: 0, a: 0})
      @page.go_to(@scene.link)
      sleep 0.05 until @page.evaluate("Boolean(document.querySelector('[data-piece=chat1] .stack'))")
      @page.execute("document.querySelector('#stage').style.transform = 'none'")
      @page.execute(PREPARED)
    end

    def look(cards, found)
      drawn, foreign, struck = @page.evaluate_async("draw(#{JSON.generate(cards)}).then(arguments[0])", 60)
      image = Vips::Image.new_from_buffer(@page.screenshot(format: "png", encoding: :binary), "")
      alpha = image.extract_band(3)
      raise "nothing is drawn" unless alpha.max.positive?

      outside = alpha.draw_rect([0], *BOX.values_at("x", "y", "width", "height"), fill: true).max.positive?
      found[:drawn] += drawn
      found[:markup] += foreign + struck
      found[:outside] += 1 if outside
      found[:pictures] += 1
    end
  end
end
