# frozen_string_literal: true

require_relative "../../support/still_show"

# Pages and screens that come look for their stage, and what is sent in for its feed, in threads of their own.
class ReadBesideTest < StillShowTest
  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    begin_show
  end

  def test_whoever_reads_the_stages_reads_on_while_one_comes_and_one_goes
    seen = []
    @show.desks.each_key do |id|
      other = stores.stages.create(@record.id, name: "Another", document: with_chat)
      @show.add_stage(other)
      @show.remove_stage(id)
      seen << id << other.id
    end
    assert_equal [seen.last], @show.desks.keys
    assert_equal 2, seen.size
    @show.put_back_stage(seen.first)
    assert_equal seen.sort, @show.desks.keys.sort
    assert_predicate @show.desks, :frozen?
  end

  def test_whoever_reads_the_feeds_reads_on_as_well
    @show.lanes.each_key do |id|
      feed = stores.feeds.create(@record.id, kind: "irc", name: "Other", shape: "square", colour: "#e58fb0", address: {"host" => "127.0.0.1", "port" => 1})
      feed.wanted = false
      @show.add_feed(feed)
      @show.remove_feed(id)
    end
    assert_equal(["Other"], @show.lanes.values.map { |lane| lane.feed.name })
    assert_predicate @show.lanes, :frozen?
  end
end
