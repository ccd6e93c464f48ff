# frozen_string_literal: true

require "json"
require "prop_check"
require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/dress/emote_index"
require_relative "../../../lib/bavard/core/flurry/flurry"
require_relative "../../../lib/bavard/core/pieces/pieces"

# What flies of which line, and how much of it.
class FlurryTest < Minitest::Test
  include Bavard::Core::Flurry

  Emote = Bavard::Core::Dress::Emote
  Shelf = Bavard::Core::Dress::Shelf
  Core = Bavard::Core::Flurry
  G = PropCheck::Generators

  def setup
    emotes = %w[wren owl heron].each_with_index.map { |name, id| Emote.new(id, ":#{name}:", "p#{name}", false, false, false, 1.0 + id) }
    @index = Bavard::Core::Dress::EmoteIndex.new([Shelf.new(3, "Birds", true, [], emotes, nil)])
    @ids = 0
  end

  def piece(values = {}) = Bavard::Core::Pieces::FlurryPiece.build("flurry1", {"width" => 800, "height" => 600, "alike_s" => 0}.merge(values))

  def flurry(spaces: [], seed: 1, **values)
    Core::Flurry.new(piece(values), spaces, pictures: ->(_feed, emote) { emote.picture }, shelf_of: ->(*) { 3 }, seed:)
  end

  def line(text, login: "ann", at_ms: 0, badges: [], feed_id: 1)
    Lines.line(@ids += 1, text, login:, at_ms:, badges:, feed_id:).dress(@index)
  end

  def test_emotes_of_a_line_fly_and_its_words_do_not
    flown, = flurry.line(line("look :wren: and :owl:"), 0)
    assert_equal [[":wren:", "pwren", 1.0, 0], [":owl:", "powl", 2.0, 0]], flown.map(&:emote)
    assert_equal [0, 180], flown.map(&:wait_ms)
    assert_empty flurry.line(line("nothing here"), 0).flatten
  end

  def test_from_whom_and_which_is_the_hosts_choice
    none = [flurry("from_chat" => false), flurry("feeds" => ["9"]), flurry("roles" => %w[moderator]), flurry("shelves" => ["8"])]
    none.each { |one| assert_empty one.line(line(":wren:"), 0).flatten }
    all = [flurry("feeds" => ["1"]), flurry("roles" => %w[everyone]), flurry("shelves" => ["3"])]
    all.each { |one| assert_equal 1, one.line(line(":wren:"), 0).first.size }
    assert_equal 1, flurry("roles" => %w[moderator]).line(line(":wren:", badges: ["moderator/1"]), 0).first.size
  end

  def test_a_test_flies_whatever_chats_and_roles_are_chosen
    chosen = flurry("feeds" => ["2"], "roles" => ["moderator"])
    test_line = line(":owl:").tap { |one| one.origin = :test }
    assert_equal [1, 0], [chosen.line(test_line, 0).first.size, chosen.line(line(":owl:"), 0).first.size]
  end

  def test_a_line_has_its_ceiling_and_copies
    assert_equal 2, flurry("per_line" => 2).line(line(":wren: " * 30), 0).first.size
    flown, = flurry("copies" => 3, "apart_ms" => 100).line(line(":wren:"), 0)
    assert_equal [0, 100, 200], flown.map(&:wait_ms)
  end

  def test_a_person_and_a_minute_have_theirs
    one = flurry("per_person" => 3)
    4.times { |at| one.line(line(":wren:", at_ms: at), at) }
    assert_equal({person: 1}, one.refused)
    assert_equal 1, one.line(line(":wren:", login: "bo"), 10).first.size
    assert_equal 1, one.line(line(":wren:"), 60_001).first.size
    all = flurry("per_minute" => 2)
    assert_equal 2, %w[a b c].sum { |login| all.line(line(":wren:", login:), 0).first.size }
    assert_equal({minute: 1}, all.refused)
  end

  def test_no_more_are_on_the_way_at_once
    one = flurry("at_once" => 4, "length_s" => 2, "depth" => 0)
    assert_equal 4, one.line(line(":wren: " * 5), 0).first.size
    assert_empty one.line(line(":wren:"), 900).first
    assert_equal 1, one.line(line(":wren:"), 4000).first.size
  end

  def test_the_same_from_many_flies_as_one_grows_and_is_counted
    one = flurry("alike_s" => 8, "alike_from" => 3)
    first = %w[a b].map { |login| one.line(line(":owl:", login:), 0).first }
    assert_equal [nil, nil], first.flatten.map(&:people)
    (crowd,), = one.line(line(":owl:", login: "c"), 100)
    assert_equal 3, crowd.people
    scale = crowd.scale
    flown, grown = one.line(line(":owl:", login: "d"), 200)
    assert_equal [[], [4]], [flown, grown.map(&:people)]
    assert_operator grown.first.scale, :>, scale
    assert_empty one.line(line(":owl:", login: "d"), 300).last.map(&:people) - [4]
    assert_nil one.line(line(":owl:", login: "e"), 60_000).first.first.people
  end

  def wish(way, many: 30, from: nil) = Core::Flurry::Wish.new(emotes: [[":wren:", "pwren", 1.0, 0]], many:, way:, from:)

  def test_a_cue_lets_go_what_it_asks_for
    flown = flurry.wish(wish("fall"), 0)
    assert_equal 30, flown.size
    assert_equal [0, 80, 2320], flown.map(&:wait_ms).values_at(0, 1, -1)
    later = flurry.wish(wish("fall").tap { |one| one.after_ms = 1200 }, 0)
    assert_equal flown.map { |flight| flight.wait_ms + 1200 }, later.map(&:wait_ms)
    assert_empty flurry("from_cues" => false).wish(wish("fall"), 0)
    assert_equal 120, flurry.wish(wish("fall", many: 200), 0).size
  end

  def test_what_goes_off_goes_off_at_once_and_grows_from_nothing
    flown = flurry.wish(wish("burst", from: [0.25, 0.5]), 0)
    assert_equal [[0], [280]], [flown.map(&:wait_ms).uniq, flown.map { |flight| flight.card[:g] }.uniq]
    flown.each { |flight| assert_in_delta 200, flight.points.first.x, flight.size_px }
    later = flurry.wish(wish("burst").tap { |one| one.after_ms = 1200 }, 0)
    assert_equal [1200], later.map(&:wait_ms).uniq
    assert_equal [nil], flurry.wish(wish("fall"), 0).map(&:grows_ms).uniq
  end

  def test_a_ring_of_which_not_all_may_fly_has_no_gap
    flown = flurry("at_once" => 12, "size_spread" => 0).wish(wish("ring", many: 50, from: [0.5, 0.5]), 0)
    assert_equal 12, flown.size
    angles = flown.map { |flight| flight.points.last.then { |point| Math.atan2(point.y - 300, point.x - 400) } }.sort
    angles.each_cons(2) { |one, other| assert_in_delta Math::PI / 6, other - one, 0.001 }
  end

  def test_the_emotes_of_one_line_go_off_together
    flown = flurry("ways" => %w[ring], "copies" => 4, "from_y" => 50).line(line(":wren: :owl:"), 0).first
    assert_equal [8, [0], 1], [flown.size, flown.map(&:wait_ms).uniq, flown.map(&:length_ms).uniq.size]
    rockets = flurry("ways" => %w[firework], "copies" => 4).line(line(":wren: :owl:"), 0).first
    assert_equal 2, rockets.map(&:wait_ms).uniq.size
    assert_equal 1, rockets.map(&:whole_ms).uniq.size
  end

  def test_a_heap_goes_at_once_and_what_comes_too_late_falls
    one = flurry("ways" => %w[pile], "length_s" => 2, "depth" => 0, "at_once" => 400, "per_person" => 600)
    heap = one.line(line(":wren: " * 5), 0).first
    assert_equal [6000], heap.map(&:whole_ms).uniq
    late = one.line(line(":wren:"), 5000).first.first
    assert_in_delta 2000, late.length_ms, 300
    assert_equal 6000, one.line(line(":wren:"), 6100).first.first.length_ms
  end

  def test_a_card_is_small_and_plain
    flight = flurry("ways" => %w[circle], "spin" => 90).line(line(":wren:"), 0).first.first
    card = flight.card
    assert_operator JSON.generate(card).bytesize, :<, 1100
    assert_equal [":wren:", "pwren", 1.0, 0], card[:e]
    assert_equal [0, 1000], [card[:p].first[0], card[:p].last[0]]
  end

  def test_flights_stay_in_their_region_and_off_the_spaces
    ways = G.one_of(*Core::Ways::ALL.map { |way| G.constant(way) })
    boxes = G.array(G.tuple(G.choose(0..700), G.choose(0..500), G.choose(40..300), G.choose(40..300)), max: 3)
    PropCheck.forall(ways, boxes, G.choose(1..10_000), G.choose(12..400), G.choose(0..360)) do |way, spaces, seed, size, spin|
      spaces = spaces.map { |box| Core::Box.new(100 + box[0], 50 + box[1], *box[2..]) }
      one = flurry("x" => 100, "y" => 50, "ways" => [way], "emote_px" => size, "spin" => spin, spaces:, seed:)
      free = Core::Room.around(Core::Box.new(100, 50, 800, 600), spaces)
      one.line(line(":heron: :wren:"), 0).first.each { |flight| assert_inside flight, free, [100, 50] }
    end
  end

  def test_never_more_at_once_whatever_comes_when
    PropCheck.forall(G.array(G.tuple(G.choose(0..4000), G.choose(1..9)), max: 40), G.choose(1..12)) do |sent, most|
      one = flurry("at_once" => most, "per_person" => 600, "ways" => %w[fall pile rebound])
      now = 0
      spans = sent.flat_map do |pause, person|
        now += pause
        one.line(line(":wren: :owl: :heron:", login: "p#{person}", at_ms: now), now).first.map { |flight| [now, now + flight.whole_ms] }
      end
      spans.each { |from, _| assert_operator(spans.count { |begins, ends| begins <= from && ends > from }, :<=, most) }
    end
  end

  private

  # As a circle or a box, by whether it turns, at its largest.
  def assert_inside(flight, free, at)
    wide = flight.emote[2].clamp(0.2, 3.0) * flight.size_px / 2
    high = flight.size_px / 2
    wide = high = Math.hypot(wide, high) if flight.spin.nonzero? || flight.points.any? { |point| point.turn.nonzero? }
    inside = free.any? do |box|
      flight.points.all? do |point|
        x = point.x + at[0]
        y = point.y + at[1]
        x - wide >= box.x - 1 && x + wide <= box.right + 1 && y - high >= box.y - 1 && y + high <= box.bottom + 1
      end
    end
    assert inside, "#{flight.points.first(2)} of #{flight.size_px} px leaves #{free}"
  end
end
