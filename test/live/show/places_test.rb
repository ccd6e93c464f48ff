# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/live/lines/line_ids"
require_relative "../../../lib/bavard/live/show/places"

# Who takes which show, without a database.
class PlacesTest < Minitest::Test
  # What is kept of processes and shows, as one of them sees it.
  class Kept
    attr_reader :address, :alive, :places, :asked_for

    def initialize(address, alive, places)
      @address = address
      @alive = alive
      @places = places
      @asked_for = {}
    end

    attr_accessor :anew

    def anew? = anew
    def beat = nil
    def ask_for(id, address) = @asked_for[id] = address
    def place_of(id) = @places[id]
    def wanted_at(id) = @asked_for[id]
    def place(id) = @places[id].tap { @places[id] = address }
  end

  Lines = Struct.new(:last) { def last_id_of(_show) = last }

  # Which processes run shows without locks, and which reaches the database.
  Others = Struct.new(:going_on, :reaches) do
    def runs_yet?(address) = going_on.include?(address)
    def reaching(addresses) = addresses.find { |address| address == reaches }
  end

  def places(alive: %w[a b], at: {}, last: 0, going_on: [], reaches: nil)
    @ids = Bavard::Live::LineIds.new(0)
    @now_s = 100
    Bavard::Live::Places.new(@kept = Kept.new("a", alive, at), hub: nil, ids: @ids, lines: Lines.new(last), clock: -> { @now_s },
      neighbours: @others = Others.new(going_on, reaches))
  end

  # One that sleeps has a place that it ran at last, and does not count.
  def test_how_many_each_runs
    shared = places(alive: %w[b a], at: {1 => "a", 2 => "b", 3 => "b", 4 => "b", 5 => "gone"})
    assert_equal({"a" => 0}, shared.spread([1, 2]))
    shared.share_out([], [], [])
    assert_equal({"a" => 1, "b" => 2}, shared.spread([1, 2, 3, 5]))
  end

  def test_each_takes_its_share_of_what_nobody_has
    assert_equal [[1, 2, 3], []], places.share_out([1, 2, 3, 4, 5, 6], [], [])
    assert_equal [[3], []], places.share_out([1, 2, 3, 4, 5, 6], [1, 2], [1, 2])
    assert_equal [[1, 2, 3], []], places(alive: %w[a]).share_out([1, 2, 3], [], [])
  end

  def test_what_nobody_has_taken_by_the_next_look_is_taken_by_whoever_is_there
    all = places
    all.share_out([1, 2, 3, 4], [], [])
    assert_equal [[3, 4], []], all.share_out([1, 2, 3, 4], [1, 2], [1, 2])
    assert_equal [[], []], all.share_out([1, 2, 3, 4], [1, 2, 3, 4], [1, 2])
  end

  def test_whoever_has_more_asks_whoever_has_least_to_take_the_least_urgent
    all = places(alive: %w[a b c], at: {1 => "a", 2 => "a", 3 => "a", 4 => "b"})
    all.share_out([1, 2, 3, 4], [1, 2, 3, 4], [1, 2, 3])
    assert_equal({3 => "c"}, @kept.asked_for)
    # Nobody is moved in the midst of a broadcast.
    all = places(alive: %w[a b c], at: {1 => "a", 2 => "a", 3 => "a", 4 => "b"})
    all.share_out([1, 2, 3, 4], [1, 2, 3, 4], [1, 2, 3], [2, 3])
    assert_equal({1 => "c"}, @kept.asked_for)
    even = places(at: {1 => "a", 2 => "a", 3 => "b"})
    even.share_out([1, 2, 3], [1, 2, 3], [1, 2])
    assert_empty @kept.asked_for
  end

  # As each of several looks at the same moment: three would give to the fourth, which would then have most.
  def test_only_whoever_has_most_gives_and_one_at_a_time
    all = places(alive: %w[a b c d], at: {1 => "a", 2 => "a", 3 => "b", 4 => "b", 5 => "b"})
    all.share_out([1, 2, 3, 4, 5], [1, 2, 3, 4, 5], [1, 2])
    assert_empty @kept.asked_for
    all = places(alive: %w[a b c d], at: {1 => "a", 2 => "a", 3 => "a", 4 => "b", 5 => "b"})
    2.times { all.share_out([1, 2, 3, 4, 5], [1, 2, 3, 4, 5], [1, 2, 3]) }
    assert_equal({3 => "c"}, @kept.asked_for)
    # Until nobody has two more than another.
    places = {1 => "a", 2 => "b", 3 => "c", 4 => "d", 5 => "a"}
    places(alive: %w[a b c d], at: places).share_out([1, 2, 3, 4, 5], [1, 2, 3, 4, 5], [1, 5])
    assert_empty @kept.asked_for
  end

  def test_what_is_asked_for_is_let_go_and_taken
    all = places(at: {1 => "a", 2 => "b"})
    @kept.ask_for(1, "b")
    @kept.ask_for(2, "a")
    assert_equal [[], [1]], all.share_out([1, 2], [1, 2], [1])
    assert_equal [[2], []], all.share_out([1, 2], [1], [])
  end

  def test_nothing_is_let_go_to_whoever_is_not_there
    all = places(alive: %w[a], at: {1 => "a"})
    @kept.ask_for(1, "b")
    assert_equal [[], []], all.share_out([1], [1], [1])
    assert_nil all.leaving(1)
  end

  def test_where_to_ask_instead
    all = places(at: {1 => "b", 2 => "a", 3 => "gone"})
    assert_equal "b", assert_raises(Bavard::Live::Elsewhere) { all.look(1) }.address
    [2, 3, 4].each { |id| assert_nil all.look(id) }
    @kept.ask_for(2, "b")
    assert_equal "b", assert_raises(Bavard::Live::Elsewhere) { all.leaving(2) }.address
  end

  # Their locks went as well as ours: they are about to take them again.
  def test_after_the_database_was_away_nobody_takes_what_others_may_run
    all = places(at: {1 => "b", 2 => "a"}, alive: %w[a])
    @kept.anew = true
    all.look_at_line
    @kept.anew = false
    assert_equal "b", assert_raises(Bavard::Live::Elsewhere) { all.leaving(1) }.address
    [2, 3].each { |id| assert_nil all.leaving(id) }
    4.times { assert_equal [[], []], all.share_out([1, 2], [2], [2]) }
    @now_s += Bavard::Live::Places::DOUBT_S
    assert_nil all.leaving(1)
    assert_equal [[1], []], all.share_out([1, 2], [2], [2])
  end

  # Whoever was cut off lets go first.
  def test_a_show_is_left_to_one_that_has_lost_its_locks_until_it_lets_go
    all = places(at: {1 => "b", 2 => "gone"}, alive: %w[a], going_on: %w[b])
    assert_equal "b", assert_raises(Bavard::Live::Elsewhere) { all.leaving(1) }.address
    assert_nil all.leaving(2)
    @others.going_on = []
    assert_nil all.leaving(1)
    # One that is there has let it go to sleep, whatever else it runs.
    assert_nil places(at: {1 => "b"}, going_on: %w[b]).leaving(1)
  end

  def test_what_was_known_last_of_where_shows_run
    all = places(at: {1 => "b", 2 => "a"}, alive: %w[a b c], reaches: "c")
    assert_nil all.last_known(1)
    assert_nil all.reached_by
    all.share_out([1, 2], [1, 2], [2])
    assert_equal "b", assert_raises(Bavard::Live::Elsewhere) { all.last_known(1) }.address
    [2, 3].each { |id| assert_nil all.last_known(id) }
    assert_equal "c", all.reached_by
    @others.reaches = "a"
    assert_nil all.reached_by
  end

  # Thousands of pages that come at once are not each looked up.
  def test_whoever_comes_is_sent_where_it_ran_at_the_last_look
    all = places(at: {1 => "b", 2 => "a", 3 => "gone", 4 => "b"})
    assert_nil all.lately(1)
    @kept.ask_for(4, "a")
    all.share_out([1, 2, 3, 4], [1, 2, 4], [2])
    assert_equal "b", assert_raises(Bavard::Live::Elsewhere) { all.lately(1) }.address
    [2, 3, 4, 5].each { |id| assert_nil all.lately(id) }
  end

  def test_lines_of_a_show_that_comes_are_newer_than_those_it_has
    last = 5_000_000_000_000_000
    assert_equal "b", places(at: {1 => "b"}, last:).took(1)
    assert_operator @ids.next(1000), :>, last
  end

  def test_no_id_is_given_by_two
    first, second = [0, 1].map { |number| Bavard::Live::LineIds.new(0, number:, among: 2) }
    given = Array.new(500) { |at| [first.next(at / 7), second.next(at / 5)] }.flatten
    assert_equal given.size, given.uniq.size
    assert_equal [0, 1], [first.next(10**6) % 2, second.next(10**6) % 2]
    own = Array.new(100) { first.next(1) }
    assert_equal own.sort, own
  end
end
