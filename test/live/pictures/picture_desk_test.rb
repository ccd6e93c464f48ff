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
    body = path == "/x.png" ? "no picture" : Drawings.svg
    status = path == "/late.svg" && @asked.size == 1 ? "503 Busy" : "200 OK"
    socket.write("HTTP/1.1 #{status}\r\nContent-Length: #{body.bytesize}\r\n\r\n#{body}")
    socket.close
  end

  def came = @came ||= Queue.new.tap { |queue| means.pictures.listen(self) { |address| queue << address } }

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

  def test_what_was_refused_is_asked_for_again_the_next_day
    means.pictures.at(at("/x.png"), 1)
    wait_for("it to be refused") { db[:addresses].get(:refused) }
    clock.now_ms += Bavard::Live::PictureDesk::AGAIN_AFTER_MS + 1
    wait_for("it to be asked for again") { means.pictures.at(at("/x.png"), 1) || @asked.size == 2 }
  end

  def test_what_the_server_could_not_give_is_asked_for_again_in_a_minute
    means.pictures.at(at("/late.svg"), 1)
    wait_for("it to be asked for") { @asked.size == 1 }
    3.times { assert_nil means.pictures.at(at("/late.svg"), 1) }
    before = clock.now_ms
    wait_for("it to come") do
      clock.now_ms += Bavard::Live::PictureDesk::SOON_AGAIN_AFTER_MS
      means.pictures.at(at("/late.svg"), 1)
    end
    assert_equal [2, nil], [@asked.size, db[:addresses].get(:refused)]
    assert_operator clock.now_ms - before, :<, Bavard::Live::PictureDesk::AGAIN_AFTER_MS
  end

  def test_one_that_came_itself_is_there_by_its_name_and_nothing_is_fetched_for_that
    came
    assert_nil means.pictures.at("cid:sha1+0@x", 1)
    means.pictures.bring("cid:sha1+0@x", Drawings.svg, 1)
    wait_for("it to come") { means.pictures.at("cid:sha1+0@x", 1) }
    means.pictures.bring("cid:sha1+1@x", "no picture", 1)
    wait_for("the other to be refused") { db[:addresses].where(address: "cid:sha1+1@x").get(:refused) }
    assert_equal [0, ["cid:sha1+0@x"]], [@asked.size, Array.new(came.size) { came.pop }]
  end

  # Two platforms may have one picture.
  def test_one_picture_at_many_addresses_comes_by_each
    came
    addresses = Array.new(16) { |number| at("/#{number}.svg") }
    addresses.each_with_index { |address, number| means.pictures.at(address, number) }
    wait_for("all to come") { came.size == addresses.size }
    assert_equal 1, addresses.map { |address| means.pictures.at(address, 1) }.uniq.size
  end
end
