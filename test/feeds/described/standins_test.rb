# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/polling/items"
require_relative "../../../lib/bavard/feeds/socket/items"
require_relative "../../support/processes"
require_relative "connected"

# The made-up platforms, described, say the same as what was programmed for them.
class DescribedStandinsTest < Minitest::Test
  AUTHORS = [{"login" => "ann", "name" => "Ann", "nick" => "Ann", "colour" => "#63c58a", "tint" => "#63c58a", "avatar" => "https://x.example/a.png",
              "face" => "https://x.example/a.png"}, {"login" => "bo"}, {"name" => "Nobody"}, nil].freeze
  KINDS = %w[follow subscription renewal gift tip purchase visit cause].freeze

  def assert_same(name, item, parsed)
    intake = Examples.description(name).reading.read(item, 3, 9).intake
    assert_equal [parsed&.to_a&.map { |one| plain(one) }], [intake&.to_a&.map { |one| plain(one) }], item.inspect
  end

  # Where there are none of something, one may say so with nothing and the other with an empty list.
  def plain(value)
    case value
    when Struct then value.to_a.map { |one| plain(one) }
    when {}, [] then nil
    else value
    end
  end

  def test_lantern
    bodies = [{"text" => "hello"}, {"text" => ""}, {}, {"text" => "see :owl:", "emotes" => [{"at" => 4, "length" => 5, "picture" => "https://x.example/o.png"}, 7]},
      {"text" => "x", "me" => true, "first" => true, "reply_to" => {"id" => "l0", "name" => "Bo", "text" => "so"}, "number" => 3},
      {"text" => "y", "paid" => {"minor" => 500, "currency" => "EUR"}}, {"paid" => {"number" => 300, "unit" => "sparks"}}, {"paid" => {"minor" => -1, "currency" => "EUR"}}]
    ["message", *KINDS].product(AUTHORS, bodies) do |type, author, body|
      author = author&.merge("badges" => [{"kind" => "subscriber/12", "picture" => "https://x.example/b.png"}, {"kind" => "bot"}, {}, 7])
      item = {"type" => type, "id" => "l1", "at" => "2026-11-24T05:52:00.250Z", "author" => author, **body}
      assert_same("lantern", item, Bavard::Feeds::Polling::Items.intake(item, 3, 9, history: false))
    end
    [{"type" => "deleted", "target" => "l1"}, {"type" => "deleted"}, {"type" => "silenced", "author" => {"login" => "bo"}}, {"type" => "cleared"}, {"type" => "dance"}]
      .each { |item| assert_same("lantern", item, Bavard::Feeds::Polling::Items.intake(item, 3, 9, history: false)) }
  end

  def test_skein
    bodies = [{"body" => "hello"}, {}, {"body" => "see 🪶 :owl:", "emotes" => [[7, 5, "https://x.example/o.png"], [1], 7]},
      {"body" => "x", "style" => "action", "newcomer" => true, "re" => ["s0", "Bo", "so"], "count" => 3}, {"worth" => [500, "EUR"]}, {"worth" => [300, "sparks"]}]
    ["line", *KINDS].product(AUTHORS, bodies) do |kind, from, body|
      from = from&.merge("badges" => ["subscriber/12", "bot", 7], "badge_pictures" => {"subscriber/12" => "https://x.example/b.png"})
      item = {"op" => "event", "kind" => kind, "id" => "s1", "ts" => 1_795_499_520_000, "from" => from, **body}
      assert_same("skein", item, Bavard::Feeds::WebSocketFeed::Items.intake(item, 3, 9, history: false))
    end
    [{"kind" => "gone", "line" => "s1"}, {"kind" => "gone"}, {"kind" => "silenced", "who" => "bo"}]
      .each { |item| assert_same("skein", item, Bavard::Feeds::WebSocketFeed::Items.intake(item, 3, 9, history: false)) }
  end
end

# And are read by them, as they run.
class DescribedRunningStandinsTest < Minitest::Test
  include Connected

  def standin(name, **settings) = (@standins ||= []) << RunningStandin.new(name, **settings).start

  def teardown
    super
    @standins.each(&:stop)
  end

  def test_a_room_that_is_joined_gone_on_with_and_written_to
    skein = standin("Skein", BEAT_MS: 200).last
    connect("skein", {"room" => "reedmere"}, base: skein.base)
    state(:live)
    skein.say("see the wing?")
    line = taken(:line)
    assert_equal ["see the wing?", "birdbath", false], [line.body.text, line.body.login, line.body.history]
    skein.post("/delete", "id" => skein.lines.last["id"])
    assert_equal line.platform_id, taken(:delete_line).platform_id
    assert_nil halt
    skein.say("while nobody listened")
    connect("skein", {"room" => "reedmere"}, base: skein.base, resume: Bavard::Feeds::Resume.new(nil, now_ms, @connection.cursor))
    assert_equal ["while nobody listened", true], taken(:line).body.then { |said| [said.text, said.history] }
    halt
    connect("skein", {"room" => "nowhere"}, base: skein.base)
    @thread.join
    assert_equal %i[needs_you address], [@ended.state, @ended.want]
  end

  def test_a_broadcast_that_is_found_by_its_channel
    lantern = standin("Lantern", EVERY_MS: 200).last
    connect("lantern", {"channel" => "reedmere"}, base: lantern.base)
    state(:live)
    lantern.say("see the wing?")
    wait_for("the line") { (@all ||= []).push(*drained).any? { |intake| intake.kind == :line && intake.body.text == "see the wing?" } }
    assert_operator taken(:totals).body["followers"], :>, 2000
    lantern.misbehave("limit")
    state(:waiting)
    lantern.misbehave("limit", on: false)
    assert_nil halt
    assert_equal [lantern.state["number"], true], [@connection.cursor["number"], @connection.joined?]
  end
end
