# frozen_string_literal: true

require "minitest/autorun"
require "socket"
require_relative "../../../lib/bavard/live/show/neighbours"

# What other processes say of themselves.
class NeighboursTest < Minitest::Test
  Neighbours = Bavard::Live::Neighbours
  REACHES = {"database" => "answers", "shows" => {"awake" => 3}}.freeze
  CUT_OFF = {"database" => "the database does not answer", "shows" => {"awake" => 3}}.freeze
  LET_GO = {"database" => "the database does not answer", "shows" => {"awake" => 0}}.freeze
  STARTING = {"waits_for" => "the database"}.freeze

  def setup
    @now_s = 100
    @said = {}
    @asked = []
  end

  def neighbours
    @neighbours ||= Neighbours.new(clock: -> { @now_s }, report: ->(address) { (@asked << address) && @said[address] })
  end

  def test_one_that_reaches_the_database
    @said = {"a" => CUT_OFF, "b" => REACHES, "c" => STARTING}
    assert_equal "b", neighbours.reaching(%w[gone a c b])
    assert_nil neighbours.reaching(%w[gone a c])
    assert_nil neighbours.reaching([])
  end

  def test_who_runs_shows_still_is_left_alone_but_not_for_ever
    @said = {"a" => CUT_OFF}
    assert neighbours.runs_yet?("a")
    @now_s += Neighbours::LETS_GO_WITHIN_S - 1
    assert neighbours.runs_yet?("a")
    @now_s += 1
    refute neighbours.runs_yet?("a")
  end

  def test_it_has_its_time_each_time
    @said = {"a" => CUT_OFF}
    assert neighbours.runs_yet?("a")
    @now_s += Neighbours::LETS_GO_WITHIN_S
    @said = {"a" => LET_GO}
    refute neighbours.runs_yet?("a")
    @now_s += Neighbours::GONE_FOR_S
    @said = {"a" => CUT_OFF}
    assert neighbours.runs_yet?("a")
  end

  def test_who_is_gone_is_not_asked_for_each_of_its_shows
    3.times { refute neighbours.runs_yet?("gone") }
    @said = {"b" => LET_GO, "c" => STARTING}
    refute neighbours.runs_yet?("b")
    refute neighbours.runs_yet?("c")
    assert_equal %w[gone b c], @asked
    @now_s += Neighbours::GONE_FOR_S
    neighbours.runs_yet?("gone")
    assert_equal %w[gone b c gone], @asked
  end

  # Over a socket, whatever is at its other end.
  def said_by(answer)
    server = TCPServer.new("127.0.0.1", 0)
    thread = Thread.new do
      line = server.accept
      nil until line.gets == "\r\n"
      line.write(answer)
      line.close
    end
    Neighbours.report("127.0.0.1:#{server.addr[1]}")
  ensure
    thread.join
    server.close
  end

  def test_what_is_no_report_is_none
    assert_equal({"database" => "answers"}, said_by("HTTP/1.1 200 OK\r\nContent-Length: 22\r\n\r\n{\"database\":\"answers\"}"))
    # One that is cut off says so with a status of its own.
    assert_equal({"ok" => false}, said_by("HTTP/1.1 503 No\r\nContent-Length: 12\r\n\r\n{\"ok\":false}"))
    ["", "HTTP/1.1 200 OK\r\n\r\n<html>", "HTTP/1.1 200 OK\r\n\r\n[1]", "nonsense\r\n\r\n", "HTTP/1.1 200 OK\r\nContent-Length: 900\r\n\r\n{"].each do |answer|
      assert_nil said_by(answer), answer
    end
    assert_nil Neighbours.report("127.0.0.1:1")
    assert_nil Neighbours.report("no host at all")
  end
end
