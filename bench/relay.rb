# frozen_string_literal: true

require "nio"
require "rbconfig"
require_relative "../test/support/relays"
require_relative "steal"

module Bench
  # Screens that follow over nginx with Nchan, set as ops/nginx has it, beside the embedded hub: what a delivery costs whoever sends it, and
  # what screens cost that hear nothing. Screens are sockets of a process of its own, which only looks whether the last frame has come.
  class Relay
    SCREENS = Integer(ENV.fetch("BENCH_SCREENS", "1000"))
    FRAMES = Integer(ENV.fetch("BENCH_FRAMES", "300"))
    IDLE = Integer(ENV.fetch("BENCH_IDLE", "9000"))
    FRAME_BYTES = 400
    CLOCK = -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) }
    LAST = "the last one"
    PATH = "/air/#{"x" * 32}/live".freeze

    # What screens do, in a process of their own: ruby bench/relay.rb PORT COUNT
    class Screens
      HEAD = "GET #{PATH} HTTP/1.1\r\nHost: bench\r\nUpgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Version: 13\r\n" \
             "Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n".freeze

      def initialize(port, count)
        @selector = NIO::Selector.new
        @sockets = Array.new(count) { follow(port) }
      end

      # Says when all are there, and when all have heard the last frame.
      def run
        said("ready")
        left = @sockets.size
        left -= @selector.select { |monitor| heard_all?(monitor) }.then { @heard.tap { @heard = 0 } } while left.positive?
        said("done")
        $stdin.read
      end

      private

      def said(word)
        $stdout.puts(word)
        $stdout.flush
        @heard = 0
      end

      # A page that is there has been told what there is.
      def follow(port)
        socket = TCPSocket.new("127.0.0.1", port)
        socket.write(HEAD)
        read = +""
        read << socket.readpartial(4096) until read.include?('"whole":true')
        @selector.register(socket, :r).value = +""
        socket
      end

      def heard_all?(monitor)
        bytes = monitor.io.read_nonblock(262_144, exception: false)
        return false if bytes == :wait_readable

        monitor.value = (monitor.value + bytes.to_s)[-200..] || (monitor.value + bytes.to_s)
        return false unless bytes.nil? || monitor.value.include?(LAST)

        @heard += 1
        @selector.deregister(monitor.io)
      end
    end

    # Of screens that run.
    Running = Struct.new(:pid, :input, :output) do
      def await(word) = output.gets.to_s.chomp == word || raise("the screens ended")

      def stop
        input.close
        Process.wait(pid)
      end
    end

    def run
      {screens: SCREENS, frames: FRAMES, frame_bytes: FRAME_BYTES, nchan: told { nchan }, embedded: told { embedded }, idle: idle}
    end

    private

    def told
      found, steal = Steal.around { yield }
      found.merge(steal_percent: steal.round(1))
    end

    def topic = @topic ||= Bavard::Relay::Topic.new("air:1")
    def follower = @follower ||= Bavard::Web::LiveSockets::Listener

    def screens(port, count)
      theirs, input = IO.pipe
      output, answer = IO.pipe
      pid = spawn(RbConfig.ruby, __FILE__, port.to_s, count.to_s, in: theirs, out: answer)
      [theirs, answer].each(&:close)
      Running.new(pid, input, output)
    end

    # @yieldreturn [Float] seconds of a processor that whoever sends has used
    def measured(hub, running)
      running.await("ready")
      before_s = yield
      began_s = now_s
      FRAMES.times { |number| send_one(hub, number) }
      running.await("done")
      took_s = now_s - began_s
      cpu_s = yield - before_s
      deliveries = SCREENS * FRAMES
      {a_second: (deliveries / took_s).round, processor_s: cpu_s.round(2), a_processor_second: (deliveries / cpu_s).round}
    end

    def send_one(hub, number)
      words = number == FRAMES - 1 ? LAST : "x" * FRAME_BYTES
      hub.deliver(topic, topic.frame({words:}, -> { {} }))
    end

    def nchan
      relay = Relays::OverNginx.new(CLOCK, connections: SCREENS + 100)
      relay.follow(topic, follower)
      running = screens(relay.pages_port, SCREENS)
      measured(relay.hub, running) { cpu_s(relay.nginx.workers) }
    ensure
      running&.stop
      relay&.stop
    end

    # In a process of its own as well, so that what it uses is told from all else.
    def embedded
      server = TCPServer.new("127.0.0.1", 0)
      server.listen(SCREENS)
      hub = Bavard::Relay::Hub.new(clock: CLOCK, log: SemanticLogger["bench"]).start
      taking = Thread.new { loop { hand(hub, server.accept) } }
      running = screens(server.addr[1], SCREENS)
      measured(hub, running) { Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID) }
    ensure
      running&.stop
      taking&.kill
      hub&.stop
    end

    def hand(hub, socket)
      env = socket.readpartial(4096).lines.drop(1).filter_map { |line| line.chomp.split(": ", 2) if line.include?(": ") }
        .to_h { |key, value| ["HTTP_#{key.upcase.tr("-", "_")}", value] }
      hub.join(socket, env.merge("REQUEST_METHOD" => "GET", "REQUEST_URI" => PATH), topic, follower:)
    end

    # Nothing is said to them but that their line holds.
    def idle
      relay = Relays::OverNginx.new(CLOCK, connections: IDLE + 100)
      relay.follow(topic, follower)
      ours_kb, theirs_kb = memory(relay)
      running = screens(relay.pages_port, IDLE)
      running.await("ready")
      used = memory(relay)
      before_s = cpu_s(relay.nginx.workers)
      sleep 10
      {screens: IDLE, nginx_mb: ((used.last - theirs_kb) / 1024.0).round(1), application_mb: ((used.first - ours_kb) / 1024.0).round(1),
       nginx_percent_of_a_core: ((cpu_s(relay.nginx.workers) - before_s) * 10).round(1)}
    ensure
      running&.stop
      relay&.stop
    end

    # @return [Array(Integer, Integer)] kilobytes of this process and of nginx, what they share among them counted once
    def memory(relay)
      [[Process.pid], relay.nginx.workers].map { |pids| pids.sum { |pid| File.read("/proc/#{pid}/smaps_rollup")[/^Pss:\s+(\d+)/, 1].to_i } }
    end

    def cpu_s(pids)
      pids.sum { |pid| File.read("/proc/#{pid}/stat").split(") ").last.split.values_at(11, 12).sum(&:to_i) } / 100.0
    end

    def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)
  end
end

Bench::Relay::Screens.new(Integer(ARGV[0]), Integer(ARGV[1])).run if $PROGRAM_NAME == __FILE__
