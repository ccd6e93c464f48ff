# frozen_string_literal: true

require_relative "../lib/bavard/core/pieces/outfit"
require_relative "stage_visit"

module Bench
  # A stage with one of each kind of piece: dressed in each outfit, and left alone in it.
  class StageOutfits
    include StageVisit

    ROUNDS = 3
    IDLE_S = 8
    CLOCK_TICKS = 100.0
    # As the page sends it; seen where the draft is drawn.
    SENT = <<~JS
      (async () => {
        const token = document.querySelector("meta[name=csrf]").content;
        const headers = { "X-CSRF-Token": token, "X-Requested-With": "XMLHttpRequest", "Content-Type": "application/json" };
        window.sent = (what, body) => fetch(`${location.pathname}/${what}`, { method: "POST", headers, body: JSON.stringify(body) });
        for (const kind of arguments[0]) await window.sent("edits", { do: "place", kind });
      })()
    JS
    DRESSED = <<~JS
      (async () => {
        const pieces = document.querySelector("#draft").contentDocument.querySelector("#stage");
        const began = performance.now();
        const seen = new Promise((done) => {
          const watch = new MutationObserver(() => { watch.disconnect(); requestAnimationFrame(() => done(performance.now() - began)); });
          watch.observe(pieces, { subtree: true, attributes: true, attributeFilter: ["style"] });
        });
        window.sent("edits", { do: "outfit", outfit: arguments[0] });
        return await seen;
      })()
    JS

    PUT_ON_AIR = "window.sent('put-on-air', {}).then((answer) => answer.status)"

    # @return [Hash] outfit_half_ms, outfit_most_ms: from the press to the draft; outfit_idle_percent: of a core, on a screen, by outfit
    def run
      with_scene do
        page = signed_in
        said(page, SENT, Bavard::Core::Pieces::KINDS.keys - %w[chat space])
        {**switched(page), outfit_idle_percent: idle(page)}
      end
    end

    private

    def outfits = Bavard::Core::Pieces::Outfit.shipped.keys

    def switched(page)
      took = Array.new(ROUNDS) do
        outfits.map do |outfit|
          sleep 0.5
          said(page, DRESSED, outfit)
        end
      end.drop(1).flatten.sort
      {outfit_half_ms: took[took.size / 2].round(1), outfit_most_ms: took.last.round(1)}
    end

    def idle(page)
      outfits.to_h do |outfit|
        said(page, DRESSED, outfit)
        said(page, PUT_ON_AIR) == 200 or raise "not on air"
        [outfit, screen_alone]
      end
    end

    # With no other page open.
    def screen_alone
      alone = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1920, 1080],
        browser_options: BROWSER)
      alone.go_to(@scene.link)
      sleep 0.1 until alone.at_css("[data-piece=chat1]")
      sleep 3
      before = ticks(alone.process.pid)
      sleep IDLE_S
      ((ticks(alone.process.pid) - before) / CLOCK_TICKS / IDLE_S * 100).round(2)
    ensure
      alone&.quit
    end

    # Of a browser with all of its processes.
    def ticks(pid)
      own = File.read("/proc/#{pid}/stat").split(")").last.split.values_at(11, 12).sum(&:to_i)
      own + File.read("/proc/#{pid}/task/#{pid}/children").split.sum { |child| ticks(child) }
    rescue Errno::ENOENT, Errno::ESRCH
      0
    end
  end
end
