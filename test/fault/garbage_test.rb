# frozen_string_literal: true

require "json"
require "socket"
require_relative "../support/plain"
require_relative "../support/feed_probe"
require_relative "../../lib/bavard/feeds/platform"
require_relative "../feeds/described/examples"

# A platform whose answers cannot be read: one, some, or all of them. The feed takes what can be, counts what not, and goes on.
class GarbageTest < Minitest::Test
  include Wait

  TRIES = Bavard::Feeds::Described::PollConnection::TRIES

  # Answers what a test says, one after the other; the last of it for good.
  class Answers
    END_OF_HEAD = ["\r\n", nil].freeze
    attr_reader :asked

    def initialize(*answers)
      @answers = answers
      @asked = []
      @server = TCPServer.new("127.0.0.1", 0)
      @thread = Thread.new { loop { answer(@server.accept) } }
    end

    def address = "http://127.0.0.1:#{@server.addr[1]}"

    def stop
      @thread.kill
      @server.close
    end

    private

    def answer(socket)
      @asked << socket.gets.to_s[/page=(\w*)/, 1]
      nil until END_OF_HEAD.include?(socket.gets)
      socket.write(@answers.size > 1 ? @answers.shift : @answers.first)
      socket.close
    end
  end

  def page(*texts, next_page: nil, headers: [])
    items = texts.map.with_index { |text, at| %({"type":"message","id":"#{next_page}#{at}","author":{"login":"ann","name":"ann"},"text":#{text}}) }
    body = %({"items":[#{items.join(",")}],"next_page":"#{next_page}","poll_after_ms":200,"broadcast":{"state":"live"}})
    "HTTP/1.1 200 OK\r\nConnection: close\r\nContent-Length: #{body.bytesize}\r\n#{headers.map { |one| "#{one}\r\n" }.join}\r\n#{body}"
  end

  def reading(*answers)
    @server = Answers.new(*answers)
    platform = Bavard::Feeds::Platform.of(Examples.description("lantern", base: @server.address))
    @probe = FeedProbe.of(platform, {"number" => "1111-2222"}).start
  end

  def teardown
    @probe&.stop
    @server&.stop
  end

  def test_half_a_character_silences_nobody
    reading(page('"before"', next_page: "a"), page('"a \ud83d b"', '"beside it"', next_page: "b"), page('"after"', next_page: "c"))
    texts = ["before", "a \ufffd b", "beside it", "after"]
    assert_equal texts, texts.map { |text| @probe.line_with(text).body.text }
  end

  def test_answers_that_are_none_are_counted_and_the_next_one_is_read
    reading(page('"before"', next_page: "a"), "HTTP/1.1 200 OK\r\nContent-Encoding: gzip\r\nConnection: close\r\n\r\nno gzip",
      "HTTP/1.1 200 OK\r\nContent-Length: abc\r\n\r\nx", "HTTP/1.1 200 OK\r\nConnection: close\r\n\r\n{oh no", page('"after"', next_page: "b"))
    @probe.line_with("after")
    assert_equal 3, @probe.rejected.size
    assert_equal [nil, "a", "a", "a", "a"], @server.asked.first(5)
    assert_empty @probe.of(:gap)
  end

  # It would be asked for until the end of the broadcast.
  def test_a_page_that_can_never_be_read_is_left_out_and_shown_as_a_gap
    reading(page('"before"', next_page: "a"), *(["HTTP/1.1 200 OK\r\nConnection: close\r\n\r\n{oh no"] * TRIES),
      page('"after"', next_page: "b"))
    @probe.line_with("after")
    assert_equal 1, @probe.of(:gap).size
    assert_includes [nil, ""], @server.asked[TRIES + 1]
  end
end
