# frozen_string_literal: true

require_relative "../lib/bavard/core/chat/line"
require_relative "../lib/bavard/core/gate/verdict"
require_relative "../lib/bavard/store/lines"
require_relative "../lib/bavard/store/members"
require_relative "../lib/bavard/store/shows"
require_relative "share"
require_relative "stage_visit"
require_relative "steal"

module Bench
  # The prompter with ten thousand lines back, how soon what one moderator does is seen by another and on screen, and how long a slow machine
  # stands still when many lines come at once.
  class Prompter
    include StageVisit

    LINES = 10_000
    BLOCK = 40
    SCROLL_S = 5
    PULLS = 60
    # Says when each line was seen to be pulled, on the clock that all pages of this machine share.
    WATCH = <<~JS
      window.seen = {};
      new MutationObserver((changes) => {
        for (const { target } of changes) {
          const row = target.closest?.(".row.pulled");
          if (row) window.seen[row.dataset.line] ??= performance.timeOrigin + performance.now();
        }
      }).observe(document.querySelector("#blocks"), { attributes: true, subtree: true, attributeFilter: ["class"] });
    JS
    WATCH_SCREEN = <<~JS
      window.gone = {};
      new MutationObserver((changes) => {
        for (const { removedNodes } of changes) for (const { dataset } of removedNodes)
          if (dataset?.line) requestAnimationFrame(() => { window.gone[dataset.line] ??= performance.timeOrigin + performance.now(); });
      }).observe(document.querySelector("#stage"), { childList: true, subtree: true });
    JS
    # As the page's own key does it.
    PULL = <<~JS
      const at = performance.timeOrigin + performance.now();
      fetch(`${location.pathname}act`, { method: "POST", headers: { "Content-Type": "application/json", "X-Requested-With": "XMLHttpRequest" },
        body: JSON.stringify({ do: "pull", line: arguments[0] }) }).then(() => arguments[1](at));
    JS
    # How long the page stands still at most, without a way for anything that comes, a press or a frame.
    STANDS_STILL = <<~JS
      window.still = [0];
      new PerformanceObserver((list) => window.still.push(...list.getEntries().map((task) => task.duration))).observe({ type: "longtask" });
    JS
    # At once, held for a moment each, on a machine that slow.
    BURST = 600
    HOLD_MS = 400
    SLOWED = 6
    SCROLL = <<~JS
      const [seconds, done] = arguments;
      const scroller = document.querySelector("#scroller");
      const began = performance.now();
      let frames = 0;
      requestAnimationFrame(function next(now) {
        frames += 1;
        scroller.scrollTop -= 90;
        if (scroller.scrollTop === 0) scroller.scrollTop = scroller.scrollHeight;
        if (now - began < seconds * 1000) return requestAnimationFrame(next);
        done((frames * 1000) / (now - began));
      });
    JS

    def run
      with_scene("stay_ms" => "for good", "at_most" => 20) do
        told, steal = Steal.around { {**far_back, **deeds, **burst} }
        {**told, steal_percent: steal.round(1)}
      end
    end

    private

    def far_back
      fill
      page = prompter
      still = frames(page, 3)
      page.execute("document.querySelector('#scroller').scrollTop = 0") || sleep(0.1) until blocks(page) * BLOCK >= LINES
      sleep 1
      rate = page.evaluate_async(SCROLL, 30, SCROLL_S).round(1)
      page.execute("gc()")
      {frames_per_s: rate, frames_still: still, heap_mb: (page.evaluate("performance.memory.usedJSHeapSize") / 1e6).round(1),
       nodes: page.evaluate("document.querySelectorAll('*').length"), lines: blocks(page) * BLOCK}
    end

    def burst
      page = prompter
      page.command("Emulation.setCPUThrottlingRate", rate: SLOWED)
      page.execute(STANDS_STILL)
      BURST.times { |number| @scene.typist.say("burst #{number} over the water meadows.") }
      sleep 0.5 until page.evaluate("document.querySelector('#blocks').lastElementChild.textContent.includes('burst #{BURST - 1} ')")
      {burst_stands_still_ms: page.evaluate("Math.max(...window.still)").round, burst_lines: BURST, slowed: SLOWED}
    end

    def blocks(page) = page.evaluate("document.querySelectorAll('.block').length")

    # Lines of some days, as if they had come.
    def fill
      @scene.app.stop
      db = TestDatabase.db
      show_id, feed_id = db[:feeds].get(%i[show_id id])
      from_ms = (Time.now.to_r * 1000).to_i - (LINES * 1000)
      (0...LINES).each_slice(500) do |numbers|
        Bavard::Store::Lines.new(db).add(show_id, numbers.map { |number| entry(number, feed_id, from_ms + (number * 1000)) })
      end
      hold(db, show_id)
      @address = Bavard::Store::Members.new(db).add_prompter(show_id, name: "Bench", acts: true, at_ms: 0).then { |link| "/prompter/#{link.token}/" }
      @scene.app.start
    end

    def hold(db, show_id)
      shows = Bavard::Store::Shows.new(db)
      gate = shows.find(show_id).gate
      shows.keep_gate(show_id, gate.merge("hold" => gate["hold"].merge("ms" => HOLD_MS)))
    end

    def entry(number, feed_id, at_ms)
      said = Bavard::Core::Said.new("viewer#{number % 300}", nil, nil, [], "line #{number} of a long night, #{"reeds and water " * (number % 6)}",
        false, false)
      line = Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, feed_id, nil, nil, at_ms, said), id: at_ms * 1000)
      Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false, [["received", at_ms, nil]])
    end

    def prompter
      browser.create_page.tap do |page|
        page.go_to("#{@scene.app.address}#{@address}")
        sleep 0.1 until page.evaluate("document.querySelectorAll('.row').length > 20")
      end
    end

    def deeds
      one = prompter
      other = prompter
      screen = browser.create_page.tap { |page| page.go_to(@scene.link) }
      sleep 0.1 until screen.evaluate("document.querySelectorAll('.line').length > 0")
      other.execute(WATCH)
      screen.execute(WATCH_SCREEN)
      took = Array.new(PULLS) { |number| pull(one, other, screen, number) }
      {by_another: told(took.map(&:first)), on_screen: told(took.map(&:last))}
    end

    # @return [Array(Float, Float)] ms until another prompter shows it, and until it is off the screen
    def pull(one, other, screen, number)
      @scene.typist.say("pull me, number #{number}.")
      find = "[...document.querySelectorAll('.row')].find((row) => row.textContent.includes('pull me, number #{number}.'))?.dataset.line"
      sleep 0.02 until one.evaluate(find)
      line = one.evaluate(find)
      sleep 0.02 until [other, screen].all? { |page| page.evaluate("Boolean(document.querySelector('[data-line=\"#{line}\"]'))") }
      sleep 0.15
      at = one.evaluate_async(PULL, 10, line.to_i)
      sleep 0.02 until other.evaluate("window.seen['#{line}'] > 0") && screen.evaluate("window.gone['#{line}'] > 0")
      [other.evaluate("window.seen['#{line}']") - at, screen.evaluate("window.gone['#{line}']") - at]
    end

    def told(took)
      {half_ms: Share.at(took.sort, 0.5), p99_ms: Share.at(took.sort, 0.99)}
    end
  end
end
