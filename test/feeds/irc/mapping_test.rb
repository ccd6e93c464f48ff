# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/irc/mapping"

class MappingTest < Minitest::Test
  Mapping = Bavard::Feeds::Irc::Mapping

  def test_the_drafts_keys_are_the_defaults
    mapping = Mapping.new
    tags = {"msgid" => "m1", "time" => "2026-11-24T05:52:00.250Z", "draft/display-name" => "Ann", "draft/color" => "#F3B634", "badges" => "a/1,b"}
    assert_equal ["m1", 1_795_499_520_250, "Ann", "#f3b634", %w[a/1 b]],
      [mapping.id(tags), mapping.time_ms(tags), mapping.display_name(tags), mapping.colour(tags), mapping.badges(tags)]
  end

  def test_the_first_tag_that_is_there_counts
    mapping = Mapping.new(Mapping.read("display_name" => "x/name, y/name"))
    assert_equal "Y", mapping.display_name({"x/name" => "", "y/name" => "Y", "draft/display-name" => "no"})
  end

  def test_what_a_client_says_of_itself_counts_only_where_anybody_may_say_it
    claimed = {"+x/name" => "Odalys", "+draft/reply" => "m7", "+x/badges" => "host"}
    given = {"display_name" => "+x/name", "badges" => "+x/badges x/badges"}
    believed = Mapping.new(Mapping.read(given.merge("anybody" => "display_name reply nonsense off_topic")))
    assert_equal ["Odalys", "m7", []], [believed.display_name(claimed), believed.reply(claimed), believed.badges(claimed)]
    assert_equal ["ringer"], believed.badges(claimed.merge("x/badges" => "ringer"))
    server = Mapping.new(Mapping.read(given.merge("anybody" => "")))
    assert_equal [nil, nil, []], [server.display_name(claimed), server.reply(claimed), server.badges(claimed)]
    assert_equal %w[display_name reply], believed.document["anybody"]
  end

  def test_a_mapping_of_before_believes_no_client
    kept = Mapping.new("amount" => ["+draft/amount"], "event" => ["+draft/event"], "badges" => ["+draft/badges", "draft/badges"])
    claimed = {"+draft/amount" => "1/EUR", "+draft/event" => "tip", "+draft/badges" => "host"}
    assert_equal [nil, nil, []], [kept.amount(claimed), kept.event(claimed), kept.badges(claimed)]
  end

  def test_times_that_are_none_are_nil
    ["", "yesterday", "2026-13-40T99:99:99Z", "2026-11-24 05:52:00", "2026-11-24T05:52:00+01:00"].each do |text|
      assert_nil Mapping.new.time_ms({"time" => text}), text
    end
  end

  def test_a_tag_name_that_cannot_be_one_is_refused_by_name
    assert_equal "colour", assert_raises(Bavard::Error) { Mapping.read("colour" => "ok <b>") }.field
  end

  def test_the_topic_tells_whether_somebody_is_broadcasting
    assert Mapping.new.off?("OFF AIR until tomorrow")
    refute Mapping.new.off?("Dawn ringing")
    assert Mapping.new(Mapping.read("off_topic" => "gone fishing, closed")).off?("We are Closed today")
  end

  def test_badges_have_a_limit
    assert_equal 12, Mapping.new.badges({"badges" => (1..900).to_a.join(",")}).size
  end

  def test_every_entry_can_be_seen_and_set
    assert_equal (Mapping::DEFAULT.keys - %w[anybody]).sort, Mapping::LABELS.keys.sort
    assert_equal (Mapping::LABELS.keys - Mapping::WORDS).sort, Mapping::DANGERS.keys.sort
  end

  def test_what_is_not_given_stays_as_it_is_by_default_and_words_are_separated_by_commas
    read = Mapping.read("emote_unit" => "bytes", "emote_address" => "https://x.example/e/{id}.png", "event" => "x/event")
    assert_equal [["bytes"], ["https://x.example/e/{id}.png"], ["x/event"], ["msgid"]], read.values_at("emote_unit", "emote_address", "event", "id")
    mapping = Mapping.new(read)
    assert_equal [:bytes, "https://x.example/e/owl.png", :tip], [mapping.emote_unit, mapping.emote_address("owl"), mapping.event({"x/event" => "tip"})]
  end

  def test_amounts_and_numbers_that_are_none
    mapping = Mapping.new
    assert_equal "5.00 EUR", mapping.amount({"draft/amount" => "500/EUR"}).words
    assert_equal "300 sparks", mapping.amount({"draft/amount" => "300/sparks"}).words
    ["500", "x/EUR", "/", "-5/EUR", ""].each { |given| assert_nil mapping.amount({"draft/amount" => given}) }
    assert_nil mapping.number({"draft/number" => "many"})
  end
end
