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
    assert_equal ["hello", "ann", true], [line.body.text, line.body.login, line.body.history]
    assert_equal "1", taken(:delete_line).platform_id
    wait_for("three questions") { @server.asked.size >= 3 }
    assert_equal ["/rooms/reed%20mere/chat", "/rooms/reed%20mere/chat?since=m1", "/rooms/reed%20mere/chat?since=m2"], Array.new(3) { @server.asked.pop[1] }
    assert_nil halt
    assert_equal ["m3", 2, true], [@connection.cursor["since"], @refused.size, @connection.joined?]
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
end
