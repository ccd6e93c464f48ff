# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/heap"
require_relative "../../../lib/bavard/core/flurry/room"

# Heaps of emotes, one after another.
class FlurryHeapTest < Minitest::Test
  Core = Bavard::Core::Flurry
  ROOM = Core::Box.new(100, 50, 400, 300)
  FLIGHT_MS = 4000
  # A chance that always falls in the middle.
  EVEN = Object.new.tap { |chance| chance.define_singleton_method(:rand) { 0.5 } }

  def setup = @heap = Core::Heap.new(ROOM, FLIGHT_MS)
  def drop(at_ms, radius: 20, length_ms: FLIGHT_MS, turn: 90) = @heap.drop(EVEN, radius, length_ms, turn, at_ms)

  def test_it_falls_as_fast_as_things_fall_and_lies_until_all_of_it_goes
    points, for_ms = drop(0)
    assert_equal 12_000, for_ms
    falls = 4000 / 12_000.0 / 3
    assert_equal [[0.0, 300.0, 70.0, 0.0], [falls, 300.0, 330.0, 30.0], [1.0, 300.0, 330.0, 30.0]], points.map(&:to_a)
  end

  def test_what_comes_later_lies_as_much_shorter_and_falls_as_fast
    drop(0)
    points, for_ms = drop(1000)
    assert_equal 11_000, for_ms
    assert_in_delta 4000 / 11_000.0 / 3, points[-2].share
    assert_equal [340.0, 330.0], [points.last.x.round(3), points.last.y.round(3)]
    ways = points.map { |point| [point.x, point.y] }.each_cons(2).map { |(x, y), (then_x, then_y)| Math.hypot(then_x - x, then_y - y) }
    assert_in_delta Math.sqrt(ways.first / ways.sum) * 4000 / 11_000.0 / 3, points[1].share
    assert_in_delta 30 * ways.first / ways.sum, points[1].turn
  end

  def test_about_to_go_it_takes_nothing_more_and_then_begins_anew
    drop(0)
    assert drop(8000)
    assert_nil drop(8001)
    assert_nil drop(11_999)
    points, for_ms = drop(12_000)
    assert_equal [12_000, [300.0, 330.0]], [for_ms, [points.last.x, points.last.y]]
  end

  def test_a_full_one_takes_nothing_more
    assert drop(0, radius: 120)
    assert_nil drop(10, radius: 20)
  end

  def test_it_falls_where_chance_says_within_its_room
    left = @heap.drop(Object.new.tap { |one| one.define_singleton_method(:rand) { 0.0 } }, 20, FLIGHT_MS, 0, 0).first
    assert_in_delta(120.0, left.first.x)
    right = @heap.drop(Object.new.tap { |one| one.define_singleton_method(:rand) { 1.0 } }, 20, FLIGHT_MS, 0, 0).first
    assert_in_delta(480.0, right.first.x)
  end
end
