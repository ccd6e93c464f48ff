# frozen_string_literal: true

require_relative "../../support/gathering_test"

# Cards of fellow hosts: by command, by visit, by a press; what platforms say of them, and what the gate lets be seen.
class ShoutOutsTest < GatheringTest
  def test_a_shout_out_by_command_by_visit_and_by_a_press_one_after_another
    stores.fellows.add(@record.id, name: "Heron_House", words: "One nest")
    @show.shout_outs.fellows = stores.fellows.of_show(@record.id)
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
    @reception.receive(@lane, nil, Core::Intake.new(:delete_line, @lane.id, "m#{@number}", nil, clock.now_ms, nil))
    advance
    advance
    assert_nil last("shout")
    assert_predicate last("alert")["off"], :positive?
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

  def test_a_moderator_introduces_the_person_of_a_line_and_plays_the_hosts_own_cue
    say("ann", "hello")
    line_id = @show.lines.to_a.last.id
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
end
