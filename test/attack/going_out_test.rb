# frozen_string_literal: true

require "socket"
require_relative "../support/web_test"

# What an account holder gains by naming servers: nothing of what is inside the house, not even whether it is there.
class GoingOutTest < WebTest
  def setup
    super
    sign_up
    @inside = TCPServer.new("127.0.0.1", 0)
  end

  def teardown
    @inside.close
    super
  end

  def inside = []
  def header = {"HTTP_X_CSRF_TOKEN" => @csrf ||= token_on("/feeds"), "HTTP_X_REQUESTED_WITH" => "XMLHttpRequest"}
  def sent(path, values) = post(path, values, header).then { JSON.parse(last_response.body) }
  def refute_touched = assert_equal(:wait_readable, @inside.accept_nonblock(exception: false), "something inside was connected to")

  # @return [String] what an import says at its end
  def ended(id)
    wait_for("the import to end") { JSON.parse(get("/dress/imports/#{id}").body).then { |now| now["words"] unless now["state"] == "running" } }
  end

  def port = @inside.addr[1]

  # @return [String, nil] why a feed is not read, once it says so
  def refusal(id)
    state, reason = @shows.run(@record.id).ask { |show| show.lane(id).report(show.now_ms) }.values_at(:state, :reason)
    reason if state == :needs_you
  end

  # Neither asked for nor told apart: something that listens, and something that does not.
  def refute_told_apart(words)
    open, closed = [port, 1025].map { |number| yield(number).gsub(number.to_s, "") }
    assert_includes open, words
    assert_equal closed, open
    refute_touched
  end

  def test_ports_of_this_machine_by_a_feed
    ["127.0.0.1", "localhost", "[::1]", "127.1"].each do |host|
      refute_told_apart("in the open") { |number| sent("/feeds/", {"paste" => "irc://#{host}:#{number}/%23a"}).to_s }
    end
  end

  def test_ports_of_this_machine_by_a_feed_that_is_kept
    feeds = [port, 1025].map { |number| sent("/feeds/", {"paste" => "irc://127.0.0.1:#{number}/%23a", "anyway" => "1"}).fetch("id") }
    reasons = feeds.map { |id| wait_for("the refusal") { refusal(id) } }
    assert_equal 1, reasons.uniq.size
    assert_includes reasons.first, "inside this house"
    refute_touched
  end

  def test_pages_of_this_machine_by_a_picture
    shelf = sent("/dress/shelves", {"name" => "Mine"})["id"] || db[:shelves].max(:id)
    refute_told_apart("port") { |number| sent("/dress/shelves/#{shelf}/emotes", {"address" => "http://127.0.0.1:#{number}/a.png", "code" => ":a:"}).to_s }
    %w[http://127.0.0.1/a.png http://localhost:8080/a.png http://[::ffff:127.0.0.1]/a http://169.254.169.254/a.png].each do |address|
      error = sent("/dress/shelves/#{shelf}/emotes", {"address" => address, "code" => ":a:"})["error"]
      assert_match(/\AThat picture was not taken: (?!There).*in the open.*[^.]\.\z/, error)
    end
  end

  def test_pages_of_this_machine_by_a_pack
    answer = sent("/dress/shelves/from-address", {"address" => "http://127.0.0.1:8080/pack.zip"})
    assert_includes answer["error"] || ended(answer["import"]), "in the open"
  end

  # A byte now and then: none of the parts is late, all of them together are.
  def test_a_thread_for_hours_by_a_server_that_dribbles
    dribble = Thread.new do
      socket = @inside.accept
      "HTTP/1.1 200 OK\r\nX: #{"y" * 10_000}".each_char do |letter|
        socket.write(letter)
        sleep 0.05
      end
    rescue SystemCallError
      nil
    end
    fetcher = Bavard::Pictures::Fetcher.new(door: Bavard::Outward::Door.new(inside: ["127.0.0.1:#{port}"]), within_s: 0.6)
    assert_includes assert_raises(Bavard::Error) { fetcher.get("http://127.0.0.1:#{port}/a") }.message, "within 0.6 s"
  ensure
    dribble&.kill&.join
  end
end
