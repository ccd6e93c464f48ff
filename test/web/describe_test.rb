# frozen_string_literal: true

require_relative "../feeds/described/examples"
require_relative "../feeds/described/small_server"
require_relative "../support/minimal_irc"
require_relative "../support/web_test"

# The bench for descriptions: written beside what comes, kept, recorded by, connected, taken along and brought.
class DescribeTest < WebTest
  Bench = Bavard::Feeds::Described::Bench
  # What takes a body.
  TAKING = %w[read keep frames offer record].freeze

  def setup
    @says = []
    @fetched = []
    @server = SmallServer.new { |path, headers| answer(path, headers) }
    @irc = MinimalIrc.new
    super
    sign_up
  end

  def teardown
    super
    [@server, @irc].each(&:stop)
  end

  def door = @door ||= Bavard::Outward::Door.new(inside: [URI(@server.address).then { |uri| "#{uri.host}:#{uri.port}" }, "127.0.0.1:#{@irc.port}"])

  def answer(path, headers)
    @fetched << path
    return [404, {}, "{}"] unless path.start_with?("/rooms/reedmere/")
    return [403, {}, "{}"] unless headers["x-key"] == "k-1"

    # What was said before comes again, as on platforms without a mark.
    [200, {}, JSON.generate("lines" => @says)]
  end

  # A platform with a key, read over HTTP.
  def document(**more)
    {"format" => "bavard-platform/1", "key" => "pond", "name" => "Pond", "base" => @server.address, "asks" => {"room" => {"label" => "Room"}},
     "secrets" => {"key" => {"label" => "API key"}}, "headers" => {"x-key" => "{key}"}, "poll" => {"ask" => "/rooms/{room}/lines", "items" => "lines", "wait_ms" => 200},
     "reads" => [{"is" => "line", "id" => "n", "login" => "from", "text" => "words"}]}.merge(more.transform_keys(&:to_s))
  end

  def text(**more) = Bench::Written.text(document(**more))
  def begun = @begun ||= send_form("/feeds/describe/", {"way" => "poll"})["id"]
  def at(path, value) = send_json("/feeds/describe/#{begun}/#{path}", value)
  def show = @shows.run(@record.id)
  def key = "own.#{begun}"

  def test_a_server_that_speaks_irc_is_read_by_what_its_tags_carry_and_follows_its_description
    irc = @irc
    pond = {"format" => "bavard-platform/1", "key" => "pond", "name" => "Pond", "irc" => {"host" => "127.0.0.1", "port" => irc.port, "tls" => false, "tags" => {"badges" => "wears"}}, "badges" => {"ringer/3" => "#{@server.address}/r.png", "warden" => nil}}
    @begun = send_form("/feeds/describe/", {"way" => "irc"})["id"]
    assert at("keep", {"text" => Bench::Written.text(pond), "samples" => []})["usable"]
    at("record", {"text" => Bench::Written.text(pond), "values" => {"channel" => "reedmere"}})
    wait_for("it to listen") { irc.clients.positive? }
    irc.write("@wears=warden :ann!a@b PRIVMSG #reedmere :up there\r\n")
    irc.write(":irc PING :x\r\n:irc 372 * :PRIVMSG #reedmere :no\r\n@wears=warden :ann!a@b PRIVMSG #reedmere :last\r\n")
    said = wait_for("what came") { JSON.parse(get("/feeds/describe/#{begun}/recording").body)["frames"].grep(/up there/).first }
    words = -> { JSON.parse(get("/feeds/describe/#{begun}/recording").body)["frames"].map { |frame| frame[/[^:]+\z/] } }
    wait_for("the last") { words.call.last == "last" }
    assert_equal ["up there", "last"], words.call, "what is between us and the server is no frame"
    assert_equal [{"is" => "line", "login" => "ann", "name" => "ann", "text" => "up there", "badges" => ["warden"]}],
      at("read", {"text" => Bench::Written.text(pond), "samples" => [], "frames" => [said]})["frames"][0]["becomes"]
    at("recording/stop", {})
    found = send_form("/feeds/", {"platform" => key, "channel" => "reedmere"})
    kinds = -> { stores.dress.badges(@record.id).map { |badge| [badge.kind, badge.shown, badge.theirs] } }
    wait_for("badges that nobody wore yet") { kinds.call == [["ringer", true, "#{@server.address}/r.png"], ["warden", true, nil]] }
    wait_for("their pictures to be fetched") { @fetched.include?("/r.png") }
    send_form("/dress/badges/#{found["id"]}/warden", {"shown" => "0"})
    lines = -> { show.ask { |running| running.lines.to_a.map { |kept| [kept.line.text, kept.line.person.roles] } } }
    wait_for("it to be live") { show.ask { |running| running.lane(found["id"]).state.state == :live } }
    irc.write("@wears=moderator,warden;x=subscriber :bo!a@b PRIVMSG #reedmere :one\r\n")
    wait_for("the line") { lines.call.include?(["one", %w[moderator warden viewer]]) }
    drawn = show.ask { |running| running.wardrobe.badges(running.lines.to_a.find { |kept| kept.line.text == "one" }.line).map(&:kind) }
    assert_equal %w[moderator], drawn, "left out before anybody wore it"
    assert_equal({"usable" => true, "key" => key, "used" => 1},
      at("keep", {"text" => Bench::Written.text(pond.merge("irc" => pond["irc"].merge("tags" => {"badges" => "x"}))), "samples" => []}))
    wait_for("it to be read by that") do
      irc.write("@wears=moderator;x=subscriber :bo!a@b PRIVMSG #reedmere :two\r\n")
      lines.call.include?(["two", %w[subscriber viewer]])
    end
    assert_includes JSON.parse(get("/feeds/#{found["id"]}/mapping").body)["entries"].map { |entry| [entry["entry"], entry["keys"]] }, %w[badges x]
    # What the host sets otherwise is kept, and the rest follows the description.
    theirs = JSON.parse(get("/feeds/#{found["id"]}/mapping").body)["entries"].to_h { |entry| [entry["entry"], entry["keys"]] }
    send_form("/feeds/#{found["id"]}/mapping", theirs.merge("colour" => "tint", "anybody" => "reply"))
    wait_for("it to be kept") { stores.feeds.find(found["id"]).mapping == {"colour" => %w[tint]} }
    at("remove", {})
    wait_for("it to say so") { show.ask { |running| running.lane(found["id"]).state.reason.include?("was taken away") } }
  end

  def test_from_nothing_to_a_line
    get "/feeds/describe/"
    assert_includes last_response.body, "How is it reached?"
    get "/feeds/describe/#{begun}"
    assert_includes last_response.body, "&quot;bavard-platform/1&quot;"
    refute_includes get("/feeds").body, "platform:#{key}", "nobody has written anything yet"
    assert_equal({"usable" => true, "key" => key, "used" => 0}, at("keep", {"text" => text, "samples" => []}))
    get "/feeds"
    assert_match(/value="platform:#{key}".*<b>Pond/, last_response.body)
    assert_match(/does not let us read this/, send_form("/feeds/", {"platform" => key, "#{key}.room" => "reedmere", "#{key}.key" => "wrong"})["error"])
    found = send_form("/feeds/", {"platform" => key, "#{key}.room" => "reedmere", "#{key}.key" => "k-1"})
    assert_equal "Reading Pond.", found["found"], found
    @says << {"n" => 1, "from" => "ann", "words" => "up <b>there</b>"}
    wait_for("the line") { show.ask { |running| running.lines.to_a.map { |kept| kept.line.text } } == ["up <b>there</b>"] }
    refute_includes db[:feeds].all.inspect, "k-1"
  end

  def test_a_change_counts_at_once_and_what_cannot_be_used_says_so_in_its_lane_alone
    at("keep", {"text" => text, "samples" => []})
    feed = send_form("/feeds/", {"platform" => key, "#{key}.room" => "reedmere", "#{key}.key" => "k-1"})["id"]
    said = -> { show.ask { |running| running.lines.to_a.map { |kept| kept.line.text } } }
    @says << {"n" => 1, "from" => "ann", "words" => "one", "body" => "eins"}
    wait_for("the line") { said.call == %w[one] }
    assert_equal 1, at("keep", {"text" => text(reads: [{"is" => "line", "id" => "n", "login" => "from", "text" => "body"}]), "samples" => []})["used"]
    @says << {"n" => 2, "from" => "ann", "words" => "two", "body" => "zwei"}
    wait_for("the next line") { said.call == %w[one zwei] }
    refute at("keep", {"text" => "{", "samples" => []})["usable"]
    state = -> { show.ask { |running| running.lane(feed).state } }
    wait_for("the lane to say so") { state.call.reason == Bavard::Live::FeedWays::NOT_DESCRIBED }
    get "/feeds"
    refute_includes last_response.body, "platform:#{key}"
    at("keep", {"text" => text, "samples" => []})
    wait_for("it to go on") { state.call.state == :live }
  end

  def test_what_becomes_of_frames_is_told_without_being_kept
    report = at("read", {"text" => text, "samples" => [{"frame" => {"lines" => []}, "becomes" => [{"is" => "line"}]}],
                         "frames" => [{"lines" => [{"n" => 1, "from" => "ann", "words" => "hi", "late" => true}]}, {"lines" => []}, {}, 7], "chosen" => 0})
    assert_empty report["faults"]
    assert_equal ["line", "nothing in it", "nothing in it", "nothing in it"], report["frames"].map { |one| one["told"] }
    assert_equal [["line", {"id" => "1", "login" => "ann", "text" => "hi"}, ["late"]]],
      report["chosen"].map { |item| [item["is"], item["fields"], item["unread"].map { |field| field["path"] }] }
    assert_equal [[["said", "hi"]]], [report["drawn"].map { |card| [card["k"], card["f"].dig(0, 1)] }]
    assert_equal [%w[room text], %w[key password]], report["asks"].map { |ask| ask.values_at("name", "type") }
    assert_match(/0 things are in it/, report["samples"].first)
    refute_includes stores.descriptions.find(@record.id, begun).text, @server.address
  end

  def test_an_offer_is_written_into_the_text
    frame = {"lines" => [{"n" => 1, "from" => "ann", "words" => "hi", "tint" => "#a1b2c3"}]}
    given = {"text" => text, "frame" => frame, "item" => 0}
    assert_includes at("offer", given.merge("path" => "tint", "field" => "colour"))["text"], '"colour": "tint"'
    assert_equal 422, at("offer", given.merge("path" => "words", "field" => "name")).then { last_response.status }
    assert_equal 422, at("offer", given.merge("path" => "tint", "field" => "is")).then { last_response.status }
    unread = given.merge("text" => text(reads: [{"is" => "nothing", "when" => "x"}]), "is" => "line")
    with = at("offer", unread)["text"]
    assert_equal({"is" => "line", "when" => "n", "login" => "from", "id" => "n", "text" => "words"}, JSON.parse(with)["reads"].last)
  end

  def test_it_is_recorded_live_also_before_anything_is_read
    @says << {"n" => 1, "from" => "ann", "words" => "one"}
    assert_equal "#{key}.room", at("record", {"text" => text, "values" => {}})["field"]
    assert at("record", {"text" => Bench::Written.text(document.except("reads")), "values" => {"room" => "reedmere", "key" => "k-1"}})["done"], last_response.body
    recorded = -> { JSON.parse(get("/feeds/describe/#{begun}/recording?from=0").body) }
    wait_for("a frame") { recorded.call["frames"].any? }
    assert_equal({"lines" => @says}, recorded.call["frames"].first)
    assert_equal "live", recorded.call["told"]["state"]
    assert_operator JSON.parse(get("/feeds/describe/#{begun}/recording?from=1").body)["frames"].size, :<, recorded.call["frames"].size
    send_form("/feeds/describe/#{begun}/recording/stop")
    wait_for("it to be over") { recorded.call["told"]["over"] }
    assert_match(/Line \d+: /, at("record", {"text" => text(base: "nowhere"), "values" => {}})["error"])
  end

  def test_one_is_recorded_at_a_time_for_each_show_and_so_many_for_all
    recorder = Struct.new(:over, :stopped) do
      def start = self
      def stop = self.stopped = self.over = true
      def over? = over
    end
    recordings = Bavard::Web::Recordings.new
    first, second = Array.new(2) { recorder.new(false, false).tap { |one| recordings.begin(1, 7, one) } }
    assert_equal [true, false, second, nil], [first.stopped, second.stopped, recordings.of(1, 7), recordings.of(1, 8)]
    (2..Bavard::Web::Recordings::MOST).each { |show| recordings.begin(show, 7, recorder.new(false, false)) }
    assert_raises(Bavard::Busy) { recordings.begin(99, 7, recorder.new(false, false)) }
    second.over = true
    recordings.begin(99, 7, recorder.new(false, false))
    refute_nil recordings.of(99, 7)
  end

  def test_a_recording_that_cannot_connect_says_why
    at("record", {"text" => text, "values" => {"room" => "reedmere", "key" => "wrong"}})
    told = wait_for("it to be over") { JSON.parse(get("/feeds/describe/#{begun}/recording").body)["told"].then { |one| one if one["over"] } }
    assert_equal ["needs_you", "Pond does not let us read this."], told.values_at("state", "words")
  end

  def test_nobody_describes_a_way_into_the_house
    inside = text(base: "http://127.0.0.1:#{URI(TestDatabase.url).port}")
    at("record", {"text" => inside, "values" => {"room" => "reedmere", "key" => "k-1"}})
    told = wait_for("it to be over") { JSON.parse(get("/feeds/describe/#{begun}/recording").body)["told"].then { |one| one if one["over"] } }
    assert_match(/inside this house/, told["words"])
    at("keep", {"text" => inside, "samples" => []})
    assert_match(/inside this house/, send_form("/feeds/", {"platform" => key, "#{key}.room" => "reedmere", "#{key}.key" => "k-1"})["error"])
    socket = text.sub(/"poll": \{.*\},$/, '"socket": {"at": "/live"},')
    at("keep", {"text" => socket.sub(@server.address, "http://127.0.0.1:#{URI(TestDatabase.url).port}"), "samples" => []})
    assert_match(/inside this house/, send_form("/feeds/", {"platform" => key, "#{key}.room" => "reedmere", "#{key}.key" => "k-1"})["error"])
  end

  def test_it_is_taken_along_and_brought_with_its_samples
    samples = [{"frame" => {"lines" => []}, "becomes" => []}]
    at("keep", {"text" => text, "samples" => samples})
    get "/feeds/describe/#{begun}/along.json"
    assert_equal 'attachment; filename="pond.json"', last_response.headers["content-disposition"]
    file = Tempfile.new.tap { |temp| temp.write(last_response.body) && temp.flush }
    brought = send_form("/feeds/describe/", {"file" => Rack::Test::UploadedFile.new(file.path, "application/json")})["id"]
    kept = stores.descriptions.find(@record.id, brought)
    assert_equal [document, samples], [JSON.parse(kept.text), kept.samples]
    assert_equal document.merge("samples" => samples), JSON.parse(last_response.body.empty? ? "" : get("/feeds/describe/#{brought}/along.json").body)
    nothing = Tempfile.new.tap { |temp| temp.write("[1]") && temp.flush }
    assert_equal "file", send_form("/feeds/describe/", {"file" => Rack::Test::UploadedFile.new(nothing.path, "application/json")})["field"]
    send_form("/feeds/describe/#{brought}/remove")
    assert_nil stores.descriptions.find(@record.id, brought)
  end

  def test_hostile_bodies_are_refused_and_nothing_breaks
    ["", "[]", "{", "7", "\xff", "{\"text\":7}", JSON.generate("text" => "{}", "frames" => 7, "samples" => 7, "chosen" => "x")].each do |body|
      TAKING.each do |path|
        send_json("/feeds/describe/#{begun}/#{path}", body)
        assert_includes [200, 422], last_response.status, "#{path} #{body}"
      end
    end
    deep = JSON.generate("text" => "#{"[" * 5000}#{"]" * 5000}")
    told = send_json("/feeds/describe/#{begun}/read", deep)
    assert_equal 1, told["faults"].size
    assert_equal "Without a name", told["name"]
    assert_equal "text", at("keep", {"text" => "x" * 100_001})["field"]
    assert_equal "samples", at("keep", {"text" => "{}", "samples" => [{"frame" => "x" * 300_001, "becomes" => []}]})["field"]
    %w[nowhere 99999999].each { |other| get("/feeds/describe/#{other}").then { assert_equal 404, last_response.status } }
    assert_equal 0, means.meters.registry.get(:bavard_faults_total).get(labels: {place: "web"}).to_i
  end
end
