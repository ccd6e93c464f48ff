# frozen_string_literal: true

require_relative "../feeds/described/examples"
require_relative "../feeds/described/small_server"
require_relative "../support/drawings"
require_relative "../support/web_test"

# Sets of emotes that a described platform hands out: one tick, a shelf, its codes as they are there, renewed by itself.
class EmoteSetsTest < WebTest
  def setup
    @list = [{"name" => "wrenHi", "id" => "w1"}, {"name" => ":owl:", "id" => "o1", "zero" => true}, {"name" => "has space", "id" => "x"},
      {"name" => "lost", "id" => "gone"}, {"name" => 7, "id" => "n"}, {"name" => "noPicture"}]
    @asked = []
    @server = SmallServer.new { |path, _| answer(path) }
    super
    sign_up
    @feed = send_form("/feeds/", {"platform" => "kettle", "kettle.room" => "reedmere"})["id"]
  end

  def teardown
    super
    @server.stop
  end

  def platforms
    sets = {"channel" => {"label" => "Of this channel", "ask" => "/emotes/{room}.json", "items" => "emotes", "code" => "name", "overlay" => "zero",
                          "picture" => {"at" => "id", "put_into" => "#{@server.address}/pictures/{id}.svg"}},
            "everybody" => {"ask" => "/nowhere", "code" => "name", "picture" => "url"}}
    {"kettle" => Bavard::Feeds::Platform.of(Examples.description("kettle", base: @server.address, sets:))}
  end

  def answer(path)
    @asked << path
    case path
    when "/emotes/reedmere.json"
      @held&.pop
      [200, {}, JSON.generate("emotes" => @list)]
    when %r{\A/pictures/(?:w1|o1|n2)\.svg} then [200, {"content-type" => "image/svg+xml"}, Drawings.svg]
    when %r{\A/rooms/} then [200, {}, JSON.generate("data" => {"messages" => [], "mark" => "m", "wait" => 60_000})]
    else [404, {}, "{}"]
    end
  end

  def sets
    get "/feeds/#{@feed}/sets"
    JSON.parse(last_response.body)["sets"].to_h { |set| [set["name"], set] }
  end

  def want(name, on: "1") = send_form("/feeds/#{@feed}/sets/#{name}", {"on" => on})
  def shelves = stores.dress.shelves(@record.id).map { |one| [one.shelf.name, one.shelf.emotes.map { |emote| [emote.code, emote.overlay] }.sort] }
  def kept = stores.emote_sets.of_feed(@feed).first

  def test_one_tick_becomes_a_shelf_and_what_cannot_be_taken_is_said
    assert_equal [["Of this channel", false], ["everybody", false]], sets.values.map { |set| set.values_at("label", "on") }
    want("channel")
    wait_for("the set, not #{sets["channel"]}") { sets["channel"]["said"] }
    assert_equal [["Kettle: channel", [[":owl:", true], ["wrenHi", false]]]], shelves
    assert_match(/2 taken; 4 could not be taken/, sets["channel"]["said"])
    want("everybody")
    wait_for("the reason") { sets["everybody"]["said"] }
    assert_match(/It answered 404/, sets["everybody"]["said"])
  end

  def test_it_is_renewed_pictures_are_fetched_once_and_what_went_there_goes_here
    want("channel")
    wait_for("the set") { sets["channel"]["said"] }
    @asked.clear
    @site.set_imports.bring(kept).join
    assert_equal ["/emotes/reedmere.json"], @asked.reject { |path| path.start_with?("/rooms/") || path.include?("gone") }
    @list = [{"name" => "wrenHi", "id" => "w1"}, {"name" => "newOne", "id" => "n2"}]
    @site.set_imports.bring(kept).join
    wait_for("the newer set") { shelves.first.last == [["newOne", false], ["wrenHi", false]] }
    refute_includes @asked, "/pictures/w1.svg"
    @list = [{"name" => "newOne", "id" => "n2"}]
    @site.set_imports.bring(kept).join
    assert_equal [["newOne", false]], shelves.first.last
  end

  def test_after_six_hours_it_is_old_and_a_shelf_that_was_taken_away_is_left_alone
    want("channel")
    wait_for("the set") { sets["channel"]["said"] }
    old = -> { stores.emote_sets.older_than(clock.call - Bavard::Live::SetImports::OLD_MS).map(&:name) }
    assert_empty old.call
    @clock.now_ms += Bavard::Live::SetImports::OLD_MS + 1
    assert_equal ["channel"], old.call
    stores.dress.keep_shelf(@record.id, kept.shelf_id, removed_at_ms: clock.call)
    assert_empty old.call
    refute sets["channel"]["on"]
    want("channel")
    wait_for("it anew") { shelves.size == 1 }
  end

  def test_a_set_that_is_not_wanted_any_more_takes_its_shelf_along
    want("channel")
    wait_for("the set") { sets["channel"]["said"] }
    want("channel", on: "0")
    assert_equal [[], false], [shelves, sets["channel"]["on"]]
    assert_equal 404, want("nothing").then { last_response.status }
  end

  ON_ITS_WAY = %w[emote-set import].freeze

  # Whatever is on its way comes to its end.
  def let_go(count)
    count.times { @held << true }
    wait_for("all of it") { Thread.list.none? { |thread| ON_ITS_WAY.include?(thread.name) } }
  end

  def test_one_that_is_wanted_twice_before_it_came_gets_one_shelf
    @held = Queue.new
    2.times { want("channel") }
    let_go(2)
    assert_equal [["Kettle: channel", [[":owl:", true], ["wrenHi", false]]]], shelves
    assert_equal stores.dress.shelves(@record.id).first.shelf.id, kept.shelf_id
  end

  def test_presses_without_end_are_as_many_threads_as_there_are_sets
    @held = Queue.new
    want("channel")
    wait_for("the question") { @asked.include?("/emotes/reedmere.json") }
    10.times { %w[0 1].each { |on| want("channel", on:) } }
    assert_equal 2, Thread.list.count { |thread| thread.name == "emote-set" }
    let_go(2)
    assert_equal 1, shelves.size
  end

  def test_one_that_is_left_before_it_came_does_not_come
    @held = Queue.new
    want("channel")
    wait_for("the question") { @asked.include?("/emotes/reedmere.json") }
    want("channel", on: "0")
    let_go(1)
    assert_equal [[], false], [shelves, sets["channel"]["on"]]
    @held = nil
    want("channel")
    wait_for("it anew") { sets["channel"]["said"] }
    assert_equal 1, shelves.size
  end
end
