# frozen_string_literal: true

require "json"
require "net/http"
require_relative "scene"
require_relative "share"
require_relative "steal"

module Bench
  # Somebody who has signed in, without a browser.
  class Hands
    def initialize(port, email, password)
      @port = port
      @cookies = {}
      token = get("/account/login")[/name="_csrf" value="([^"]+)"/, 1]
      send_form("/account/login", "_csrf" => token, "login" => email, "password" => password)
      @csrf = get("/feeds")[/name="csrf" content="([^"]+)"/, 1]
    end

    def post(path, given)
      answer = http do |client|
        client.post(path, JSON.generate(given), {"cookie" => cookie, "x-csrf-token" => @csrf, "x-requested-with" => "XMLHttpRequest",
          "content-type" => "application/json"})
      end
      raise "#{path} answered #{answer.code} #{answer.body}" unless answer.code == "200"
    end

    private

    def get(path) = http { |client| client.get(path, {"cookie" => cookie}) }.body
    def send_form(path, values) = http { |client| client.post(path, URI.encode_www_form(values), {"cookie" => cookie}) }

    def http(&block)
      answer = Net::HTTP.start("127.0.0.1", @port, &block)
      answer.get_fields("set-cookie").to_a.each { |field| @cookies.store(*field[/\A[^;]+/].split("=", 2)) }
      answer
    end

    def cookie = @cookies.map { |name, value| "#{name}=#{value}" }.join("; ")
  end

  # One feed that floods beside one that does not: how long the calm one's lines take to a screen, and how long it takes to pull the brake.
  # Beside it the floor: the same with nothing on the other feed.
  class Flood
    LINES_A_SECOND = Integer(ENV.fetch("BENCH_FLOOD", "2000"))
    SECONDS = Integer(ENV.fetch("BENCH_SECONDS", "20"))
    WARM_UP_S = 6
    CALM_EVERY_S = 0.1
    BRAKE_EVERY_S = 1.0
    # Written in one go, as often as it takes.
    AT_ONCE = 20
    FLOOD = "flood goes on and on"
    PASSWORD = "reeds-and-water-42"

    def run
      @scene = Scene.new(at_most: 30, stay_ms: "for good")
      @flood = second_feed
      @scene.add_host(PASSWORD)
      @hands = Hands.new(@scene.app.port, "bench@reedmere.example", PASSWORD)
      sleep WARM_UP_S
      calm = measure(0)
      found, steal = Steal.around { measure(LINES_A_SECOND) }
      found.merge(calm.transform_keys { |name| :"calm_#{name}" }, lost: lost, steal_percent: steal.round(1))
    ensure
      @scene&.stop
      @flood&.stop
    end

    private

    # The show begins anew with it.
    def second_feed
      typist = Typist.new
      address = {"host" => "127.0.0.1", "port" => typist.port, "tls" => false, "channel" => "#dawn", "nick" => nil}
      @scene.app.stop
      Bavard::Store::Feeds.new(TestDatabase.db, Bavard::Store::SecretBox.new("k" * 32))
        .create(TestDatabase.db[:shows].get(:id), kind: "irc", name: "Flood", shape: "ring", colour: "#e58fb0", address:)
      @scene.app.start
      typist
    end

    def measure(rate)
      @seen = {}
      until_us = now_us + (SECONDS * 1_000_000)
      watching = Thread.new { watch }
      threads = [Thread.new { rate.positive? ? flood(rate, until_us) : 0 }, Thread.new { brake(until_us) }]
      calm = say(until_us)
      @flooded, brakes = threads.map(&:value)
      took = arrived(calm, until_us + 5_000_000)
      {lines: calm.size, never: calm.size - took.size, half_ms: Share.at(took, 0.5), p99_ms: Share.at(took, 0.99), brakes: brakes.size,
       brake_half_ms: Share.at(brakes.sort, 0.5), brake_most_ms: brakes.max.round, flooded_per_s: (@flooded / SECONDS.to_f).round}
    ensure
      watching&.kill
    end

    # @return [Array<Float>] milliseconds that each took which came by then
    def arrived(calm, until_us)
      sleep 0.05 until (calm.keys - @seen.keys).empty? || now_us > until_us
      calm.filter_map { |id, at_us| @seen[id] && ((@seen[id] - at_us) / 1000.0) }.sort
    end

    def say(until_us)
      calm = {}
      while now_us < until_us
        id = "bench-#{@number = (@number || 100_000) + 1}"
        calm[id] = @scene.typist.say("#{id} and on we go")
        sleep CALM_EVERY_S
      end
      calm
    end

    # In step with the time, as one that does not wait for anybody; in a process of its own, which takes no time from who measures.
    #
    # @return [Integer] lines
    def flood(rate, until_us)
      count, tell = IO.pipe
      pid = fork do
        tell.puts(flood_here(rate, until_us))
        tell.flush
        exit!
      end
      tell.close
      count.read.to_i.tap { Process.wait(pid) }
    end

    def flood_here(rate, until_us)
      began_us = now_us
      said = 0
      while now_us < until_us
        wanted = (now_us - began_us) * rate / 1_000_000
        (wanted - said).times { |number| @flood.say(FLOOD, id: "f#{said + number}") }
        said = wanted
        sleep AT_ONCE / rate.to_f
      end
      said
    end

    # The brake's own way through the gate, with nothing that would hold lines up; each from asking to the answer.
    def brake(until_us)
      took = []
      while now_us < until_us
        before_us = now_us
        @hands.post("/gate/hold", {"ms" => 0})
        took << ((now_us - before_us) / 1000.0)
        sleep BRAKE_EVERY_S
      end
      took
    end

    # Every calm line that comes to a screen, and when.
    def watch
      socket = TCPSocket.new("127.0.0.1", @scene.app.port)
      socket.write("GET #{@scene.socket_path} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n" \
                   "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n")
      rest = +""
      loop do
        rest << socket.readpartial(262_144)
        rest.scan(/bench-\d+/) { |id| @seen[id] ||= now_us }
        rest = rest.byteslice(-16, 16) || rest
      end
    end

    # Of the flood nothing is missing in the log, once it had the time to be written.
    def lost
      300.times do
        break if TestDatabase.db[:lines].where(text: FLOOD).count >= @flooded

        sleep 0.2
      end
      @flooded - TestDatabase.db[:lines].where(text: FLOOD).count
    end

    def now_us = Process.clock_gettime(Process::CLOCK_REALTIME, :microsecond)
  end
end
