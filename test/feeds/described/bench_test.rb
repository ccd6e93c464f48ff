# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/feeds/described/bench/beginnings"
require_relative "../../../lib/bavard/feeds/described/bench/bench"

# A description while somebody writes it: what is wrong and on which line, what becomes of frames, what nothing reads and could be.
class DescribedBenchTest < Minitest::Test
  Described = Bavard::Feeds::Described
  Bench = Described::Bench
  SOCKET = {"format" => "bavard-platform/1", "key" => "hide", "name" => "Hide", "base" => "https://chat.example",
            "socket" => {"at" => "/live"}, "reads" => [
              {"is" => "line", "when" => "t == 'said'", "id" => "d.key", "login" => "d.by.handle", "text" => "d.words"},
              {"is" => "nothing", "when" => "t == 'beat'"}
            ]}.freeze
  SAID = {"t" => "said", "d" => {"key" => "9f21", "by" => {"handle" => "tern", "warden" => false, "level" => 14}, "words" => "look up",
                                 "when" => 1_764_137_642_118, "tags" => ["a", {"n" => nil}]}}.freeze

  def bench(document = SOCKET, samples = []) = Bench::Bench.new(document.is_a?(String) ? document : Bench::Written.text(document), samples)

  def test_everything_has_its_line
    lines = Bench::Lines.of(%({\n "a/b": [1,\n  {"x": "}{,\\""}],\n\n "k~": {}\n}\n))
    assert_nil lines.broken
    assert_equal({"" => 1, "/a~1b" => 2, "/a~1b/0" => 2, "/a~1b/1" => 3, "/a~1b/1/x" => 3, "/k~0" => 5, "/k~0/not/there" => 5, "/nowhere" => 1},
      ["", "/a~1b", "/a~1b/0", "/a~1b/1", "/a~1b/1/x", "/k~0", "/k~0/not/there", "/nowhere"].to_h { |at| [at, lines.at(at)] })
  end

  def test_where_it_is_no_json_the_line_is_told
    {"" => [1, /ends in the midst/], "{\n\"a\": 1\n" => [3, /“}” is missing at the end/], "{\"a\" 1}" => [1, /colon is missing behind "a"/],
     "[1,\n 2,\n]" => [3, /“\]” is no value/], "{\n 'a': 1}" => [2, /double quotes/], "[1 2]" => [1, /comma or “\]” is missing before “2\]”/],
     "{}\n\nx" => [3, /behind its end/], "[\"a\nb\"]" => [1, /no value/], "#{"[" * 22}#{"]" * 22}" => [1, /deeper than 20/]}.each do |text, (line, words)|
      broken = Bench::Lines.of(text).broken
      assert_equal line, broken.line, text
      assert_match words, broken.words
      assert_equal [["", line]], bench(text).faults.map { |fault| [fault.at, fault.line] }
    end
  end

  # What JSON is not, is told; what it is, is read: by the line finder as by the library.
  def test_it_agrees_with_the_library_about_what_json_is
    random = Random.new(7)
    pieces = ["{", "}", "[", "]", ",", ":", '"a"', '"', "1", "-0.5e3", "true", "null", " ", "\n", "\\", "é", "x"]
    3000.times do
      text = Array.new(random.rand(1..9)) { pieces.sample(random:) }.join
      parsed = begin
        JSON.parse(text)
        true
      rescue JSON::ParserError
        false
      end
      assert_equal parsed, Bench::Lines.of(text).broken.nil?, text.inspect
    end
  end

  def test_what_is_wrong_is_told_on_its_line_and_what_is_right_is_read_meanwhile
    wrong = bench(SOCKET.merge("colour" => "x", "whose" => 1, "reads" => [*SOCKET["reads"], {"is" => "lin"}]))
    assert_equal(["/whose", "/reads/2/is"], wrong.faults.map(&:at).sort.reverse)
    text = Bench::Written.text(SOCKET.merge("reads" => [*SOCKET["reads"], {"is" => "lin"}]))
    assert_equal [text.lines.index { |line| line.include?('"lin"') } + 1], bench(text).faults.map(&:line)
    refute_predicate wrong, :fits?
    assert_equal "line", wrong.contents(wrong.items(SAID))
    assert_empty bench("[]").items(SAID)
    assert_empty bench(SOCKET.except("reads")).items(SAID)
  end

  def test_permission_is_the_operators_and_samples_stand_beside
    assert_equal [["/consent", Bench::Bench::OPERATORS]], bench(SOCKET.merge("consent" => {})).faults.map { |fault| [fault.at, fault.words] }
    assert_equal ["/samples"], bench(SOCKET.merge("samples" => [])).faults.map(&:at)
  end

  def test_fields_that_nothing_reads_are_found_whatever_reads_them
    one = bench.items(SAID).first
    assert_equal({"d.by.warden" => false, "d.by.level" => 14, "d.when" => 1_764_137_642_118, "d.tags[0]" => "a", "d.tags[1].n" => nil},
      bench.unread(one).to_h { |field| [field.path, field.value] })
    roles = SOCKET.merge("reads" => [SOCKET["reads"][0].merge("roles" => [{"when" => "d.by.warden || d.by.level > `20`", "is" => "moderator"}],
      "time" => "d.when")])
    read = bench(roles)
    assert_equal ["d.tags[0]", "d.tags[1].n"], read.unread(read.items(SAID).first).map(&:path)
  end

  def test_what_a_field_could_be_is_offered_the_likeliest_first
    one = bench.items(SAID).first
    offers = bench.offers(one, bench.unread(one))
    assert_equal %w[roles first action], offers["d.by.warden"]
    assert_equal "time", offers["d.when"].first
    assert_empty offers["d.tags[1].n"]
    {["by.display_name", "Ann"] => "name", ["user.color", "#a1b2c3"] => "colour", ["face_url", "https://x.example/a.png"] => "avatar",
     ["sent_at", "2026-11-28T10:00:00Z"] => "time", ["body", "hello"] => "text", ["n", 5] => "number"}.each do |(path, value), field|
      assert_equal field, Bench::Offers.of(path, value, %w[id login], "line").first, path
    end
  end

  def test_an_offer_that_is_taken_is_read_from_then_on
    text = bench.with_field(0, "time", "d.when", 1_764_137_642_118)
    assert_equal 1_764_137_642_118, bench(text).items(SAID).first.fields["time"]
    text = bench.with_field(0, "roles", "d.by.warden", false)
    assert_equal ["moderator"], bench(text).items({**SAID, "d" => SAID["d"].merge("by" => {"handle" => "a", "warden" => true})}).first.fields["badges"]
    assert_raises(Bavard::Error) { bench.with_field(9, "time", "d.when", 1) }
    assert_raises(Bavard::Error) { bench.with_field(0, "is", "d.when", 1) }
    assert_raises(Bavard::Error) { bench("{").with_field(0, "time", "d.when", 1) }
  end

  def test_a_rule_for_what_nothing_reads
    vote = {"t" => "unsaid", "d" => {"key" => "9f21", "who" => "ann"}}
    assert_equal "unread", bench.contents(bench.items(vote))
    with = bench(bench.with_rule("delete", vote))
    assert_predicate with, :fits?
    assert_equal [["delete", {"id" => "9f21"}]], with.items(vote).map { |item| [item.is, item.fields] }
    nothing = bench(bench.with_rule("nothing", vote))
    assert_equal "nothing", nothing.contents(nothing.items(vote))
    assert_raises(Bavard::Error) { bench.with_rule("lin", vote) }
    [nil, 7, [], {"a b" => 1}, {"t" => "it's"}].each { |item| assert JSON.parse(bench.with_rule("nothing", item)), item.inspect }
  end

  def test_samples_say_what_is_otherwise
    samples = [{"frame" => SAID, "becomes" => [{"is" => "line", "text" => "look up"}]}, {"frame" => SAID, "becomes" => [{"is" => "line", "text" => "down"}]},
      {"frame" => SAID}]
    told = bench(SOCKET, samples).samples
    assert_nil told[0].last
    assert_match(/text of number 1 is "look up", not "down"/, told[1].last)
    assert_match(/“becomes”/, told[2].last)
    assert_match(/nothing can be read/, bench("{}", samples).samples[0].last)
  end

  def test_each_beginning_can_be_used_as_it_is
    Bench::Beginnings::WAYS.each_key { |way| assert_empty bench(Bench::Beginnings.of(way)).faults, way }
  end

  def test_frames_are_read_as_people_have_them
    read = Bench::Frames.method(:read)
    assert_equal [{"a" => 1}], read.call(%(\uFEFF {"a": 1}\n))
    assert_equal [{"a" => 1}, {"b" => 2}], read.call(%({"a": 1}\n\n{"b": 2}\r\n))
    assert_equal [1, {"b" => 2}], read.call(%([1, {"b": 2}]))
    assert_equal [{"plain" => "PING"}, {"b" => 2}], read.call(%(PING\n{"b": 2}))
    assert_equal [{"event" => "said", "id" => "4", "data" => {"a" => 1}}, {"event" => "message", "id" => "4", "data" => "hi"}],
      read.call("event: said\nid: 4\ndata: {\"a\":\ndata: 1}\n\ndata: hi")
    assert_equal 500, read.call("[#{(["1"] * 900).join(",")}]").size
    ["", "  \n ", "[]"].each { |text| assert_raises(Bavard::Error) { read.call(text) } }
    assert_equal [{"plain" => "\u{fffd}x"}], read.call("\xffx".b)
  end

  def test_what_a_browser_recorded_is_answers_and_messages
    har = {"log" => {"entries" => [
      {"response" => {"content" => {"mimeType" => "application/json; charset=utf-8", "text" => '{"m":1}'}}},
      {"response" => {"content" => {"mimeType" => "application/json", "encoding" => "base64", "text" => ['{"m":2}'].pack("m0")}}},
      {"response" => {"content" => {"mimeType" => "application/json", "text" => "{broken"}}}, {"response" => {"content" => {"mimeType" => "text/html", "text" => "<p>"}}},
      {"response" => {"content" => {"mimeType" => "text/event-stream", "text" => "data: {\"e\":1}\n\n"}}},
      {"_webSocketMessages" => [{"type" => "send", "data" => '{"s":1}'}, {"type" => "receive", "data" => '{"r":1}'}, {"type" => "receive", "data" => 7}, nil]},
      nil, {"response" => []}, {"response" => {"content" => {"mimeType" => 7, "text" => 7}}}
    ]}}
    assert_equal [{"m" => 1}, {"m" => 2}, {"event" => "message", "id" => nil, "data" => {"e" => 1}}, {"r" => 1}], Bench::Frames.read(JSON.generate(har))
  end
end
