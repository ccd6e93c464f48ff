# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/pile"

# Emotes that come to rest on each other.
class FlurryPileTest < Minitest::Test
  Pile = Bavard::Core::Flurry::Pile
  G = PropCheck::Generators

  def test_the_first_lies_on_the_ground_and_the_next_rolls_off_it
    pile = Pile.new(400, 300)
    first = pile.drop(200, 20)
    assert_equal [200, 280], [first.round.x, first.round.y]
    second = pile.drop(205, 20)
    assert_operator second.path.size, :>, 3
    assert_operator second.round.x, :>=, 240 - 0.01
    assert_in_delta 280, second.round.y, 0.01
  end

  def test_one_rests_between_two
    pile = Pile.new(400, 300)
    [180, 220].each { |x| pile.drop(x, 20) }
    third = pile.drop(195, 20)
    assert_in_delta 200, third.round.x, 0.1
    assert_in_delta 280 - Math.sqrt((40**2) - (20**2)), third.round.y, 0.1
  end

  def test_straight_down_is_two_points_and_a_roll_an_arc_of_four_more
    pile = Pile.new(400, 300)
    assert_equal [[200, 20], [200, 280]], pile.drop(200, 20).path
    path = pile.drop(205, 20).path
    touch = 280 - Math.sqrt((40**2) - (5**2))
    assert_equal [[205, 20], [205, touch.round(3)]], path.first(2).map { |x, y| [x, y.round(3)] }
    path[1..-2].each { |x, y| assert_in_delta 40, Math.hypot(x - 200, y - 280), 0.001 }
    assert_equal path.size, path.uniq.size + 1, "it lies where its roll ended"
    angles = path[1..5].map { |x, y| Math.atan2(x - 200, 280 - y) }
    angles.each_cons(3) { |one, two, three| assert_in_delta two - one, three - two, 0.001 }
  end

  def test_small_ones_beside_a_large_one_and_by_a_wall
    beside = lambda do |first, second|
      pile = Pile.new(400, 300)
      pile.drop(*first)
      pile.drop(*second).round.to_a.first(2).map { |at| at.round(2) }
    end
    # From where it is beside it, nothing holds it: it falls straight on.
    assert_equal [[160.0, 280.0], [40.0, 280.0]], [[110, 20], [90, 20]].map { |second| beside[[100, 40], second] }
    # A large one on a small one comes to the ground before that.
    away = Math.sqrt((60**2) - (20**2))
    assert_equal [[(100 + away).round(2), 260.0], [(100 - away).round(2), 260.0]], [[110, 40], [90, 40]].map { |second| beside[[100, 20], second] }
    held = (280 - Math.sqrt((40**2) - (10**2))).round(2)
    assert_equal [[20.0, held], [380.0, held]], [beside[[30, 20], [25, 20]], beside[[370, 20], [375, 20]]]
    assert_equal [240.0, 160.0], [beside[[200, 20], [200, 20]].first, Pile.new(400, 300).tap { |pile| [[300, 20], [200, 20]].each { |one| pile.drop(*one) } }.drop(200, 20).round.x.round(2)]
  end

  def test_what_is_larger_than_its_room_is_made_to_fit
    landed = Pile.new(60, 300).drop(500, 90)
    assert_equal [30, 270, 30], landed.round.to_a
    assert_equal 20, Pile.new(300, 40).drop(500, 90).round.radius
  end

  def test_so_many_lie_there_and_no_more
    pile = Pile.new(100_000, 300)
    (Pile::MOST - 1).times { |at| pile.drop(at * 100, 10) }
    refute_predicate pile, :full?
    pile.drop(99_000, 10)
    assert_predicate pile, :full?
    assert_equal [false, true], [79, 81].map { |radius| Pile.new(1000, 320).tap { |one| one.drop(500, radius) }.full? }
  end

  def test_it_is_full_before_it_reaches_the_upper_edge
    pile = Pile.new(80, 120)
    dropped = 0
    dropped += 1 while !pile.full? && pile.drop(10 + (dropped * 7 % 60), 12) && dropped < 200
    assert_operator dropped, :<, 40
    pile.resting.each { |one| assert_operator one.y - one.radius, :>=, -0.01 }
    pile.clear
    refute_predicate pile, :full?
  end

  # Both were found by the test below: what touched another sideways fell through it.
  FOUND = [
    [[461, 24], [88, 17], [78, 26], [75, 33], [146, 8], [99, 24], [615, 28], [561, 17], [181, 26], [314, 22], [556, 13], [207, 19], [147, 11],
      [253, 21], [49, 37], [482, 16], [105, 35], [161, 25], [586, 8], [420, 12], [183, 32], [164, 25], [517, 14], [158, 21], [556, 16], [405, 40],
      [77, 10], [403, 27], [499, 15], [522, 36], [200, 11], [590, 27], [246, 25], [247, 9], [611, 31], [14, 39], [231, 22], [411, 16], [394, 12],
      [171, 15], [364, 35]],
    [[332, 23], [471, 11], [116, 11], [441, 29], [591, 25], [213, 20], [110, 10], [547, 40], [256, 27], [421, 39], [589, 25], [115, 32], [620, 16],
      [18, 36], [208, 17], [407, 32], [48, 8], [622, 16], [305, 24], [189, 34], [482, 16], [303, 10], [615, 21], [248, 21], [60, 25], [577, 34],
      [151, 18], [599, 26], [429, 11], [271, 19], [631, 29], [613, 25], [60, 25], [332, 22], [434, 27], [130, 34], [357, 32], [153, 40], [438, 37],
      [573, 38], [308, 8], [610, 37], [591, 34], [96, 19], [466, 30], [627, 30], [297, 19], [637, 37]]
  ].freeze

  def test_what_touches_another_sideways_does_not_fall_through_it
    FOUND.each { |drops| nothing_lies_in_another(drops) }
  end

  def test_nothing_lies_in_another_or_outside_whatever_falls_where
    PropCheck.forall(G.array(G.tuple(G.choose(0..640), G.choose(8..40)), min: 1, max: 60)) { |drops| nothing_lies_in_another(drops) }
  end

  private

  def nothing_lies_in_another(drops)
    pile = Pile.new(640, 480)
    drops.each do |x, radius|
      break if pile.full?(radius)

      pile.drop(x, radius).path.each do |at_x, at_y|
        assert_operator at_x, :>=, radius - 0.01
        assert_operator at_x, :<=, 640 - radius + 0.01
        assert_operator at_y, :<=, 480 - radius + 0.01
      end
    end
    pile.resting.combination(2) do |one, other|
      assert_operator Math.hypot(one.x - other.x, one.y - other.y), :>=, one.radius + other.radius - 0.1
    end
  end
end
