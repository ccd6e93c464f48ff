# frozen_string_literal: true

require_relative "../support/web_test"

# What the Air station tells of the way to the screens.
class AirTest < WebTest
  Kept = Struct.new(:id, :line, :state, :shown)
  Line = Struct.new(:origin, :arrived_at_ms, :shown_at_ms)
  State = Struct.new(:name)

  def setup
    super
    sign_up
    get "/feeds"
  end

  def show = @shows.running.first
  def times = JSON.parse(get("/links/times").body)

  def test_how_long_lines_took_to_a_screen_with_the_hold_they_are_told_without
    assert_equal [0, 0], times.values_at("lines", "hold_ms")
    send_json("/gate/hold", {"ms" => 4000})
    show.ask do |one|
      now_ms = one.now_ms
      [20, 41, 60].each_with_index do |took, id|
        one.screen_times.painted(Kept.new(id, Line.new(:feed, now_ms - took, now_ms - took), State.new(:aired)), now_ms, 0)
      end
    end
    assert_equal [3, 41, 60, 4000], times.values_at("lines", "half_ms", "most_ms", "hold_ms")
    assert_equal 3, times["bars"].sum
  end

  def test_it_stands_on_the_page_before_there_is_anything_to_tell
    assert_includes get("/links/").body, "Waiting for a line that a screen paints."
  end
end
