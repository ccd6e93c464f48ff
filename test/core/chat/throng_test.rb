# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/throng"

class ThrongTest < Minitest::Test
  Throng = Bavard::Core::Chat::Throng
  Line = Struct.new(:id, :shown_at_ms)
  NOW = 1_000_000

  def setup = @throng = Throng.new
  def take(feed, id, now_ms = NOW) = @throng.admit(feed, Line.new(id, now_ms), now_ms) && true
  def flood(count, now_ms = NOW) = Array.new(count) { |id| take(:flood, id, now_ms) }.count(true)

  def test_so_many_come_at_once_and_then_so_many_a_second
    assert_equal Throng::BURST, flood(500)
    assert_equal [*492..499].first(3), @throng.advance(NOW + 100).map(&:id)
    assert_equal 5, @throng.advance(NOW + 1000).size
    assert_empty @throng.advance(NOW + 5000)
  end

  def test_another_feed_has_room_of_its_own
    flood(500)
    assert take(:calm, 1)
  end

  def test_what_waits_goes_before_what_comes
    flood(Throng::BURST + 1)
    refute take(:flood, :later, NOW + 40)
    assert_equal [Throng::BURST, :later], @throng.advance(NOW + 80).map(&:id)
  end

  def test_what_never_had_room_is_told_once
    assert_empty @throng.washed
    flood(Throng::BURST + Throng::WAITING + 3)
    assert_equal [Throng::BURST, Throng::BURST + 1, Throng::BURST + 2], @throng.washed.map(&:id)
    assert_empty @throng.washed
  end

  def test_what_waits_is_taken_away
    flood(Throng::BURST + 3)
    @throng.pull_where { |line| line.id == Throng::BURST + 1 }
    assert_equal [Throng::BURST, Throng::BURST + 2], @throng.advance(NOW + 900).map(&:id)
  end

  def test_it_says_when_the_next_one_goes
    assert_nil @throng.due_ms
    flood(Throng::BURST)
    assert_nil @throng.due_ms
    flood(1)
    due_ms = @throng.due_ms
    assert_equal NOW + 34, due_ms
    assert_empty @throng.advance(due_ms - 2)
    assert_equal 1, @throng.advance(due_ms).size
  end

  def test_looking_gives_no_room
    flood(Throng::BURST)
    assert_empty @throng.advance(NOW + 40)
    assert_equal 1, flood(Throng::BURST, NOW + 40)
  end

  def test_history_has_its_place_by_when_it_was_said
    assert_predicate(Array.new(200) { |id| @throng.admit(:feed, Line.new(id, NOW - 60_000), NOW) }, :all?)
  end

  # A clock that is set back, or jumps, neither stops lines nor lets all go.
  def test_whatever_the_clock_does
    flood(Throng::BURST + 5)
    assert_empty @throng.advance(NOW - 3_600_000)
    assert_equal 5, @throng.advance(NOW + 3_600_000).size
    assert_operator flood(500, NOW + 3_600_000), :<=, Throng::PER_SECOND
  end
end
