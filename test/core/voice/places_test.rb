# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/voice/places"
require_relative "../../../lib/bavard/core/voice/portrait"

# Who of a room is seen where, and in which picture.
class VoicePlacesTest < Minitest::Test
  include Bavard::Core::Voice

  PIECE = {"shown" => "everyone", "order" => "fixed", "at_most" => 9, "lately_s" => 5, "host_first" => false}.freeze
  Talks = Struct.new(:on, :loudness) { def on? = on }
  # A room of these people.
  Rooms = Class.new do
    attr_reader :members

    def initialize(members) = @members = members
  end

  def member(key, number, talks: false, talked: nil, began: nil, name: key, marks: [], loud: 0.5)
    Room::Member.new(key, name, nil, marks, number, Talks.new(talks, loud), talked, began)
  end

  def seats(members, now_ms: 10_000, places: Places.new, host: nil, **piece)
    given = places.of(Rooms.new(members), PIECE.merge(piece.transform_keys(&:to_s)), now_ms, host: ->(one) { one.key == host })
    [given.seats.map(&:key), given.more]
  end

  def test_lately_is_up_to_so_many_seconds_ago
    members = [member("now", 1, talks: true), member("just", 2, talked: 5001), member("long", 3, talked: 5000), member("never", 4)]
    assert_equal [%w[now just], 0], seats(members, shown: "lately")
    assert_equal [%w[now], 0], seats(members, shown: "talking")
  end

  def test_the_last_to_talk_are_those_with_the_newest_words
    members = [member("a", 1, talked: 100), member("b", 2, talked: 300), member("c", 3, talked: 300), member("d", 4)]
    assert_equal [%w[b], 0], seats(members, shown: "last", at_most: 1)
    assert_equal [%w[b c], 0], seats(members, shown: "last", at_most: 2)
    assert_equal [%w[a b c], 0], seats(members, shown: "last", at_most: 3)
  end

  def test_by_name_whatever_the_marks_and_the_case_and_namesakes_as_they_came
    members = [member("1", 1, name: "ödön"), member("2", 2, name: "Anna"), member("3", 3, name: "zoe"), member("4", 4, name: "anna")]
    assert_equal [%w[2 4 1 3], 0], seats(members, order: "name")
  end

  def test_by_who_talked_last_nobody_moves_more_often_than_is_calm
    places = Places.new
    early = [member("a", 1, began: 100), member("b", 2, began: 200), member("c", 3)]
    assert_equal %w[b a c], seats(early, places:, now_ms: 1000, order: "talked").first
    later = [member("a", 1, began: 1100), member("b", 2, began: 200), member("c", 3)]
    assert_equal %w[b a c], seats(later, places:, now_ms: 1000 + Places::CALM_MS - 1, order: "talked").first
    assert_equal %w[a b c], seats(later, places:, now_ms: 1000 + Places::CALM_MS, order: "talked").first
    assert_equal %w[a b c d], seats(later + [member("d", 4, began: 2600)], places:, now_ms: 2600, order: "talked").first
  end

  def test_those_who_came_since_stand_behind_in_the_order_they_came
    places = Places.new
    early = [member("a", 1), member("b", 2, began: 200)]
    assert_equal %w[b a], seats(early, places:, now_ms: 1000, order: "talked").first
    assert_equal %w[b a c d], seats([member("d", 9), member("c", 5), *early], places:, now_ms: 1100, order: "talked").first
  end

  def test_who_talks_takes_a_silent_ones_place_and_the_others_stay_where_they_were
    members = [member("a", 1), member("b", 2), member("c", 3, talks: true), member("d", 4, talked: 9000)]
    assert_equal [%w[a b c], 1], seats(members.first(3) + [member("d", 4)], at_most: 3)
    assert_equal [%w[c d], 2], seats(members, at_most: 2)
    assert_equal [%w[a c], 2], seats(members.first(3) + [member("d", 4, talked: 10_000 - Places::LATELY_MS)], at_most: 2)
    assert_equal [%w[c], 3], seats(members, at_most: 1)
  end

  def test_the_host_stands_first_and_never_makes_room
    members = [member("a", 1, talks: true), member("b", 2, talks: true), member("host", 3)]
    assert_equal [%w[host a], 1], seats(members, at_most: 2, host: "host", host_first: true)
    assert_equal [%w[a b], 1], seats(members, at_most: 2, host: "host")
  end

  def test_nobody_is_nobody
    assert_equal [[], 0], seats([])
  end

  ALL = {"silent" => 1, "talking" => 2, "loud" => 3, "muted" => 4}.freeze

  def portrait(states, pictures: ALL, least_ms: 0)
    made = Portrait.new
    states.map { |now_ms, more| made.of(member("a", 1, **more), pictures, now_ms, least_ms:) }
  end

  def test_a_picture_for_what_somebody_does
    assert_equal %w[silent talking loud muted], portrait([[0, {}], [1, {talks: true}], [2, {talks: true, loud: 0.9}], [3, {talks: true, marks: [:muted]}]])
    assert_equal ["muted"], portrait([[0, {marks: [:deafened]}]])
  end

  def test_where_there_is_no_picture_for_it_the_next_quieter_one_is_shown
    assert_equal %w[talking silent], portrait([[0, {talks: true, loud: 0.9}], [1, {marks: [:muted]}]], pictures: ALL.slice("silent", "talking"))
    assert_equal ["silent"], portrait([[0, {talks: true}]], pictures: ALL.slice("silent", "loud"))
  end

  def test_loud_stays_loud_until_it_is_clearly_less
    states = [0.73, 0.6, 0.56, 0.55, 0.6, 0.72].each_with_index.map { |loud, at| [at, {talks: true, loud:}] }
    assert_equal %w[loud loud loud talking talking talking], portrait(states)
  end

  def test_none_only_flashes
    states = [[0, {talks: true}], [100, {}], [299, {}], [300, {}]]
    assert_equal %w[talking talking talking silent], portrait(states, least_ms: 300)
    made = Portrait.new
    assert_nil made.due_ms(300)
    made.of(member("a", 1, talks: true), ALL, 1000, least_ms: 300)
    assert_equal 1300, made.due_ms(300)
  end

  def test_a_picture_that_was_taken_away_is_not_waited_for
    made = Portrait.new
    made.of(member("a", 1, talks: true), ALL, 0, least_ms: 5000)
    assert_equal "silent", made.of(member("a", 1), ALL.slice("silent"), 10, least_ms: 5000)
  end
end
