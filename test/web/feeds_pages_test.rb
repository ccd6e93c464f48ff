# frozen_string_literal: true

require_relative "../support/processes"
require_relative "../support/web_test"

# Feeds of platforms through their addresses: what is tried, refused, kept, and who may touch it.
class FeedsPagesTest < WebTest
  def setup
    @skein = RunningStandin.new("Skein", BEAT_MS: 1000).start
    @lantern = RunningStandin.new("Lantern", EVERY_MS: 200).start
    super
    @site.address = "http://127.0.0.1:4600"
    sign_up
  end

  def teardown
    super
    [@skein, @lantern].each(&:stop)
  end

  def platforms = [@skein, @lantern].to_h { |standin| standin.platform.then { |platform| [platform.key, platform] } }
  def feeds = stores.feeds.of_show(@record.id)
  def lane(id) = @shows.run(@record.id).ask { |show| show.lane(id).report(show.now_ms) }
  def until_state(id, state) = wait_for("the feed to be #{state}") { lane(id)[:state] == state }

  # @return [Hash] what the platform sent back to us
  def granted(key, decision: "grant", feed: nil)
    get "/feeds/permission", {"platform" => key, "feed" => feed}.compact
    asked = URI.decode_www_form(URI(last_response.headers["location"]).query).to_h
    standin = key == "skein" ? @skein : @lantern
    back = standin.post("/oauth/authorize", asked.merge("decision" => decision, "account" => "reedmere"))["location"]
    URI.decode_www_form(URI(back).query).to_h
  end

  def said
    get "/feeds"
    last_response.body[/data-said="([^"]*)"/, 1]
  end

  def test_a_feed_is_tried_and_what_was_found_is_told
    found = send_form("/feeds/", {"platform" => "skein", "skein.room" => "https://skein.example/@Reedmere/"})
    assert_equal "Reading Skein.", found["found"]
    assert_equal [["Skein", "described", "triangle", {"room" => "reedmere"}]], feeds.map { |feed| [feed.name, feed.kind, feed.shape, feed.address] }
    until_state(found["id"], :live)
  end

  def test_what_cannot_be_read_names_its_field_and_is_not_kept
    {{"platform" => "skein"} => "skein.room", {"platform" => "skein", "skein.room" => "nowhere"} => "skein.room", {"platform" => "lantern"} => "lantern.channel",
     {"platform" => "lantern", "lantern.number" => "0000-0000"} => "lantern.number", {"platform" => "lantern", "lantern.number" => "x y"} => "lantern.number",
     {"platform" => "lantern", "lantern.channel" => "x, y?!"} => "lantern.channel", {"kind" => "described"} => "kind",
     {"kind" => "nothing"} => "kind", {"kind" => "inbox"} => "name", {"kind" => "xmpp"} => "jid",
     {"kind" => "xmpp", "jid" => "hide@rooms.reedmere.example", "place" => "x:0"} => "place"}.each do |given, field|
      assert_equal field, send_form("/feeds/", given)["field"], given.inspect
      assert_equal 422, last_response.status
    end
    assert_empty feeds
  end

  def test_a_second_feed_of_a_platform_has_a_mark_of_its_own
    2.times { send_form("/feeds/", {"platform" => "skein", "skein.room" => "reedmere", "anyway" => "1"}) }
    assert_equal 2, feeds.map { |feed| [feed.shape, feed.colour] }.uniq.size
  end

  def test_what_is_read_already_is_not_read_twice_unless_it_is_wanted
    id = send_form("/feeds/", {"platform" => "skein", "skein.room" => "reedmere", "name" => "Hide"})["id"]
    same = {"platform" => "skein", "skein.room" => "https://skein.example/@Reedmere", "name" => "Once more"}
    assert_equal ["“Hide” reads that already: all of it would come twice.", true], send_form("/feeds/", same).values_at("error", "anyway")
    assert_equal 422, last_response.status
    stores.feeds.keep(id, wanted: false)
    assert_equal "“Hide” has that already. Connect it in its lane.", send_form("/feeds/", same)["error"]
    send_form("/feeds/", same.merge("anyway" => "1"))
    assert_equal ["Hide", "Once more"], feeds.map(&:name)
    feeds.each { |feed| stores.feeds.remove(feed.id, clock.call) }
    assert send_form("/feeds/", same)["id"]
    2.times { |index| send_form("/feeds/", {"kind" => "inbox", "name" => "Shop #{index}"}) }
    assert_equal ["Once more", "Shop 0", "Shop 1"], feeds.map(&:name)
  end

  def test_one_channel_of_one_server_is_one_whoever_reads_there
    read = {"kind" => "irc", "paste" => "irc://127.0.0.1:6667/#Dawn"}
    send_form("/feeds/", read.merge("anyway" => "1"))
    [{"paste" => "irc://127.0.0.1:6667/#dawn", "nick" => "odalys"}, {"paste" => "irc://127.0.0.1:6667/#dusk"}].zip([true, false]) do |other, twice|
      Bavard::Web::NewFeed.new(@site, platforms, read.merge(other)).then { |feed| assert_equal twice, !feed.twin(@record.id).nil?, other }
    end
  end

  # Adds one, once it has looked at what there is.
  def adding(entered, go = nil)
    Thread.new do
      stores.feeds.one_by_one(@record.id) do
        entered << true
        go&.pop
        feeds.size.tap { stores.feeds.create(@record.id, kind: "irc", name: "Hide", shape: "circle", colour: "#5fb8d6", address: {}) }
      end
    end
  end

  def test_of_two_presses_at_once_the_second_sees_what_the_first_has_added
    entered = Queue.new
    go = Queue.new
    first = adding(entered, go)
    entered.pop
    second = adding(entered)
    waiting = TestDatabase.db[:pg_stat_activity].where(wait_event_type: "Lock", datname: Sequel.function(:current_database))
    wait_for("the second to wait") { waiting.any? }
    go << true
    assert_equal [0, 1], [first, second].map(&:value)
  end

  def test_an_address_that_is_pasted_counts_for_what_stands_in_it
    pasted = {"https://lantern.example/watch/7741-0392" => {"number" => "7741-0392"}, "lantern.example/?watch=7741-0392" => {"number" => "7741-0392"},
              "https://lantern.example/@Reedmere" => {"channel" => "reedmere"}}
    pasted.each_key { |address| send_form("/feeds/", {"platform" => "lantern", "lantern.channel" => address, "anyway" => "1"}) }
    assert_equal pasted.values, feeds.map(&:address)
  end

  def test_where_a_feed_reads_is_said_anew_and_tried_first
    id = send_form("/feeds/", {"platform" => "lantern", "lantern.number" => "0000-0000", "anyway" => "1"})["id"]
    until_state(id, :needs_you)
    assert_equal :broadcast, lane(id)[:want]
    assert_equal [["lantern.channel", false, nil], ["lantern.number", true, "0000-0000"]], lane(id)[:asks].map { |ask| ask.values_at(:field, :each, :value) }
    assert_equal "lantern.channel", send_form("/feeds/#{id}/address")["field"]
    refused = send_form("/feeds/#{id}/address", {"lantern.number" => "1111-1111"})
    assert_equal [422, true], [last_response.status, refused["anyway"]]
    assert_equal({"number" => "0000-0000"}, stores.feeds.find(id).address)
    send_form("/feeds/#{id}/address", {"lantern.channel" => "reedmere"})
    until_state(id, :live)
    until_written
    assert_equal({"channel" => "reedmere"}, stores.feeds.find(id).address)
  end

  def test_permission_makes_a_feed_of_that_accounts_own_and_its_tokens_are_sealed
    back = granted("skein")
    get "/feeds/granted", back
    assert_equal "Skein is connected as Reedmere.", said
    feed = feeds.first
    assert_equal [{"room" => "reedmere"}, %w[read write]], [feed.address, feed.permission.may]
    row = db[:permissions].first
    refute_includes row.values.join(" "), feed.permission.access
    until_state(feed.id, :live)
    assert_equal({name: "Reedmere", login: "reedmere", may: %w[read write], since: clock.call}, lane(feed.id)[:account])
  end

  def test_an_answer_that_is_not_to_our_question_gives_nothing
    back = granted("skein")
    get "/feeds/granted", back.merge("state" => "guessed")
    assert_includes said, "does not belong to a question of ours"
    get "/feeds/granted", back
    assert_includes said, "does not belong to a question of ours"
    assert_empty feeds
    assert_equal 0, db[:permissions].count
  end

  def test_a_code_that_was_used_is_refused_in_words
    back = granted("skein")
    @skein.post("/oauth/token", "grant_type" => "authorization_code", "code" => back["code"])
    get "/feeds/granted", back
    assert_includes said, "Skein did not give the permission"
    assert_empty feeds
  end

  def test_the_same_account_again_takes_the_place_of_the_older_permission
    2.times { get("/feeds/granted", granted("skein", feed: feeds.first&.id)) }
    assert_equal [1, 1], [db[:permissions].count, feeds.size]
  end

  def test_an_account_whose_chat_is_read_already_gives_its_permission_to_that_feed
    id = send_form("/feeds/", {"platform" => "skein", "skein.room" => "reedmere"})["id"]
    send_form("/feeds/#{id}/disconnect", {})
    get "/feeds/granted", granted("skein")
    assert_equal [[id, "reedmere", true]], feeds.map { |feed| [feed.id, feed.permission&.account, feed.wanted] }
    until_state(id, :live)
  end

  def test_answers_name_what_is_missing
    {{} => "text", {"text" => "x" * 401, "feeds" => "1"} => "text", {"text" => "hello"} => "feeds", {"text" => "hello", "feeds" => "999"} => "feed"}.each do |given, field|
      assert_equal field, send_form("/feeds/answer", given)["field"], given.keys.inspect
    end
  end

  def test_another_host_cannot_touch_a_feed_or_its_permission
    get "/feeds/granted", granted("skein")
    id = feeds.first.id
    clear_cookies
    @csrf = nil
    sign_up(email: "other@reedmere.example")
    %w[withdraw draft-only address connect disconnect remove].each do |what|
      send_form("/feeds/#{id}/#{what}", {"skein.room" => "fenlight", "on" => "1"})
      assert_includes [404, 422], last_response.status, what
    end
    get "/feeds/#{id}/inbox"
    assert_includes [404, 422], last_response.status
    assert_equal 1, db[:permissions].count
    refute db[:feeds].where(id:).get(:draft_only)
  end
end
