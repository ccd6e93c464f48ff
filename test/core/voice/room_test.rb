# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/voice/cast"
require_relative "../../../lib/bavard/core/voice/places"

class RoomTest < Minitest::Test
  include Bavard::Core::Voice

  PIECE = {"shown" => "everyone", "order" => "fixed", "at_most" => 3, "lately_s" => 5, "host_first" => false}.freeze

  def setup
    @room = Room.new
    @now = 0
    tell(:room, people: %w[odalys ibrahim sunniva teo], card: Card.new("hides", "The hides"))
  end

  def tell(what, people: [], levels: nil, card: nil)
    people = people.map { |one| one.is_a?(String) ? Person.new(one, one.capitalize, nil, nil) : one }
    @room.receive(Happening.new(what, card, people, levels), @now)
  end

  def talk(key, ms = 200, dbov: -20)
    (ms / 20).times { tell(:levels, levels: [[key, dbov]]).then { @now += 20 } }
  end

  def quiet(ms)
    @now += ms
    @room.advance(@now)
  end

  def seated(places = Places.new, host: "odalys", **piece)
    given = places.of(@room, PIECE.merge(piece.transform_keys(&:to_s)), @now, host: ->(member) { member.key == host })
    [given.seats.map(&:key), given.more]
  end

  def test_how_many_more_there_are_is_right_whoever_comes_and_goes
    random = Random.new(7)
    300.times do
      key = "guest#{random.rand(40)}"
      random.rand(2).zero? ? tell(:join, people: [key]) : tell(:leave, people: [key])
      seats, more = seated(at_most: 1 + random.rand(6))
      assert_equal @room.size, seats.size + more
    end
  end

  def test_only_those_who_talk
    assert_equal [[], 0], seated(shown: "talking")
    talk("teo")
    assert_equal [["teo"], 0], seated(shown: "talking")
    quiet(800)
    assert_equal [[], 0], seated(shown: "talking")
    assert_equal [["teo"], 0], seated(shown: "lately")
    quiet(6000)
    assert_equal [[], 0], seated(shown: "lately")
    assert_equal [["teo"], 0], seated(shown: "last")
  end

  def test_lately_counts_from_the_end_of_what_somebody_said
    talk("teo", 4000)
    quiet(4000)
    assert_equal [["teo"], 0], seated(shown: "lately")
  end

  def test_the_host_is_first_whatever_the_order
    assert_equal [%w[teo odalys ibrahim], 1], seated(host_first: true, host: "teo")
    assert_equal [%w[teo ibrahim odalys], 1], seated(host_first: true, host: "teo", order: "name")
  end

  def test_lost_once_is_lost_once_and_everything_that_is_seen_is_a_change
    changes = @room.changes
    @room.lost(500)
    @room.lost(900)
    assert_equal [500, changes + 1], [@room.lost_at_ms, @room.changes]
    tell(:leave, people: ["nobody"])
    assert_equal changes + 1, @room.changes
    tell(:leave, people: ["teo"])
    assert_operator @room.changes, :>, changes + 1
  end

  def test_it_says_when_somebody_would_fall_silent
    assert_nil @room.due_ms
    talk("teo")
    first = @room.due_ms
    @now += 100
    talk("ibrahim")
    assert_equal first, @room.due_ms
    @room.advance(first)
    assert_equal %w[ibrahim], @room.talkers.map(&:key)
  end

  def test_the_same_room_keeps_its_people_and_another_forgets_them
    talk("teo")
    tell(:room, people: %w[teo odalys], card: Card.new("hides", "The hides"))
    assert_equal [true, %w[odalys teo]], [@room["teo"].talks?, @room.members.map(&:key).sort]
    tell(:room, people: %w[teo], card: Card.new("night", "Night shift"))
    refute_predicate @room["teo"], :talks?
    tell(:card, card: Card.new("night", "Late shift"))
    assert_equal "Late shift", @room.card.name
  end

  def test_who_is_muted_is_not_heard_and_what_is_heard_of_strangers_is_told
    tell(:change, people: [Person.new("teo", nil, nil, [:muted])])
    assert_empty tell(:levels, levels: [["teo", -10]])
    assert_equal ["a level of somebody who is not there: #{"x" * 40}"], tell(:levels, levels: [["x" * 99, -10], ["odalys", -10]])
    3.times { tell(:packets, levels: [["odalys", nil]]).then { @now += 100 } }
    assert_equal %w[odalys], @room.talkers.map(&:key)
  end

  def test_whoever_talks_has_a_place_even_where_there_are_too_few
    talk("teo")
    assert_equal [%w[odalys ibrahim teo], 1], seated
    quiet(2000)
    assert_equal [%w[odalys ibrahim teo], 1], seated
    quiet(5000)
    assert_equal [%w[odalys ibrahim sunniva], 1], seated
  end

  def test_by_who_talked_last_it_moves_calmly
    places = Places.new
    talk("teo")
    assert_equal "teo", seated(places, order: "talked").first.first
    talk("sunniva")
    assert_equal "teo", seated(places, order: "talked").first.first
    quiet(Places::CALM_MS)
    assert_equal %w[sunniva teo], seated(places, order: "talked").first.first(2)
  end

  def test_a_person_stays_who_they_are_when_renamed_and_muted_means_silent
    talk("teo")
    tell(:change, people: [Person.new("teo", "Teo the Warm", nil, nil)])
    assert_equal ["Teo the Warm", true], [@room["teo"].name, @room["teo"].talks?]
    tell(:change, people: [Person.new("teo", nil, nil, [:muted])])
    refute_predicate @room["teo"], :talks?
    talk("teo")
    refute_predicate @room["teo"], :talks?
  end

  def test_names_of_any_length_or_none_and_levels_of_nobody
    tell(:join, people: [Person.new("long", "W" * 500, nil, nil), Person.new("none", "", nil, nil), Person.new("odd", "a\u0000b\n", nil, nil)])
    assert_equal [200, "none", "ab"], [@room["long"].name.length, @room["none"].name, @room["odd"].name]
    assert_equal 1, tell(:levels, levels: [["nobody", -20], ["teo", 4000]]).size
  end

  def test_a_thousand_joins_are_bounded
    tell(:join, people: (1..1000).map { |number| "guest#{number}" })
    assert_equal Room::MOST_PEOPLE, @room.size
  end

  def test_what_is_lost_keeps_its_last_sure_state_and_comes_back
    talk("teo")
    @room.lost(@now)
    assert_equal [4, [], @now], [@room.size, @room.talkers, @room.lost_at_ms]
    tell(:room, people: %w[odalys ibrahim], card: Card.new("hides", "The hides"))
    assert_equal [2, nil], [@room.size, @room.lost_at_ms]
  end

  def test_another_room_has_other_people_in_it
    tell(:room, people: %w[bram odalys], card: Card.new("night", "Night shift"))
    assert_equal ["Night shift", %w[bram odalys]], [@room.card.name, @room.members.map(&:key)]
  end

  def test_a_portrait_changes_with_what_its_person_does_but_never_flashes
    portrait = Portrait.new
    pictures = {"silent" => 1, "talking" => 2, "muted" => 3}
    assert_equal "silent", portrait.of(@room["teo"], pictures, @now, least_ms: 150)
    talk("teo")
    assert_equal "talking", portrait.of(@room["teo"], pictures, @now, least_ms: 150)
    tell(:change, people: [Person.new("teo", nil, nil, [:muted])])
    assert_equal "talking", portrait.of(@room["teo"], pictures, @now + 100, least_ms: 150)
    assert_equal "muted", portrait.of(@room["teo"], pictures, @now + 150, least_ms: 150)
    assert_equal "silent", Portrait.new.of(@room["teo"], {"silent" => 1}, @now, least_ms: 150)
  end

  def test_files_are_matched_to_people_and_states_by_their_names
    cast = [["odalys", "Odalys Fenn", nil], ["u77", "Ibrahim Sarr", "Ib"], ["u9", "Teo Marsh", nil], ["u10", "Teo Holm", nil]].map do |key, name, short|
      CastMember.new(id: key, key:, name:, short:, states: {})
    end
    files = ["odalys_talking.png", "Odalys Fenn - shut.webp", "ib-loud.png", "IbrahimSarr.png", "teo_talking.png", "TeoMarshMuted.PNG", "hat.png"]
    assert_equal [["odalys", "talking"], ["odalys", "silent"], ["u77", "loud"], ["u77", "face"], [nil, "talking"], ["u9", "muted"], [nil, "face"]],
      Cast.match(files, cast).map { |match| [match.member&.id, match.state] }
    assert_equal %w[silent talking], Cast.missing(cast.first)
    assert_equal ["u77", "odalys", "u10", nil], ["ib.png", "odalys new.png", "2026 Teo Holm v3.png", "Teo Marshall.png"].map { |file| Cast.match([file], cast).first.member&.id }
    assert_equal ["u77", "loud"], Cast.match(["ibrahim_loud.png"], cast).first.then { |match| [match.member&.id, match.state] }
    assert_equal [[nil, "talking"], ["odalys", "loud"], ["u9", "face"]], Cast.match(%w[talking.png odalys_talking_loud.png teo-marsh.png], cast).map { |match| [match.member&.id, match.state] }
    assert_equal [%w[silent talking], ["talking"], []], [{}, {"silent" => 1}, {"silent" => 1, "talking" => 2}].map { |states| Cast.missing(CastMember.new(states:)) }
  end
end
