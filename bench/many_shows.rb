# frozen_string_literal: true

require "socket"
require_relative "scene"
require_relative "steal"

module Bench
  # Many shows on one machine, each with lines of its own: how soon the port answers, how soon each stands on its screen when that is the
  # first to need it, and what those cost that nobody needs.
  class ManyShows
    SHOWS = Integer(ENV.fetch("BENCH_SHOWS", "200"))
    LINES = 2000
    IDLE_S = 20
    TICKS_A_SECOND = Etc.sysconf(Etc::SC_CLK_TCK)
    WORDS = %w[reed warbler wren nest water dawn heron over there look rain boat].freeze
    # Like the one line there is, of many people, a second apart.
    MORE = <<~SQL
      INSERT INTO lines (id, show_id, feed_id, login, display_name, badges, kind, text, arrived_at_ms, shown_at_ms, action, aired, pulled, held, detail, trace)
      SELECT id + n, %<show>d, %<feed>d, 'viewer' || n %% 300, 'Viewer ' || n %% 300, badges, kind, text || n, arrived_at_ms + n * 1000::bigint,
        shown_at_ms + n * 1000::bigint, action, aired, pulled, held, detail, trace
      FROM (SELECT * FROM lines ORDER BY id LIMIT 1) AS first, generate_series(%<from>d, %<to>d) AS n
    SQL

    def run
      scene = Scene.new(at_most: 50, stay_ms: "for good")
      seed(scene)
      asleep, steal = Steal.around { begin_anew(scene) }
      woken = wake
      {shows: SHOWS, lines: LINES, **asleep, **woken, awake_mb_each: (memory_mb - asleep[:asleep_mb]).fdiv(SHOWS).round(2),
       awake_percent: idle_percent, steal_percent: steal.round(1)}
    ensure
      scene&.stop
    end

    private

    def seed(scene)
      scene.typist.say("one line of many words: #{WORDS.join(" ")}")
      sleep 0.05 until TestDatabase.db[:lines].any?
      scene.app.stop
      TestDatabase.db[:feeds].update(wanted: false)
      @tokens = Array.new(SHOWS) { |number| another(scene, number) }
      TestDatabase.db.run("ANALYZE lines")
    end

    # @return [String] its link's
    def another(scene, number)
      db = TestDatabase.db
      show = Bavard::Store::Shows.new(db).create(db[:accounts].insert(email: "host#{number}@reedmere.example", password_hash: "none"),
        name: "Show #{number}", host_name: "Odalys")
      feed = db[:feeds].returning(:id).insert(db[:feeds].first.except(:id).merge(show_id: show.id)).first[:id]
      document = scene_document(scene)
      stages = Bavard::Store::Stages.new(db)
      stage = stages.create(show.id, name: "Stage", document:)
      stages.put_on_air(stage.id, 1, document, 1)
      from = (number * LINES) + 1
      db.run(format(MORE, show: show.id, feed:, from:, to: from + LINES - 1))
      stage.token
    end

    def scene_document(scene) = @scene_document ||= Bavard::Store::Stages.new(TestDatabase.db).by_token(scene.token).on_air

    def begin_anew(scene)
      @app = scene.app
      began = now_s
      @app.begin_to_start
      sleep 0.005 until open?
      port_s = now_s - began
      @app.until_it_answers
      ready_s = now_s - began
      percent = idle_percent
      {port_s: port_s.round(2), ready_s: ready_s.round(2), asleep_mb: memory_mb, asleep_percent: percent}
    end

    def open?
      TCPSocket.new("127.0.0.1", @app.port).close
      true
    rescue SystemCallError
      false
    end

    # @return [Hash] milliseconds from the first byte of its screen's request to its picture
    def wake
      each_ms = @tokens.map { |token| first_picture_ms(token) }.sort
      {wake_ms: each_ms[each_ms.size / 2], wake_99_ms: each_ms[(each_ms.size * 0.99).floor.clamp(..(each_ms.size - 1))], wake_worst_ms: each_ms.last}
    end

    def first_picture_ms(token)
      began = now_s
      socket = TCPSocket.new("127.0.0.1", @app.port)
      socket.write("GET /air/#{token}/live HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n" \
                   "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n")
      read = +""
      read << socket.readpartial(262_144) until read.include?("Viewer")
      ((now_s - began) * 1000).round
    ensure
      socket&.close
    end

    # Of one processor.
    def idle_percent
      before = ticks
      sleep IDLE_S
      ((ticks - before) * 100.0 / TICKS_A_SECOND / IDLE_S).round(2)
    end

    def ticks = File.read("/proc/#{@app.pid}/stat").rpartition(")").last.split.values_at(11, 12).sum(&:to_i)
    def memory_mb = File.read("/proc/#{@app.pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024
    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end
