# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/amount"
require_relative "../../../lib/bavard/core/cues/settings"
require_relative "../../../lib/bavard/core/cues/totals"

# A show's cue sheet as a document, and what becomes of a line there.
class CueSettingsTest < Minitest::Test
  include Bavard::Core::Cues

  CUE = {"id" => "one", "name" => "One", "kind" => "tip"}.freeze

  def read(**given) = Settings.read({"cues" => []}.merge(given.transform_keys(&:to_s)))

  def test_what_is_no_sheet_is_the_one_a_show_begins_with
    [nil, 7, {}, {"cues" => "x"}].each { |given| assert_equal Settings.default, Settings.read(given) }
  end

  def test_cues_are_read_as_far_as_there_is_room_and_all_have_an_id
    cues = read(cues: [CUE, 7, CUE.except("id"), CUE.merge("id" => "no/such")])["cues"]
    assert_equal %w[one cue_1 cue_2], cues.map { |cue| cue["id"] }
    many = read(cues: Array.new(Settings::MOST + 1) { |index| CUE.merge("id" => "c#{index}") })["cues"]
    assert_equal ["c0", "c#{Settings::MOST - 1}"], many.values_at(0, -1).map { |cue| cue["id"] }
  end

  def test_everything_else_is_what_it_may_be_or_nothing
    document = read(noticed: "x" * 121, began_ms: 5, ended_ms: "soon", totals: {"followers" => 3, "odd" => 1, "gifts" => 10**13}, queue: {"gap_ms" => 999_999, "most" => 0, "approve" => "yes"})
    assert_equal ["x" * 120, 5, nil, {"followers" => 3}], document.values_at("noticed", "began_ms", "ended_ms", "totals")
    assert_equal [60_000, 1, false, 4000], document["queue"].values_at("gap_ms", "most", "approve", "alike_ms")
    assert_equal [nil, {}, Settings::QUEUE], read(noticed: 7, totals: 7, queue: 7).values_at("noticed", "totals", "queue")
    assert read(queue: {"approve" => true})["queue"]["approve"]
  end

  def test_what_platforms_told_is_kept_by_place_and_counted_together_with_what_was_typed
    told = (1..(Settings::MOST_PLACES + 1)).to_h { |number| ["#{number}#{"p" * 200}", {"followers" => number}] }
    kept = Settings.read_places(told)
    assert_equal [Settings::MOST_PLACES, [200], {}], [kept.size, kept.keys.map(&:length).uniq, Settings.read_places("x")]
    document = {"totals" => {"followers" => 5, "gifts" => 1}, "told" => {"a" => {"followers" => 3}, "b" => {"followers" => 4}}}
    assert_equal [12, 1, 0], %w[followers gifts visits].map { |counted| Bavard::Core::Cues::Totals.there(document, counted) }
    assert_equal [3, 7, 4, 0, 0], [%w[a], %w[a b], %w[b b], %w[c], []].map { |places| Bavard::Core::Cues::Totals.there(document, "followers", places) }
  end

  def test_a_sheet_from_elsewhere_rests_where_its_chats_are_not
    sheet = {"cues" => [{"feeds" => [], "on" => true}, {"feeds" => %w[3 4], "on" => true}, {"feeds" => %w[4], "on" => true}, {"feeds" => %w[4 3], "on" => false}]}
    assert_equal [[[], true], [["3"], true], [[], false], [["3"], false]], Settings.at_home(sheet, ["3"])["cues"].map { |cue| cue.values_at("feeds", "on") }
  end

  def test_what_a_cue_adds_to_what
    assert_equal [[2, "deaths"], nil, nil], [{"adds" => 2, "adds_to" => "deaths"}, {"adds" => 0, "adds_to" => "deaths"}, {"adds" => 2, "adds_to" => " "}].map { |cue| Cue.adds(cue) }
  end

  def happening(kind, number: nil, paid: nil)
    Lines.line(7, "thanks", at_ms: 50).tap do |line|
      line.kind = kind
      line.number = number
      line.paid = paid
    end
  end

  def test_which_lines_are_events_and_what_they_say
    euros = Bavard::Core::Amount.money(500, "EUR")
    assert_nil Event.of(happening(:said), roles: [])
    renewal = Event.of(happening(:renewal, number: 12), roles: ["viewer"])
    gift = Event.of(happening(:gift, number: 12), roles: [], first_ever: true, test: true, silent: true)
    paid = Event.of(happening(:said, paid: euros), roles: [])
    assert_equal ["renewal", 12, nil, 50, "thanks"], %i[kind months number at_ms message].map { |name| renewal[name] }
    assert_equal ["gift", nil, 12, true, true, true], %i[kind months number first_ever test silent].map { |name| gift[name] }
    assert_equal ["paid", euros], [paid.kind, paid.amount]
    assert_equal ["paid/1/EUR", "gift/1/", "tip/1/sparks"], [paid, gift, Event.of(happening(:tip, paid: Bavard::Core::Amount.own(3, "sparks")), roles: [])].map(&:alike)
  end
end
