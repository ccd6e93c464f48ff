# frozen_string_literal: true

require_relative "../support/web_test"
require_relative "../../lib/bavard/web/http/at_once"

# Whoever has an account tries to hold all of Bavard's threads, so that nobody else gets a page.
class HoldingThreadsTest < WebTest
  STATION = Bavard::Web::Station

  def setup
    super
    sign_up
  end

  def of_another
    clear_cookies
    @csrf = nil
    sign_up(email: "other@reedmere.example")
  end

  # So much of this show is on its way as may be.
  def at_once
    8.times { assert STATION::AT_ONCE.take?(@record.id) }
    yield
  ensure
    8.times { STATION::AT_ONCE.leave(@record.id) }
  end

  # One thing is asked of a server that does not answer, another waits for that.
  def asking(show_id)
    go = Queue.new
    begun = Queue.new
    threads = Array.new(2) do
      Thread.new do
        STATION::OUTWARD.take(show_id) do
          begun << true
          go.pop
        end
      end
    end
    begun.pop
    wait_for("the other") { STATION::OUTWARD.waiting == 1 }
    yield
  ensure
    2.times { go << true }
    threads.each(&:join)
  end

  # Two that are being answered, in front of whatever looks for who it is.
  def held_by(address)
    go = Queue.new
    begun = Queue.new
    app = Bavard::Web::AtOnce.new(lambda do |env|
      begun << true
      go.pop if env["PATH_INFO"] == "/slow"
      [200, {}, ["seen"]]
    end, of_one: 2)
    threads = Array.new(2) { Thread.new { app.call("REMOTE_ADDR" => address, "PATH_INFO" => "/slow") } }
    2.times { begun.pop }
    yield ->(from, **more) { app.call({"REMOTE_ADDR" => from, "PATH_INFO" => "/feeds", "REQUEST_METHOD" => "GET", **more.transform_keys(&:to_s)}) }
  ensure
    2.times { go << true }
    threads.each(&:join)
    assert_equal 200, app.call("REMOTE_ADDR" => address, "PATH_INFO" => "/feeds").first
  end

  def test_many_requests_of_one_household_are_sent_away_before_anybody_is_looked_up
    held_by("2001:db8::1") do |ask|
      assert_equal [503, "2"], ask.call("2001:db8::2").then { |status, headers, _| [status, headers["retry-after"]] }
      assert_match(/Enough of yours/, JSON.parse(ask.call("2001:db8::3", HTTP_X_REQUESTED_WITH: "XMLHttpRequest").last.first)["error"])
      assert_includes ask.call("2001:db8::4", HTTP_ACCEPT: "text/html").last.first, "One moment"
      assert_equal 200, ask.call("2001:db8:0:1::1").first
    end
  end

  def test_many_pages_of_one_show_at_once
    send_form("/feeds/", "kind" => "nothing")
    at_once do
      get "/feeds"
      assert_equal [503, true], [last_response.status, last_response.body.include?("Enough of this show is being answered")]
      assert_match(/Enough of this show/, send_form("/feeds/", "kind" => "inbox", "name" => "In")["error"])
      mine = @record
      of_another
      get "/feeds"
      assert_equal 200, last_response.status
      @record = mine
    end
  end

  def test_whatever_becomes_of_a_request_its_place_is_free_again
    20.times do
      get "/feeds"
      send_form("/feeds/", "kind" => "nothing")
      get "/dress/imports/none"
      get "/gate/nowhere"
    end
    at_once { refute STATION::AT_ONCE.take?(@record.id) }
    get "/feeds"
    assert_equal 200, last_response.status
  end

  def test_servers_that_are_asked_and_do_not_answer
    shelf = send_form("/dress/shelves", {"name" => "Own"})["id"]
    stores.cast.seen(@record.id, "hidewire", "teo", "Teo", 1)
    teo = stores.cast.of_show(@record.id).first.id
    address = {"address" => "https://slow.reedmere.example/a.png"}
    routes = {"/feeds/" => {"paste" => "irc://slow.reedmere.example/#a"}, "/dress/shelves/from-address" => address,
              "/dress/shelves/#{shelf}/emotes" => address.merge("code" => ":a:"), "/dress/phrases" => address.merge("words" => "reed"),
              "/dress/cast/#{teo}/pictures/face" => address}
    asking(@record.id) do
      routes.each do |path, given|
        assert_match(/Enough is being asked of other servers just now/, send_form(path, given)["error"], path)
      end
      get "/feeds"
      assert_equal 200, last_response.status
      of_another
      refute_match(/Enough/, send_form("/feeds/", {"paste" => "irc://slow.reedmere.example/#a"})["error"])
    end
  end

  # With no account, of a show that is slow to answer: four at once, and the next one once there is room.
  def test_what_waits_for_a_show_at_its_links
    show = @shows.run(@record.id)
    key = Bavard::Web::NowApp.key(@site, make_stage, "now_line1")
    paths = [["/air/#{@stage.token}/said/1.wav", :get, 404], ["/now/#{@stage.id}/now_line1/#{key}", :post, 422]]
    send = -> { paths.map { |path, how, _| public_send(how, path).status } }
    4.times { assert Bavard::Web::Asking::PLACES.take?(show.id) }
    assert_equal [503, 503], send.call
    Bavard::Web::Asking::PLACES.leave(show.id)
    2.times { assert_equal paths.map(&:last), send.call }
  ensure
    4.times { Bavard::Web::Asking::PLACES.leave(show.id) }
  end
end
