# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/feed_probe"
require_relative "../support/processes"

# What only platforms that know it tell: how many follow in all.
module TellsTotals
  def test_it_tells_how_many_follow_in_all_after_what_came_before
    before = @standin.state["totals"]["followers"]
    @standin.post("/event", "login" => "birdbath", "kind" => "follow")
    wait_for("the follow in the total") { @probe.of(:totals).last&.body&.fetch("followers") == before + 1 }
    @standin.post("/total", "what" => "followers", "number" => "90")
    wait_for("another total") { @probe.of(:totals).last.body["followers"] == 90 }
    kinds = @probe.intakes.map(&:kind)
    assert_operator kinds.index(:event), :<, kinds.rindex(:totals)
  end
end

# Each stand-in misbehaving on purpose: what the feed makes of it, and that nothing is shown twice or lost.
module Misbehaving
  include Wait

  def setup
    @standin = standin.start
    @probe = probe.start.until_live
  end

  def teardown
    @probe.stop
    @standin.stop
    assert_empty(Thread.list.select { |thread| thread.name.to_s.start_with?("feed-") })
  end

  # Lines as a show would count them: the same id once.
  def texts = @probe.of(:line).uniq(&:platform_id).map { |intake| intake.body.text }

  def test_cut_off_it_comes_back_with_what_was_said_meanwhile_each_once
    @standin.say("before")
    @probe.line_with("before")
    @standin.post("/cut")
    @standin.say("while it was cut")
    wait_for("it to notice") { @probe.states.include?(:waiting) }
    @probe.line_with("while it was cut")
    @standin.say("after")
    @probe.line_with("after")
    assert_equal ["before", "while it was cut", "after"], texts
    assert_empty @probe.of(:gap)
  end

  def test_everything_twice_counts_once
    @standin.misbehave("repeat")
    %w[one two].each { |text| @standin.say(text) }
    @probe.line_with("two")
    wait_for("both of both") { @probe.of(:line).size == 4 }
    assert_equal %w[one two], texts
  end

  def test_out_of_order_all_of_it_comes
    @standin.misbehave("reorder")
    %w[one two three four].each { |text| @standin.say(text) }
    @standin.misbehave("reorder", on: false)
    @standin.say("five")
    @probe.line_with("five")
    assert_equal %w[five four one three two], texts.sort
  end

  def test_nonsense_between_is_counted_and_what_is_sound_comes
    @standin.misbehave("garbage")
    @standin.say("in the noise")
    wait_for("the nonsense to be noticed") { @probe.rejected.any? }
    @standin.misbehave("garbage", on: false)
    @standin.say("clear again")
    @probe.line_with("clear again")
    assert_includes texts, "in the noise"
  end

  def test_slowness_is_waited_for
    @standin.misbehave("slow")
    @standin.say("in its own time")
    @probe.line_with("in its own time")
    assert_equal :live, @probe.state.state
  end

  def test_deletes_and_silences_arrive
    @standin.say("to go")
    id = @probe.line_with("to go").platform_id
    @standin.post("/delete", "id" => @standin.lines.first["id"])
    wait_for("the delete") { @probe.of(:delete_line).find { |intake| intake.platform_id == id } }
    @standin.post("/silence", "login" => "birdbath")
    wait_for("the silence") { @probe.of(:clear_person).find { |intake| intake.body == "birdbath" } }
  end

  def test_every_kind_of_event_arrives_as_itself
    %w[follow subscription renewal gift tip purchase visit].each do |kind|
      @standin.post("/event", "login" => "birdbath", "kind" => kind, "text" => "well done")
    end
    wait_for("all of them") { @probe.of(:event).size == 7 }
    happened = @probe.of(:event).map(&:body)
    assert_equal %i[follow subscription renewal gift tip purchase visit], happened.map(&:what)
    assert_equal [nil, nil, 12, 5, nil, nil, 41], happened.map(&:number)
    assert_equal ["5.00 EUR", "12.50 EUR"], happened.filter_map { |one| one.said.paid&.words }
    assert_equal ["well done"], happened.map { |one| one.said.text }.uniq
  end

  def test_a_line_brings_its_emotes_badges_avatar_and_what_it_is
    @standin.say("🦆 :owl: hello", login: "kestrel_ann", first: "1")
    said = @probe.line_with("🦆 :owl: hello").body
    assert_equal [[2, 5]], said.emotes.in_code_points(said.text).map { |range| range.first(2) }
    assert_equal [true, ["subscriber/14"]], [said.first_time, said.badges]
    assert_match %r{/pictures/badges/subscriber\.svg\z}, said.badge_pictures["subscriber/14"]
    assert_match %r{/pictures/avatars/\w+\.svg\z}, said.avatar
    @standin.say("so it is", reply: @standin.lines.last["id"])
    assert_equal @probe.line_with("🦆 :owl: hello").platform_id, @probe.line_with("so it is").body.reply.platform_id
    @standin.post("/event", "login" => "kestrel_ann", "kind" => "paid", "text" => "for the boxes")
    assert_equal "300 sparks", @probe.line_with("for the boxes").body.paid.words
  end
end

class OxbowMisbehavingTest < Minitest::Test
  include Misbehaving

  def standin = RunningOxbow.new

  def probe
    mapping = {"emote_unit" => ["bytes"], "emote_address" => ["#{@standin.base}/pictures/emotes/{id}"],
               "badge_address" => ["#{@standin.base}/pictures/badges/{id}.svg"]}
    FeedProbe.irc(@standin.address, mapping:)
  end

  def test_sent_away_for_coming_too_often_it_waits_and_comes_back
    @standin.misbehave("limit")
    @standin.post("/cut")
    wait_for("it to be told why") { @probe.of(:feed_state).any? { |intake| intake.body.reason.to_s.include?("too often") } }
    @standin.misbehave("limit", on: false)
    @standin.say("back again")
    @probe.line_with("back again")
  end
end

class LanternMisbehavingTest < Minitest::Test
  include Misbehaving
  include TellsTotals

  def standin = RunningStandin.new("Lantern", EVERY_MS: 200)
  def probe = FeedProbe.of(@standin.platform, {"channel" => "reedmere"})

  def test_asked_to_ask_less_often_it_does_and_loses_nothing
    @standin.misbehave("limit")
    @standin.say("said meanwhile")
    wait_for("it to wait") { @probe.state.state == :waiting }
    assert_includes @probe.state.reason, "less often"
    assert_operator @probe.state.retry_at_ms, :>, FeedProbe::CLOCK.call
    @standin.misbehave("limit", on: false)
    @probe.line_with("said meanwhile")
    @probe.until_live
  end

  def test_a_stall_is_noticed_and_what_was_said_meanwhile_comes
    @standin.misbehave("stall")
    @standin.say("said while it was silent")
    wait_for("it to notice") { @probe.state.state == :waiting }
    assert_includes @probe.state.reason, "did not answer within"
    @standin.misbehave("stall", on: false)
    @probe.line_with("said while it was silent")
  end

  def test_a_broadcast_that_ends_is_said_to_be_over_and_the_next_one_found
    @standin.post("/broadcast", "on" => "0")
    wait_for("its end") { @probe.state.state == :nobody_broadcasting }
    assert_equal "This broadcast is over. The next broadcast is found by itself.", @probe.state.reason
    @standin.post("/broadcast", "on" => "1")
    @standin.say("a new day")
    @probe.line_with("a new day")
  end

  def test_a_number_that_is_none_needs_the_host
    other = FeedProbe.of(@standin.platform, {"number" => "0000-0000"}).start
    wait_for("it to need somebody") { other.state&.state == :needs_you }
    assert_equal :broadcast, other.state.want
  ensure
    other&.stop
  end
end

class SkeinMisbehavingTest < Minitest::Test
  include Misbehaving
  include TellsTotals

  def standin = RunningStandin.new("Skein", BEAT_MS: 1000)
  def probe = FeedProbe.of(@standin.platform, {"room" => "reedmere"})

  def test_asked_about_somebody_it_says_who_they_are
    %w[nobody_there tern_tower].each { |login| @probe.ask(login) }
    wait_for("what it says") { @probe.of(:profile).any? }
    assert_equal [["Tern Tower", 8312]], @probe.of(:profile).map { |intake| intake.body.to_h.values_at(:name, :followers) }
  end

  def test_a_stall_is_noticed_by_the_heartbeat
    @standin.misbehave("stall")
    wait_for("it to notice") { @probe.state.state == :waiting }
    assert_match(/silent for \d+ s/, @probe.state.reason)
    @standin.say("said while it was silent")
    @standin.misbehave("stall", on: false)
    @probe.line_with("said while it was silent")
  end

  def test_a_broadcast_that_ends_is_not_the_end_of_the_connection
    @standin.post("/broadcast", "on" => "0")
    wait_for("its end") { @probe.state.state == :nobody_broadcasting }
    @standin.post("/broadcast", "on" => "1")
    wait_for("the next") { @probe.state.state == :live }
  end

  def test_a_room_that_is_not_there_needs_the_host
    other = FeedProbe.of(@standin.platform, {"room" => "nowhere"}).start
    wait_for("it to need somebody") { other.state&.state == :needs_you }
    assert_equal :address, other.state.want
  ensure
    other&.stop
  end
end
