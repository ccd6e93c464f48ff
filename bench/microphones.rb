# frozen_string_literal: true

require "ferrum"
require_relative "../lib/bavard/store/microphones"
require_relative "../test/support/spoken"
require_relative "share"
require_relative "steal"
require_relative "voices"

module Bench
  # From a level that leaves a microphone page to the painted sign of talking, attack and all; and what such a page takes of a processor.
  class Microphones < Voices
    SIGNS = 100
    WITHIN_S = 240
    IDLE_S = 20
    # Half a second loud, a second silent.
    LEVELS = [*([18] * 25), *([127] * 50)].freeze
    # When a loud level went out after silence.
    HEAR = <<~JS
      window.onsets = [];
      let quiet = 0;
      const send = WebSocket.prototype.send;
      WebSocket.prototype.send = function (text) {
        const level = JSON.parse(text).l;
        if (level !== undefined) {
          if (level < 45 && quiet >= 8) window.onsets.push(performance.timeOrigin + performance.now());
          quiet = level < 45 ? 0 : quiet + 1;
        }
        return send.call(this, text);
      };
    JS

    def run
      told, steal = Steal.around { measured }
      {**told, steal_percent: steal.round(1)}
    end

    private

    def measured
      TestDatabase.clean
      token, key = seed_microphone
      app = RunningApp.new.start
      air = browser(WATCH)
      air.go_to("#{app.address}/air/#{token}")
      microphone = browser(HEAR, "use-fake-device-for-media-stream" => nil, "use-fake-ui-for-media-stream" => nil,
        "use-file-for-fake-audio-capture" => heard)
      microphone.go_to("#{app.address}/mic/#{key}")
      microphone.at_css("#on").click
      {sign: delays(microphone, air), **taken(microphone)}
    ensure
      [microphone, air].compact.each(&:quit)
      app&.stop
    end

    def browser(script, more = {})
      Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1280, 800], timeout: 30,
        browser_options: KeyboardToScreen::BROWSER.merge("autoplay-policy" => "no-user-gesture-required").merge(more)).tap do |made|
        made.evaluate_on_new_document(script)
      end
    end

    def heard
      recording = Bavard::Core::Voice::Recording.new("beat", 20, {"ann" => "Ann"}, {"ann" => LEVELS}, {})
      Spoken.write(recording, "ann", File.join(Dir.mktmpdir("microphone"), "beat.wav"))
    end

    # @return [Array(String, String)] keys of a stage's link and of a microphone's
    def seed_microphone
      token = seed(1).first
      db = TestDatabase.db
      feed = db[:feeds].where(kind: "voice").get(:id)
      db[:feeds].where(id: feed).update(kind: "microphones", platform: nil, address: Sequel.pg_jsonb({}))
      [token, Bavard::Store::Microphones.new(db, Bavard::Store::SecretBox.new("k" * 32)).add(feed, name: "Ann").token]
    end

    # Each onset with the first sign after it.
    def delays(microphone, air)
      deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + WITHIN_S
      sleep 1 until air.evaluate("window.signs.length") >= SIGNS || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
      onsets = microphone.evaluate("window.onsets")
      signs = air.evaluate("window.signs")
      took = onsets.each_cons(2).filter_map { |onset, following| signs.find { |sign| sign > onset && sign < following }&.-(onset) }
      {half_ms: Share.at(took.sort, 0.5), p99_ms: Share.at(took.sort, 0.99), signs: took.size, never: [onsets.size - 1, 0].max - took.size}
    end

    # @return [Hash] of one core: the page's own process, and all of its browser, which also plays what is heard here
    def taken(microphone)
      pids = browser_processes(microphone.process.pid)
      page = pids.select { |pid| File.read("/proc/#{pid}/cmdline").include?("--type=renderer") }
      from = [page, pids].map { |all| all.sum { |pid| ticks(pid) } }
      sleep IDLE_S
      spent = [page, pids].zip(from).map { |all, before| ((all.sum { |pid| ticks(pid) } - before) / TICKS_A_SECOND / IDLE_S * 100).round(1) }
      {page_percent: spent.first, browser_percent: spent.last}
    end

    # @return [Array<Integer>] it and all below it
    def browser_processes(pid)
      parents = Dir["/proc/[0-9]*/stat"].filter_map do |file|
        File.read(file).match(/\A(\d+) \(.*\) \S (\d+)/)&.captures&.map(&:to_i)
      rescue SystemCallError
        nil
      end
      below = ->(one) { [one, *parents.select { |_, parent| parent == one }.flat_map { |child, _| below.call(child) }] }
      below.call(pid)
    end
  end
end
