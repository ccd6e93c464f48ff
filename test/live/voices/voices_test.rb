# frozen_string_literal: true

require "json"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/pieces/pieces"
require_relative "../../../lib/bavard/live/playout/playout"
require_relative "../../../lib/bavard/live/voices/voice_rehearsal"
require_relative "../../../lib/bavard/live/voices/voices"
require_relative "../../../lib/bavard/relay/topic"

# A voice room as screens are told of it.
class VoicesTest < Minitest::Test
  include Bavard::Core::Voice

  # Keeps the frames.
  class Kept < Array
    def deliver(_topic, frame) = self << JSON.parse(frame)
  end

  Feed = Struct.new(:platform)
  Lane = Struct.new(:id, :feed)
  # The cast that nobody was of yet, the journal by which somebody joins, and who counts what is refused.
  Others = Struct.new(:joined, :refused) do
    def of_show(_) = []
    def later = yield
    def seen(*given) = joined << given
    def rejected(_, what) = refused << what
  end

  def setup
    @others = Others.new([], [])
    @voices = Bavard::Live::Voices.new(1, @others, @others, @others)
    @lane = Lane.new(7, Feed.new("hidewire"))
    @now = 1_000_000
    @frames = Kept.new
  end

  def tell(what, people: [], levels: nil, online: nil)
    people = people.map { |one| one.is_a?(String) ? Person.new(one, one.capitalize, nil, []) : one }
    @voices.receive(@lane, Happening.new(what, Card.new("hides", "The hides", nil, "https://reedmere.example/hides", online), people, levels), @now)
  end

  def enter(*people) = tell(:room, people:)

  def playout(kind = "voices", **values)
    piece = Bavard::Core::Pieces.kind(kind).build("#{kind}1", values.transform_keys(&:to_s))
    document = Bavard::Core::Stage::Document.empty.merge("pieces" => [piece])
    shared = Bavard::Live::Playout::Shared.new(nil, nil, "Odalys Fenn", -> { @voices })
    @id = "#{kind}1"
    @playout = Bavard::Live::Playout.new(Bavard::Relay::Topic.new("air:1"), @frames, shared, document:)
    flush
    @playout
  end

  def flush(ms = 40)
    @now += ms
    @voices.advance(@now)
    @playout.flush(@now)
  end

  def talk(key, ms = 400, dbov: -20)
    (ms / 20).times do
      tell(:levels, levels: [[key, dbov]])
      flush(20)
    end
  end

  def card = @frames.filter_map { |frame| frame.dig("voices", @id) }.last
  def names = card["p"].map { |person| person["n"] }
  def talkers = card["p"].select { |person| person["t"] }.map { |person| person["i"] }

  def test_who_talks_is_told_and_who_no_longer_does
    enter("odalys", "teo")
    playout
    assert_equal [%w[Odalys Teo], []], [names, talkers]
    talk("teo")
    assert_equal %w[teo], talkers
    flush(2000)
    assert_empty talkers
  end

  def test_only_while_talking
    enter("odalys", "teo")
    playout(shown: "talking")
    assert_empty names
    talk("teo")
    assert_equal %w[Teo], names
    flush(2000)
    assert_empty names
  end

  def test_frames_come_only_when_something_can_be_seen
    enter("odalys", "teo")
    playout
    talk("teo")
    before = @frames.size
    talk("teo", 2000)
    assert_equal before, @frames.size
  end

  def test_loudness_is_told_only_where_it_is_drawn
    enter("teo")
    playout(sign: "bar")
    talk("teo", 600, dbov: -50)
    before = @frames.size
    talk("teo", 600, dbov: -10)
    assert_operator @frames.size, :>, before
    assert_includes 0..10, card["p"][0]["l"]
  end

  def test_how_many_more_and_words_where_nobody_is
    enter(*(1..10).map { |number| "guest#{number}" })
    playout(at_most: 3, when_empty: "nobody yet")
    assert_equal [3, 7], [card["p"].size, card["o"]]
    tell(:leave, people: (1..10).map { |number| Person.new("guest#{number}") })
    flush
    assert_equal "nobody yet", card["e"]
  end

  def test_the_host_is_who_is_called_like_them_or_who_is_chosen
    enter("teo", "odalys")
    playout
    assert_equal %w[Odalys Teo], names
    @voices.members = [CastMember.new(id: 1, service: "hidewire", key: "teo", name: "Teo", host: true, states: {})]
    flush
    assert_equal %w[Teo Odalys], names
  end

  def test_what_the_cast_wears_shows_at_once_and_over_a_change_of_name
    enter("teo")
    playout(names: "own")
    @voices.members = [CastMember.new(id: 1, service: "hidewire", key: "teo", name: "Teo", short: "T", face: "f1", colour: "#ffcc00", states: {})]
    flush
    assert_equal [%w[T], "f1"], [names, card["p"][0]["f"]]
    tell(:change, people: [Person.new("teo", "Teo the Warm", nil, [:muted])])
    flush
    assert_equal [%w[T], "f1", ["muted"]], [names, card["p"][0]["f"], card["p"][0]["m"]]
    assert_equal [1, "hidewire", "teo", "Teo the Warm"], @others.joined.last.first(4)
  end

  def test_a_service_that_is_gone_leaves_the_last_sure_state_dims_it_and_recovers
    enter("odalys", "teo")
    playout(dims_after_s: 5)
    talk("teo")
    @voices.lost(@lane, @now)
    flush
    assert_equal [2, [], nil], [card["p"].size, talkers, card["q"]]
    flush(6000)
    assert_equal [2, 1], [card["p"].size, card["q"]]
    enter("odalys")
    flush
    assert_equal [1, nil], [card["p"].size, card["q"]]
  end

  def test_portraits_change_with_what_their_people_do
    enter("odalys", "teo")
    @voices.members = [CastMember.new(id: 4, service: "hidewire", key: "teo", name: "Teo", states: {"silent" => "a", "talking" => "b", "muted" => "c"})]
    playout("portraits", bounce: 0)
    assert_equal ["silent", {"silent" => "a", "talking" => "b", "muted" => "c"}], card["p"][0].values_at("w", "s")
    talk("teo")
    assert_equal "talking", card["p"][0]["w"]
    flush(2000)
    assert_equal "silent", card["p"][0]["w"]
  end

  def test_a_portrait_of_one_stands_there_also_while_they_are_not
    enter("odalys")
    @voices.members = [CastMember.new(id: 4, service: "hidewire", key: "teo", name: "Teo", states: {"silent" => "a"})]
    playout("portraits", person: "4")
    assert_empty card["p"]
    playout("portraits", person: "4", absent: true)
    assert_equal ["teo"], card["p"].map { |person| person["i"] }
  end

  def test_a_card_of_the_room_counts_and_has_a_code
    enter("odalys", "teo")
    playout("room_card")
    assert_equal ["The hides", "2 are here"], card.values_at("n", "w")
    modules, path = card["k"]
    assert_operator modules, :>=, 29
    assert_match(/\AM4 4h7v1h-7z/, path)
    tell(:leave, people: [Person.new("teo")])
    flush
    assert_equal "one is here", card["w"]
  end

  def test_a_long_name_is_cut_on_the_pages_of_the_host_and_says_so
    enter(Person.new("ann", "Wilhelmina van der Rietbroek-Oosterschelde", nil, []), Person.new("bo", "b" * 200, nil, []))
    assert_equal ["Wilhelmina van der Rietbroek-Oosterschelde", "#{"b" * 59}…"], @voices.report(@lane.id)[:people]
  end

  # The room says who is in it, the service how many it has.
  def test_a_card_counts_who_is_online_where_the_service_tells
    enter("odalys", "teo")
    playout("room_card", count: "on the service")
    assert_nil card["o"]
    tell(:card, online: 214)
    flush
    assert_equal ["2 are here", "214 online"], card.values_at("w", "o")
  end

  def test_what_is_rehearsed_stands_in_for_the_room_and_keys_talk
    enter("odalys")
    playout
    recording = Recording.new("Short", 20, {"ann" => "Ann"}, {"ann" => ([70] * 20) + ([20] * 50)}, {})
    rehearsal = Bavard::Live::VoiceRehearsal.new(@voices, {"short" => recording})
    rehearsal.play("short", @now)
    @playout.voices = rehearsal
    20.times do
      rehearsal.advance(@now)
      flush
    end
    assert_equal [%w[Ann], %w[ann]], [names, talkers]
    rehearsal.play("silent", @now)
    rehearsal.talk("odalys", true, @now)
    10.times do
      rehearsal.advance(@now)
      flush
    end
    assert_equal %w[odalys], talkers
    assert_raises(Bavard::Error) { rehearsal.play("nothing", @now) }
    @playout.voices = nil
    flush
    assert_equal [%w[Odalys], []], [names, talkers]
  end

  def test_a_storm_of_joins_sends_no_more_frames_than_others
    enter("odalys")
    playout(at_most: 4)
    before = @frames.size
    from = @now
    1000.times do |number|
      tell(number.even? ? :join : :leave, people: [Person.new("guest#{number / 2}", "G", nil, [])])
      flush(1)
    end
    flush
    assert_operator @frames.size - before, :<=, ((@now - from) / 34) + 1
    assert_equal 1, card["p"].size + card["o"].to_i
  end
end
