# frozen_string_literal: true

require "ferrum"
require "json"
require "net/http"
require_relative "scene"
require_relative "share"
require_relative "steal"

module Bench
  # Three feeds together, over IRC, HTTP and WebSocket, at 1000 lines a second for a minute: what is lost, what memory
  # does, and whether a screen keeps up. Beside it the floor: the same screen with nothing coming in.
  class ThreeFeeds
    LINES_A_SECOND = 1000
    SECONDS = Integer(ENV.fetch("BENCH_SECONDS", "60"))
    WARM_UP_S = 20
    SAMPLE_S = 2
    BROWSER = {"no-sandbox" => nil, "disable-gpu" => nil, "disable-background-networking" => nil, "disable-component-update" => nil,
               "disable-sync" => nil, "no-first-run" => nil}.freeze
    # Frames drawn, and how far the newest line is behind, sampled ten times a second. A line's time is when it arrived.
    WATCH = <<~JS
      window.frames = 0; window.behind = [];
      requestAnimationFrame(function next() { window.frames += 1; requestAnimationFrame(next); });
      setInterval(() => {
        const times = [...document.querySelectorAll("[data-time]")].map((line) => Number(line.dataset.time));
        if (times.length > 0) window.behind.push(Date.now() - Math.max(...times));
      }, 100);
    JS

    def run
      start
      idle = frames_a_second(4)
      @standins.each { |standin| standin.post("/pace", "per_minute" => (LINES_A_SECOND * 60 / @standins.size).to_s) }
      found, steal = Steal.around { watch }
      @standins.each { |standin| standin.post("/pace", "per_minute" => "0") }
      found.merge(lost, idle_frames_per_s: idle, steal_percent: steal.round(1))
    ensure
      stop
    end

    private

    def start
      TestDatabase.db
      TestDatabase.clean
      @standins = [RunningOxbow.new, RunningStandin.new("Lantern", EVERY_MS: 250), RunningStandin.new("Skein")].map(&:start)
      seed
      @app = RunningApp.new(platforms: @standins.map(&:platform)).start
      @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1920, 1080], timeout: 60,
        browser_options: BROWSER)
      @browser.evaluate_on_new_document(WATCH)
      @browser.go_to("#{@app.address}/air/#{@token}")
    end

    def seed
      db = TestDatabase.db
      show = Bavard::Store::Shows.new(db).create(db[:accounts].insert(email: "bench@reedmere.example", password_hash: "none"), name: "Bench",
        host_name: "Bench")
      feeds = Bavard::Store::Feeds.new(db, Bavard::Store::SecretBox.new("k" * 32))
      @feeds = @standins.map do |standin|
        platform = standin.platform
        feeds.create(show.id, kind: platform.kind, name: platform.name, shape: platform.shape, colour: platform.colour, platform: platform.key,
          address: address(standin, platform), mapping: platform.mapping || {}).id
      end
      document = Bavard::Core::Stage::Document.empty.merge("pieces" => [Bavard::Core::Pieces::ChatPiece.build("chat1",
        {"x" => 60, "y" => 300, "height" => 700})])
      stages = Bavard::Store::Stages.new(db)
      stage = stages.create(show.id, name: "Bench", document:)
      stages.put_on_air(stage.id, 1, document, 1)
      @token = stage.token
    end

    def address(standin, platform)
      return {"host" => "127.0.0.1", "port" => standin.irc_port, "tls" => false, "channel" => "#reedmere", "nick" => nil} if platform.kind == "irc"

      {platform.description.asks.first.name => "reedmere"}
    end

    def watch
      memory = []
      sleep WARM_UP_S
      @browser.execute("window.frames = 0; window.behind = [];")
      from = now
      ((SECONDS - WARM_UP_S) / SAMPLE_S).times do
        sleep SAMPLE_S
        memory << rss_mb
      end
      frames = @browser.evaluate("window.frames") / (now - from)
      behind = @browser.evaluate("window.behind").sort
      {frames_per_s: frames.round(1), behind_p99_ms: Share.at(behind, 0.99), behind_most_ms: behind.last, memory_mb: [memory.first, memory.last],
       memory_most_mb: memory.max}
    end

    # Every line that was said, until all of it had the time to be written.
    def lost
      said = @standins.map { |standin| standin.state["said"] }
      logged = nil
      100.times do
        logged = @feeds.map { |feed_id| TestDatabase.db[:lines].where(feed_id:).count }
        break if logged.zip(said).all? { |there, wanted| there >= wanted }

        sleep 0.3
      end
      {said: said.sum, lost: said.zip(logged).sum do |wanted, there|
        [wanted - there, 0].max
      end, lines_per_s: (said.sum / SECONDS.to_f).round, by_feed: said}
    end

    def frames_a_second(seconds)
      @browser.execute("window.frames = 0")
      sleep seconds
      (@browser.evaluate("window.frames") / seconds.to_f).round(1)
    end

    def rss_mb = File.read("/proc/#{@app.pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024
    def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

    def stop
      @browser&.quit
      @app&.stop
      @standins&.each(&:stop)
    end
  end
end
