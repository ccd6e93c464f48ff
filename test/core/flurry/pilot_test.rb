# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/pilot"

# How large, how far away and how long an emote flies, and through which room.
class FlurryPilotTest < Minitest::Test
  Core = Bavard::Core::Flurry
  PIECE = {"emote_px" => 100, "size_spread" => 40, "depth" => 100, "length_s" => 4, "spin" => 90, "ways" => ["fall"], "from_x" => 50,
           "from_y" => 50}.freeze
  ROOMS = [Core::Box.new(100, 50, 1000, 800), Core::Box.new(1200, 0, 500, 400)].freeze
  SQUARE = ["wave", nil, 1.0, false].freeze

  # A chance that always falls the same, 0 to less than 1.
  Always = Struct.new(:chance) do
    def rand(most = nil) = most ? (chance * most).floor : chance
  end

  def flight(chance = 0.5, emote: SQUARE, rooms: ROOMS, at_ms: 0, way: nil, **piece)
    pilot(rooms:, **piece).flight(Core::Pilot::Asked.new(emote:, at_ms:, way:), Always.new(chance))
  end

  def pilot(rooms: ROOMS, **piece) = Core::Pilot.new(PIECE.merge(piece.transform_keys(&:to_s)), rooms)

  def test_the_farther_away_the_smaller_and_the_slower
    near = flight(depth: 0, spin: 0)
    far = flight(depth: 100, spin: 0)
    assert_equal [100, 4000, 0], [near.size_px, near.length_ms, near.depth]
    assert_in_delta 70, far.size_px
    assert_equal [5000, 0.5], [far.length_ms, far.depth]
  end

  def test_sizes_and_lengths_lie_around_what_was_set
    least = flight(0.0, depth: 0, spin: 0)
    most = flight(0.999999, depth: 0, spin: 0)
    assert_equal [60, 140], [least.size_px.round, most.size_px.round]
    assert_equal [3520, 4480], [least.length_ms, most.length_ms]
  end

  def test_they_turn_by_their_speed_to_either_side
    assert_equal 90 * 4 * 0.75, flight(depth: 0).spin
    assert_in_delta(-90 * 3.52 * 0.5, flight(0.0, depth: 0).spin)
    assert_equal 0, flight(spin: 0).spin
    assert_equal 0, flight(way: "swing").spin
    assert_equal 0, flight(way: "pile").spin
  end

  def test_what_turns_keeps_as_far_from_an_edge_as_its_corners_reach
    upright = flight(depth: 0, spin: 0)
    turning = flight(depth: 0)
    assert_in_delta 50 + 50, upright.points.first.y
    assert_in_delta 50 + (Math.sqrt(2) * 50), turning.points.first.y
    assert_in_delta 850 - 50, upright.points.last.y
  end

  def test_a_wide_emote_is_as_wide_as_it_is_drawn_and_no_wider_than_three_heights
    lefts = [["two", nil, 2.0, false], ["six", nil, 6.0, false], ["none", nil, 0, false]].map do |emote|
      flight(0.0, emote:, depth: 0, spin: 0, size_spread: 0, rooms: [ROOMS.first], way: "drift").points.map(&:x).min
    end
    assert_equal [200.0, 250.0, 150.0], lefts
  end

  def test_it_is_made_smaller_where_it_does_not_fit
    low = [Core::Box.new(0, 0, 1000, 60)]
    assert_equal 60, flight(rooms: low, depth: 0, spin: 0).size_px
    assert_in_delta 60 / Math.sqrt(2), flight(rooms: low, depth: 0).size_px
    narrow = [Core::Box.new(0, 0, 90, 900)]
    assert_equal 45, flight(rooms: narrow, depth: 0, spin: 0, emote: ["two", nil, 2.0, false]).size_px
  end

  def test_what_may_still_grow_is_made_to_fit_at_its_largest
    low = [Core::Box.new(0, 0, 1000, 60)]
    asked = Core::Pilot::Asked.new(emote: SQUARE, at_ms: 0, most: 2.0)
    assert_equal 30, pilot(rooms: low, depth: 0, spin: 0).flight(asked, Always.new(0.5)).size_px
  end

  def test_the_larger_room_is_the_likelier
    share = 800_000 / 1_000_000.0
    assert_operator flight(share - 0.01).points.map(&:x).max, :<, 1100
    assert_operator flight(share + 0.01).points.map(&:x).min, :>, 1200
    assert_operator flight(share + 0.01, way: "pile").points.map(&:x).max, :<, 1100
  end

  def test_what_may_still_grow_keeps_as_far_from_an_edge_as_it_will_reach
    asked = Core::Pilot::Asked.new(emote: ["two", nil, 2.0, false], at_ms: 0, most: 2.0)
    flown = pilot(depth: 0, spin: 0, emote_px: 50, size_spread: 0).flight(asked, Always.new(0.5))
    assert_equal [50, 50 + 50.0], [flown.size_px, flown.points.first.y]
    edge = pilot(depth: 0, spin: 0, emote_px: 50, size_spread: 0, ways: ["drift"]).flight(asked, Always.new(0.4)).points.first
    assert_equal 100 + 100.0, edge.x
  end

  def test_all_ways_are_its_own_where_none_was_chosen
    pilot = pilot(ways: [], spin: 0)
    ways = Core::Ways::ALL.each_index.map do |at|
      pilot.flight(Core::Pilot::Asked.new(emote: SQUARE, at_ms: 0), Always.new(at.to_f / Core::Ways::ALL.size)).points.size
    end
    assert_operator ways.uniq.size, :>, 2
    assert_equal Core::Ways::ROUND_SAMPLES + 1, ways[Core::Ways::ALL.index("circle")]
  end

  def test_a_cue_says_from_where
    asked = Core::Pilot::Asked.new(emote: SQUARE, at_ms: 0, way: "burst", from: [0.0, 1.0])
    first = pilot(depth: 0, spin: 0).flight(asked, Always.new(0.5)).points.first
    assert_equal [150, 800], [first.x, first.y]
  end

  def test_all_of_a_volley_are_equally_far_away_in_one_room_for_one_length
    one = pilot(depth: 100, size_spread: 0, ways: ["firework"])
    flights = Array.new(30) { |at| one.flight(volleyed(5, at, 30), Random.new(at)) }
    assert_equal [[0], [100]], [flights.map(&:depth).uniq, flights.map(&:size_px).uniq]
    assert_equal 1, flights.map(&:whole_ms).uniq.size
    assert_equal 1, flights.map { |flight| ROOMS.index { |room| flight.points.all? { |point| point.x.between?(room.x, room.right) } } }.uniq.size
  end

  def test_what_goes_off_does_not_wait_for_its_turn_and_what_springs_up_does
    waits = %w[burst ring confetti fountain fall].map { |way| pilot(ways: [way]).flight(volleyed(1, 3, 9, wait_ms: 240), Random.new(1)).wait_ms }
    assert_equal [0, 0, 0, 240, 240], waits
  end

  def volleyed(seed, at, of, **more) = Core::Pilot::Asked.new(emote: SQUARE, at_ms: 0, volley: Core::Bursts::Volley.new(seed, at, of), **more)

  def test_a_heap_lies_until_all_of_it_goes
    pilot = pilot(depth: 0, spin: 0)
    lengths = [0, 3000, 9000, 12_000].map do |at_ms|
      pilot.flight(Core::Pilot::Asked.new(emote: SQUARE, at_ms:, way: "pile"), Always.new(0.5)).length_ms
    end
    # The third comes too late for the heap and falls by itself; the fourth begins the next one.
    assert_equal [12_000, 9000, 4000, 12_000], lengths
  end
end
