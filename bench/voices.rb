# frozen_string_literal: true

require "json"
require "socket"
require "websocket/driver"
require_relative "../lib/bavard/core/pieces/pieces"
require_relative "../lib/bavard/core/voice/recording"
require_relative "keyboard_to_screen"
require_relative "share"
require_relative "steal"

module Bench
  # From a level above the threshold to the painted sign of talking, and what forty people at fifty levels a second cost
  # with twenty stages.
  class Voices
    TURNS = 120
    STAGES = 20
    EVERY_S = 0.02
    MEASURE_S = 12
    SETTLE_S = 4
    QUIET = 70
    LOUD = 20
    ATTACK_MS = 20
    TICKS_A_SECOND = 100.0
    FORTY = File.expand_path("../demo/conversations/forty.json", __dir__)
    DESCRIPTION = File.expand_path("../docs/platforms/hidewire.json", __dir__)
    # When each sign was painted, on the clock that all processes of this machine share.
    WATCH = <<~JS
      window.signs = [];
      new MutationObserver((changes) => {
        for (const { target, oldValue } of changes)
          if (target.matches?.(".voice.talking") && !oldValue?.includes("talking"))
            requestAnimationFrame((at) => window.signs.push(performance.timeOrigin + performance.now()));
      }).observe(document, { subtree: true, attributes: true, attributeOldValue: true, attributeFilter: ["class"] });
    JS

    # A voice service with one room, that says what it is told to at the moment it is told to.
    class Service
      attr_reader :port

      Wire = Struct.new(:env, :socket) do
        def url = "ws://127.0.0.1/v1/stream"
        def write(bytes) = socket.write(bytes)
      end

      def initialize(people)
        @people = people
        @server = TCPServer.new("127.0.0.1", 0)
        @port = @server.addr[1]
        @drivers = Queue.new
        @thread = Thread.new { loop { serve(@server.accept) } }
      end

      # @return [Float] Unix milliseconds, right before the write
      def levels(pairs)
        @driver = @drivers.pop until @driver && @drivers.empty?
        at = Process.clock_gettime(Process::CLOCK_REALTIME, :float_millisecond)
        @driver.text(JSON.generate(op: "levels", l: pairs))
        at
      end

      def stop
        @thread.kill
        @server.close
      end

      private

      def serve(socket)
        socket.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
        Thread.new do
          driver = WebSocket::Driver.server(Wire.new({}, socket))
          driver.on(:connect) { driver.start }
          driver.on(:open) { driver.text(JSON.generate(op: "hello", beat_ms: 60_000)) }
          driver.on(:message) { |message| joined(driver) if JSON.parse(message.data)["op"] == "join" }
          loop { driver.parse(socket.readpartial(65_536)) }
        rescue SystemCallError, IOError
          nil
        end
      end

      def joined(driver)
        driver.text(JSON.generate(op: "joined", resume: "r", seq: 0, room: {id: "hides", name: "The hides"},
          people: @people.map { |id, name| {id:, name:} }))
        @drivers << driver
      end
    end

    def run
      told, steal = Steal.around { {sign: sign, cpu_percent: crowd} }
      {**told, steal_percent: steal.round(1)}
    end

    private

    def with_rooms(people, stages)
      TestDatabase.clean if TestDatabase.db
      service = Service.new(people)
      platform = JSON.parse(File.read(DESCRIPTION)).merge("base" => "http://127.0.0.1:#{service.port}")
      tokens = seed(stages)
      app = RunningApp.new(platforms: [platform]).start
      yield service, app, tokens
    ensure
      app&.stop
      service&.stop
    end

    def seed(count)
      db = TestDatabase.db
      account_id = db[:accounts].insert(email: "bench@reedmere.example", password_hash: "none")
      show = Bavard::Store::Shows.new(db).create(account_id, name: "Bench", host_name: "Bench")
      Bavard::Store::Feeds.new(db, Bavard::Store::SecretBox.new("k" * 32))
        .create(show.id, kind: "voice", name: "Bench", shape: "ring", colour: "#5fb8d6", platform: "hidewire", address: {"room" => "hides",
                                                                                                                         "follow" => nil})
      stages = Bavard::Store::Stages.new(db)
      piece = Bavard::Core::Pieces::VoicesPiece.build("voices1", "x" => 60, "y" => 60, "width" => 700, "height" => 900, "at_most" => 12)
      document = Bavard::Core::Stage::Document.empty.merge("pieces" => [piece])
      Array.new(count) do |number|
        stage = stages.create(show.id, name: "Stage #{number + 1}", document:)
        stages.put_on_air(stage.id, 1, document, 1)
        stage.token
      end
    end

    def sign
      with_rooms({"ann" => "Ann", "bo" => "Bo"}, 1) do |service, app, tokens|
        browser = Ferrum::Browser.new(browser_path: "/usr/bin/chromium-headless-shell", headless: true, window_size: [1920, 1080], timeout: 30,
          browser_options: KeyboardToScreen::BROWSER)
        browser.evaluate_on_new_document(WATCH)
        browser.go_to("#{app.address}/air/#{tokens.first}")
        took = turns(service, browser)
        {half_ms: Share.at(took.sort, 0.5), p99_ms: Share.at(took.sort, 0.99), turns: took.size, never: TURNS - took.size}
      ensure
        browser&.quit
      end
    end

    # Quiet for a while, then loud; the time its attack takes is left out.
    def turns(service, browser)
      say(service, 60, QUIET)
      TURNS.times.filter_map do
        before = browser.evaluate("window.signs.length")
        began = say(service, 18, LOUD)
        say(service, rand(26..31), QUIET)
        signs = browser.evaluate("window.signs").drop(before)
        signs.first && (signs.first - began - ATTACK_MS)
      end
    end

    # @return [Float] when the first of them was sent
    def say(service, count, level)
      due = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      sent = Array.new(count) do
        at = service.levels([["ann", level], ["bo", QUIET]])
        due += EVERY_S
        sleep([due - Process.clock_gettime(Process::CLOCK_MONOTONIC), 0].max)
        at
      end
      sent.first
    end

    # @return [Float] of one core, while forty people talk as they do
    def crowd
      recording = Bavard::Core::Voice::Recording.parse(File.read(FORTY))
      with_rooms(recording.people, STAGES) do |service, app, _|
        play(service, recording, SETTLE_S)
        from = ticks(app.pid)
        play(service, recording, MEASURE_S)
        ((ticks(app.pid) - from) / TICKS_A_SECOND / MEASURE_S * 100).round(1)
      end
    end

    def play(service, recording, seconds)
      due = began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      while due - began < seconds
        service.levels(recording.at(((due - began) * 1000).to_i).to_a)
        due += EVERY_S
        sleep([due - Process.clock_gettime(Process::CLOCK_MONOTONIC), 0].max)
      end
    end

    # @return [Integer] clock ticks of the process, in user and system time
    def ticks(pid) = File.read("/proc/#{pid}/stat").split(") ").last.split.values_at(11, 12).sum(&:to_i)
  end
end
