# frozen_string_literal: true

require "json"
require_relative "scene"
require_relative "steal"

module Bench
  # The application killed outright while lines come in at 20 a second: which lines stand again, and how soon after the
  # new start. Lines written less than 100 ms before the end are not promised.
  class Restart
    TRIES = Integer(ENV.fetch("BENCH_TRIES", "5"))
    LINES = 40
    EVERY_S = 0.05
    PROMISED_AFTER_MS = 100
    GIVE_UP_S = 10
    BUSY = 210_000
    # Lines like the first, every 17 ms of the hour before it.
    MANY = <<~SQL.freeze
      INSERT INTO lines (id, show_id, feed_id, login, display_name, badges, kind, text, arrived_at_ms, shown_at_ms, action, aired, pulled, held, detail, trace)
      SELECT id - n * 17000::bigint, show_id, feed_id, 'viewer' || n % 10000, display_name, badges, kind, text, arrived_at_ms - n * 17::bigint, shown_at_ms - n * 17::bigint,
        action, aired, pulled, held, detail, trace
      FROM (SELECT * FROM lines ORDER BY id LIMIT 1) AS first, generate_series(1, #{BUSY}) AS n
    SQL

    def run
      tries = Array.new(TRIES) { |number| one(number) }
      {tries: tries.size, promised: tries.sum { |try| try[:promised] }, missing: tries.sum { |try| try[:missing] },
       twice: tries.sum { |try| try[:twice] }, back_ms: tries.map { |try| try[:back_ms] }.minmax, each: tries, long_ms: after_a_busy_hour}
    end

    private

    def one(number)
      found, steal = Steal.around { try(number) }
      found.merge(steal_percent: steal.round(1))
    end

    # @return [Integer] milliseconds until what was said stands again, where the last hour brought {BUSY} lines
    def after_a_busy_hour
      scene = Scene.new(at_most: 50, stay_ms: "for good")
      sent = type(scene.typist, TRIES)
      # All of them are promised.
      sleep PROMISED_AFTER_MS / 100.0
      scene.app.kill
      TestDatabase.db.run(MANY)
      TestDatabase.db.run("ANALYZE lines")
      began = now_us
      scene.app.start
      until_shown(scene, sent.keys)
      ((now_us - began) / 1000.0).round
    ensure
      scene&.stop
    end

    def try(number)
      scene = Scene.new(at_most: 50, stay_ms: "for good")
      sent = type(scene.typist, number)
      killed_us = now_us
      scene.app.kill
      promised = sent.select { |_, at_us| (killed_us - at_us) / 1000 > PROMISED_AFTER_MS }.keys
      began = now_us
      scene.app.start
      shown = until_shown(scene, promised)
      {promised: promised.size, missing: (promised - shown).size, twice: shown.size - shown.uniq.size, back_ms: ((now_us - began) / 1000.0).round}
    ensure
      scene&.stop
    end

    def type(typist, number)
      (0...LINES).to_h do |index|
        sleep EVERY_S
        id = "bench-#{(number * 1000) + index + 100_000}"
        [id, typist.say("#{id} and on we go")]
      end
    end

    # Asks for the whole picture, as a screen does, until it holds every line that was promised.
    def until_shown(scene, promised)
      deadline = now_us + (GIVE_UP_S * 1_000_000)
      loop do
        shown = picture(scene).scan(/bench-\d+/)
        return shown if (promised - shown).empty? || now_us > deadline
      end
    end

    def picture(scene)
      socket = TCPSocket.new("127.0.0.1", scene.app.port)
      socket.write("GET #{scene.socket_path} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n" \
                   "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n")
      read = +""
      read << socket.readpartial(65_536) while read.count("{") != read.count("}") || !read.include?('"at"')
      read
    rescue SystemCallError, EOFError
      ""
    ensure
      socket&.close
    end

    def now_us = Process.clock_gettime(Process::CLOCK_REALTIME, :microsecond)
  end
end
