# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/ways"

# How emotes fly, each way by itself.
class FlurryWaysTest < Minitest::Test
  Ways = Bavard::Core::Flurry::Ways
  # Of what a straight way across the room would be, nothing is faster than so many times.
  FASTEST = 7

  # Width, height, and how far an emote reaches around its middle.
  FIELDS = [[1920, 1080, 40], [400, 900, 60], [64, 64, 32], [30, 30, 32], [3000, 40, 20]].freeze
  EDGES = [[20, 780], [20, 580]].freeze

  def field(size = FIELDS.first, from = nil) = Ways::Field.new(*size.first(2), size.last, size.last, from)
  def path(way, seed = 7, field = field()) = Ways.path(way, Random.new(seed), field)

  def each_flight
    Ways::ALONE.each do |way|
      FIELDS.product((1..20).to_a) { |size, seed| yield way, field(size, [0.1, 0.9]), path(way, seed, field(size, [0.1, 0.9])) }
    end
  end

  def test_every_way_stays_inside_from_beginning_to_end
    each_flight do |way, field, path|
      assert_equal [0.0, 1.0], [path.first.share, path.last.share], way
      assert_equal path.map(&:share).sort.uniq, path.map(&:share), way
      path.each do |point|
        assert_in_delta point.x.clamp(field.left, field.right), point.x, 0.001, way
        assert_in_delta point.y.clamp(field.top, field.bottom), point.y, 0.001, way
      end
    end
  end

  def test_nothing_flies_faster_than_eyes_follow
    each_flight do |way, field, path|
      across = [Math.hypot(field.across, field.down), 1].max
      speeds = path.each_cons(2).map { |one, other| Math.hypot(other.x - one.x, other.y - one.y) / (other.share - one.share) }
      assert_operator speeds.max, :<=, FASTEST * across, way
    end
  end

  def test_the_same_seed_flies_the_same_and_another_otherwise
    Ways::ALONE.each do |way|
      assert_equal path(way, 5), path(way, 5), way
      refute_equal path(way, 5), path(way, 6), way
    end
  end

  def test_what_falls_falls_faster_and_what_rises_ends_on_top
    falling = path("fall")
    steps = falling.each_cons(2).map { |one, other| other.y - one.y }
    assert_equal steps.sort, steps
    assert_equal [40, 1040], [falling.first.y, falling.last.y].map(&:round)
    assert_equal [1040, 40], path("rise").then { |path| [path.first.y.round, path.last.y.round] }
  end

  def test_what_rebounds_leaves_an_edge_as_it_came_at_an_even_speed
    field = field([800, 600, 20])
    seen = 0
    30.times do |seed|
      path = path("rebound", seed, field)
      ways = path.each_cons(2).map { |one, other| [(other.x - one.x) / (other.share - one.share), (other.y - one.y) / (other.share - one.share)] }
      lengths = ways.map { |x, y| Math.hypot(x, y) }
      assert_in_delta lengths.min, lengths.max, 0.01
      path[1..-2].zip(ways.each_cons(2)) do |point, (before, after)|
        sides = [point.x, point.y].zip(EDGES).map { |at, edges| edges.any? { |edge| (at - edge).abs < 0.01 } }
        assert_includes sides, true
        sides.each_with_index { |turned, axis| assert_in_delta turned ? -before[axis] : before[axis], after[axis], 0.01 }
        seen += 1
      end
    end
    assert_operator seen, :>, 60
  end

  def test_what_swings_swings_less_and_less
    xs = path("swing").map(&:x)
    middle = path("swing").map(&:turn)
    assert_operator middle.first(12).map(&:abs).max, :>, middle.last(12).map(&:abs).max
    assert_operator xs.uniq.size, :>, 20
  end

  def test_what_circles_keeps_to_an_oval_around_the_middle
    path = path("circle")
    wide = path.map { |point| (point.x - 960).abs }.max
    high = path.map { |point| (point.y - 540).abs }.max
    path.each { |point| assert_in_delta 1, (((point.x - 960) / wide)**2) + (((point.y - 540) / high)**2), 0.12 }
  end

  def test_what_comes_out_of_a_point_begins_there
    %w[burst fountain].each do |way|
      first = path(way, 3, field([1000, 500, 20], [0.5, 0.9])).first
      assert_equal [500, 434], [first.x.round, first.y.round], way
    end
    heights = path("fountain").map(&:y)
    assert_operator heights.min, :<, heights.first
    assert_operator heights.last, :>=, heights.min
  end
end
