# frozen_string_literal: true

require_relative "../support/house_test"

# What events and lines do besides standing in chat: goals, challenges, counters, shout-outs, captions, and when a broadcast is
# noticed.
class GatheringsTest < HouseTest
  Core = Bavard::Core
  PIECES = [["goal", {"counted" => "followers", "to" => 3, "title" => "Three of you"}], ["newest", {}],
    ["challenge", {"total" => 10, "title" => "Feeder", "begins" => "follow", "minutes" => 5}], ["counter", {"command" => "!ringed", "cool_down_s" => 1}],
    ["shout_out", {"length_s" => 5, "cool_down_s" => 60}], ["captions", {"least_s" => 1, "reading_speed" => 10}], ["alerts", {}]].freeze

  PIECES_BUILT = PIECES.to_h { |kind, values| ["#{kind}1", Core::Stage::Pieces.kind(kind).build("#{kind}1", values)] }.freeze

  def setup
    super
    @record = make_show(document: Core::Stage::Document.empty.merge("pieces" => PIECES_BUILT.values), on_air: true)
    begin_show
  end

  def begin_show
    @record = house.shows.find(@record.id)
    @show = Bavard::Live::Show.new(@record, house)
    @lane = @show.lanes.values.first
    @reception = Bavard::Live::Reception.new(@show, house, Bavard::Live::DeskReport.new(@show, house))
    advance
  end

  def said(login, text, badges: [], paid: nil)
    Core::Said.new(login, login.capitalize, nil, badges, text, false, false).tap { |said| said.paid = paid }
  end

  def take(kind, body)
    @number = (@number || 0) + 1
    @reception.take(@lane, nil, Core::Intake.new(kind, @lane.id, "m#{@number}", nil, clock.now_ms, body))
    advance
  end

  def happen(what, login, text = "", number: nil, paid: nil) = take(:event, Core::Happened.new(what, said(login, text, paid:), number))
  def say(login, text, badges: []) = take(:line, said(login, text, badges:))

  def advance(ms = 100)
    clock.now_ms += ms
    @show.send(:advance)
  end

  def air = hub.frames("air:#{@stage.id}")
  def last(key, piece = nil) = air.reverse_each.find { |frame| frame.key?(key) && (piece.nil? || frame[key].key?(piece)) }&.fetch(key)
  def live(piece) = last("live", piece)[piece]
  def told_of(piece) = last("counted", piece)[piece]
  def reached = @show.cues.queue.waiting.count { |one| one.cue["kind"] == "reached" }

  def test_a_goal_that_is_reached_asks_the_cue_sheet_once
    %w[ann bo].each { |login| happen(:follow, login) }
    assert_equal [2, false], told_of("goal1").values_at("value", "reached")
    happen(:follow, "cy")
    assert_equal [3, true], told_of("goal1").values_at("value", "reached")
    assert_equal 1, reached
    happen(:follow, "di")
    assert_equal 1, reached
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
    house.stages.define_singleton_method(:keep_live) { |*given| super(*given).tap { kept += 1 } }
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

  def test_a_shout_out_by_command_by_visit_and_by_a_press_one_after_another
    house.fellows.add(@record.id, name: "Heron_House", words: "One nest")
    @show.shout_outs.fellows = house.fellows.of_show(@record.id)
    say("ann", "!hello @heron_house")
    assert_nil last("shout")
    say("mod", "!hello @heron_house", badges: ["moderator/1"])
    assert_equal ["Heron_House", "One nest"], last("shout").values_at("n", "w")
    happen(:visit, "saltpan", number: 41)
    assert_equal ["Saltpan"], @show.shout_outs.waiting
    advance(5000)
    advance(1000)
    assert_equal "Saltpan", last("shout")["n"]
    advance(6000)
    assert_nil last("shout")
    say("mod", "!hello heron_house", badges: ["moderator/1"])
    assert_empty @show.shout_outs.waiting
    assert @show.shout_outs.add("heron_house")
    refute @show.shout_outs.add(" ")
  end

  def stop(*words)
    rules = Core::Gate::RuleSet::DEFAULT["rules"].map { |rule| rule["kind"] == "stopped_words" ? rule.merge("on" => true, "words" => words.join("\n")) : rule }
    sets = @show.gatehouse.document["sets"].map { |set| set.merge("rules" => rules) }
    @show.use_gate(@show.gatehouse.document.merge("sets" => sets))
  end

  def test_names_that_may_not_be_seen_are_in_no_list_and_on_no_card
    stop("bwigru")
    happen(:follow, "ann")
    happen(:follow, "bwigru")
    assert_equal [["●●●●●●", ""]], told_of("newest1")["rows"]
    @show.leave_out("bwigru", "Teo")
    advance
    assert_equal [["Ann", ""]], told_of("newest1")["rows"]
    say("mod", "!hello bw1gru", badges: ["moderator/1"])
    assert_nil last("shout")
    say("mod", "!hello bwigru fan", badges: ["moderator/1"])
    assert_equal "●●●●●● fan", last("shout")["n"]
  end

  def test_a_visit_that_is_deleted_takes_its_card_and_its_alert_along
    happen(:visit, "saltpan", number: 41)
    assert_equal ["Saltpan", "visit"], [last("shout")["n"], last("alert")["k"]]
    @reception.take(@lane, nil, Core::Intake.new(:delete_line, @lane.id, "m#{@number}", nil, clock.now_ms, nil))
    advance
    advance
    assert_nil last("shout")
    assert_predicate last("alert")["off"], :positive?
  end

  def test_the_first_of_somebody_is_known_after_a_restart
    happen(:follow, "ann")
    first = @show.prompter.instance_variable_get(:@noted).keys.last
    assert @show.tallies.first?(first)
    until_written
    begin_show
    happen(:follow, "ann")
    happen(:tip, "ann", paid: Core::Amount.money(400, "EUR"))
    followed, tipped = @show.prompter.instance_variable_get(:@noted).keys.last(2)
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
    @show.let_line_go(@show.prompter.instance_variable_get(:@noted).keys.last, "Teo")
    advance
    assert_equal "Ann gave 4.00 EUR", last("alert")["w"].map(&:last).join
  end

  def profile(login, **more) = take(:profile, Core::Profile.new(login:, **more))
  def let_platform_answer = @lane.define_singleton_method(:ask_about) { |login| (@asked ||= []) << login }

  def test_a_platform_is_asked_about_somebody_without_a_card_and_waited_for
    let_platform_answer
    stop("bwigru")
    assert @show.shout_outs.add("@Tern_Tower")
    advance
    assert_nil last("shout")
    profile("nobody_asked", name: "Nobody")
    profile("tern_tower", name: "Tern Tower", words: "no bwigru here", last_shown: "see evil.example/x", followers: 8312)
    told = last("shout")
    assert_equal ["Tern Tower", "no ●●●●●● here", 8312, ["tern_tower"]], [told["n"], told["w"], told["c"], @lane.instance_variable_get(:@asked)]
  end

  def test_a_platform_that_does_not_answer_holds_no_card_up
    let_platform_answer
    @show.shout_outs.add("tern_tower")
    advance(1400)
    assert_nil last("shout")
    advance(200)
    assert_equal "tern_tower", last("shout")["n"]
    profile("tern_tower", name: "Too late")
    assert_equal "tern_tower", last("shout")["n"]
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
    enter = ->(state) { @reception.take(@lane, nil, Core::Intake.new(:feed_state, @lane.id, nil, nil, clock.now_ms, Core::FeedState.new(state, "", clock.now_ms))) }
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
    lantern = house.feeds.create(@record.id, kind: "polling", name: "Lantern", shape: "diamond", colour: "#e58fb0", platform: "lantern", address:)
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
    address = house.feeds.find(@feed.id).address
    @show.remove_feed(@feed.id)
    again = house.feeds.create(@record.id, kind: "irc", name: "Again", shape: "circle", colour: "#5fb8d6", address:)
    again.wanted = false
    @show.add_feed(again)
    @lane = @show.lanes[again.id]
    tell_totals(followers: 100)
    assert_equal 100, @show.totals["followers"]
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

  def test_a_moderator_introduces_the_person_of_a_line_and_plays_the_hosts_own_cue
    say("ann", "hello")
    line_id = @show.prompter.instance_variable_get(:@noted).keys.last
    @show.introduce(line_id, "Teo")
    advance
    assert_equal "Ann", last("shout")["n"]
    own = @show.cues.own.first
    @show.play_own(own["id"], "Teo")
    advance
    assert_equal "Odalys", last("alert")["w"].map(&:last).join
    assert_raises(Bavard::Error) { @show.play_own("cue_nothing", "Teo") }
    assert_equal %w[shout_out cue_own], @show.prompter.instance_variable_get(:@deeds).map(&:what)
  end

  def test_what_only_the_draft_shows_counts_nowhere
    house.feeds.keep(@feed.id, draft_only: true)
    begin_show
    happen(:follow, "ann")
    assert_equal 0, told_of("goal1")["value"]
  end
end
