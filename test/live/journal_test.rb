# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/wait"
require "semantic_logger"
require_relative "../../lib/bavard/live/journal"
require_relative "../../lib/bavard/live/meters"

# What waits for the database, while it takes nothing.
class JournalTest < Minitest::Test
  include Wait

  Journal = Bavard::Live::Journal
  Store = Bavard::Store
  ROOM = 2000

  # A log that is written only when it is let.
  class SlowLines
    attr_reader :written

    def initialize
      @written = []
      @let = Queue.new
    end

    def let_all = 10_000.times { @let << true }
    def add(show_id, entries) = write(entries.map { |entry| [show_id, entry.line] })
    def settle(outcomes) = write(outcomes.map(&:id))
    def pull(line) = write([[:pulled, line]])

    def write(what)
      @let.pop
      @written.concat(what)
    end
  end

  def setup
    @lines = SlowLines.new
    @meters = Bavard::Live::Meters.new
    @journal = Journal.new(@lines, log: SemanticLogger["test"], meters: @meters, room: ROOM).start
    @done = []
  end

  def teardown
    @lines.let_all
    @journal.stop
  end

  def entry(number) = Store::Lines::Entry.new(number)

  def flood(show_id, count = ROOM) = count.times { |number| @journal.line(show_id, entry(number)) }

  def let_all
    @lines.let_all
    wait_for("all to be written") { @journal.waiting.zero? }
    @lines.written
  end

  def test_what_people_do_is_kept_however_much_one_show_brings
    flood(1, ROOM + 500)
    3.times { |number| @journal.later { @done << number } }
    assert_equal 500, @journal.lost
    let_all
    assert_equal [0, 1, 2], @done
  end

  def test_only_the_show_that_floods_loses_lines
    flood(1, ROOM + 1000)
    100.times { |number| @journal.line(2, entry(number)) }
    assert_equal [[1], 1000], [@journal.shedding, @journal.lost]
    assert_equal 1000, @meters.registry.get(:bavard_log_shed_total).get
    written = let_all
    assert_equal((0...100).to_a, written.filter_map { |show_id, line| line if show_id == 2 })
    assert_equal ROOM, written.count { |show_id, _| show_id == 1 }
  end

  def test_two_that_flood_have_the_same_share
    flood(1)
    flood(2)
    assert_operator @journal.waiting, :<=, ROOM * 3 / 2
    written = let_all.group_by(&:first).transform_values(&:size)
    assert_equal [ROOM, ROOM / 2], written.values_at(1, 2)
    assert_equal [2], @journal.shedding
  end

  def test_what_a_platform_takes_away_is_let_go_last
    flood(1, ROOM + 1)
    @journal.take_away(1) { |lines| lines.pull("egg") }
    assert_equal 1, @journal.lost
    assert_equal [:pulled, "egg"], let_all.last
  end

  def test_takings_away_without_end_are_let_go_too
    ((ROOM * Journal::DELETES_SHARE) + 10).times { @journal.take_away(1) { |_lines| nil } }
    assert_operator @journal.lost, :>=, 10
    assert_operator @journal.waiting, :<=, ROOM * Journal::DELETES_SHARE
  end

  def test_there_is_room_again_once_it_was_written
    flood(1, ROOM + 1)
    let_all
    @journal.line(1, entry(:late))
    assert_equal [[1, :late], 1], [let_all.last, @journal.lost]
  end

  def test_outcomes_and_entries_are_written_in_their_order
    @journal.line(1, entry(1))
    @journal.settle(1, Store::Lines::Outcome.new(1, true, false, [], 5))
    @journal.line(2, entry(2))
    assert_equal [[1, 1], 1, [2, 2]], let_all
  end
end
