# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/bursts"

# What goes off at once: all that leaves one place together.
class FlurryBurstsTest < Minitest::Test
  Bursts = Bavard::Core::Flurry::Bursts
  Ways = Bavard::Core::Flurry::Ways
  Slung = Bavard::Core::Flurry::Slung
  G = PropCheck::Generators
  LENGTH_MS = 4000

  def field(*size, from: [0.5, 0.5])
    width, height, reach = size.empty? ? [1920, 1080, 40] : size
    Ways::Field.new(width, height, reach, reach, from)
  end

  def volley(way, of, seed: 3, field: field(), length_ms: LENGTH_MS)
    Array.new(of) { |at| Bursts.shot(way, Bursts::Volley.new(seed, at, of), Random.new((seed * 1000) + at), field, length_ms) }
  end

  def test_whatever_goes_off_wherever_stays_inside_from_beginning_to_end
    ways = G.one_of(*Bursts::ALL.map { |way| G.constant(way) })
    size = G.tuple(G.choose(30..3000), G.choose(30..2000), G.choose(4..200))
    PropCheck.forall(ways, size, G.tuple(G.choose(0..100), G.choose(0..100)), G.choose(1..9999)) do |way, room, from, seed|
      field = field(*room, from: from.map { |share| share / 100.0 })
      volley(way, 5, seed:, field:).each do |shot|
        assert_equal [0.0, 1.0], [shot.points.first.share, shot.points.last.share], way
        assert_equal shot.points.map(&:share).sort.uniq, shot.points.map(&:share), way
        shot.points.each do |point|
          assert_in_delta point.x.clamp(field.left, field.right), point.x, 0.001, way
          assert_in_delta point.y.clamp(field.top, field.bottom), point.y, 0.001, way
        end
      end
    end
  end

  def test_the_same_seed_goes_off_the_same_and_another_otherwise
    Bursts::ALL.each do |way|
      assert_equal volley(way, 6), volley(way, 6), way
      refute_equal volley(way, 6), volley(way, 6, seed: 4), way
    end
  end

  def test_a_burst_leaves_one_point_for_all_sides_and_is_slowed
    shots = volley("burst", 200)
    shots.each { |shot| assert_equal [960, 540], [shot.points.first.x.round, shot.points.first.y.round] }
    quarters = shots.map { |shot| [shot.points[4].x > 960, shot.points[4].y > 540] }.tally
    assert_equal 4, quarters.size
    assert_operator quarters.values.min, :>, 25
    shots.each { |shot| assert_operator gone(shot, 0, 4) / shot.points[4].share, :>, gone(shot, 8, 12) / (shot.points[12].share - shot.points[8].share) }
  end

  def test_a_ring_is_even_round_and_widens
    shots = volley("ring", 24)
    [4, 10, 16].each_cons(2) do |one, later|
      assert_equal 1, distances(shots, one).map { |far| far.round(3) }.uniq.size
      assert_operator distances(shots, later).first, :>, distances(shots, one).first
    end
    angles = shots.map { |shot| Math.atan2(shot.points[9].y - 540, shot.points[9].x - 960) }.sort
    angles.each_cons(2) { |one, other| assert_in_delta 2 * Math::PI / 24, other - one, 0.0001 }
    assert_in_delta 500, distances(shots, 16).first
  end

  def test_more_than_stand_beside_each_other_are_rings_one_after_the_other
    shots = volley("ring", 100)
    rings = shots.group_by(&:wait_ms)
    assert_equal({0 => 34, 260 => 33, 520 => 33}, rings.transform_values(&:size))
    rings.each_value do |ring|
      angles = ring.map { |shot| Math.atan2(shot.points[9].y - 540, shot.points[9].x - 960) }.sort
      angles.each_cons(2) { |one, other| assert_in_delta 2 * Math::PI / ring.size, other - one, 0.0001 }
    end
    assert_equal [0], volley("ring", 8, field: field(60, 60, 30)).map(&:wait_ms).uniq
  end

  def test_a_ring_from_a_corner_is_moved_in_until_all_of_it_fits
    shots = volley("ring", 4, field: field(1000, 600, 20, from: [0.0, 1.0]))
    assert_equal [[300, 300]], shots.map { |shot| [shot.points.first.x.round, shot.points.first.y.round] }.uniq
  end

  def test_a_rocket_climbs_alone_and_what_it_held_goes_off_where_it_stands
    climber, *sparks = volley("firework", Bursts::SPARKS)
    climb = climber.points.first(5)
    assert_equal 1040, climb.first.y.round
    assert_equal climb.map(&:y).sort.reverse, climb.map(&:y)
    assert_equal climber.wait_ms + climber.length_ms, sparks.first.wait_ms + sparks.first.length_ms
    begins = sparks.map { |shot| [shot.wait_ms, shot.points.first.x.round(2), shot.points.first.y.round(2)] }.uniq
    assert_equal [[sparks.first.wait_ms, climb.last.x.round(2), climb.last.y.round(2)]], begins
    assert_in_delta sparks.first.wait_ms, climb.last.share * climber.length_ms, 1
    sparks.each { |shot| assert_operator shot.points.last.y, :>, shot.points[8].y }
  end

  def test_a_rocket_climbs_from_below_where_it_bursts
    climbers = volley("firework", 8 * Bursts::SPARKS).values_at(*Array.new(8) { |rocket| rocket * Bursts::SPARKS })
    climbers.each { |shot| assert_in_delta shot.points[4].x, shot.points.first.x, field.across * 0.1 }
  end

  def test_many_emotes_are_many_rockets_one_after_the_other
    shots = volley("firework", 3 * Bursts::SPARKS)
    climbers = shots.values_at(0, Bursts::SPARKS, 2 * Bursts::SPARKS)
    assert_equal [0, 420, 840], climbers.map(&:wait_ms)
    assert_equal 3, climbers.map { |shot| shot.points[4].x.round }.uniq.size
    assert_equal Bursts::SHORTEST_MS, volley("firework", 2, length_ms: 500).last.length_ms
  end

  def test_confetti_comes_from_both_corners_stops_in_the_air_and_flutters_to_the_ground
    shots = volley("confetti", 40, field: field(from: nil))
    assert_equal [[40, 1040], [1880, 1040]], shots.map { |shot| [shot.points.first.x.round, shot.points.first.y.round] }.uniq.sort
    shots.each do |shot|
      top = shot.points.min_by(&:y)
      assert_operator top.share, :<, 0.45
      assert_operator top.y, :<, 800
      assert_in_delta 1040, shot.points.last.y, 0.01
      assert_operator shot.points.map(&:turn).minmax.reduce(:-).abs, :>, 30
    end
    shots.group_by { |shot| shot.points.first.x }.each_value { |some| assert_equal [0, 1, 2], some.map { |shot| (shot.points.last.x / 640).floor }.uniq.sort }
    one = volley("confetti", 2).map { |shot| [shot.points.first.x, shot.points.first.y] }
    assert_equal [[960, 540]], one.uniq
  end

  def test_drag_and_gravity_are_worked_out_from_the_moment_alone
    slung = Slung.new(10, 20, 300, -200, 400, 4.0)
    assert_equal [10, 20], slung.at(0)
    assert_equal [310, 220], slung.at(1).map { |at| at.round(6) }
    # As small steps find it: speed is lost by the drag, and gained by gravity.
    speed = [300 * 4.0 / (1 - Math.exp(-4)), -200 * 4.0 / (1 - Math.exp(-4))]
    pull = 400 * 16.0 / (3 + Math.exp(-4))
    x = 10.0
    y = 20.0
    20_000.times do
      x += speed[0] / 20_000
      y += speed[1] / 20_000
      speed = [speed[0] * (1 - (4.0 / 20_000)), speed[1] + ((pull - (4.0 * speed[1])) / 20_000)]
    end
    assert_in_delta 310, x, 0.5
    assert_in_delta 220, y, 0.5
  end

  private

  def gone(shot, from, to) = Math.hypot(shot.points[to].x - shot.points[from].x, shot.points[to].y - shot.points[from].y)
  def distances(shots, at) = shots.map { |shot| Math.hypot(shot.points[at].x - 960, shot.points[at].y - 540) }
end
