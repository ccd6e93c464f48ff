# frozen_string_literal: true

require "socket"
require_relative "../../support/drawings"
require_relative "../../support/live_test"
require_relative "../../../lib/bavard/feeds/platform"

# Pictures by address: fetched once, kept, told of, remembered over a restart; and what is refused is not asked for again.
class PictureDeskTest < LiveTest
  Platform = Bavard::Feeds::Platform
  END_OF_HEAD = "\r\n"

  def setup
    @asked = Queue.new
    @server = TCPServer.new("127.0.0.1", 0)
    @thread = Thread.new { loop { answer(@server.accept) } }
    super
  end

  def teardown
    super
    @thread.kill
    @server.close
  end

  def platforms = {"x" => Platform.new(key: "x", base: "http://127.0.0.1:#{@server.addr[1]}")}
  def at(path) = "http://127.0.0.1:#{@server.addr[1]}#{path}"

  def answer(socket)
    path = socket.gets.split[1]
    line = socket.gets until END_OF_HEAD === line
    @asked << path
    body = path == "/wren.svg" ? Drawings.svg : "no picture"
    socket.write("HTTP/1.1 200 OK\r\nContent-Length: #{body.bytesize}\r\n\r\n#{body}")
    socket.close
  end

  def came = @came ||= Queue.new.tap { |queue| means.pictures.listen { |address| queue << address } }

  def test_it_is_there_once_it_has_come_and_is_fetched_once
    came
    assert_nil means.pictures.at(at("/wren.svg"), 1)
    wait_for("it to come") { !came.empty? }
    id = means.pictures.at(at("/wren.svg"), 1)
    assert_path_exists cabinet.find("#{id}-1.webp")
    5.times { assert_equal id, means.pictures.at(at("/wren.svg"), 1) }
    assert_equal 1, @asked.size
  end

  def test_after_a_restart_it_is_known_without_asking
    id = means.pictures.get(at("/wren.svg"), 1)
    @pictures.stop
    @journal.stop
    make_means
    came
    means.pictures.at(at("/wren.svg"), 1)
    wait_for("it to be known") { means.pictures.at(at("/wren.svg"), 1) == id }
    assert_equal 1, @asked.size
  end

  def test_what_is_no_picture_is_refused_and_not_asked_for_again_today
    means.pictures.at(at("/x.png"), 1)
    wait_for("it to be refused") { db[:addresses].get(:refused) }
    assert_includes db[:addresses].get(:refused), "no PNG"
    3.times { assert_nil means.pictures.at(at("/x.png"), 1) }
    assert_equal 1, @asked.size
    assert_equal 0, db[:pictures].count
  end
end
