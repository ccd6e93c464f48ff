# frozen_string_literal: true

require "minitest/mock"
require_relative "../support/lines"
require_relative "../support/web_test"

class GatePagesTest < WebTest
  def setup
    super
    sign_up
    @show = @shows.run(@record.id)
    links_held
  end

  # As a show begins, with links held.
  def links_held
    rules = state["rules"].map { |rule| rule["kind"] == "links" ? rule.merge("on" => true) : rule }
    keep(rules)
  end

  def rules(**changed) = state["rules"].map { |rule| rule["id"] == changed[:id]&.to_s ? rule.merge(changed[:set]) : rule }
  def keep(rules, from: state["version"]) = send_json("/gate/keep", {"rules" => rules, "from" => from})
  def state = JSON.parse(get("/gate/state").body)
  def on_sets(path, values = {}) = send_form("/gate/sets#{path}", values.merge("from" => state["version"]))
  def gate = @show.ask { |show| show.record.gate }

  def log(*texts)
    feed = stores.feeds.create(@record.id, kind: "irc", name: "Marsh", shape: "circle", colour: "#5fb8d6", address: {})
    entries = texts.each_with_index.map do |text, number|
      line = Lines.line((clock.call * 1000) - 60_000_000 + number, text, at_ms: clock.call - 60_000 + number, login: "p#{number}", feed_id: feed.id)
      Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false, [])
    end
    stores.lines.add(@record.id, entries)
  end

  def replayed(run)
    wait_for("the replay") { (run = JSON.parse(get("/gate/replay/#{run["id"]}").body))["state"] != "running" }
    run
  end

  def test_a_line_is_tried_as_anybody_with_the_reasoning
    edited = rules(id: :stopped_words, set: {"words" => "goosebrain"})
    told = send_json("/gate/try", {"rules" => edited, "text" => "y0u g o o s e b r a i n see marsh.example", "role" => "viewer"})
    assert_equal "hold", told["action"]
    assert_equal "y0u goosebrain see marsh.example", told["read_as"]
    assert_equal ["Stopped words", "Links"], told["found"].map { |one| one["label"] }
    assert_equal "y0u ●●●●●●●●●● see marsh.example", told["shown"]
    assert_equal "mask", send_json("/gate/try", {"rules" => edited, "text" => "goosebrain marsh.example", "role" => "moderator"})["action"]
    assert_equal "drop", send_json("/gate/try", {"text" => "again and again", "again" => "2"})["action"]
    assert send_json("/gate/try", {"text" => " "})["empty"]
  end

  def test_an_edit_is_run_over_the_log_before_it_is_kept
    log("see marsh.example", "!ring", "hello", "what a goosebrain")
    edited = rules(id: :stopped_words, set: {"words" => "goosebrain", "action" => "drop"}).map { |rule| rule["id"] == "links" ? rule.merge("on" => false) : rule }
    run = replayed(send_json("/gate/replay", {"rules" => edited, "span" => "hour"}))
    result = run["result"]
    assert_equal [4, 1, 1], result.values_at("lines", "off", "through")
    assert_equal [["off", "what a goosebrain"], ["through", "see marsh.example"]], result["examples"].map { |one| one.values_at("change", "text") }.sort
    assert_equal 4, result["bars"].sum(&:first)
    refute_includes(gate["sets"][0]["rules"].find { |rule| rule["id"] == "stopped_words" }["words"], "goosebrain")
    keep(edited)
    assert_equal("goosebrain", gate["sets"][0]["rules"].find { |rule| rule["id"] == "stopped_words" }["words"])
    until_written
    assert_equal gate, stores.shows.find(@record.id).gate
  end

  def test_a_replay_is_stopped_and_nobody_elses_is_seen
    run = send_json("/gate/replay", {"rules" => rules, "span" => "day"})
    assert_includes %w[stopped done], send_form("/gate/replay/#{run["id"]}/stop")["state"]
    get "/gate/replay/nothing"
    assert_equal 404, last_response.status
  end

  def test_sets_are_named_switched_and_taken_away
    on_sets("", "name" => "Rush")
    assert_equal [["Calm day", "Rush"], 1], [gate["sets"].map { |set| set["name"] }, gate["in_force"]]
    send_form("/gate/use", {"set" => "0", "name" => "Calm day"})
    assert_equal 0, gate["in_force"]
    on_sets("/remove")
    assert_equal(["Rush"], gate["sets"].map { |set| set["name"] })
    on_sets("/remove")
    assert_equal 422, last_response.status
    on_sets("", "name" => "x" * 41)
    assert_equal 422, last_response.status
  end

  # What somebody else does while a long list is being made into a ladder.
  def while_a_ladder_is_made
    made = Bavard::Core::Gate::Ladder.method(:from)
    ladder = lambda do |rules|
      yield if Thread.current == Thread.main
      made.call(rules)
    end
    Bavard::Core::Gate::Ladder.stub(:from, ladder) { keep(rules(id: :stopped_words, set: {"words" => "goosebrain"})) }
  end

  def words_in_force = gate["sets"][gate["in_force"]]["rules"].find { |rule| rule["id"] == "stopped_words" }["words"]

  def test_a_brake_stays_on_while_an_edit_of_the_rules_is_being_kept
    brake = Bavard::Core::Gate::Brake.read({"kind" => "off_picture"}, now_ms: clock.now_ms, by: "Teo").to_h
    while_a_ladder_is_made { @show.ask { |show| show.use_gate(show.record.gate.merge("brake" => brake)) } }
    assert_equal 200, last_response.status
    assert_equal ["goosebrain", "Teo"], [words_in_force, gate["brake"]["by"]]
    assert(@show.ask { |show| show.gatehouse.brake.off_picture? })
  end

  def test_a_hold_that_is_set_while_an_edit_of_the_rules_is_being_kept_stays
    while_a_ladder_is_made { @show.ask { |show| show.use_gate(show.record.gate.merge("hold" => {"ms" => 4000, "by_role" => {}, "leaves_after_ms" => nil})) } }
    assert_equal ["goosebrain", 4000], [words_in_force, gate["hold"]["ms"]]
  end

  def test_rules_that_somebody_else_kept_meanwhile_are_not_written_over
    theirs = rules(id: :stopped_words, set: {"words" => "theirs"})
    keep(rules(id: :stopped_words, set: {"words" => "first"}))
    answer = keep(theirs, from: "0" * 16)
    assert_equal [409, "rules", "first"], [last_response.status, answer["field"], words_in_force]
    assert_match(/\AOdalys changed the rules meanwhile/, answer["error"])
    keep(theirs)
    assert_equal [200, "theirs"], [last_response.status, words_in_force]
  end

  def test_an_edit_of_one_set_is_not_kept_in_another_that_was_chosen_meanwhile
    on_sets("", "name" => "Rush")
    begun = state
    send_form("/gate/use", {"set" => "0", "name" => "Calm day"})
    keep(begun["rules"], from: begun["version"])
    assert_equal 409, last_response.status
    send_form("/gate/sets/rename", {"name" => "Storm", "from" => begun["version"]})
    assert_equal [409, ["Calm day", "Rush"]], [last_response.status, gate["sets"].map { |set| set["name"] }]
    send_form("/gate/use", {"set" => "1", "name" => "Calm day"})
    assert_equal [409, 0], [last_response.status, gate["in_force"]]
  end

  def test_a_set_goes_out_and_comes_back_as_json
    set = JSON.parse(get("/gate/rules.json").body)
    assert_equal set["rules"], send_json("/gate/read", set)["rules"]
    assert_equal "kind", send_json("/gate/read", {"name" => "A", "rules" => [{"kind" => "x"}]})["field"]
    assert_equal 422, last_response.status
  end

  def test_a_brake_has_an_end_that_is_seen
    send_json("/gate/brake", {"kind" => "off_picture", "minutes" => "5"})
    told = @show.ask { |show| show.gatehouse.report(show.now_ms) }[:brake]
    assert_equal ["off_picture", "Odalys", 300_000], told.values_at(:kind, :by, :left)
    clock.now_ms += 300_001
    wait_for("its end") { @show.ask { |show| show.gatehouse.brake.nil? } }
    assert_equal "kind", send_json("/gate/brake", {"kind" => "anchor"})["field"]
  end

  def test_people_are_left_out_for_a_time_and_taken_back
    send_form("/gate/left-out", {"name" => "@Egg_Thief", "minutes" => "10"})
    people = JSON.parse(get("/gate/left-out").body)["people"]
    assert_equal [["Egg_Thief", clock.now_ms + 600_000]], people.map { |one| one.values_at("name", "until") }
    send_form("/gate/left-out/back", {"name" => "egg_thief"})
    assert_empty JSON.parse(get("/gate/left-out").body)["people"]
    send_form("/gate/left-out/back", {"name" => "egg_thief"})
    assert_equal 422, last_response.status
    until_written
    assert_equal(%w[leave_out take_back], stores.deeds.latest(@record.id).map(&:what).last(2))
  end

  def test_lists_come_and_go_as_files
    header "X-CSRF-Token", token_on("/gate")
    post "/gate/list/read", JSON.generate(%w[goose brain]), "CONTENT_TYPE" => "application/octet-stream"
    assert_equal "goose\nbrain", JSON.parse(last_response.body)["text"]
    post "/gate/list/write/csv", {"text" => "goose\n\"brain\""}
    assert_equal "goose\n\"\"\"brain\"\"\"\n", last_response.body
  end
end
