# frozen_string_literal: true

require_relative "../support/live_test"
require_relative "../support/lines"
require_relative "../../lib/bavard/store/report"

# What is counted of a broadcast's lines, from the log.
class StoreReportTest < LiveTest
  Entry = Bavard::Store::Lines::Entry
  Verdict = Bavard::Core::Gate::Verdict

  def setup
    super
    @show = make_show
    @other = stores.feeds.create(@show.id, kind: "irc", name: "Skein", shape: "ring", colour: "#63c58a",
      address: {"host" => "127.0.0.1", "port" => 1, "tls" => false, "channel" => "#y", "nick" => nil}, password: nil)
    # The beginning of a minute.
    @at = clock.call / 60_000 * 60_000
    @id = 0
  end

  def keep(login, after_ms, feed: @feed, verdict: Bavard::Core::Gate::PASS, pulled: false, **more)
    at_ms = @at + after_ms
    line = Lines.line((at_ms * 1000) + (@id += 1), "words", at_ms:, feed_id: feed.id, login:)
    more.each { |name, value| line.public_send(:"#{name}=", value) }
    stores.lines.add(@show.id, [Entry.new(line, verdict, verdict.pass?, pulled, [])])
  end

  def counted(from_ms = @at, to_ms = @at + 600_000) = Bavard::Store::Report.new(db).between(@show.id, from_ms, to_ms, {@feed.id => "Oxbow"})

  def test_lines_by_feed_minute_and_rule
    dropped = Verdict.new(:drop, "links", "x")
    [["ann", 0], ["bob", 59_999], ["ann", 60_000]].each { |login, after| keep(login, after) }
    keep("ann", 61_000, verdict: dropped)
    keep("ann", 62_000, pulled: true)
    keep("ann", 63_000, feed: @other)
    feeds = counted.feeds.map { |feed| feed.to_h.values }
    assert_equal [["Oxbow", 5, 3, 1, 1, 2], ["gone", 1, 1, 0, 0, 1]], feeds
    minute = @at / 60_000
    assert_equal [{minute => 2, minute + 1 => 4}, {"links" => 1}, 3], [counted.minutes, counted.rules, counted.people]
  end

  def test_only_what_came_between_and_only_of_this_show
    [-1, 0, 599_999, 600_000].each { |after| keep("ann", after) }
    another = make_show
    assert_equal 2, counted.feeds.sum(&:lines)
    assert_empty Bavard::Store::Report.new(db).between(another.id, @at, @at + 600_000, {}).feeds
    assert_equal @at - 1, Bavard::Store::Report.new(db).first_since(@show.id, @at - 1000)
    assert_nil Bavard::Store::Report.new(db).first_since(another.id, 0)
  end

  def test_who_never_wrote_before_is_new
    keep("ann", -1000)
    %w[ann bob].each { |login| keep(login, 10) }
    keep("ann", 20, feed: @other)
    assert_equal [3, 2], [counted.people, counted.new_people]
  end

  def test_events_with_what_they_were_worth_as_goals_count_them
    tip = ->(minor, currency = "EUR") { {kind: :tip, paid: Bavard::Core::Amount.money(minor, currency)} }
    keep("ann", 10, **tip[500])
    keep("bob", 20, **tip[750])
    keep("bob", 30, **tip[900, "JPY"])
    keep("ann", 40, kind: :gift, number: 5)
    keep("ann", 50, kind: :paid, paid: Bavard::Core::Amount.own(30, "sparks"))
    assert_equal [["gift", 5, nil, nil], ["paid", 1, 30, "sparks"], ["tip", 2, 1250, "EUR"], ["tip", 1, 900, "JPY"]],
      counted.events.map { |event| event.to_h.values_at(:kind, :times, :worth, :unit) }
  end
end
