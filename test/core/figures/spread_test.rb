# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/figures/spread"

# Many times, told by bars and two numbers.
class SpreadTest < Minitest::Test
  Spread = Bavard::Core::Figures::Spread

  def two(times) = Spread.of(times).then { |spread| [spread.half_ms, spread.most_ms] }

  def test_of_nothing
    spread = Spread.of([])
    assert_equal [0, 0, 0, 0, 0], [spread.lines, spread.half_ms, spread.most_ms, spread.beyond, spread.bars.sum]
  end

  def test_half_and_ninety_nine_in_a_hundred_are_times_that_were
    assert_equal [7, 7], two([7])
    assert_equal [1, 2], two([1, 2])
    assert_equal [50, 99], two((1..100).to_a)
    assert_equal [100, 198], two((1..200).to_a)
  end

  def test_each_time_is_in_its_bar
    spread = Spread.of([0, 4, 5, 9, 10, 199, 200])
    assert_equal 10, spread.step_ms
    assert_equal [4, 1, 0], spread.bars.first(3)
    assert_equal [1, 1], [spread.bars[19], spread.bars[20]]
  end

  def test_bars_are_as_wide_as_the_ninety_nine_need_and_the_rest_is_counted
    few_late = ([20] * 990) + ([5000] * 10)
    spread = Spread.of(few_late)
    assert_equal [5, 10, 990, 20], [spread.step_ms, spread.beyond, spread.bars[4], spread.most_ms]
    assert_equal 1000, spread.bars.sum + spread.beyond
  end

  def test_whatever_comes_is_in_a_bar_or_beyond
    chance = Random.new(7)
    200.times do
      times = Array.new(chance.rand(1..300)) { chance.rand(0..[50, 3000, 60_000].sample(random: chance)) }.sort
      spread = Spread.of(times)
      assert_equal times.size, spread.bars.sum + spread.beyond
      assert_operator spread.beyond, :<=, times.size / 100 if spread.step_ms < Spread::STEPS_MS.last
      assert_includes times, spread.half_ms
      assert_operator times.count { |ms| ms <= spread.most_ms }, :>=, (times.size * 0.99).floor
    end
  end
end
