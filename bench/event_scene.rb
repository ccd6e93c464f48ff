# frozen_string_literal: true

require "ferrum"
require_relative "../lib/bavard/core/cues/settings"
require_relative "../lib/bavard/core/pieces/pieces"
require_relative "../lib/bavard/feeds/irc"
require_relative "../lib/bavard/pictures/cabinet"
require_relative "../lib/bavard/pictures/workshop"
require_relative "../lib/bavard/store/dress"
require_relative "../lib/bavard/store/feeds"
require_relative "../lib/bavard/store/secret_box"
require_relative "../lib/bavard/store/shows"
require_relative "../lib/bavard/store/stages"
require_relative "../test/support/minimal_irc"
require_relative "../test/support/processes"
require_relative "keyboard_to_screen"

module Bench
  # A show on air that is read from an IRC server in this process, with one emote, and a browser that looks at its page.
  class EventScene
    include Wait

    EMOTE = File.expand_path("../demo/pictures/emotes/wren.svg", __dir__)

    attr_reader :app, :browser, :server

    # @param pieces [Array<Array(String, Hash)>] kind and values
    # @param cues [Hash] values of each cue, by its kind
    # @param queue [Hash]
    def initialize(pieces, cues: {}, queue: {})
      TestDatabase.db
      TestDatabase.clean
      @server = MinimalIrc.new
      @app = RunningApp.new
      token = seed(pieces, cues, queue)
      @app.start
      wait_for("the feed to read") { @server.clients.positive? }
      @browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1920, 1080], timeout: 30,
        browser_options: KeyboardToScreen::BROWSER)
      yield @browser if block_given?
      @browser.go_to("#{@app.address}/air/#{token}")
    end

    def stop
      @browser&.quit
      @app.stop
      @server.stop
    end

    def say(nick, text) = @server.say(nick, text)

    # @return [Float] Unix milliseconds, right before the write
    def happen(kind, nick, number: nil)
      at = Process.clock_gettime(Process::CLOCK_REALTIME, :float_millisecond)
      @server.write("@draft/event=#{kind}#{";draft/number=#{number}" if number} :#{nick}!#{nick}@host TAGMSG #reedmere\r\n")
      at
    end

    # @return [Integer] bytes of the application's memory
    def memory_mb = File.read("/proc/#{@app.pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024

    # @return [Float] frames a second over a while
    def frames_per_s(seconds)
      @browser.evaluate_async(<<~JS, seconds + 20)
        const [resolve] = [arguments[0]];
        let frames = 0; let from = null;
        const count = (now) => { from ??= now; if (now - from >= #{seconds * 1000}) return resolve(frames * 1000 / (now - from)); frames += 1; requestAnimationFrame(count); };
        requestAnimationFrame(count);
      JS
    end

    private

    def seed(pieces, cues, queue)
      db = TestDatabase.db
      account_id = db[:accounts].insert(email: "bench@reedmere.example", password_hash: "none")
      shows = Bavard::Store::Shows.new(db)
      show = shows.create(account_id, name: "Bench", host_name: "Bench")
      shows.keep_gate(show.id, show.gate.merge("hold" => Bavard::Core::Gate::Settings.hold("ms" => 0),
        "sets" => show.gate["sets"].map { |set| set.merge("rules" => set["rules"].map { |rule| rule.merge("on" => false) }) }))
      keep_cues(shows, show.id, cues, queue)
      give_emote(db, show.id)
      read_server(db, show.id)
      on_air(Bavard::Store::Stages.new(db), show.id, pieces)
    end

    def read_server(db, show_id)
      feeds = Bavard::Store::Feeds.new(db, Bavard::Store::SecretBox.new("k" * 32))
      feed = feeds.create(show_id, kind: "irc", name: "Bench", shape: "ring", colour: "#5fb8d6",
        address: {"host" => "127.0.0.1", "port" => @server.port, "tls" => false, "channel" => "#reedmere", "nick" => nil})
      feeds.keep(feed.id, wanted: true)
    end

    def keep_cues(shows, show_id, cues, queue)
      document = Bavard::Core::Cues::Settings.default
      sheet = document["cues"].map { |cue| cue.merge(cues.fetch(cue["kind"], {})) }
      shows.keep_cues(show_id, document.merge("cues" => sheet, "queue" => document["queue"].merge(queue)))
    end

    def on_air(stages, show_id, pieces)
      built = pieces.each_with_index.map { |(kind, values), index| Bavard::Core::Pieces.kind(kind).build("#{kind}#{index + 1}", values) }
      document = Bavard::Core::Stage::Document.empty.merge("pieces" => built)
      stage = stages.create(show_id, name: "Main", document:)
      stages.put_on_air(stage.id, 1, document, 1)
      stage.token
    end

    def give_emote(db, show_id)
      workshop = Bavard::Pictures::Workshop.new
      made = Bavard::Pictures::Cabinet.new(File.join(@app.folder, "pictures")).keep(workshop.make(File.binread(EMOTE)))
      dress = Bavard::Store::Dress.new(db)
      emote = {"code" => ":wren:", "picture" => made.id, "width" => made.width, "height" => made.height, "frames" => made.frames, "overlay" => false}
      dress.put_on_shelf(dress.add_shelf(show_id, "Bench"), [emote], 1)
    ensure
      workshop&.stop
    end
  end
end
