# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/flurry/room"

# What spaces leave to fly in.
class FlurryRoomTest < Minitest::Test
  Core = Bavard::Core::Flurry
  G = PropCheck::Generators

  def box(...) = Core::Box.new(...)

  def test_without_spaces_all_of_it_is_free
    whole = box(0, 0, 1920, 1080)
    assert_equal [whole], Core::Room.around(whole, [])
    assert_equal [whole], Core::Room.around(whole, [box(2000, 0, 100, 100)])
    assert_equal [whole], Core::Room.around(whole, [box(-10, -10, 3000, 3000)])
  end

  def test_what_two_boxes_have_in_common
    assert_equal box(50, 60, 50, 40), box(0, 0, 100, 100).common(box(50, 60, 100, 100))
    assert_equal box(20, 30, 5, 6), box(20, 30, 5, 6).common(box(0, 0, 100, 100))
    assert_nil box(0, 0, 100, 100).common(box(100, 0, 10, 10))
  end

  def test_a_camera_in_a_corner_leaves_two_large_boxes
    assert_equal [box(0, 0, 1400, 1080), box(0, 0, 1920, 600)], Core::Room.around(box(0, 0, 1920, 1080), [box(1400, 600, 520, 480)])
  end

  def test_a_box_covers_itself_and_what_lies_at_its_edges
    outer = box(10, 10, 100, 100)
    assert outer.covers?(outer)
    [box(9, 10, 50, 50), box(10, 9, 50, 50), box(61, 10, 50, 50), box(10, 61, 50, 50)].each { |other| refute outer.covers?(other) }
    assert outer.covers?(box(60, 60, 50, 50))
  end

  def test_where_it_is_narrower_than_an_emote_nothing_flies
    whole = box(0, 0, 1000, 600)
    narrow = Core::Room::NARROWEST_PX
    assert_equal [whole], Core::Room.around(whole, [box(0, 0, 1000 - narrow + 1, 600)])
    assert_equal [box(1000 - narrow, 0, narrow, 600)], Core::Room.around(whole, [box(0, 0, 1000 - narrow, 600)])
    assert_equal [whole], Core::Room.around(whole, [box(0, 0, 1000, 600 - narrow + 1)])
    assert_equal [box(0, 600 - narrow, 1000, narrow)], Core::Room.around(whole, [box(0, 0, 1000, 600 - narrow)])
  end

  def test_of_more_spaces_than_are_kept_free_the_first_are
    most = Core::Room::MOST_SPACES
    spaces = (0...most).map { |at| box(at * 10, 0, 10, 600) } + [box(0, 0, 5000, 600)]
    assert_equal [box(most * 10, 0, 1000 - (most * 10), 600)], Core::Room.around(box(0, 0, 1000, 600), spaces)
  end

  def test_free_boxes_meet_no_space_and_lie_in_none_of_the_others
    spaces = G.array(G.tuple(G.choose(0..900), G.choose(0..500), G.choose(1..500), G.choose(1..400)), max: 6)
    PropCheck.forall(spaces) do |given|
      whole = box(0, 0, 1000, 600)
      spaces = given.map { |one| box(*one) }
      free = Core::Room.around(whole, spaces)
      next if free == [whole]

      free.each { |one| spaces.each { |space| refute one.meets?(space) } }
      free.permutation(2) { |one, other| refute one.covers?(other) }
      assert_equal free.map(&:area).sort.reverse, free.map(&:area)
    end
  end
end
