# frozen_string_literal: true

require_relative "../../support/gathering_test"

# What events and lines do besides standing in chat: goals, challenges, counters, captions, and when a broadcast is noticed.
class GatheringsTest < GatheringTest
  def test_a_goal_that_is_reached_asks_the_cue_sheet_once
    %w[ann bo].each { |login| happen(:follow, login) }
    assert_equal [2, false], told_of("goal1").values_at("value", "reached")
    happen(:follow, "cy")
    assert_equal [3, true], told_of("goal1").values_at("value", "reached")
    assert_equal 1, reached
    happen(:follow, "di")
    assert_equal 1, reached
  end

  def test_alerts_of_a_kind_say_what_is_heard_where_a_cue_has_no_sound
    pieces = [["alerts", {"kinds" => %w[tip], "chime" => "knock"}], ["alerts", {"chime" => "none"}], ["alerts", {"chime" => "reed", "hidden" => true}]]
    built = pieces.each_with_index.map { |(kind, values), at| Core::Pieces.kind(kind).build("#{kind}#{at + 1}", values) }
    @record = make_show(document: Core::Stage::Document.empty.merge("pieces" => built), on_air: true)
    begin_show
    desk = @show.desks.values.first
    assert_equal [%w[knock none], %w[none]], %w[tip follow].map { |kind| desk.alerts_of(kind).map { |piece| piece["chime"] } }
    assert_equal ["knock", nil], %w[tip follow].map { |kind| @show.happenings.send(:chime, kind) }
  end

  def recent = @show.cues.report[:recent].map { |one| [one[:kind], one[:name]] }

  def test_milestones_of_goals_and_stages_of_challenges_ask_the_cue_sheet_each_once
    %w[ann bo cy].each { |login| happen(:follow, login) }
    assert_equal [["Feeder", 25], ["Three of you", 25], ["Three of you", 50], ["Three of you", 75]], milestones
    assert_equal 1, reached
  end

  def milestones
    events = @show.cues.recent.map(&:event).select { |event| event.kind == "milestone" }
    events.map { |event| [event.name, event.number] }.sort
  end

  # Of a goal and a challenge that begin anew, and of a goal that does not.
  def begin_anew_pieces
    pieces = [["goal", {"to" => 9, "anew" => true}], ["goal", {"to" => 9, "anew" => true, "since" => "ever"}], ["goal", {"to" => 9}],
      ["challenge", {"total" => 10, "anew" => true, "begins" => "follow"}], ["challenge", {"total" => 10, "begins" => "follow"}]]
    built = pieces.each_with_index.map { |(kind, values), at| Core::Pieces.kind(kind).build("#{kind}#{at + 1}", values) }
    @record = make_show(document: Core::Stage::Document.empty.merge("pieces" => built), on_air: true)
    begin_show
    @show.begin_broadcast
    happen(:follow, "ann")
    @show.desks.each_value { |desk| desk.add_to("On the way to {to}", 3) }
    advance
  end

  def stand = [told_of("goal1"), told_of("goal2"), told_of("goal3"), live("challenge4"), live("challenge5")].map { |card| card["value"] }

  def test_after_a_broadcast_what_begins_anew_does_and_all_else_stands
    begin_anew_pieces
    assert_equal [4, 4, 4, 1, 1], stand
    @show.end_broadcast
    advance
    assert_equal [0, 1, 4, 0, 1], stand
    happen(:follow, "bo")
    assert_equal [1, 2, 5, 1, 2], stand
    @show.begin_broadcast
    advance
    assert_equal [0, 2, 3, 1, 2], stand
  end

  def test_a_broadcast_that_is_not_over_after_all_goes_on_as_it_was_also_over_a_restart
    begin_anew_pieces
    began_ms = @show.cues.began_ms
    @show.end_broadcast
    until_written
    @show.begin_broadcast(at_ms: began_ms)
    advance
    assert_equal [4, 4, 4, 1, 1], stand
    @show.end_broadcast
    advance(300)
    until_written
    begin_show
    advance
    assert_equal [0, 1, 4, 0, 1], stand
  end

  def test_the_newest_is_told_and_known_again_after_a_restart
    happen(:follow, "ann")
    happen(:follow, "bo")
    assert_equal [["Bo", ""]], told_of("newest1")["rows"]
    until_written
    begin_show
    advance
    assert_equal [["Bo", ""]], told_of("newest1")["rows"]
    assert_equal 2, told_of("goal1")["value"]
  end

  def test_a_challenge_begins_by_event_counts_and_is_reached_or_missed
    happen(:tip, "ann", paid: Core::Amount.money(400, "EUR"))
    assert_equal "waiting", live("challenge1")["state"]
    happen(:follow, "ann")
    assert_equal ["running", 1], live("challenge1").values_at("state", "value")
    happen(:tip, "ann", paid: Core::Amount.money(900, "EUR"))
    assert_equal ["reached", 10], live("challenge1").values_at("state", "value")
    assert_includes(@show.cues.report[:recent].map { |one| [one[:kind], one[:name]] }, ["reached", "Feeder"])
  end

  def test_a_challenge_whose_time_is_up_is_missed_and_a_begun_one_stands_again_after_a_restart
    happen(:follow, "ann")
    until_written
    begin_show
    assert_equal ["running", 1], live("challenge1").values_at("state", "value")
    advance(301_000)
    advance
    assert_equal "missed", live("challenge1")["state"]
    assert_includes(@show.cues.report[:recent].map { |one| one[:kind] }, "missed")
  end

  def test_a_flood_of_events_is_no_flood_of_writing_and_nothing_of_it_is_lost
    kept = 0
    stores.stages.define_singleton_method(:keep_live) { |*given| super(*given).tap { kept += 1 } }
    8.times { |number| happen(:follow, "p#{number}") }
    advance(200)
    until_written
    assert_includes 2..5, kept
    begin_show
    assert_equal 8, live("challenge1")["value"]
  end

  def run_challenge(what) = @show.desks.values.first.set_live { |live| live.counts.run(PIECES_BUILT.fetch("challenge1"), what, clock.now_ms) }

  def test_what_is_pressed_on_a_challenge_is_taken_back
    happen(:follow, "ann")
    run_challenge("begin")
    advance
    assert_equal ["running", 1], live("challenge1").values_at("state", "value")
    run_challenge("back")
    advance
    assert_equal "waiting", live("challenge1")["state"]
    run_challenge("undo")
    advance
    assert_equal ["running", 1], live("challenge1").values_at("state", "value")
    assert_raises(Bavard::Error) { run_challenge("undo") }
    run_challenge("end")
    advance
    assert_equal "missed", live("challenge1")["state"]
    run_challenge("undo")
    advance
    assert_equal "running", live("challenge1")["state"]
  end

  def test_a_counter_counts_the_command_of_those_who_may
    say("ann", "!ringed")
    assert_equal 0, live("counter1")["count"]
    say("mod", "!ringed", badges: ["moderator/1"])
    say("mod", "!ringed", badges: ["moderator/1"])
    assert_equal 1, live("counter1")["count"]
    advance(1000)
    say("mod", "!RINGED", badges: ["moderator/1"])
    say("mod", "!ringed two", badges: ["moderator/1"])
    assert_equal 2, live("counter1")["count"]
  end

  def test_the_first_of_somebody_is_known_after_a_restart
    happen(:follow, "ann")
    first = @show.lines.to_a.last.id
    assert @show.tallies.first?(first)
    until_written
    begin_show
    happen(:follow, "ann")
    happen(:tip, "ann", paid: Core::Amount.money(400, "EUR"))
    followed, tipped = @show.lines.to_a.last(2).map(&:id)
    assert_equal [false, true], [@show.tallies.first?(followed), @show.tallies.first?(tipped)]
  end

  def test_whoever_is_left_out_counts_nothing_by_command
    @show.leave_out("mod", "Teo")
    say("mod", "!ringed", badges: ["moderator/1"])
    assert_equal 0, live("counter1")["count"]
  end

  def test_an_event_that_a_rule_kept_off_plays_once_somebody_lets_it_go
    @show.leave_out("ann", "Teo")
    happen(:tip, "ann", "for seeds", paid: Core::Amount.money(400, "EUR"))
    assert_nil last("alert")
    @show.let_line_go(@show.lines.to_a.last.id, "Teo")
    advance
    assert_equal "Ann gave 4.00 EUR", last("alert")["w"].map(&:last).join
  end

  def test_what_is_posted_stands_as_long_as_it_takes_to_read
    desk = @show.desks.values.first
    assert desk.caption("captions1", "A reed warbler. Ring number K41 207 again!", clock.now_ms)
    advance
    assert_equal ["A reed warbler.", "Ring number K41 207 again!"], live("captions1")["lines"].map(&:last)
    advance(1500)
    assert_equal ["Ring number K41 207 again!"], live("captions1")["lines"].map(&:last)
    advance(1500)
    assert_empty live("captions1")["lines"]
    refute desk.caption("goal1", "no", clock.now_ms)
  end

  def test_a_file_of_captions_runs_with_its_clock
    desk = @show.desks.values.first
    document = Core::Stage::Edit.apply(desk.stage.draft, {"do" => "set", "piece" => "captions1", "values" => {"source" => "file"}}).document
    desk.put_on_air(clock.now_ms, document:)
    desk.set_live { |live| live.caption_file("captions1", "WEBVTT\n\n00:01.000 --> 00:02.000\nfirst\n\n00:03.000 --> 00:04.000\nsecond\n") }
    desk.set_live { |live| live.run("captions1", "start") }
    told = [600, 800, 900, 1000].map do |ms|
      advance(ms)
      advance(50)
      live("captions1")["lines"].map(&:last)
    end
    assert_equal [[], ["first"], [], ["second"]], told
    assert_raises(Bavard::Error) { desk.set_live { |live| live.caption_file("captions1", "nothing") } }
  end

  def test_a_cue_adds_to_a_goal_and_to_a_challenge
    cues = @show.cues.document["cues"].map { |cue| cue["kind"] == "follow" ? cue.merge("adds" => 4, "adds_to" => "Feeder") : cue }
    @show.use_cues(@show.cues.document.merge("cues" => cues))
    happen(:follow, "ann")
    advance
    assert_equal 5, live("challenge1")["value"]
  end

  def test_a_broadcast_that_was_begun_anew_by_mistake_goes_on_from_where_it_was
    @show.begin_broadcast
    began = clock.now_ms
    happen(:follow, "ann")
    until_written
    @show.begin_broadcast
    happen(:follow, "bo")
    assert_equal 1, told_of("goal1")["value"]
    until_written
    @show.begin_broadcast(at_ms: began)
    advance
    assert_equal 2, told_of("goal1")["value"]
  end

  def test_a_broadcast_is_noticed_where_a_feed_can_tell_and_only_then
    enter = ->(state) { @reception.receive(@lane, nil, Core::Intake.new(:feed_state, @lane.id, nil, nil, clock.now_ms, Core::FeedState.new(state, "", clock.now_ms))) }
    happen(:follow, "ann")
    enter.call(:live)
    assert_predicate @show.cues, :ended?
    enter.call(:nobody_broadcasting)
    clock.now_ms += 1000
    enter.call(:live)
    refute_predicate @show.cues, :ended?
    assert_equal [clock.now_ms, "Test"], @show.cues.report.values_at(:began, :noticed)
    advance
    assert_equal 0, told_of("goal1")["value"]
    enter.call(:nobody_broadcasting)
    assert_predicate @show.cues, :ended?
  end

  def test_a_goal_counts_until_its_time_and_stands_there_after_a_restart
    at = Time.at(clock.now_ms / 1000)
    ends = Time.new(at.year, at.month, at.day, at.hour, at.min) + 120
    desk = @show.desks.values.first
    document = Core::Stage::Edit.apply(desk.stage.draft, {"do" => "set", "piece" => "goal1", "values" => {"until" => ends.strftime("%Y-%m-%d %H:%M")}}).document
    desk.put_on_air(clock.now_ms, document:)
    happen(:follow, "ann")
    until_written
    advance(180_000)
    happen(:follow, "bo")
    assert_equal 1, told_of("goal1")["value"]
    until_written
    begin_show
    assert_equal 1, told_of("goal1")["value"]
  end

  def test_what_only_the_draft_shows_counts_nowhere
    stores.feeds.keep(@feed.id, draft_only: true)
    begin_show
    happen(:follow, "ann")
    assert_equal 0, told_of("goal1")["value"]
  end
end
