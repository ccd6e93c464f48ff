# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/made_up"
require_relative "../../../lib/bavard/core/cues/sheet_edits"
require_relative "../../../lib/bavard/core/cues/totals"

# What changes a cue sheet: each edit names what it changes and leaves everything else alone.
class SheetEditsTest < Minitest::Test
  include Bavard::Core::Cues

  CUES = %w[a b c].map { |id| Cue.build(id, "kind" => "tip", "name" => id.upcase) }.freeze
  DOCUMENT = Settings.default.merge("cues" => CUES, "began_ms" => 7).freeze

  def ids(document) = document["cues"].map { |cue| cue["id"] }

  def test_a_cue_is_added_behind_all_others_with_the_words_of_its_kind
    document = SheetEdits.add(DOCUMENT, "cue_1", "follow")
    assert_equal %w[a b c cue_1], ids(document)
    assert_equal ["follow", Cue::DEFAULT_WORDS.fetch("follow")], document["cues"].last.values_at("kind", "words")
    assert_raises(Bavard::Error) { SheetEdits.add(DOCUMENT, "cue_1", "eclipse") }
  end

  def test_one_property_is_set_and_nothing_else_changes
    document = SheetEdits.set(DOCUMENT, "b", "name" => "Bee", "id" => "z")
    assert_equal [CUES[0], CUES[1].merge("name" => "Bee"), CUES[2]], document["cues"]
    assert_equal DOCUMENT.except("cues"), document.except("cues")
    assert_equal "p1", SheetEdits.picture(DOCUMENT, "c", "p1")["cues"].last["picture"]
    assert_raises(Bavard::Error) { SheetEdits.set(DOCUMENT, "b", "kind" => "eclipse") }
  end

  def test_a_cue_goes_as_far_as_there_is_room
    assert_equal [%w[b a c], %w[a b c], %w[a b c], %w[b c a]],
      [["a", 1], ["a", -1], ["c", 9], ["a", 9]].map { |id, by| ids(SheetEdits.move(DOCUMENT, id, by)) }
  end

  def test_what_was_taken_away_comes_back_as_it_was_and_only_once
    assert_equal %w[a c], ids(left = SheetEdits.remove(DOCUMENT, "b"))
    assert_equal [%w[a c b], CUES[1]], [ids(back = SheetEdits.put_back(left, CUES[1])), back["cues"].last]
    assert_equal %w[a c b], ids(SheetEdits.put_back(back, CUES[1]))
    assert_equal DOCUMENT, SheetEdits.remove(DOCUMENT, "z")
  end

  def test_what_is_no_longer_there_is_said_to_be_gone
    edits = [[:set, "z", {}], [:picture, "z", nil], [:move, "z", 1], [:put_back, {"id" => "no/such"}], [:put_back, {}]]
    edits.each { |edit| assert_equal 404, assert_raises(Bavard::Gone, edit.inspect) { SheetEdits.public_send(edit.first, DOCUMENT, *edit.drop(1)) }.status }
  end

  def test_the_queue_is_set_within_its_bounds_and_as_a_part
    queue = SheetEdits.queue(DOCUMENT, "most" => 999, "approve" => true)["queue"]
    assert_equal Settings::QUEUE.merge("most" => 200, "approve" => true), queue
    odd = {"most" => Float::INFINITY, "gap_ms" => [1], "alike_ms" => {}, "longest_wait_ms" => "soon", "approve" => "yes"}
    assert_equal Settings::QUEUE, SheetEdits.queue(DOCUMENT, odd)["queue"]
  end

  def test_another_cue_is_said_as_all_of_its_kind_are
    kind = DOCUMENT["cues"].first["kind"]
    said = {"spoken_name" => false, "spoken_speed" => 150, "spoken_most_s" => 9}
    one = SheetEdits.set(DOCUMENT, DOCUMENT["cues"].first["id"], said)
    alike = SheetEdits.speak_alike(one, one["cues"].first["id"])
    assert_equal said, SheetEdits.add(alike, "more", kind)["cues"].last.slice(*said.keys)
    differing = SheetEdits.set(SheetEdits.add(alike, "more", kind), "more", "spoken_speed" => 90)
    assert_equal Cue.build("x", "kind" => kind).slice(*said.keys), SheetEdits.add(differing, "third", kind)["cues"].last.slice(*said.keys)
  end

  def test_what_a_host_types_makes_up_for_what_was_missing
    typed = Totals.typed(DOCUMENT.merge("totals" => {"followers" => 10}), "followers", 500, present: 130)
    assert_equal({"totals" => {"followers" => 380}}, typed)
  end

  def test_what_a_platform_tells_stands_for_what_was_typed_once
    document = DOCUMENT.merge("totals" => {"followers" => 499, "gifts" => 3})
    first = Totals.from_platform(document, "skein/reed", {"followers" => 450}, {"followers" => 1})
    assert_equal({"told" => {"skein/reed" => {"followers" => 449}}, "totals" => {"followers" => 50, "gifts" => 3}}, first)
    again = document.merge(first)
    assert_nil Totals.from_platform(again, "skein/reed", {"followers" => 452}, {"followers" => 3})
    later = Totals.from_platform(again, "skein/reed", {"followers" => 440}, {"followers" => 3})
    assert_equal [437, 50], [later["told"]["skein/reed"]["followers"], later["totals"]["followers"]]
  end

  def test_a_chat_is_known_by_where_it_is_and_not_by_today_s_number
    assert_equal(["lantern/reed"], [1, 2].map { |day| Totals.place("lantern", {"channel" => "reed", "number" => day.to_s, "nick" => "n#{day}"}) }.uniq)
    assert_equal "weir/reed", Totals.place("weir", {"room" => "reed", "ticket" => "9"}, %w[ticket])
    assert_equal Settings::LONGEST_PLACE, Totals.place("irc", {"host" => "h" * 900}).length
  end

  def made_up(**given) = MadeUp.line(given.transform_keys(&:to_s), id: 5, now_ms: 9)

  def test_a_made_up_event_is_one_that_says_so
    line = made_up(kind: "gift", name: " Ann ", number: "5", message: "m" * 900)
    assert_equal ["Ann", 5, :test, MadeUp::LONGEST_MESSAGE], [line.person.display_name, line.number, line.origin, line.text.length]
    assert_predicate line, :event?
    refute_predicate made_up(kind: "paid", name: "Ann", amount: "300"), :event?
  end

  def test_an_amount_is_read_as_it_is_typed
    given = ->(amount, currency) { MadeUp.amount("amount" => amount, "currency" => currency)&.then { |one| [one.number, one.currency || one.unit] } }
    assert_equal [[1250, "EUR"], [500, "JPY"], [13, "sparks"], [3, "reeds"], nil],
      [given["12,5", "EUR"], given["500", "JPY"], given["12.7", ""], given["3", "reeds"], given[" ", "EUR"]]
    ["x", "1e999", "1e308", "nan", "-5"].each { |amount| assert_equal "amount", assert_raises(Bavard::Error) { MadeUp.amount("amount" => amount) }.field }
    assert_equal "kind", assert_raises(Bavard::Error) { made_up(kind: "eclipse") }.field
  end
end
