# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "connected"
require_relative "small_server"

# Each way of reaching a platform, from its address to intakes, over real lines to a small server of this process.
class DescribedConnectionsTest < Minitest::Test
  include Connected

  def serve(&answer) = @server = SmallServer.new(&answer)
  def connect(name, asked, **more) = super(name, asked, base: @server.address, **more)

  def teardown
    super
    @server&.stop
  end

  def page(messages, mark, people: [], wait: 200) = JSON.generate("data" => {"messages" => messages, "people" => people, "mark" => mark, "wait" => wait})

  def test_asked_over_http_from_a_mark_on
    pages = [page([{"type" => "said", "id" => 1, "person" => 4, "html" => "<i>hello</i>"}], "m1", people: [{"id" => 4, "name" => "ann"}]),
      page([{"type" => "unsaid", "id" => 1}, {"type" => "dance"}, 7], "m2")]
    serve { |_path, _| [200, {}, pages.shift || page([], "m3")] }
    connect("kettle", {"room" => "reed mere"})
    line = taken(:line)
    assert_equal ["hello", "ann", true, nil], [line.body.text, line.body.login, line.body.history, line.since_ms]
    assert_equal "1", taken(:delete_line).platform_id
    wait_for("three questions") { @server.asked.size >= 3 }
    assert_equal ["/rooms/reed%20mere/chat", "/rooms/reed%20mere/chat?since=m1", "/rooms/reed%20mere/chat?since=m2"], Array.new(3) { @server.asked.pop[1] }
    assert_nil halt
    assert_equal ["m3", 2, true], [@connection.cursor["since"], @refused.size, @connection.joined?]
  end

  def test_what_it_is_told_from_the_mark_on_was_said_since_it_was_there_last
    serve { [200, {}, page([{"type" => "said", "id" => 1, "person" => 4, "html" => "meanwhile"}], "m2", people: [{"id" => 4, "name" => "ann"}])] }
    connect("kettle", {"room" => "reed mere"}, resume: Bavard::Feeds::Resume.new(nil, 1000, {"since" => "m1"}))
    line = taken(:line)
    assert_equal ["meanwhile", true, 1000], [line.body.text, line.body.history, line.since_ms]
    assert_nil halt
  end

  def test_totals_are_told_where_they_are_others_than_before
    numbers = [7, 7, 8]
    serve { [200, {}, JSON.generate("n" => numbers.shift || 8)] }
    connect("kettle", {"room" => "x"}, joins: {}, reads: [{"is" => "totals", "followers" => "n"}], poll: {"ask" => "/n", "wait_ms" => 200})
    assert_equal [7, 8], Array.new(2) { taken(:totals).body["followers"] }
    wait_for("five answers") { @server.asked.size >= 5 }
    assert_nil halt
    assert_empty [*@all, *drained].select { |intake| intake.kind == :totals }
  end

  def test_a_secret_is_not_told_where_an_address_comes_to_nothing
    serve { [200, {}, "{}"] }
    connect("brook", {"pond" => "x"}, secrets: {"key" => "http://[se-cret"}, headers: {}, reads: LINES, stream: {"at" => "{+key}"})
    @thread.join
    assert_equal "“{+key}” does not come to an address of Brook.", @ended.reason
  end

  def test_what_http_answers_has_its_meaning
    {401 => [:needs_you, :permission], 404 => [:needs_you, :address], 500 => [:waiting, nil]}.each do |status, (state, want)|
      serve { [status, {}, "{}"] }
      connect("kettle", {"room" => "x"})
      @thread.join
      assert_equal [state, want], [@ended.state, @ended.want], status
      @server.stop
    end
  end

  def test_what_is_gone_is_a_gap_and_it_goes_on
    answers = [[200, {}, page([], "m1")], [410, {}, "{}"], [200, {}, page([{"type" => "said", "id" => 2, "by" => {"name" => "bo"}, "html" => "on"}], "m2")]]
    serve { answers.shift || [200, {}, page([], "m2")] }
    connect("kettle", {"room" => "x"})
    taken(:gap)
    assert_equal "on", taken(:line).body.text
    halt
  end

  def test_whoever_asks_too_often_waits_as_long_as_it_says
    answers = [[429, {"retry-after" => "1"}, ""]]
    serve { answers.shift || [200, {}, page([], "m")] }
    connect("kettle", {"room" => "x"})
    state(:waiting)
    state(:live)
    halt
  end

  def test_a_broadcast_is_found_and_found_again_when_it_is_over
    found = [{"on" => nil}, {"on" => "b1"}, {"on" => "b2"}]
    over = {"b1" => true}
    serve do |path, _|
      next [200, {}, JSON.generate(found.shift || {"on" => "b2"})] if path == "/rooms/x/now"

      [200, {}, JSON.generate("over" => over[path[/b\d/]], "says" => [{"id" => path[/b\d/], "u" => "ann"}])]
    end
    connect("kettle", {"room" => "x"}, joins: {}, reads: [{"is" => "line", "id" => "id", "login" => "u"}],
      poll: {"find" => {"ask" => "/rooms/{room}/now", "keep" => {"number" => "on"}, "every_ms" => 1000}, "ask" => "/says/{number}", "items" => "says", "over" => "over", "wait_ms" => 200})
    state(:nobody_broadcasting)
    assert_equal "b1", taken(:line).platform_id
    assert_equal "b2", taken(:line).platform_id
    halt
  end

  Permission = Struct.new(:scopes, :token) do
    def may?(scope) = scopes.include?(scope)
    def standing = token
  end

  def test_the_hosts_own_lines_are_sent_where_it_is_described_and_permitted
    wrote = Queue.new
    serve do |path, headers|
      next [200, {}, page([], "m")] unless path == "/rooms/x/say"

      wrote << headers
      [wrote.size > 1 ? 429 : 201, {}, "{}"]
    end
    poll = {"ask" => "/rooms/{room}/chat", "items" => "data.messages", "writes" => {"to" => "/rooms/{room}/say", "say" => {"words" => "{text}"}}}
    connect("kettle", {"room" => "x"}, permission: Permission.new(%w[read write], "t-1"), poll:)
    state(:live)
    2.times { |number| @outbox.put(number, "hello") }
    assert_equal [true, "Kettle wants to be asked less often."], Array.new(2) { taken(:answered).body }.map { |answered| answered.reason || answered.went }
    assert_equal ["Bearer t-1", "application/json"], wrote.pop.values_at("authorization", "accept")
    halt
  end

  def test_without_permission_or_a_description_of_it_nothing_is_sent
    serve { [200, {}, page([], "m")] }
    connect("kettle", {"room" => "x"})
    state(:live)
    @outbox.put(1, "hello")
    assert_equal "Nobody described how to write there.", taken(:answered).body.reason
    halt
  end

  def test_server_sent_events
    bodies = [["\uFEFFretry: 50\n\nevent: words\nid: 8\ndata: {\"id\":1,\"at\":1795499520,\"who\":{\"key\":\"ann\",\"keeper\":true},\ndata:\"parts\":[\"hi\"]}\r\n\r",
      "\n: nothing\n\nevent: count\ndata: {\"friends\":7}\n\nevent: shut\ndata: \n\nevent: odd\ndata: x\n\n"]]
    serve { bodies.any? ? [200, {"content-type" => "text/event-stream"}, bodies.shift] : [204, {}, ""] }
    connect("brook", {"pond" => "reedmere"}, secrets: {"key" => "k-1"})
    @thread.join
    line = taken(:line)
    assert_equal [1_795_499_520_000, "ann", %w[moderator], "hi"], [line.platform_time_ms, line.body.login, line.body.badges, line.body.text]
    assert_equal({"followers" => 7}, taken(:totals).body)
    state(:nobody_broadcasting)
    assert_equal [:waiting, 50, {"last_event_id" => "8"}, 1], [@ended.state, @ended.after_ms, @connection.cursor, @refused.size]
    assert_equal ["/ponds/reedmere/flow", "k-1", nil], @server.asked.pop.then { |_, path, headers| [path, headers["x-brook-key"], headers["last-event-id"]] }
  end

  def test_a_stream_goes_on_from_the_last_event_and_ends_when_it_is_told
    gate = Queue.new
    serve { [200, {"content-type" => "text/event-stream"}, Enumerator.new { |out| out << ": here\n\n" and gate.pop }] }
    connect("brook", {"pond" => "x"}, resume: Bavard::Feeds::Resume.new(nil, 1000, {"last_event_id" => "41"}))
    state(:live)
    assert_equal "41", @server.asked.pop[2]["last-event-id"]
    assert_nil halt
    assert_empty @all.select { |intake| intake.kind == :gap }
  ensure
    gate << true
  end

  def weir_line = wait_for("a line") { @server.lines.size.positive? && (@line = @server.lines.pop) }
  def hears(message) = assert_equal(message, @line.heard.pop)

  def test_a_websocket_that_greets_beats_and_packs
    serve { [404, {}, "{}"] }
    connect("weir", {"room" => "reedmere"})
    weir_line
    @line.say("kind" => "hello", "beat" => 1000)
    hears("do" => "enter", "room" => "reedmere")
    @line.say("kind" => "entered", "ticket" => "t1")
    events = [{"k" => "l", "i" => 1, "t" => 1_795_499_520, "u" => "ann", "m" => "see :owl:", "b" => [{"n" => "keeper", "p" => "https://x.example/k.png"}], "e" => [[4, 8, "owl"]]},
      {"k" => "g", "i" => 2, "u" => "bo", "m" => "for you", "n" => 300}]
    @line.say("packed" => JSON.generate("at" => 9, "events" => events))
    line = taken(:line)
    assert_equal ["ann", %w[keeper], {"keeper" => "https://x.example/k.png"}, [[4, 5, "https://weir.example/e/owl"]]],
      [line.body.login, line.body.badges, line.body.badge_pictures, line.body.emotes.in_code_points(line.body.text)]
    assert_equal "300 drops", taken(:event).body.said.paid.words
    @line.say("kind" => "ping", "n" => 5)
    hears("do" => "pong", "n" => 5)
    hears("do" => "beat")
    assert_equal({"ticket" => "t1", "at" => 9, "n" => 5}, @connection.cursor)
    assert_nil halt
  end

  def test_a_websocket_goes_on_where_it_stopped_or_says_what_is_missing
    serve { [404, {}, "{}"] }
    connect("weir", {"room" => "reedmere"}, resume: Bavard::Feeds::Resume.new(nil, 1000, {"ticket" => "t1", "at" => 9}))
    weir_line
    @line.say("kind" => "hello")
    hears("do" => "return", "ticket" => "t1", "after" => 9)
    @line.say("kind" => "lost")
    hears("do" => "enter", "room" => "reedmere")
    taken(:gap)
    @line.driver.close("no", 4004)
    @thread.join
    assert_equal %i[needs_you address], [@ended.state, @ended.want]
  end

  LINES = [{"is" => "line", "login" => "u", "text" => "m", "id" => "i"}].freeze

  def test_what_is_posted_asked_as_well_remembered_from_headers_and_not_changed
    answers = [[200, {"etag" => "e1", "x-wait" => "0.2"}, JSON.generate([{"i" => 1, "by" => 7, "m" => "hi"}])], [304, {}, ""]]
    serve { |path, _| path == "/people" ? [200, {}, JSON.generate([{"id" => 7, "n" => "ann"}])] : answers.shift || [304, {}, ""] }
    connect("kettle", {"room" => "x"}, joins: {"who" => {"in" => "people", "by" => "id", "key" => "by"}}, headers: {"if-none-match" => "{etag}"},
      reads: [{"is" => "line", "login" => "who.n", "text" => "m"}],
      poll: {"ask" => {"to" => "/says", "say" => {"room" => "{room}", "deep" => [{"since" => "{etag}"}]}}, "also" => {"people" => "/people"}, "items" => "answer",
             "keep" => {"etag" => {"header" => "ETag"}}, "wait_ms" => {"header" => "x-wait", "in" => "s"}})
    assert_equal "ann", taken(:line).body.login
    wait_for("three questions") { @server.asked.size >= 3 }
    first, _, second = Array.new(3) { @server.asked.pop }
    assert_equal ["POST", "/says", nil, "e1"], [*first.first(2), first[2]["if-none-match"], second[2]["if-none-match"]]
    assert_nil halt
    assert_equal({"etag" => "e1"}, @connection.cursor)
  end

  def test_a_json_text_a_line_where_it_was_found
    gate = Queue.new
    serve do |path, _|
      next [200, {}, JSON.generate("at" => "/flow/7?key=a")] if path == "/where"

      [200, {"content-type" => "application/x-ndjson"}, Enumerator.new { |out| out << %({"i":1,"u":"ann","m":"h) and out << %(i"}\n\n{"i":2,\n) and gate.pop }]
    end
    connect("brook", {"pond" => "x"}, headers: {}, reads: LINES,
      stream: {"find" => {"ask" => "/where", "keep" => {"where" => "at"}}, "at" => "{+where}", "as" => "lines", "keep" => {"last" => "i"}})
    assert_equal ["1", "hi"], taken(:line).then { |line| [line.platform_id, line.body.text] }
    wait_for("what cannot be read") { @refused.size == 1 }
    assert_equal [%w[GET /where], ["GET", "/flow/7?key=a"]], Array.new(2) { @server.asked.pop.first(2) }
    assert_equal({"last" => 1}, @connection.cursor)
    assert_nil halt
  ensure
    gate << true
  end

  def test_a_websocket_that_is_found_and_speaks_in_plain_words_and_behind_a_mark
    serve { |path, _| path == "/ticket" ? [200, {}, JSON.generate("ticket" => "t-1")] : [404, {}, "{}"] }
    connect("weir", {"room" => "x"}, reads: LINES,
      socket: {"find" => {"ask" => "/ticket", "keep" => {"ticket" => "ticket"}}, "at" => "/gate{?ticket}", "protocol" => "reeds.1", "prefix" => "42", "opens" => ["HELLO {room}"],
               "answers" => [{"when" => "plain == 'PING'", "say" => "PONG"}, {"when" => "[0] == 'in'", "means" => "joined", "say" => ["ok", "{room}"]}], "items" => "[1]"})
    heard = weir_line
    assert_equal ["ticket=t-1", "reeds.1"], [heard.env["QUERY_STRING"], heard.env["HTTP_SEC_WEBSOCKET_PROTOCOL"]]
    @line.say("PING")
    @line.say(%(42["in"]))
    state(:live)
    @line.say(%(42["said",{"i":1,"u":"ann","m":"hi"}]))
    assert_equal "hi", taken(:line).body.text
    assert_equal ["HELLO x", "PONG", %(42["ok","x"])], Array.new(3) { @line.heard.pop }
    assert_nil halt
  end

  def test_where_there_is_nothing_to_be_found_it_is_looked_for_again
    serve { [200, {}, "{}"] }
    {"stream" => "brook", "socket" => "weir"}.each do |transport, name|
      connect(name, {"pond" => "x", "room" => "x"}, headers: {}, reads: LINES,
        transport => {"find" => {"ask" => "/where", "keep" => {"where" => "at"}, "every_ms" => 4000}, "at" => "/{where}"})
      @thread.join
      assert_equal [:waiting, 4000], [@ended.state, @ended.after_ms], name
    end
  end

  def test_it_goes_nowhere_but_to_its_own_hosts
    serve { [200, {}, JSON.generate("at" => "http://127.0.0.1:1/x")] }
    connect("brook", {"pond" => "x"}, headers: {}, reads: LINES, stream: {"find" => {"ask" => "/where", "keep" => {"where" => "at"}}, "at" => "{+where}"})
    @thread.join
    assert_equal "127.0.0.1 is not among the hosts of Brook.", @ended.reason
  end
end
