# frozen_string_literal: true

require_relative "share"
require_relative "stage_visit"

module Bench
  # From an edit to the draft, from Put on air to a screen, and sixty pieces of which one is dragged.
  class StageEdits
    include StageVisit

    EDITS = 200
    WARM_UP = 100
    PUTS = 60
    PIECES = 60
    # An edit is sent as the page sends it, and seen where the draft is drawn.
    EDIT = <<~JS
      (async () => {
        const token = document.querySelector("meta[name=csrf]").content;
        const piece = document.querySelector("#draft").contentDocument.querySelector("[data-piece=chat1]");
        const took = [];
        for (let index = 0; index < arguments[0]; index += 1) {
          const began = performance.now();
          const seen = new Promise((done) => {
            const watch = new MutationObserver(() => { watch.disconnect(); requestAnimationFrame(() => done(performance.now() - began)); });
            watch.observe(piece, { attributes: true, attributeFilter: ["style"] });
          });
          fetch(`${location.pathname}/edits`, { method: "POST", headers: { "X-CSRF-Token": token, "X-Requested-With": "XMLHttpRequest", "Content-Type": "application/json" },
            body: JSON.stringify({ do: "set", piece: "chat1", values: { plate_opacity: 20 + (index % 60) } }) });
          took.push(await seen);
          await new Promise((done) => setTimeout(done, 40));
        }
        return took;
      })()
    JS
    # Pieces are dragged by the mouse's own events, one for each frame.
    DRAG = <<~JS
      (async () => {
        const hands = document.querySelector("#hands");
        const hand = hands.querySelector(".hand");
        const box = hand.getBoundingClientRect();
        hands.setPointerCapture = () => {};
        const send = (target, type, x) => target.dispatchEvent(new PointerEvent(type, { bubbles: true, clientX: box.left + 5 + x, clientY: box.top + 5, button: 0, pointerId: 1 }));
        send(hand, "pointerdown", 0);
        let frames = 0;
        const began = performance.now();
        while (performance.now() - began < 3000) {
          await new Promise(requestAnimationFrame);
          frames += 1;
          send(hands, "pointermove", frames % 200);
        }
        send(hands, "pointerup", 0);
        return (frames * 1000) / (performance.now() - began);
      })()
    JS

    def run = {**edits, **sixty}

    private

    def edits
      with_scene do
        page = signed_in
        edit = ->(count) { page.evaluate_async("(#{EDIT.strip.sub("arguments[0]", count.to_s)}).then(arguments[0])", 120) }
        edit[WARM_UP]
        took = edit[EDITS].sort
        {edit_half_ms: Share.at(took, 0.5).round, edit_p99_ms: Share.at(took, 0.99).round, **puts_on_air(page)}
      end
    end

    # From the press to the screen, on one clock: both pages are of one browser.
    def puts_on_air(page)
      screen = browser.create_page
      screen.go_to(@scene.link)
      sleep 0.1 until screen.at_css("[data-piece=chat1]")
      screen.execute(<<~JS)
        window.seen = [];
        new MutationObserver(() => window.seen.push(performance.timeOrigin + performance.now()))
          .observe(document.querySelector("[data-piece=chat1]"), { attributes: true, attributeFilter: ["style"] });
      JS
      took = Array.new(PUTS) { |index| put(page, screen, index) }.sort
      {air_half_ms: Share.at(took, 0.5).round, air_p99_ms: Share.at(took, 0.99).round}
    end

    def put(page, screen, index)
      page.evaluate_async(<<~JS, 20)
        const headers = { "X-CSRF-Token": document.querySelector("meta[name=csrf]").content, "X-Requested-With": "XMLHttpRequest" };
        const body = JSON.stringify({ do: "set", piece: "chat1", values: { plate_opacity: #{20 + (index % 60)} } });
        fetch(`${location.pathname}/edits`, { method: "POST", headers: { ...headers, "Content-Type": "application/json" }, body }).then(() => setTimeout(arguments[0], 120));
      JS
      screen.execute("window.seen = []")
      pressed = page.evaluate_async(<<~JS, 20)
        const headers = { "X-CSRF-Token": document.querySelector("meta[name=csrf]").content, "X-Requested-With": "XMLHttpRequest" };
        const done = arguments[0];
        const at = performance.timeOrigin + performance.now();
        fetch(`${location.pathname}/put-on-air`, { method: "POST", headers }).then(() => done(at));
      JS
      sleep 0.02 until (seen = screen.evaluate("window.seen[0] ?? 0")).positive?
      seen - pressed
    end

    def sixty
      with_scene(more: PIECES - 1) do
        page = signed_in
        idle = frames(page, 2)
        {sixty_frames_per_s: page.evaluate_async("(#{DRAG}).then(arguments[0])", 20).round(1), sixty_idle_frames_per_s: idle}
      end
    end
  end
end
