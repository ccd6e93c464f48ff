# frozen_string_literal: true

require_relative "../../support/still_show"

# A line that was pulled and then let go is a line like any other: whoever would take it away again can.
class PulledAndLetGoTest < StillShowTest
  def setup
    super
    @record = make_show(document: with_chat(stay_ms: "for good"), on_air: true)
    begin_show
  end

  def pull(id) = @show.pull_line(id, "Teo").tap { advance }
  def let_go(id) = @show.let_line_go(id, "Ibrahim").tap { advance }

  def pulled_and_let_go
    say("Marsh harrier!").tap do |id|
      pull(id)
      assert_empty painted
      let_go(id)
      assert_equal [[id], "aired"], [painted, state(id)]
    end
  end

  def test_it_is_pulled_again
    id = pulled_and_let_go
    pull(id)
    assert_equal [[], "pulled"], [painted, state(id)]
  end

  def test_it_leaves_with_whoever_is_left_out
    pulled_and_let_go
    @show.leave_out("ann", "Teo")
    advance
    assert_empty painted
  end

  def test_it_leaves_when_letting_go_is_taken_back
    id = say("Marsh harrier!")
    pull(id)
    deed = let_go(id)
    @show.undo_deed(deed.id, "Teo")
    advance
    assert_equal [[], "pulled"], [painted, state(id)]
  end

  def test_it_leaves_when_the_platform_deletes_it
    id = say("Marsh harrier!", platform_id: "harrier")
    pull(id)
    let_go(id)
    take(:delete_line, nil, platform_id: "harrier")
    assert_equal [[], "deleted"], [painted, state(id)]
  end

  def test_what_the_platform_deleted_since_is_not_brought_back_by_taking_a_pull_back
    id = say("Marsh harrier!", platform_id: "harrier")
    deed = pull(id)
    take(:delete_line, nil, platform_id: "harrier")
    assert_includes assert_raises(Bavard::Error) { @show.undo_deed(deed.id, "Odalys") }.message, "deleted"
    begin_again
    assert_equal [[], :deleted], [painted, @show.lines[id].state.name]
    let_go(id)
    assert_equal [[id], "aired"], [painted, state(id)]
  end

  def test_what_a_rule_keeps_off_is_let_go_taken_back_and_let_go_again
    id = say("!ring K41207")
    2.times do
      deed = let_go(id)
      assert_equal [[id], "aired"], [painted, state(id)]
      @show.undo_deed(deed.id, "Teo")
      advance
      assert_equal [[], "off"], [painted, state(id)]
    end
    let_go(id)
    begin_again
    assert_equal :aired, @show.lines[id].state.name
  end

  # A piece for one feed, and another feed that brings more than the stage remembers.
  def test_a_line_in_a_quiet_feeds_own_piece_is_pulled_behind_hundreds_of_others
    document = with_chat(stay_ms: "for good")
    document = document.merge("pieces" => [document["pieces"][0].merge("feeds" => [@lane.id.to_s])])
    stores.stages.put_on_air(stores.stages.of_show(@record.id).first.id, 2, document, clock.call)
    other = stores.feeds.create(@record.id, kind: "irc", name: "Busy", shape: "square", colour: "#5fb8d6", address: @lane.feed.address)
    begin_show
    id = say("Marsh harrier!")
    @lane = @show.lanes.fetch(other.id)
    (Core::Chat::Timeline::REMEMBERED + 20).times { |number| say("busy #{number}", login: "bo") }
    assert_equal [id], painted
    pull(id)
    assert_empty painted
  end

  def test_its_lane_of_feeds_does_not_call_it_taken_away
    id = say("Marsh harrier!")
    pull(id)
    assert_equal [true], @lane.lines.map { |card| card.fetch(:pulled, false) }
    let_go(id)
    assert_equal [false], @lane.lines.map { |card| card.fetch(:pulled, false) }
  end

  def test_undoing_each_deed_in_turn_leads_back_to_the_picture
    id = say("Marsh harrier!")
    deeds = [pull(id), let_go(id), pull(id)]
    deeds.reverse_each do |deed|
      @show.undo_deed(deed.id, "Odalys")
      advance
    end
    assert_equal [[id], "aired"], [painted, state(id)]
  end

  def test_what_was_held_goes_at_once
    hold(60_000)
    id = say("Marsh harrier!")
    pull(id)
    let_go(id)
    assert_equal [[id], "aired"], [painted, state(id)]
    until_written
    assert_equal [false, false, true], db[:lines].first(id:).values_at(:held, :pulled, :aired)
  end

  def test_what_was_held_before_a_restart_goes_on_the_picture_and_is_not_held_by_the_next_start
    hold(60_000)
    id = say("Marsh harrier!")
    pull(id)
    begin_again
    hub.instance_variable_get(:@frames).clear
    let_go(id)
    assert_equal [[id], "aired"], [painted, state(id)]
    begin_again
    assert_equal 0, @show.lines.held
  end

  def test_a_line_that_no_piece_takes_in_is_nowhere_and_can_be_pulled_again
    stage = stores.stages.of_show(@record.id).first
    stores.stages.put_on_air(stage.id, 2, Core::Stage::Document.empty, clock.call)
    begin_show
    id = say("Marsh harrier!")
    assert_equal "nowhere", state(id)
    2.times do
      pull(id)
      let_go(id)
    end
    assert_equal [[], "nowhere"], [painted, state(id)]
  end

  def test_what_only_the_drafts_show_is_not_on_the_air_after_a_restart_either
    @lane.draft_only = true
    say("Only a try")
    assert_equal [1, []], [painted("draft:#{@stage.id}").size, painted]
    begin_again
    assert_equal [1, 0], @show.desks.values.first.then { |desk| [desk.draft.standing, desk.air.standing] }
  end

  # Its lines stand on, and are drawn for whoever comes.
  def test_a_line_whose_feed_is_taken_away_is_still_drawn
    id = say("Marsh harrier!")
    @show.remove_feed(@lane.id)
    whole = -> { JSON.parse(@show.desks.values.first.air.topic.catch_up(nil)).dig("in", "chat1").map { |card| card["i"] } }
    assert_equal [id], whole.call
    @show.dress(@show.wardrobe.contents)
    advance
    assert_equal id, frames("air:#{@stage.id}").last.dig("again", "chat1", 0, "i")
    begin_again
    assert_equal [id], whole.call
  end

  def test_what_only_the_drafts_show_stays_off_the_air
    @lane.draft_only = true
    id = say("Only a try")
    pull(id)
    let_go(id)
    assert_equal [[], "draft"], [painted, state(id)]
    off = say("!ring K41207")
    let_go(off)
    assert_equal [[], "draft"], [painted, state(off)]
  end
end
