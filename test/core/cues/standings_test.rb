# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/event"
require_relative "../../../lib/bavard/core/cues/fellow"
require_relative "../../../lib/bavard/core/cues/newest"

class StandingsTest < Minitest::Test
  include Bavard::Core::Cues

  Amount = Bavard::Core::Amount
  G = PropCheck::Generators

  def event(kind, login, at_ms, amount: nil, number: nil, name: login.capitalize)
    Event.new(id: at_ms, kind:, at_ms:, feed_id: 1, login:, name:, roles: [], amount:, number:)
  end

  def standings(*events) = Standings.new.tap { |all| events.each { |one| all.count(one) } }
  def euros(number) = Amount.money(number * 100, "EUR")
  def rows(all, **piece) = Newest.rows({"what" => "newest", "counted" => "followers", "unit" => "EUR", "rows" => 3}.merge(piece.transform_keys(&:to_s)), all)

  def test_the_newest_is_who_came_last
    all = standings(event("follow", "ann", 5), event("follow", "cy", 9), event("follow", "bo", 7), event("tip", "di", 10, amount: euros(3)))
    assert_equal [["Cy", ""]], rows(all)
    assert_equal [["Cy", ""], ["Bo", ""]], rows(all, what: "list", rows: 2)
    assert_equal [["Di", "3.00 EUR"]], rows(all, counted: "worth")
    assert_empty rows(all, counted: "visits")
  end

  def test_the_largest_is_of_one_and_the_most_of_all_in_one_currency
    all = standings(event("tip", "ann", 1, amount: euros(5)), event("tip", "ann", 2, amount: euros(6)), event("tip", "bo", 3, amount: euros(9)), event("paid", "cy", 4, amount: Amount.own(300, "sparks")))
    assert_equal [["Bo", "9.00 EUR"], ["Ann", "6.00 EUR"]], rows(all, what: "largest", counted: "worth")
    assert_equal [["Ann", "11.00 EUR"], ["Bo", "9.00 EUR"]], rows(all, what: "most", counted: "worth")
    assert_equal [["Cy", "300 sparks"]], rows(all, what: "largest", counted: "worth", unit: "sparks")
  end

  def test_gifts_count_each_one
    all = standings(event("gift", "ann", 1, number: 5), event("gift", "bo", 2), event("gift", "bo", 3, number: 9))
    assert_equal [%w[Bo 10], %w[Ann 5]], rows(all, what: "most", counted: "gifts")
  end

  def test_beside_the_newest_stands_what_they_gave_last
    all = standings(event("tip", "ann", 1, amount: euros(90)), event("tip", "ann", 2, amount: Amount.own(300, "sparks")), event("tip", "bo", 0, amount: euros(9)))
    assert_equal [["Ann", "300 sparks"], ["Bo", "9.00 EUR"]], rows(all, what: "list", counted: "worth")
  end

  def test_names_that_may_not_be_seen_make_room_for_the_next
    all = standings(event("follow", "ann", 1), event("follow", "bo", 2), event("follow", "cy", 3))
    seen = Newest.rows({"what" => "list", "counted" => "followers", "unit" => "EUR", "rows" => 2}, all) { |login, name| login == "cy" ? nil : name.upcase }
    assert_equal [["BO", ""], ["ANN", ""]], seen
  end

  # However many there are, only the foremost are kept in order.
  def test_the_foremost_of_thousands_are_those_that_sorting_all_would_give
    random = Random.new(4)
    happened = Array.new(5000) { |at| event("tip", "p#{random.rand(900)}", at, amount: Amount.money(random.rand(1..9000), "EUR")) }
    all = Standings.new
    happened.each_with_index { |one, at| all.count(one).tap { rows(all, what: "largest", counted: "worth") if at == 500 } }
    people = happened.group_by(&:login)
    largest = people.transform_values { |theirs| theirs.map { |one| one.amount.number }.max }.sort_by { |login, cents| [-cents, login] }
    worth = people.transform_values { |theirs| theirs.sum { |one| one.amount.number } }.sort_by { |login, cents| [-cents, login] }
    expected = ->(list) { list.first(20).map { |login, cents| [login.capitalize, Amount.money(cents, "EUR").words] } }
    assert_equal expected.call(largest), rows(all, what: "largest", counted: "worth", rows: 20)
    assert_equal expected.call(worth), rows(all, what: "most", counted: "worth", rows: 20)
    assert_operator all.largest(%w[tip], "EUR").size, :<, people.size
  end

  def test_who_did_something_of_a_kind_is_known_for_that_kind_alone
    all = standings(event("follow", "ann", 5), event("tip", "ben", 6, amount: euros(3)))
    assert all.known?("follow", "ann")
    assert all.known?("tip", "ben")
    refute all.known?("tip", "ann")
    refute all.known?("follow", "ben")
  end

  def test_a_person_is_called_as_they_were_called_last
    all = standings(event("follow", "ann", 5, name: "Ann II"), event("follow", "ann", 2, name: "Ann"))
    assert_equal [["Ann II", ""]], rows(all)
  end

  def test_when_the_first_was_and_how_often_anything_came
    all = standings(event("follow", "ann", 50), event("follow", "ben", 20), event("follow", "ann", 70))
    assert_equal [20, 3], [all.first_ms, all.changes]
    assert_nil Standings.new.first_ms
  end

  def test_what_somebody_gave_in_all_counts_each_time_and_nothing_is_nothing
    all = standings(event("tip", "ann", 5, amount: euros(3)), event("tip", "ann", 6), event("tip", "ann", 7, amount: euros(4)), event("tip", "ben", 6))
    assert_equal [["ann", 700, 400]], all.given(%w[tip], "EUR").map { |one| [one.login, one.worth, one.largest] }
    assert_equal [["ann", 3], ["ben", 1]], all.most(%w[tip]).map { |one| [one.login, one.times] }
  end

  def test_it_is_the_same_whatever_the_order
    events = G.array(G.tuple(G.one_of(*%w[follow gift tip].map { |kind| G.constant(kind) }), G.choose(1..5), G.choose(0..50), G.choose(0..900)))
    PropCheck.forall(events, G.choose(0..1000)) do |given, seed|
      happened = given.map { |kind, who, at, cents| event(kind, "p#{who}", at, amount: kind == "tip" ? Amount.money(cents, "EUR") : nil, number: at, name: "P#{who} #{at}") }
      told = [happened, happened.shuffle(random: Random.new(seed))].map do |order|
        all = standings(*order)
        [rows(all, what: "list", rows: 20), rows(all, what: "largest", counted: "worth"), rows(all, what: "most", counted: "gifts"), all.first_ms]
      end
      assert_equal(*told)
    end
  end

  def test_a_card_of_a_fellow_host_is_read_from_what_was_typed
    assert_equal({name: "Heron House", followers: 12_400}, Fellow.read("name" => " Heron\u0000 House ", "followers" => "12 400"))
    assert_equal({followers: nil}, Fellow.read("followers" => ""))
    assert_equal 300, Fellow.read("words" => "x" * 900)[:words].length
    [{"name" => " "}, {"followers" => "many"}, {"followers" => "-3"}].each { |bad| assert_raises(Bavard::Error) { Fellow.read(bad) } }
    assert_equal Fellow.key("@Heron_House"), Fellow.key("heron_house")
  end
end
