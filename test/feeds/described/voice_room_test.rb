# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/voice"
require_relative "examples"

# A voice room as a description has it: Hidewire's.
class DescribedVoiceRoomTest < Minitest::Test
  include Bavard::Feeds

  ROOM = {"id" => "hides", "name" => "The hides", "picture" => "http://h.example/p.svg", "link" => "javascript:alert(1)"}.freeze

  def setup
    @rejected = []
    @session = Described::SocketSession.new(1, Examples.description("hidewire"), {"room" => "hides", "follow" => "odalys"}, Resume.new(nil, nil, nil),
      permission: nil, reject: @rejected.method(:<<))
    @session.begin(0)
  end

  def tell(message, now_ms = 100)
    @session.receive(message, now_ms)
    @session.take_intakes.select { |intake| intake.kind == :voice }.map(&:body)
  end

  def joined
    tell({"op" => "hello", "beat_ms" => 5000})
    tell({"op" => "joined", "resume" => "r", "seq" => 3, "room" => ROOM,
          "people" => [{"id" => "odalys", "name" => "Odalys", "muted" => true, "deafened" => "no"}, {"id" => 7, "name" => 8}, {"name" => "nobody"}, 4]})
  end

  def test_it_joins_and_says_whom_it_follows
    tell({"op" => "hello", "beat_ms" => 5000})
    assert_equal({"op" => "join", "room" => "hides", "follow" => "odalys"}, JSON.parse(@session.take_outgoing.first).compact)
  end

  def test_who_is_there_is_told_whole
    entered = joined.first
    assert_equal [:room, "The hides", nil, %w[odalys 7]], [entered.what, entered.room.name, entered.room.link, entered.people.map(&:key)]
    assert_equal [[[:muted]], [nil]], [entered.people.first(1).map(&:marks), entered.people.last(1).map(&:name)]
  end

  def test_nobody_follows_a_room
    joined
    @session.receive({"op" => "totals", "followers" => 4180}, 120)
    assert_empty(@session.take_intakes.select { |intake| intake.kind == :totals })
  end

  def test_changes_one_by_one_and_another_room
    joined
    kinds = [{"kind" => "joined", "who" => {"id" => "teo", "name" => ""}}, {"kind" => "changed", "who" => {"id" => "teo", "away" => true}},
      {"kind" => "left", "id" => "teo"}, {"kind" => "room", "room" => {"id" => "night"}, "people" => []}]
    told = kinds.flat_map { |event| tell(event.merge("op" => "event")) }
    assert_equal %i[join change leave room], told.map(&:what)
    assert_equal ["", [:away], "night"], [told[0].people[0].name, told[1].people[0].marks, told[3].room.name]
  end

  def test_how_many_are_on_the_service_is_told_with_the_room_and_when_it_changes
    joined
    told = tell({"op" => "online", "count" => 214}).first
    assert_equal [:card, nil, 214], [told.what, told.room.name, told.room.online]
    assert_empty [-1, "many", nil, 1e300].flat_map { |count| tell({"op" => "online", "count" => count}) }
    moved = tell({"op" => "event", "kind" => "room", "room" => {"id" => "night", "online" => 9}, "people" => []}).first
    assert_equal ["night", 9], [moved.room.key, moved.room.online]
  end

  def test_levels_are_read_and_nonsense_among_them_is_not
    joined
    assert_equal [["odalys", -31.0], ["teo", -900.0], ["bo", -1000.0]], tell({"op" => "levels", "l" => [["odalys", 31], ["teo", 900], ["bo", -10**400], [4, 4], ["x", nil], "y", ["z", Float::NAN]]}).first.levels
    assert_empty tell({"op" => "levels", "l" => {"a" => 1}})
  end

  def test_what_cannot_be_read_is_refused_and_the_text_of_the_room_is_a_chat
    joined
    tell({"op" => "event", "kind" => "joined", "who" => 3})
    tell({"op" => "event", "kind" => "left"})
    assert_equal 2, @rejected.size
    @session.receive({"op" => "event", "seq" => 4, "kind" => "line", "id" => "m", "ts" => 5, "from" => {"login" => "ann"}, "body" => "hello"}, 200)
    assert_equal ["hello"], @session.take_intakes.select { |intake| intake.kind == :line }.map { |intake| intake.body.text }
  end
end
