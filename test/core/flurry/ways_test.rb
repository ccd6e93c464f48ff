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

  # A chance that always falls in the middle.
  EVEN = Object.new.tap { |chance| chance.define_singleton_method(:rand) { 0.5 } }

  def even(way, from = nil) = Ways.path(way, EVEN, field(FIELDS.first, from))

  # @return [Array] x, y and turn
  def assert_at(expected, point) = expected.zip(point.to_a.drop(1)) { |at, now| assert_in_delta at, now, 0.1 }

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
    first = path("fountain", 3, field([1000, 500, 20], [0.5, 0.9])).first
    assert_equal [500, 434], [first.x.round, first.y.round]
    heights = path("fountain").map(&:y)
    assert_operator heights.min, :<, heights.first
    assert_operator heights.last, :>=, heights.min
  end

  def test_what_drifts_crosses_from_the_right_on_one_wave
    path = even("drift")
    assert_at [1880, 540, 0], path.first
    assert_at [1880 - (1840 * 3 / 14.0), 540 + (70 * Math.sin(6 * Math::PI / 14)), 0], path[3]
    assert_at [40, 540, 0], path.last
  end

  def test_what_circles_goes_round_one_and_a_quarter_times
    path = even("circle")
    assert_at [960 - 621, 540, 0], path.first
    assert_at [960, 540 - 337.5, 0], path.last
    assert_equal 37, path.size
  end

  def test_what_swings_hangs_from_the_upper_edge_and_is_turned_by_its_line
    path = even("swing")
    assert_at [960 + (675 * Math.sin(1.1)), 40 + (675 * Math.cos(1.1)), -1.1 * 180 / Math::PI], path.first
    after = 1.1 * Math.exp(-1.6)
    assert_at [960 + (675 * Math.sin(after)), 40 + (675 * Math.cos(after)), -after * 180 / Math::PI], path.last
  end

  def test_a_fountain_rises_as_long_as_gravity_takes_and_falls_to_the_ground
    path = even("fountain", [0.25, 0.5])
    assert_at [500, 540, 0], path.first
    top = path.min_by(&:y)
    assert_in_delta Math.sqrt(437.5) / (Math.sqrt(437.5) + Math.sqrt(937.5)), top.share, 1 / 14.0
    assert_in_delta 102.5, top.y, 5
    assert_at [960, 1040, 0], path.last
  end

  def test_what_falls_and_rises_sways_a_little
    [["fall", 377.5], ["rise", 1040 - (1000 * (1 - (0.5**1.6)))]].each do |way, half|
      path = even(way)
      assert_at [960, way == "fall" ? 40 : 1040, 0], path.first
      assert_at [960 + (39 * Math.sin(Math::PI * 2.2)), half, 0], path[7]
    end
  end

  # Where each is at the beginning, after a third and two thirds of its points, and at the end: [x, y, turn] by two chances, in a room
  # of 1000 × 600 px and from 30 % and 70 % of it. Looked at once, and since then the same.
  CHANCES = [0.2, 0.8].freeze
  DRAWN = {
    "fall" => [[[253, 30, 0], [213, 142, 0], [238, 344, 0], [244, 570, 0]], [[726, 30, 0], [816, 142, 0], [731, 344, 0], [770, 570, 0]]],
    "rise" => [[[253, 570, 0], [213, 296, 0], [238, 103, 0], [244, 30, 0]], [[726, 570, 0], [816, 296, 0], [731, 103, 0], [770, 30, 0]]],
    "drift" => [[[50, 138, 0], [371, 160, 0], [693, 138, 0], [950, 117, 0]], [[950, 462, 0], [629, 474, 0], [307, 439, 0], [50, 513, 0]]],
    "rebound" => [[[230, 138, 0], [50, 50, 0], [950, 451, 0], [789, 530, 0]], [[770, 462, 0], [950, 311, 0], [548, 570, 0], [218, 164, 0]]],
    "swing" => [[[105, 162, 63], [527, 272, -34], [292, 312, 15], [385, 321, -4]], [[950, 333, -46], [657, 467, -3], [518, 451, 16], [613, 467, 3]]],
    "circle" => [[[567, 423, 0], [631, 197, 0], [284, 295, 0], [616, 409, 0]], [[621, 77, 0], [411, 529, 0], [557, 68, 0], [475, 534, 0]]],
    "fountain" => [[[320, 408, 0], [288, 118, 0], [256, 214, 0], [230, 570, 0]], [[320, 408, 0], [481, 65, 0], [641, 168, 0], [770, 570, 0]]]
  }.freeze

  def test_every_way_flies_as_it_did
    DRAWN.each do |way, drawn|
      CHANCES.zip(drawn) do |chance, expected|
        always = Object.new.tap { |one| one.define_singleton_method(:rand) { chance } }
        path = Ways.path(way, always, Ways::Field.new(1000, 600, 50, 30, [0.3, 0.7]))
        last = path.size - 1
        assert_equal expected, [0, path.size / 3, path.size * 2 / 3, last].map { |at| path[at].to_a.drop(1).map(&:round) }, [way, chance]
      end
    end
  end

  def test_in_a_room_of_its_own_size_nothing_moves_and_nothing_is_turned_back
    thrown = ->(*values) { Ways::Thrown.new(*values.map(&:to_f)) }
    assert_equal [[], [], []], [thrown[5, 100, 5, 5.5], thrown[5, 0.5, 0, 100], thrown[5, 20, 0, 100]].map(&:edges)
    assert_equal [5, 5], [0, 1].map { |share| thrown[5, 100, 5, 5].at(share) }
    assert_equal [[0.5], [0.25, 0.75]], [thrown[50, 100, 0, 100].edges, thrown[75, 100, 50, 100].edges]
    assert_equal [50, 100, 50, 0, 50], [0, 0.25, 0.5, 0.75, 1].map { |share| thrown[50, 200, 0, 100].at(share) }
    assert_equal [1.0, 0.0], [thrown[0, 100, 0, 100].edges.last, thrown[0, 100, 0, 100].edges.first]
  end
end
