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

  def test_it_is_full_before_it_reaches_the_upper_edge
    pile = Pile.new(80, 120)
    dropped = 0
    dropped += 1 while !pile.full? && pile.drop(10 + (dropped * 7 % 60), 12) && dropped < 200
    assert_operator dropped, :<, 40
    pile.resting.each { |one| assert_operator one.y - one.radius, :>=, -0.01 }
    pile.clear
    refute_predicate pile, :full?
  end

  def test_nothing_lies_in_another_or_outside_whatever_falls_where
    PropCheck.forall(G.array(G.tuple(G.choose(0..640), G.choose(8..40)), min: 1, max: 60)) do |drops|
      pile = Pile.new(640, 480)
      drops.each do |x, radius|
        break if pile.full?

        landed = pile.drop(x, radius)
        landed.path.each do |at_x, at_y|
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
end
