# frozen_string_literal: true

require "socket"
require "uri"
require_relative "../support/plain"
require_relative "../support/wait"
require_relative "../../lib/bavard/relay/publisher"

# The line to a relay that does not do what it should.
class PublisherTest < Minitest::Test
  include Wait

  Log = Struct.new(:said) do
    def warn(words) = said << words
    alias_method :error, :warn
  end

  FINE = "HTTP/1.1 200 OK\r\nContent-Length: 2\r\n\r\n{}"

  def setup
    @server = TCPServer.new("127.0.0.1", 0)
    @lost = Queue.new
    @log = Log.new([])
  end

  def teardown
    @thread&.kill
    @publisher&.stop
    @server.close
  end

  # @yieldparam client [TCPSocket] whoever connects, one after another
  def relay
    @thread = Thread.new { loop { yield @server.accept } }
    @publisher = Bavard::Relay::Publisher.new(URI("http://127.0.0.1:#{@server.addr[1]}"), group: "a:1", lost: -> { @lost << true }, log: @log).start
  end

  # @return [String] verb and path
  def take(client)
    first = client.gets or return
    length = 0
    while (line = client.gets.chomp) != ""
      length = line[/\Acontent-length: (\d+)/i, 1].to_i if line.match?(/\Acontent-length/i)
    end
    body = client.read(length)
    [first[/\A\w+ \S+/], body].join(" ").strip
  end

  def greet(client) = 2.times { take(client) && client.write(FINE) }

  def test_what_is_refused_is_said_once_and_all_is_lost
    relay { |client| greet(client) && take(client) && client.write("HTTP/1.1 507 No\r\nContent-Length: 0\r\n\r\n") }
    wait_for("the line") { @publisher.there? }
    @publisher.post("air-1", "x")
    @lost.pop
    assert_match(/it answers 507 to POST/, @log.said.first)
  end

  def test_what_is_no_answer_ends_nothing_but_the_line
    relay { |client| take(client) && client.write("what?\r\n\r\n") && client.close }
    2.times { @lost.pop }
    refute_predicate @publisher, :there?
    assert_equal 1, @log.said.size
  end

  # It reads nothing: what waits is bounded, and thrown away.
  def test_what_waits_is_bounded
    relay do |client|
      greet(client)
      wait_for("much to wait") { @full }
      client.close
    end
    wait_for("the line") { @publisher.there? }
    frame = "x" * 1_000_000
    sent = (1..200).find { @publisher.post("air-1", frame) == true }
    @full = true
    assert_operator sent, :<, 100
    @lost.pop
    refute_empty @log.said
  end

  def test_how_many_follow_is_told
    relay do |client|
      greet(client)
      take(client)
      client.write("HTTP/1.1 200 OK\r\nContent-Length: 16\r\n\r\n{\"subscribers\":3")
      client.write("\r") && nil
    end
    wait_for("the line") { @publisher.there? }
    @publisher.count("x") { nil }
    @lost.pop
    assert_match(/JSON|unexpected/, @log.said.first)
  end
end
