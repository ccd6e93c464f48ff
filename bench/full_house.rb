# frozen_string_literal: true

require "socket"
require_relative "scene"
require_relative "steal"

module Bench
  # An IRC server of many channels, in each of which one feed reads: what is said in which, and when.
  class Channels
    attr_reader :host, :port

    def initialize(host = "127.0.0.1")
      @host = host
      @server = TCPServer.new(host, 0)
      @server.listen(1024)
      @port = @server.addr[1]
      @readers = {}
      @lock = Mutex.new
      @thread = Thread.new { loop { Thread.new(@server.accept) { |client| welcome(client) } } }
    end

    def readers = @lock.synchronize { @readers.size }

    # @return [Float] seconds of the sender's clock, taken right before the write
    def say(channel, text)
      reader = @lock.synchronize { @readers.fetch(channel) }
      at_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      reader.write(":ann!a@b PRIVMSG #{channel} :#{text}\r\n")
      at_s
    end

    def stop
      @thread.kill
      @server.close
    end

    private

    def welcome(client)
      client.setsockopt(Socket::IPPROTO_TCP, Socket::TCP_NODELAY, 1)
      nick = nil
      while (line = client.gets)
        word, argument = line.split
        nick = argument if word == "NICK"
        client.write(":min 421 * CAP :?\r\n") if word == "CAP"
        client.write(":min 001 #{nick} :Welcome\r\n") if word == "USER"
        next unless word == "JOIN"

        client.write(":#{nick}!u@h JOIN #{argument}\r\n")
        @lock.synchronize { @readers[argument] = client }
      end
    rescue SystemCallError, IOError
      nil
    end
  end

  # Sockets of screens, read by one thread: when which mark came.
  class Screens
    MARK = /bench-\d{7}/
    LONGEST = 13
    # So that each is known to be there: an empty pong.
    HERE = "\x8A\x80\0\0\0\0".b.freeze
    HERE_EVERY_S = 10

    # What a page says first.
    def self.hello(token, host)
      "GET /air/#{token}/live HTTP/1.1\r\nHost: #{host}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n" \
        "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n"
    end

    def initialize(port, tokens)
      @came = {}
      @rest = Hash.new("")
      @sockets = tokens.map { |token| join(port, token) }
      @thread = Thread.new { read }
    end

    # @return [Float, nil] seconds, when the first screen had it
    def came(mark) = @came[mark]

    def stop
      @thread.kill
      @sockets.each(&:close)
    end

    private

    def join(port, token)
      TCPSocket.new("127.0.0.1", port).tap do |socket|
        socket.write(Screens.hello(token, "127.0.0.1"))
        read = +""
        read << socket.readpartial(65_536) until read.include?('"at"')
      end
    end

    def read
      loop do
        ready, = IO.select(@sockets, nil, nil, HERE_EVERY_S)
        at_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        tell_here(at_s)
        ready&.each { |socket| take(socket, at_s) }
      end
    end

    def tell_here(at_s)
      return if @told_s && at_s - @told_s < HERE_EVERY_S

      @told_s = at_s
      @sockets.each { |socket| socket.write(HERE) }
    end

    # What was cut off at the end of the last read is looked at again.
    def take(socket, at_s)
      text = @rest[socket] + socket.read_nonblock(262_144, exception: false).to_s
      text.scan(MARK) { |mark| @came[mark] ||= at_s }
      @rest[socket] = text[[text.size - LONGEST, 0].max..]
    end
  end

  # A machine full of shows, each with a feed that is read and a screen that is open: how long lines take to the screens' sockets when all of them
  # are spoken in, and what two that are flooded cost a third.
  class FullHouse
    SHOWS = Integer(ENV.fetch("BENCH_SHOWS", "200"))
    LINES_A_S = 20
    FOR_S = 20
    FLOOD_A_S = 500
    CALM_A_S = 10
    GIVE_UP_S = 10

    def run
      begin_house
      all, steal = Steal.around { spoken_in(@channels, LINES_A_S) }
      third = @channels[2..2]
      calm = spoken_in(third, CALM_A_S)
      before = garbage
      beside = flooding(@channels.first(2)) { spoken_in(third, CALM_A_S) }
      collecting = garbage.zip(before).map { |now, then_| now - then_ }
      {shows: SHOWS, **all.transform_keys do |key|
        :"all_#{key}"
      end, calm_late_ms: calm[:late_ms], beside_half_ms: beside[:half_ms],
       beside_late_ms: beside[:late_ms], beside_lost: beside[:lost],
       collections: collecting.first.to_i, collections_s: collecting.last.round(2), collections_of_all: collecting[1].to_i,
       flooded_lines_a_s: @flooded, steal_percent: steal.round(1)}
    ensure
      @screens&.stop
      @app&.stop
      @server&.stop
    end

    private

    # @return [Array<Float>] collections, those of everything, and the seconds in which all stood still for them
    def garbage
      text = Net::HTTP.get(URI("#{@app.address}/metrics"))
      %w[garbage_collections_total garbage_collections_of_all_total garbage_collection_seconds_total].map do |name|
        text[/^bavard_#{name} (\S+)/, 1].to_f
      end
    end

    def begin_house
      TestDatabase.clean if TestDatabase.db
      @server = Channels.new
      @channels = Array.new(SHOWS) { |number| "#bench#{number}" }
      tokens = @channels.map { |channel| seed(channel) }
      @app = RunningApp.new.start
      @screens = Screens.new(@app.port, tokens)
      sleep 0.1 until @server.readers == SHOWS
    end

    def seed(channel)
      db = TestDatabase.db
      show = Bavard::Store::Shows.new(db).create(db[:accounts].insert(email: "#{channel[1..]}@reedmere.example", password_hash: "none"),
        name: channel, host_name: "Odalys")
      Bavard::Store::Shows.new(db).keep_gate(show.id, show.gate.merge("sets" => [{"name" => "Bench", "rules" => []}]))
      address = {"host" => @server.host, "port" => @server.port, "tls" => false, "channel" => channel, "nick" => nil}
      Bavard::Store::Feeds.new(db, Bavard::Store::SecretBox.new("k" * 32))
        .create(show.id, kind: "irc", name: "Bench", shape: "circle", colour: "#5fb8d6", address:)
      stages = Bavard::Store::Stages.new(db)
      document = Bavard::Core::Stage::Document.empty.merge("pieces" => [Bavard::Core::Pieces::ChatPiece.build("chat1",
        {"x" => 60, "y" => 400, "width" => 800, "height" => 600, "at_most" => 50})])
      stage = stages.create(show.id, name: "Bench", document:)
      stages.put_on_air(stage.id, 1, document, 1)
      stage.token
    end

    # Each channel in turn, so many lines a second together.
    def spoken_in(channels, a_second)
      sent = (0...(FOR_S * a_second)).to_h do |index|
        mark = "bench-#{@mark = (@mark || 1_000_000) + 1}"
        due = (@began ||= now_s) + (@said = (@said || 0) + (1.0 / a_second))
        sleep([due - now_s, 0].max)
        [mark, @server.say(channels[index % channels.size], "#{mark} and on we go")]
      end
      @began = @said = nil
      figures(sent)
    end

    def figures(sent)
      deadline = now_s + GIVE_UP_S
      sleep 0.05 until sent.keys.all? { |mark| @screens.came(mark) } || now_s > deadline
      took = sent.filter_map { |mark, at_s| @screens.came(mark)&.then { |came_s| ((came_s - at_s) * 1000).round(1) } }.sort
      # late_ms:: 99 in 100 take less
      {half_ms: took[took.size / 2], late_ms: took[(took.size * 0.99).ceil - 1], worst_ms: took.last, lost: sent.size - took.size}
    end

    def flooding(channels)
      flooded = 0
      over = false
      flood = Thread.new do
        began = now_s
        until over
          channels.each { |channel| @server.say(channel, "flood #{flooded} and so on") }
          flooded += channels.size
          sleep([began + (flooded / (FLOOD_A_S * channels.size.to_f)) - now_s, 0].max)
        end
      end
      began = now_s
      yield
    ensure
      over = true
      flood.join
      @flooded = (flooded / (now_s - began)).round
    end

    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
