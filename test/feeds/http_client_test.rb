# frozen_string_literal: true

require "socket"
require_relative "../support/plain"
require_relative "../../lib/bavard/feeds/http_client"

# The client against servers that answer in every way but the right one.
class PollingClientTest < Minitest::Test
  Client = Bavard::Feeds::HttpClient
  END_OF_HEAD = ["\r\n", nil].freeze

  def serving(answer)
    server = TCPServer.new("127.0.0.1", 0)
    thread = Thread.new do
      loop do
        socket = server.accept
        nil until END_OF_HEAD.include?(socket.gets)
        socket.write(answer)
        socket.close
      end
    end
    yield Client.new("http://127.0.0.1:#{server.addr[1]}")
  ensure
    thread&.kill
    server&.close
  end

  def answering(status, body, *headers)
    "HTTP/1.1 #{status}\r\nContent-Length: #{body.bytesize}\r\n#{headers.map { |header| "#{header}\r\n" }.join}\r\n#{body}"
  end

  def test_a_page
    serving(answering("200 OK", '{"items": []}')) { |client| assert_equal [200, {"items" => []}, nil], client.get("/x").to_a.first(3) }
  end

  def test_asked_to_wait_in_seconds_or_until_a_date
    serving(answering("429 Slow", "", "Retry-After: 7")) { |client| assert_equal [429, 7000], client.get("/x").to_a.values_at(0, 2) }
    date = (Time.now + 100).httpdate
    serving(answering("503 Busy", "", "Retry-After: #{date}")) { |client| assert_includes 90_000..101_000, client.get("/x").retry_after_ms }
    serving(answering("429 Slow", "", "Retry-After: soon")) { |client| assert_nil client.get("/x").retry_after_ms }
  end

  def test_what_is_no_json_is_nonsense_and_what_is_no_http_is_a_broken_line
    serving(answering("200 OK", "{oh no")) { |client| assert_raises(Client::Nonsense) { client.get("/x") } }
    serving("hello\r\n\r\n") { |client| assert_raises(Client::Nonsense) { client.get("/x") } }
    serving("") { |client| assert_raises(Client::Unreachable) { client.get("/x") } }
  end

  def marked(header) = "HTTP/1.1 200 OK\r\n#{header}\r\n\r\n{\"items\":[]}"

  def test_lengths_that_cannot_be_are_nonsense_or_a_broken_line
    ["Content-Length: abc", "Content-Length: -5", "Transfer-Encoding: chunked"].each do |header|
      serving(marked(header)) { |client| assert_raises(Client::Nonsense, Client::Unreachable, header) { client.get("/x") } }
    end
  end

  # Nothing was asked for that is packed: what comes is read as it is.
  def test_a_mark_of_packing_that_is_wrong_is_nobodys_end
    ["gzip", "deflate", "br"].each { |packed| serving(marked("Content-Encoding: #{packed}")) { |client| assert_equal [], client.get("/x").body["items"] } }
  end

  # Half a character is no reason to lose what is said beside it.
  def test_half_a_character_costs_that_character_alone
    {'{"items": ["a \ud83d b"]}' => ["a \ufffd b"], '{"items": ["\udc26"]}' => ["\ufffd"], '{"items": ["\ud83d\udc26"]}' => ["🐦"],
     '{"items": ["\\\\ud83d", "\ud83d"]}' => ["\\ud83d", "\ufffd"], "{\"items\": [\"a \xED\xA0\xBD b\"]}" => ["a \ufffd\ufffd\ufffd b"]}.each do |body, items|
      serving(answering("200 OK", body.b)) { |client| assert_equal items, client.get("/x").body["items"], body }
    end
  end

  def test_an_answer_without_end_is_cut_off
    serving("HTTP/1.1 200 OK\r\n\r\n#{"x" * (Client::LARGEST_BYTES + 10)}") do |client|
      assert_includes assert_raises(Client::Nonsense) { client.get("/x") }.message, "4 MB"
    end
  end

  def test_nothing_there
    error = assert_raises(Client::Unreachable) { Client.new("http://127.0.0.1:1").get("/x") }
    assert_equal "Nothing answers at 127.0.0.1, port 1.", error.message
  end
end
