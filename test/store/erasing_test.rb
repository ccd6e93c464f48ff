# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/core/gate/verdict"
require_relative "../../lib/bavard/store/secret_box"
require_relative "../../lib/bavard/store/stores"
require_relative "../support/lines"
require_relative "../support/test_database"

# What is left of a viewer who is forgotten.
class ErasingTest < Minitest::Test
  KEPT_TABLES = %i[lines people deeds left_out].freeze

  def setup
    TestDatabase.clean
    @db = TestDatabase.db
    @stores = Bavard::Store::Stores.over(@db, Bavard::Store::SecretBox.new("-" * 32))
    @show = show_of("odalys")
    @feed, @other_feed = %w[Marsh Fen].map do |name|
      @stores.feeds.create(@show.id, kind: "irc", name:, shape: "circle", colour: "#5fb8d6", address: {}).id
    end
    @at = 0
  end

  def show_of(host)
    @stores.shows.create(@db[:accounts].insert(email: "#{host}@reedmere.example", password_hash: "-"), name: "Test watch", host_name: host)
  end

  def say(text, login:, name: nil, feed_id: @feed, found: [], steps: [], **more)
    @at += 1
    line = Lines.line(@at, text, login:, name:, feed_id:, platform_id: "m#{@at}", at_ms: @at * 1000)
    more.each { |field, value| line[field] = value }
    verdict = Bavard::Core::Gate::Verdict.new(:hold, "rule", found.first, found, nil)
    @stores.lines.add(@show.id, [Bavard::Store::Lines::Entry.new(line, verdict, true, false, [["received", @at, nil], *steps])])
    @at
  end

  def erase = @stores.erasing.erase(@show.id, @feed, "kestrel")
  def everything = KEPT_TABLES.map { |table| @db[table].all.map { |row| row.transform_values(&:to_s).values.join(" ") } }.join("\n")

  def test_nothing_of_what_they_wrote_and_were_called_is_found_anywhere
    theirs = say("I live in Reed Lane", login: "kestrel", name: "Kestrel_Down", found: ["Reed Lane"],
      steps: [["judged", 2, {action: "hold", found: [{rule: "words", seen: "Reed Lane", why: "it says Reed Lane"}]}], ["edited", 3, "I lived in Reed Lane"]])
    answer = say("nobody asked", login: "ann", reply: Bavard::Core::Reply.new("m1", "Kestrel_Down", "I live in Reed Lane"))
    by_name = say("me neither", login: "ann", reply: Bavard::Core::Reply.new(nil, "KESTREL", "Reed Lane"))
    @stores.known.note(@feed, "kestrel", "from Reed Lane", "Teo", 5)
    @stores.deeds.add(@show.id, Bavard::Store::Deeds::Deed.new(id: 1, at_ms: 1, by: "Teo", what: "note", about: "Kestrel", detail: {"text" => "from Reed Lane"}))
    assert_equal 1, erase
    refute_match(/kestrel|reed lane/i, everything)
    assert_equal ["", [["received", 1, nil], ["judged", 2, {"action" => "hold", "found" => [{"rule" => "words"}]}], ["edited", 3]]],
      @stores.lines.find(@show.id, theirs).then { |one| [one.line.text, JSON.parse(JSON.generate(one.trace))] }
    assert_equal [["nobody asked", nil], ["me neither", nil]], [answer, by_name].map { |id| @stores.lines.find(@show.id, id).line.to_h.values_at(:text, :reply) }
    assert_equal ["Teo", "note", nil], @db[:deeds].first.values_at(:by, :what, :about)
  end

  def test_nobody_else_is_touched
    say("same name elsewhere", login: "kestrel", feed_id: @other_feed)
    say("another name", login: "kestrel2")
    answer = say("yes", login: "ann", reply: Bavard::Core::Reply.new("m2", "kestrel2", "another name"))
    other = show_of("teo")
    before = everything
    say("gone", login: "kestrel")
    @stores.erasing.erase(other.id, @feed, "kestrel")
    assert_includes everything, "gone"
    assert_equal 1, erase
    assert_equal before.lines.size + 1, everything.lines.size
    before.lines.each { |row| assert_includes everything, row.chomp }
    assert_equal "another name", @stores.lines.find(@show.id, answer).line.reply.text
  end

  def test_what_they_gave_counts_and_nobody_is_named_for_it
    say("for the boat", login: "kestrel", kind: :paid, paid: Bavard::Core::Amount.money(500, "EUR"))
    counted = -> { @stores.tallies.since(@show.id, 0).inspect.sub(/0x\h+/, "") }
    before = counted.call
    erase
    assert_equal before, counted.call
    assert_equal [500], [@db[:lines].get(Sequel.lit("(detail->'paid'->>'minor')::int"))]
    refute_includes @stores.tallies.standings_since(@show.id, 0).inspect, "erased"
  end

  def test_done_twice_and_a_late_word_from_the_platform_change_nothing
    say("gone", login: "kestrel")
    assert_equal [1, 0], [erase, erase]
    @stores.lines.edit([@feed, "m1", nil], "gone, but better", 9)
    assert_equal "", @db[:lines].get(:text)
    assert_equal ["m1"], @stores.lines.recent_platform_ids(@feed, 5), "what comes once more must be known to have come"
    assert_equal [0, []], [@db[:people].count, @stores.erasing.writers(@show.id, "erased")]
  end

  def test_who_wrote_as_somebody
    3.times { say("one", login: "kestrel", name: "Kes") }
    say("two", login: "kes", feed_id: @other_feed)
    found = @stores.erasing.writers(@show.id, "KES").map { |writer| writer.to_a.first(5) }
    assert_equal [[@feed, "kestrel", "Kes", 3, 1000], [@other_feed, "kes", "kes", 1, 4000]], found
    assert_empty @stores.erasing.writers(@show.id, "k%")
  end
end
