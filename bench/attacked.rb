# frozen_string_literal: true

require "net/http"
require_relative "scene"
require_relative "share"
require_relative "steal"
require_relative "../test/support/processes"

module Bench
  # How long pages and new screens take while 600 connections stand still, beside how long they take without.
  class Attacked
    MANY = 600
    ASKED = 100
    WAYS = ["silent", "half a head", "never reading", "slow bodies", "endless heads", "bodies in parts"].freeze
    LONGEST_MS = 30_000

    def run
      scene = Scene.new
      @port = scene.app.port
      @paths = ["/account/login", "/air/#{scene.token}"]
      @socket_path = scene.socket_path
      measure
      found = {none: measure}
      WAYS.each { |way| found[way] = under(way) { measure } }
      {many: MANY, asked: ASKED, ways: found}
    ensure
      scene&.stop
    end

    private

    def under(way)
      attack = IO.popen(["ruby", File.join(__dir__, "stand_still.rb"), way, @port.to_s, MANY.to_s], "r+")
      attack.gets
      yield
    ensure
      Process.kill("KILL", attack.pid)
      attack.close
    end

    def measure
      times, steal = Steal.around { Array.new(ASKED) { |number| number.even? ? page(@paths[number / 2 % 2]) : screen } }
      {half_ms: Share.at(times.sort, 0.5), p99_ms: Share.at(times.sort, 0.99), never: times.count do |ms|
        ms >= LONGEST_MS
      end, steal_percent: steal.round(1)}
    end

    def page(path)
      timed { Net::HTTP.start("127.0.0.1", @port, read_timeout: LONGEST_MS / 1000) { |http| http.get(path).value } }
    end

    # To the first frame.
    def screen
      timed do
        socket = TCPSocket.new("127.0.0.1", @port)
        socket.write("GET #{@socket_path} HTTP/1.1\r\nHost: x\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n" \
                     "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n")
        said = +""
        said << socket.readpartial(65_536) until said.include?("\"at\"")
        socket.close
      end
    end

    def timed
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      (Process.clock_gettime(Process::CLOCK_MONOTONIC) - began) * 1000
    rescue SystemCallError, IOError, Net::ProtocolError, Timeout::Error
      LONGEST_MS.to_f
    end
  end
end
