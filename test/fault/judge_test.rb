# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/fire/judge"
require_relative "../support/fire/record"

# Whether the judge of the fire sees what is wrong; one that sees nothing would always be content.
class JudgeTest < Minitest::Test
  Fault = Fire::Record::Fault
  LATE_MS = 5500.0 + Fire::Judge::WITHIN_MS
  Record = Struct.new(:said, :taken, :faults, :brakes, :edits)
  Brake = Fire::Record::Brake
  Edit = Fire::Record::Edit

  def setup = @record = Record.new({"one" => 0.0, "two" => 1000.0}, {}, [], [], [])

  # Anew for each look: what it has sorted it keeps.
  def judge(logged: {"one" => 1, "two" => 1}, stood: {}, twice: [], **more)
    Fire::Judge.new(@record, logged, {screen: {"stood" => stood, "twice" => twice, "aside" => more.delete(:aside)}}, **more)
  end

  def found(**given) = judge(**given).then { |one| [one.lost, one.doubled, one.painted_after.size, one.stale.size] }

  def test_nothing_is_found_where_nothing_is_wrong
    @record.taken["one"] = 5000.0
    assert_equal [[], [], 0, 0], found(stood: {"one" => [[100.0, 5200.0]], "two" => [[1100.0, 90_000.0]]})
  end

  def test_what_is_not_in_the_log_is_lost
    assert_equal [["two"], [], 0, 0], found(logged: {"one" => 1})
  end

  def test_what_is_in_the_log_or_on_a_screen_twice
    assert_equal [[], ["one in the log", "two on screen at 8, as 3 and 4"], 0, 0], found(logged: {"one" => 2, "two" => 1}, twice: [["two", 8.2, [3, 4]], ["two", 9.0, [3, 4]]])
  end

  def test_a_line_that_stood_before_it_was_said_was_seen_by_another_clock
    assert_equal ["two on screen"], judge(stood: {"one" => [[-900.0, 10.0]], "two" => [[-1.0, 5000.0]], "of nobody" => [[-900.0, 0.0]]}).early
    assert_empty judge(stood: {"one" => [[10.0, 20.0]], "two" => [[1010.0, 5000.0]]}).early
  end

  def test_what_stands_on_after_it_was_taken_away_is_stale
    @record.taken["one"] = 5000.0
    assert_equal [[], [], 0, 1], found(stood: {"one" => [[100.0, LATE_MS]]})
  end

  def test_what_comes_back_was_painted_after_it_was_taken_away
    @record.taken["one"] = 5000.0
    assert_equal [[], [], 1, 1], found(stood: {"one" => [[100.0, 5100.0], [LATE_MS, LATE_MS + 16]]})
  end

  # One screen alone is behind the line that stalled, and a database is not needed for it.
  def test_a_fault_excuses_for_as_long_as_it_is_in_the_way
    @record.taken["one"] = 5000.0
    stands = {"one" => [[100.0, 12_000.0]]}
    {killed: 0, database_away: 1, line_stalls: 0}.each do |kind, stale|
      @record.faults = [Fault.new(kind, :all, 4000.0, 9000.0)]
      assert_equal stale, judge(stood: stands).stale.size, kind
      @record.faults = [Fault.new(kind, [:another], 4000.0, 9000.0)]
      assert_equal 1, judge(stood: stands).stale.size, kind
    end
    @record.faults = [Fault.new(:killed, :all, 4000.0, 9000.0)]
    assert_equal 1, judge(stood: {"one" => [[100.0, 30_000.0]]}).stale.size
  end

  def test_the_longest_silence_is_between_two_lines_around_a_fault
    @record.faults = [Fault.new(:killed, :all, 4000.0, 6000.0), Fault.new(:killed, :all, 30_000.0, 30_500.0)]
    stood = [1000, 3500, 8200, 9000, 29_900, 31_000].to_h { |at| [at.to_s, [[at.to_f, at + 500.0]]] }
    assert_equal [[:killed, 2, 4700]], judge(stood:).silences.map(&:to_a)
  end

  # But not while chat was off the picture, and not where the host reads.
  def test_silences_are_of_pictures_with_chat_on_them
    @record.faults = [Fault.new(:killed, :all, 4000.0, 6000.0)]
    stood = {"one" => [[1000.0, 2000.0]], "two" => [[9000.0, 9500.0]]}
    assert_equal [8000], judge(stood:).silences.map(&:longest_ms)
    assert_equal [0], judge(stood:, aside: true).silences.map(&:longest_ms)
    @record.brakes = [Brake.new(5000.0, 8000.0)]
    assert_empty judge(stood:).silences
  end

  def test_what_stands_on_a_picture_that_chat_is_off
    @record.brakes = [Brake.new(1000.0, 20_000.0)]
    known_ms = 1000.0 + Fire::Judge::WITHIN_MS
    assert_equal 0, judge(stood: {"one" => [[500.0, known_ms - 1]], "two" => [[20_100.0, 21_000.0]]}).braked.size
    assert_equal 2, judge(stood: {"one" => [[500.0, known_ms + 1]], "two" => [[19_900.0, 21_000.0]]}).braked.size
    assert_equal 0, judge(stood: {"one" => [[500.0, known_ms + 1]]}, aside: true).braked.size
    @record.faults = [Fault.new(:killed, :all, 4000.0, 6000.0)]
    assert_equal 0, judge(stood: {"one" => [[500.0, known_ms + 1]]}).braked.size
  end

  def test_an_edit_that_was_answered_is_kept_unless_a_later_one_may_have_been
    @record.edits = [Edit.new(100, :done), Edit.new(120, :done)]
    assert_equal [[], [120]], [judge(hold_ms: 120).undone, judge(hold_ms: 100).undone]
    @record.edits += [Edit.new(90, :refused), Edit.new(200, :unknown)]
    assert_equal [[], [], [120], [120]], [120, 200, 90, 100].map { |hold_ms| judge(hold_ms:).undone }
  end

  def test_lateness_is_of_lines_that_nothing_was_in_the_way_of
    stood = {"one" => [[40.0, 50.0]], "two" => [[1100.0, 1200.0]]}
    assert_equal [2, 100, 100, 100], judge(stood:).lateness.to_a
    @record.faults = [Fault.new(:database_hangs, :all, 1400.0, 6000.0)]
    assert_equal [1, 40, 40, 40], judge(stood:).lateness.to_a
  end
end
