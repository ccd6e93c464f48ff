# frozen_string_literal: true

# 500 screens on one stage, in a process of their own: counts what each is sent, and when.
#   ruby bench/crowd.rb PORT PATH SCREENS
# Prints "ready" when all are open; on "report" from standard input, JSON: for each line the arrival times in µs.
require "json"
require "nio"
require "socket"
require "websocket/driver"

# One screen.
class Screen
  attr_reader :socket, :seen, :url

  def initialize(port, path)
    @socket = TCPSocket.new("127.0.0.1", port)
    @url = "ws://127.0.0.1:#{port}#{path}"
    @seen = {}
    @driver = WebSocket::Driver.client(self)
    @driver.on(:message) { |event| note(event.data) }
    @driver.start
  end

  def write(bytes) = socket.write(bytes)
  def open? = @driver.state == :open
  def read = @driver.parse(socket.read_nonblock(65_536))

  private

  def note(text)
    at_us = Process.clock_gettime(Process::CLOCK_REALTIME, :microsecond)
    text.scan(/bench-\d+/) { |id| @seen[id] ||= at_us }
  end
end

port, path, count = ARGV
screens = Array.new(Integer(count)) { Screen.new(Integer(port), path) }
selector = NIO::Selector.new
screens.each { |screen| selector.register(screen.socket, :r).value = screen }
asked = selector.register($stdin, :r)
selector.select(1) { |monitor| monitor.value&.read } until screens.all?(&:open?)
$stdout.puts "ready"
$stdout.flush
until @done
  selector.select(1) do |monitor|
    next @done = true if monitor.equal?(asked)

    monitor.value.read
  end
end
$stdout.puts JSON.generate(screens.map(&:seen))
$stdout.flush
