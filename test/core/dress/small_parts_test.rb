# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/amount"
require_relative "../../../lib/bavard/core/chat/event_words"
require_relative "../../../lib/bavard/core/chat/spoken_name"
require_relative "../../../lib/bavard/core/dress/badge"

class DressSmallPartsTest < Minitest::Test
  include Bavard::Core

  def test_badges_are_read_and_told_in_words
    assert_equal ["Subscriber, 12 months", "Subscriber, 1 month", "Ringer", "Early bird", "Guest of honour"],
      %w[subscriber/12 subscriber/1 ringer Early-Bird guest].map { |text| Dress::Badge.read(text).words }
    assert_equal ["Ringer, 12", "Subscriber, gold", "Subscriber, 12345"], %w[ringer/12 subscriber/gold subscriber/12345].map { |text| Dress::Badge.read(text).words }
  end

  def test_a_badge_that_is_nothing_still_has_a_kind
    assert_equal "badge", Dress::Badge.read("///").kind
    assert_equal 40, Dress::Badge.read("x" * 300).kind.length
  end

  def test_every_kind_has_a_letter_on_a_colour_that_stays_the_same
    assert_equal Dress::Badge.drawn("ringer"), Dress::Badge.drawn("ringer")
    assert_equal "S", Dress::Badge.drawn("subscriber").first
    assert_equal ["Ringer", "Subscriber, a/b"], %w[ringer/ subscriber/a/b].map { |text| Dress::Badge.read(text).words }
  end

  def test_names_as_they_are_said
    {"kestrel_ann" => "kestrel ann", "bittern.by.bittern" => "bittern by bittern", "mudlark7" => "mudlark 7", "OspreyOkoro" => "Osprey Okoro",
     "xX_heron_Xx" => "heron", "sooooo" => "soo", "かわせみ" => "かわせみ", "___" => "___"}.each { |name, said| assert_equal said, Chat::SpokenName.of(name) }
  end

  def test_amounts_by_the_digits_of_their_currency
    assert_equal ["5.00 EUR", "500 JPY", "1.250 KWD", "300 sparks"],
      [Amount.money(500, "EUR"), Amount.money(500, "JPY"), Amount.money(1250, "KWD"), Amount.own(300, "sparks")].map(&:words)
  end

  def test_what_is_no_amount_is_none
    assert_equal [nil] * 5, [Amount.money(-1, "EUR"), Amount.money(5, "euro"), Amount.money("5", "EUR"), Amount.own(5, " "), Amount.read([5, "EUR"])]
    assert_equal [nil] * 2, [Amount.money(Amount::LARGEST + 1, "EUR"), Amount.own(-1, "sparks")]
    assert_equal [0, 0, "x" * 40], [Amount.money(0, "EUR").number, Amount.own(0, "sparks").number, Amount.own(1, "x" * 41).unit]
  end

  def test_an_amount_comes_back_from_its_document
    [Amount.money(500, "EUR"), Amount.own(3, "sparks")].each { |amount| assert_equal amount, Amount.read(amount.document) }
  end

  def event_words(kind, number, paid)
    Chat::EventWords.of(Lines.line(1).tap do |made|
      made.kind = kind
      made.number = number
      made.paid = paid
    end)
  end

  def test_events_in_words
    {follow: "follows", renewal: "renewed, 12 months", gift: "gave 12 subscriptions", visit: "came with 12 viewers", subscription: "subscribed for 5.00 EUR",
     tip: "tipped 5.00 EUR", purchase: "bought something for 5.00 EUR", cause: "gave 5.00 EUR to a good cause", own: "did something of the host’s own"}.each do |kind, words|
      assert_equal words, event_words(kind, 12, Amount.money(500, "EUR"))
    end
    {renewal: "renewed", gift: "gave a subscription", visit: "came to visit", subscription: "subscribed", tip: "tipped", purchase: "bought something",
     cause: "gave to a good cause"}.each { |kind, words| assert_equal words, event_words(kind, nil, nil) }
    assert_equal ["renewed, 1 month", "gave 1 subscription", "came with 0 viewers"], %i[renewal gift visit].zip([1, 1, 0]).map { |kind, number| event_words(kind, number, nil) }
  end

  def test_what_counts_most_about_a_line_is_its_kind
    said = ->(**more) { Said.new("ann", nil, nil, [], "x", more[:action] || false, false, nil, more[:reply], false, more[:paid]) }
    kinds = [said.call, said.call(action: true), said.call(reply: Reply.new("1", "bob", "hi")),
      said.call(paid: Amount.own(1, "sparks"), action: true)].map do |one|
      Chat::Line.from(Intake.new(:line, 1, nil, nil, 1, one), id: 1).kind
    end
    assert_equal %i[said action reply paid], kinds
  end
end
