# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/feeds/described/bench/bench"
require_relative "../../../lib/bavard/feeds/platform"
require_relative "examples"

# Servers that speak IRC, described by what their tags carry.
class DescribedIrcServerTest < Minitest::Test
  Described = Bavard::Feeds::Described
  POND = {"format" => "bavard-platform/1", "key" => "pond", "name" => "Pond", "irc" => {"host" => "IRC.pond.example", "tags" => {"badges" => "wears"}}}.freeze

  def wrong(**irc) = Described::Bench::Bench.new(Described::Bench::Written.text(POND.merge("irc" => POND["irc"].merge(irc.transform_keys(&:to_s))))).faults.to_h { |fault| [fault.at, fault.words] }
  def bench(document = POND) = Described::Bench::Bench.new(Described::Bench::Written.text(document))
  def becomes(message, of: bench) = of.items({"plain" => message}).map { |item| {"is" => item.is, **item.fields} }

  def test_it_is_a_platform_of_that_kind
    platform = Bavard::Feeds::Platform.of(Described::Description.read(POND))
    assert_equal ["irc", {"host" => "irc.pond.example", "port" => "6697", "tls" => "1"}, {"badges" => ["wears"]}, ["irc.pond.example:6697"]],
      [platform.kind, platform.address, platform.mapping, platform.authorities]
    assert_equal({name: "dawn", address: {"host" => "irc.pond.example", "port" => 6697, "tls" => true, "channel" => "#dawn", "nick" => nil}, password: nil},
      Described.read({"pond.channel" => "Dawn"}, platform))
    assert_equal "pond.channel", assert_raises(Bavard::Error) { Described.read({}, platform) }.field
  end

  def test_what_cannot_be_is_told_with_its_place
    assert_empty wrong
    {{host: "a b"} => "/irc/host", {port: 70_000} => "/irc/port", {tls: "yes"} => "/irc/tls", {more: 1} => "/irc/more", {tags: []} => "/irc/tags",
     {tags: {"song" => "x"}} => "/irc/tags/song", {tags: {"id" => "a b"}} => "/irc/tags/id", {tags: {"id" => [1]}} => "/irc/tags/id",
     # What anybody can say of themselves, and who may, is not for a description to decide.
     {tags: {"badges" => "+wears"}} => "/irc/tags/badges", {tags: {"amount" => ["x", "+y"]}} => "/irc/tags/amount",
     {tags: {"anybody" => "badges"}} => "/irc/tags/anybody"}.each { |irc, at| assert_equal [at], wrong(**irc).keys, irc }
    assert_empty wrong(tags: {"reply" => "+answers"})
    assert_equal %w[/reads /secrets], bench(POND.merge("reads" => [], "secrets" => {})).faults.map(&:at).sort
    assert_equal ["/sets/all/ask"], bench(POND.merge("sets" => {"all" => {"ask" => "/emotes", "code" => "c", "picture" => "p"}})).faults.map(&:at)
    assert_equal ["/base"], bench(POND.merge("base" => "nowhere")).faults.map(&:at)
  end

  def test_messages_are_read_as_in_a_channel
    assert_equal [{"is" => "line", "id" => "7", "login" => "ann", "name" => "ann", "text" => "see the wing", "badges" => ["warden/3"], "action" => true}],
      becomes("@msgid=7;wears=warden/3;+wears=host :ann!a@b PRIVMSG #dawn :\u0001ACTION see the wing\u0001")
    assert_equal [{"is" => "delete", "id" => "7"}], becomes(":x REDACT #dawn 7")
    assert_equal [{"is" => "silence", "login" => "bo"}], becomes(":ann MODE #dawn +b bo!*@*")
    assert_equal [[{"is" => "nothing"}]] * 3, ["PING :x", ":ann!a@b PRIVMSG somebody :psst", ":ann!a@b PRIVMSG #dawn :\u0001VERSION\u0001"].map { |one| becomes(one) }
    assert_equal [[{"is" => nil}]] * 3, ["@only-tags", "", ":x 12"].map { |one| becomes(one) }
    assert_equal [{"is" => "tip", "login" => "bo", "name" => "bo", "text" => "", "badges" => [], "paid" => "5.00 EUR"}],
      becomes("@what=tip;much=500/EUR :bo!b@b TAGMSG #dawn", of: bench(POND.merge("irc" => {"host" => "x.example", "tags" => {"event" => "what", "amount" => "much"}})))
  end

  def test_tags_that_nothing_reads_are_offered_what_they_could_carry
    item = bench.items("@wears=a/1;tint=#63c58a;face=https://x.example/a.png;places=owl:0-4,6-9/egg:12-14;much=500/EUR;x/y=warden,ringer;+loud=1 :ann!a@b PRIVMSG #dawn :hello").first
    unread = bench.unread(item)
    assert_equal ["tags.tint", "tags.face", "tags.places", "tags.much", %(tags."x/y"), %(tags."+loud")], unread.map(&:path)
    offers = bench.offers(item, unread)
    assert_equal %w[colour avatar emotes amount badges first], unread.map { |field| offers[field.path].first }
    text = bench.with_field(item.rule, "badges", %(tags."x/y"), "warden")
    assert_equal ["x/y", "wears"].first(1) + %w[wears], JSON.parse(text)["irc"]["tags"]["badges"].then { |tags| Array(tags) }
    assert_raises(Bavard::Error) { bench.with_field(item.rule, "anybody", "tags.tint", "x") }
    assert_raises(Bavard::Error) { bench.with_rule("line", {"plain" => "x"}) }
  end

  def test_hostile_messages_raise_nothing
    random = Random.new(Integer(ENV.fetch("SEED", 1)))
    whole = bench(Examples.document("oxbow"))
    message = Examples.whole("oxbow")["samples"][0]["frame"]
    2000.times do
      bytes = message.dup.b
      rand(1..6).times { bytes.setbyte(random.rand(bytes.bytesize), random.rand(256)) }
      refute_includes whole.items(bytes.force_encoding("UTF-8")).flat_map { |item| item.fields["badges"] || [] }, "host"
    end
  end
end
