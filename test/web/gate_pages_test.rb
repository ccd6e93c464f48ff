# frozen_string_literal: true

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
    send_json("/gate/keep", {"rules" => rules})
  end

  def rules(**changed) = state["rules"].map { |rule| rule["id"] == changed[:id]&.to_s ? rule.merge(changed[:set]) : rule }
  def state = JSON.parse(get("/gate/state").body)
  def gate = @show.ask { |show| show.record.gate }

  def log(*texts)
    feed = house.feeds.create(@record.id, kind: "irc", name: "Marsh", shape: "circle", colour: "#5fb8d6", address: {})
    entries = texts.each_with_index.map do |text, number|
      line = Lines.line((clock.call * 1000) - 60_000_000 + number, text, at_ms: clock.call - 60_000 + number, login: "p#{number}", feed_id: feed.id)
      Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false, [])
    end
    house.lines.add(@record.id, entries)
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
    send_json("/gate/keep", {"rules" => edited})
    assert_equal("goosebrain", gate["sets"][0]["rules"].find { |rule| rule["id"] == "stopped_words" }["words"])
    until_written
    assert_equal gate, house.shows.find(@record.id).gate
  end

  def test_a_replay_is_stopped_and_nobody_elses_is_seen
    run = send_json("/gate/replay", {"rules" => rules, "span" => "day"})
    assert_includes %w[stopped done], send_form("/gate/replay/#{run["id"]}/stop")["state"]
    get "/gate/replay/nothing"
    assert_equal 404, last_response.status
  end

  def test_sets_are_named_switched_and_taken_away
    send_form("/gate/sets", {"name" => "Rush"})
    assert_equal [["Calm day", "Rush"], 1], [gate["sets"].map { |set| set["name"] }, gate["in_force"]]
    send_form("/gate/use", {"set" => "0"})
    assert_equal 0, gate["in_force"]
    send_form("/gate/sets/remove")
    assert_equal(["Rush"], gate["sets"].map { |set| set["name"] })
    send_form("/gate/sets/remove")
    assert_equal 422, last_response.status
    send_form("/gate/sets", {"name" => "x" * 41})
    assert_equal 422, last_response.status
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
    assert_equal(%w[leave_out take_back], house.deeds.latest(@record.id).map(&:what).last(2))
  end

  def test_lists_come_and_go_as_files
    header "X-CSRF-Token", token_on("/gate")
    post "/gate/list/read", JSON.generate(%w[goose brain]), "CONTENT_TYPE" => "application/octet-stream"
    assert_equal "goose\nbrain", JSON.parse(last_response.body)["text"]
    post "/gate/list/write/csv", {"text" => "goose\n\"brain\""}
    assert_equal "goose\n\"\"\"brain\"\"\"\n", last_response.body
  end
end
