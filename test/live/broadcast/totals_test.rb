# frozen_string_literal: true

require_relative "../../support/gathering_test"

# How many there are in all: counted, typed, and told by platforms.
class TotalsTest < GatheringTest
  def test_totals_that_were_there_already_count_since_ever
    happen(:follow, "ann")
    assert_equal 1200, @show.set_total("followers", 1200)["followers"]
    happen(:follow, "bo")
    assert_equal 1201, @show.totals["followers"]
    until_written
    begin_show
    assert_equal 1201, @show.totals["followers"]
  end

  def tell_totals(**told) = take(:totals, told.transform_keys(&:to_s))

  def test_what_a_platform_tells_counts_since_ever_and_stands_for_what_was_typed
    happen(:follow, "ann")
    @show.set_total("followers", 500)
    tell_totals(followers: 450)
    assert_equal [500, [["Test", 450]]], [@show.totals["followers"], @show.told_now["followers"]]
    happen(:follow, "bo")
    assert_equal [501, [["Test", 451]]], [@show.totals["followers"], @show.told_now["followers"]]
    tell_totals(followers: 448, subscriptions: 20)
    assert_equal [498, 20], @show.totals.values_at("followers", "subscriptions")
    assert_equal 510, @show.set_total("followers", 510)["followers"]
    until_written
    begin_show
    assert_equal [510, [["Test", 448]]], [@show.totals["followers"], @show.told_now["followers"]]
  end

  def test_a_chat_is_the_same_whichever_number_its_broadcast_has_today
    address = {"channel" => "reedmere", "number" => "1"}
    lantern = stores.feeds.create(@record.id, kind: "described", name: "Lantern", shape: "diamond", colour: "#e58fb0", platform: "lantern", address:)
    %w[7741-0392 7742-0392].each do |number|
      lantern.address = address.merge("number" => number)
      @show.told_totals(lantern, {"followers" => 100})
    end
    assert_equal 100, @show.totals["followers"]
  end

  def test_a_total_that_is_told_reaches_no_goal
    edit = {"do" => "set", "piece" => "goal1", "values" => {"since" => "ever"}}
    desk = @show.desks.values.first
    desk.put_on_air(clock.now_ms, document: Core::Stage::Edit.apply(desk.stage.draft, edit).document)
    advance
    tell_totals(followers: 2)
    happen(:follow, "ann")
    assert_equal [3, 1], [told_of("goal1")["value"], reached]
    tell_totals(followers: 1)
    tell_totals(followers: 90)
    assert_equal [90, 1], [told_of("goal1")["value"], reached]
  end

  def test_a_chat_that_is_connected_anew_is_not_counted_twice
    happen(:follow, "ann")
    tell_totals(followers: 100)
    until_written
    address = stores.feeds.find(@feed.id).address
    @show.remove_feed(@feed.id)
    again = stores.feeds.create(@record.id, kind: "irc", name: "Again", shape: "circle", colour: "#5fb8d6", address:)
    again.wanted = false
    @show.add_feed(again)
    @lane = @show.lanes[again.id]
    tell_totals(followers: 100)
    assert_equal 100, @show.totals["followers"]
  end
end
