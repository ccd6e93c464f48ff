# frozen_string_literal: true

require_relative "event_scene"
require_relative "share"
require_relative "steal"

module Bench
  # From an event on a socket to the painted alert; and a flood of events, beside which chat is to go on as before.
  class Alerts
    EVENTS = 60
    FLOOD = 10_000
    FLOOD_S = 60
    PER_WRITE = 10
    CHAT_EVERY_S = 0.5
    QUIET_CHAT = 20
    # When each alert and each line was painted, on the clock that all processes of this machine share.
    WATCH = <<~JS
      window.alerts = []; window.lines = {}; window.most = 0;
      new MutationObserver((changes) => { for (const { addedNodes } of changes) for (const node of addedNodes) {
        const chat = node.textContent?.match(/chat-\\d+/)?.[0];
        if (node.classList?.contains("alert")) requestAnimationFrame(() => window.alerts.push(performance.timeOrigin + performance.now()));
        if (chat) requestAnimationFrame(() => { window.lines[chat] ??= performance.timeOrigin + performance.now(); });
        window.most = Math.max(window.most, document.querySelectorAll(".alert").length);
      } }).observe(document, { subtree: true, childList: true });
    JS

    def run
      told, steal = Steal.around { {painted: painted, **flood} }
      {**told, steal_percent: steal.round(1)}
    end

    private

    def painted
      scene = EventScene.new([["alerts", {"motion_in" => "none", "motion_out" => "none"}]], cues: {"follow" => {"length_s" => 1}},
        queue: {"gap_ms" => 0}) { |browser| browser.evaluate_on_new_document(WATCH) }
      took = EVENTS.times.filter_map { |number| one(scene, number) }.sort
      {half_ms: Share.at(took, 0.5), p99_ms: Share.at(took, 0.99), events: took.size, never: EVENTS - took.size}
    ensure
      scene&.stop
    end

    # Each when nothing else plays.
    def one(scene, number)
      before = scene.browser.evaluate("window.alerts.length")
      sleep(1.15 + (rand * 0.05))
      at = scene.happen("follow", "viewer#{number}")
      sleep(0.5)
      painted = scene.browser.evaluate("window.alerts")[before]
      painted && (painted - at)
    end

    def flood
      scene = EventScene.new([["chat", {"stay_ms" => "for good", "width" => 900, "height" => 900}], ["alerts", {"x" => 1000}],
        ["goal", {"counted" => "gifts", "to" => FLOOD, "y" => 900}]], queue: {"most" => 40}) { |browser| browser.evaluate_on_new_document(WATCH) }
      quiet = chat(scene, QUIET_CHAT, 0)
      busy = under(scene)
      {flood: FLOOD, counted: counted(scene), most_on_screen: scene.browser.evaluate("window.most"),
       chat_quiet_p99_ms: Share.at(quiet.sort, 0.99), chat_flooded_p99_ms: Share.at(busy.sort, 0.99)}
    ensure
      scene&.stop
    end

    def under(scene)
      flooding = Thread.new do
        began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        (FLOOD / PER_WRITE).times do |write|
          PER_WRITE.times { |number| scene.happen("gift", "giver#{(write * PER_WRITE) + number}", number: 1) }
          due = began + ((write + 1) * FLOOD_S / (FLOOD / PER_WRITE).to_f)
          sleep([due - Process.clock_gettime(Process::CLOCK_MONOTONIC), 0].max)
        end
      end
      chat(scene, (FLOOD_S / CHAT_EVERY_S * 0.9).to_i, 1000).tap { flooding.join }
    end

    # @return [Array<Float>] milliseconds from the write to the painted line
    def chat(scene, lines, from)
      sent = (from...(from + lines)).to_h do |number|
        at = Process.clock_gettime(Process::CLOCK_REALTIME, :float_millisecond)
        scene.say("chatter#{number}", "chat-#{number}")
        sleep(CHAT_EVERY_S)
        ["chat-#{number}", at]
      end
      sleep(1)
      painted = scene.browser.evaluate("window.lines")
      sent.map { |line, at| painted.key?(line) ? painted[line] - at : Float::INFINITY }
    end

    # @return [Integer] as the goal says
    def counted(scene)
      20.times do
        words = scene.browser.evaluate("document.querySelector('.goal-figures').textContent").delete("\u00A0\u202F ")
        number = words[/\A\d+/].to_i
        return number if number >= FLOOD

        sleep(0.5)
      end
      scene.browser.evaluate("document.querySelector('.goal-figures').textContent").delete("^0-9of").to_i
    end
  end
end
