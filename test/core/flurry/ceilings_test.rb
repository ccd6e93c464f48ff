# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/ceilings"
require_relative "../../../lib/bavard/core/flurry/crowd"

# How many may fly, and when many become one.
class FlurryCeilingsTest < Minitest::Test
  Core = Bavard::Core::Flurry

  def ceilings(per_person: 2, per_minute: 100, at_once: 100) = @ceilings = Core::Ceilings.new(per_person:, per_minute:, at_once:)

  def test_one_person_may_fly_so_many_within_any_minute
    ceilings
    [0, 30_000].each { |at| @ceilings.admit("ann", at, at) }
    assert_equal [:person, :person, nil], [30_000, 59_999, 60_000].map { |now| @ceilings.full("ann", now) }
    assert_equal [nil, nil], [@ceilings.full("bo", 30_001), @ceilings.full(nil, 30_001)]
    @ceilings.admit("ann", 60_000, 60_000)
    assert_equal [:person, nil], [89_999, 90_000].map { |now| @ceilings.full("ann", now) }
  end

  def test_all_together_so_many_within_any_minute_and_so_many_at_once
    ceilings(per_person: 99, per_minute: 2, at_once: 3)
    [0, 10].each { |at| @ceilings.admit(nil, at, 5000) }
    assert_equal [:minute, :minute, nil], [11, 59_999, 60_000].map { |now| @ceilings.full(nil, now) }
    ceilings(per_person: 99, per_minute: 99, at_once: 2)
    2.times { |at| @ceilings.admit(nil, 0, 5000 + at) }
    assert_equal [:at_once, :at_once, nil], [0, 4999, 5000].map { |now| @ceilings.full(nil, now) }
    assert_equal [1, 0], [@ceilings.flying(5000), @ceilings.flying(5001)]
  end

  def test_a_flood_of_people_forgets_only_those_who_fly_nothing_any_more
    most = Core::Ceilings::MOST_PEOPLE
    ceilings(per_person: 1, per_minute: most * 2, at_once: most * 2)
    (most - 1).times { |number| @ceilings.admit(number, 0, 0) }
    @ceilings.admit("ann", 50_000, 0)
    @ceilings.admit("new", 60_000, 0)
    assert_equal [:person, nil, :person], ["ann", 5, "new"].map { |person| @ceilings.full(person, 60_001) }
  end

  def crowd(within_ms: 5000, from: 3) = @crowd = Core::Crowd.new(within_ms:, from:)
  def sent(code = "wave", **people) = people.map { |person, now_ms| @crowd.admit(code, person, now_ms) }

  def test_from_so_many_people_within_that_time_it_is_a_crowd
    crowd
    assert_equal [nil, nil, nil, 3], sent(ann: 0, bo: 100) + sent(ann: 200) + sent(cy: 5000)
    assert_equal [3], sent(dee: 5200)
    assert_equal [nil], sent(eve: 10_201)
    assert_equal [nil], sent("other", fay: 10_202)
  end

  def test_the_last_moment_still_counts
    crowd(from: 2)
    assert_equal [nil, 2], sent(ann: 0, bo: 5000)
    crowd(from: 2)
    assert_equal [nil, nil], sent(ann: 0, bo: 5001)
  end

  def test_nobody_is_no_crowd_and_neither_is_anybody_where_there_are_none
    crowd(from: 1)
    assert_equal [nil, 1], [@crowd.admit("wave", nil, 0), @crowd.admit("wave", "ann", 0)]
    crowd(within_ms: 0, from: 1)
    assert_nil @crowd.admit("wave", "ann", 0)
  end

  def test_of_more_words_than_are_remembered_the_oldest_is_forgotten
    crowd(from: 2)
    most = Core::Crowd::MOST_CODES
    (0..most).each { |number| @crowd.admit("code#{number}", "ann", 0) }
    assert_equal [nil, 2], [@crowd.admit("code0", "bo", 1), @crowd.admit("code#{most}", "bo", 1)]
    assert_equal 2, @crowd.admit("code2", "bo", 1)
  end

  def test_the_more_people_the_larger_up_to_a_limit
    crowd(from: 4)
    assert_equal [1.3, 1.3, 1.65, 2.0, Core::Crowd::LARGEST], [1, 4, 8, 16, 9999].map { |count| @crowd.scale(count) }
  end
end
