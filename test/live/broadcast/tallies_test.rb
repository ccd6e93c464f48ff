# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/broadcast/goal_count"
require_relative "../../../lib/bavard/live/broadcast/tallies"

# What is counted by the broadcast, the day, the month and since ever, over midnights.
class TalliesTest < Minitest::Test
  Core = Bavard::Core

  # A log that remembers events and counts them as the database does.
  class Log
    attr_reader :events, :asked

    def initialize
      @events = []
      @asked = []
    end

    def since(_show_id, from_ms, until_ms: nil)
      @asked << [from_ms, until_ms]
      Core::Cues::Tally.new.tap { |tally| between(from_ms, until_ms).each { |event| tally.count(event) } }
    end

    def standings_since(_show_id, from_ms) = Core::Cues::Standings.new.tap { |all| between(from_ms, nil).each { |event| all.count(event) } }

    # As of somebody by the same name on another feed.
    def standing_of(_show_id, _from_ms, login) = [Core::Cues::Standings::Entry.new("follow", login, "Other_#{login}", nil, 1, nil, nil, 1, nil)]

    private

    def between(from_ms, until_ms) = @events.select { |event| event.at_ms >= from_ms && (until_ms.nil? || event.at_ms < until_ms) }
  end

  def at(*time) = Time.new(*time).to_i * 1000
  def tallies(now_ms, **more) = Bavard::Live::Tallies.new(1, @log = Log.new, now_ms, **more)

  def follow(tallies, now_ms, login = "p#{now_ms}")
    @number = (@number || 0) + 1
    said = Core::Said.new(login, nil, nil, [], "", false, false)
    line = Core::Chat::Line.from(Core::Intake.new(:event, 1, "e#{@number}", nil, now_ms, Core::Happened.new(:follow, said, nil)), id: @number)
    @log.events << tallies.count(line)
    line
  end

  def asked(*feeds) = Bavard::Live::Tallies::Asked.new("followers", "EUR", feeds.empty? ? nil : feeds)
  def counts(tallies) = Bavard::Live::Tallies::SPANS.map { |span| tallies.value(span, asked) }

  def test_at_midnight_the_day_begins_anew_and_the_month_goes_on
    evening = at(2026, 11, 27, 23, 59, 30)
    tallies = tallies(evening, began_ms: at(2026, 11, 27, 20))
    follow(tallies, evening)
    tallies.advance(evening + 29_999)
    assert_equal [1, 1, 1, 1], counts(tallies)
    revision = tallies.revision
    tallies.advance(at(2026, 11, 28))
    assert_equal [1, 0, 1, 1], counts(tallies)
    refute_equal revision, tallies.revision
    follow(tallies, at(2026, 11, 28, 0, 1))
    assert_equal [2, 1, 2, 2], counts(tallies)
  end

  def test_at_the_end_of_a_month_the_month_begins_anew_as_well
    evening = at(2026, 11, 30, 23, 59, 59)
    tallies = tallies(evening, began_ms: at(2026, 11, 30, 20))
    2.times { follow(tallies, evening) }
    tallies.advance(at(2026, 12, 1))
    assert_equal [2, 0, 0, 2], counts(tallies)
    assert_equal [at(2026, 12, 1), at(2026, 12, 1)], %w[day month].map { |span| tallies.began(span, at(2026, 12, 1, 5)) }
  end

  def test_a_clock_that_is_set_back_over_midnight_counts_the_day_it_shows
    tallies = tallies(at(2026, 12, 1, 0, 0, 10))
    follow(tallies, at(2026, 12, 1, 0, 0, 10))
    tallies.advance(at(2026, 11, 30, 23, 59))
    assert_equal [1, 1], %w[day month].map { |span| tallies.value(span, asked) }
    tallies.advance(at(2026, 12, 1, 0, 1))
    assert_equal [1, 1], %w[day month].map { |span| tallies.value(span, asked) }
  end

  def test_whoever_is_forgotten_stands_nowhere_and_all_that_was_counted_counts
    now = at(2026, 11, 27, 20)
    tallies = tallies(now)
    %w[ann kestrel bo].each.with_index(1) { |login, number| follow(tallies, now + number, login) }
    names = -> { tallies.standings("ever").newest(["follow"]).map(&:name) }
    assert_equal %w[bo kestrel ann], names.call
    revision = tallies.revision
    tallies.erase("kestrel", now + 9)
    assert_equal [%w[bo ann Other_kestrel], [3, 3, 3, 3]], [names.call, counts(tallies)]
    refute_equal revision, tallies.revision, "what stands on screens would not be drawn anew"
  end

  def test_without_a_beginning_the_broadcast_began_with_the_day
    now = at(2026, 11, 27, 9)
    assert_equal at(2026, 11, 27), tallies(now).began("broadcast", now)
  end

  def test_a_broadcast_that_begins_now_counts_from_nothing_and_one_that_began_earlier_from_the_log
    now = at(2026, 11, 27, 9)
    tallies = tallies(now)
    follow(tallies, now - 60_000)
    tallies.begin(now, now)
    assert_equal [0, 1, 1, 1], counts(tallies)
    tallies.begin(now - 120_000, now)
    assert_equal [1, 1, 1, 1], counts(tallies)
  end

  def test_what_was_there_already_counts_since_ever_alone
    now = at(2026, 11, 27, 9)
    tallies = tallies(now, totals: {"totals" => {"followers" => 1200}, "told" => {}})
    follow(tallies, now)
    assert_equal [1, 1, 1, 1201], counts(tallies)
    retold = tallies.retold
    tallies.totals = {"totals" => {"followers" => 3}, "told" => {"pond/a" => {"followers" => 4}}}
    assert_equal [8, retold + 1], [counts(tallies).last, tallies.retold]
  end

  def test_what_is_over_stays_as_it_was_and_is_asked_for_once
    now = at(2026, 11, 27, 9)
    tallies = tallies(now, began_ms: now - 3_600_000)
    [now - 60_000, now - 30_000, now].each { |at_ms| follow(tallies, at_ms) }
    questions = @log.asked.size
    2.times { assert_equal 2, tallies.value_until("broadcast", asked, now) }
    assert_equal questions + 1, @log.asked.size
    tallies.begin(now - 45_000, now)
    assert_equal 1, tallies.value_until("broadcast", asked, now)
  end

  def test_the_first_of_a_person_is_known_and_the_next_is_not
    now = at(2026, 11, 27, 9)
    tallies = tallies(now)
    lines = [follow(tallies, now, "ann"), follow(tallies, now + 1, "ann"), follow(tallies, now + 2, "bo")]
    assert_equal [true, false, true], lines.map { |line| tallies.first?(line.id) }
  end

  def test_each_feed_is_counted_by_itself
    now = at(2026, 11, 27, 9)
    tallies = tallies(now)
    follow(tallies, now)
    assert_equal [1, 0, 1], [[1], [2], [1, 2]].map { |feeds| tallies.on_feeds(feeds, "followers") }
  end

  def test_of_chosen_chats_there_is_already_what_their_platform_told_of_them
    now = at(2026, 11, 27, 9)
    told = {"totals" => {"followers" => 5}, "told" => {"pond/a" => {"followers" => 1000}, "lake/b" => {"followers" => 300}}}
    tallies = tallies(now, totals: told)
    tallies.places.merge!(1 => "pond/a", 2 => "lake/b", 3 => "pond/a", 4 => "sea/c")
    follow(tallies, now)
    ever = [[], [1], [2], [1, 3], [1, 2], [4]].map { |feeds| tallies.value("ever", asked(*feeds)) }
    assert_equal [1306, 1001, 300, 1001, 1301, 0], ever
    assert_equal [1, 0], [[1], [2]].map { |feeds| tallies.value("day", asked(*feeds)) }
  end

  def test_from_any_moment_that_is_over_it_is_counted_on
    now = at(2026, 11, 27, 9)
    tallies = tallies(now)
    [now - 90_000, now - 60_000, now - 30_000].each { |at_ms| follow(tallies, at_ms) }
    assert_equal [3, 2, 0], [now - 90_000, now - 60_000, now].map { |since| tallies.value_since(since, asked) }
    follow(tallies, now)
    assert_equal [3, 1, 0], [tallies.value_since(now - 60_000, asked), tallies.value_since(now - 60_000, asked, now - 30_000),
      tallies.value_since(now - 60_000, asked(2))]
  end

  # A goal, of which a time of the day alone is meant for today.
  def count(tallies, now_ms, **piece)
    goal = {"counted" => "followers", "unit" => "EUR", "since" => "start", "starts" => "", "until" => "", "feeds" => []}
    Bavard::Live::GoalCount.new(goal.merge(piece.transform_keys(&:to_s)), tallies, now_ms, now_ms)
  end

  def test_a_goal_has_a_start_of_its_own_and_counts_nothing_before_it
    now = at(2026, 11, 27, 9)
    tallies = tallies(now, began_ms: at(2026, 11, 27, 8, 59))
    [at(2026, 11, 25, 20), at(2026, 11, 27, 8), now - 1].each { |at_ms| follow(tallies, at_ms) }
    tallies.begin(at(2026, 11, 27, 8, 59), now)
    starts = ["2026-11-25 19:00", "2026-11-26", "08:00", "08:30", "09:30", "2027-01-01", "", "sometime", "2026-13-01"]
    assert_equal [3, 2, 2, 1, 0, 0, 1, 1, 1], starts.map { |text| count(tallies, now, starts: text).value }
    assert_equal [at(2026, 11, 25, 19), now, at(2026, 11, 27, 8, 59)],
      ["2026-11-25 19:00", "2027-01-01", ""].map { |text| count(tallies, now, starts: text).from_ms }
    assert_equal [1, 1], [count(tallies, now, starts: "2026-11-25", until: "2026-11-26"), count(tallies, now, since: "broadcast")].map(&:value)
    assert_equal [2, 0], [["1"], ["2"]].map { |feeds| count(tallies, now, starts: "08:00", feeds:).come }
  end

  def test_a_line_that_is_no_event_counts_nothing
    now = at(2026, 11, 27, 9)
    tallies = tallies(now)
    assert_nil tallies.count(Lines.line(1))
    assert_equal [0, 0, 0, 0], counts(tallies)
    assert_equal [at(2026, 11, 27), now], [tallies.counted_from("day", now), tallies.counted_from("ever", now)]
  end
end
