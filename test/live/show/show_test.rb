# frozen_string_literal: true

require_relative "../../../lib/bavard/steady_clock"
require_relative "../../support/live_test"
require_relative "../../support/minimal_irc"

# A running show in this process, with a real feed from a minimal server.
class ShowTest < LiveTest
  def setup
    super
    @server = MinimalIrc.new
    @clock = Bavard::SteadyClock.new
    make_means_with(@clock)
    @record = make_show_on(@server)
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @show = @shows.run(@record.id)
    wait_for("the feed to be live") { report["feeds"]&.first&.fetch("state") == "live" }
  end

  def teardown
    super
    @server.stop
  end

  def report = hub.frames("show:#{@record.id}").last || {}
  def figures = report.fetch("figures", {})
  def air_frames = hub.frames("air:#{@stage.id}")
  def shown = air_frames.flat_map { |frame| frame.dig("in", "chat1") || [] }

  def test_the_signal_lines_figures_are_true
    @server.say("ann", "one")
    @server.say("ann", "!ring K41207")
    @server.say("ann", "two")
    wait_for("three lines") { figures["in"] == 3 }
    assert_equal [3, 1, 2], figures.values_at("in", "off", "aired")
    assert_equal %w[one two], shown.map { |card| card["f"].map(&:last).join }
  end

  def test_who_is_left_out_is_shown_nowhere_from_now_on
    @show.ask { |show| show.leave_out("Ann", "Odalys") }
    @server.say("ann", "hidden")
    @server.say("bo", "seen")
    wait_for("the line") { shown.any? }
    assert_equal ["bo"], shown.map { |card| card["n"] }
    until_written
    assert_equal ["Ann"], stores.left_out.of_show(@record.id, 0).map(&:name)
  end

  def test_every_line_is_in_the_log_with_its_verdict
    @server.say("ann", "hello")
    @server.say("ann", "!ring")
    wait_for("two lines") { figures["in"] == 2 }
    until_written
    entries = stores.lines.latest(@record.id, 10)
    assert_equal [["hello", :pass, nil, true], ["!ring", :drop, "command_lines", false]],
      entries.map { |entry| [entry.line.text, entry.verdict.action, entry.verdict.rule, entry.aired] }
  end

  def test_an_edit_shows_in_the_draft_and_only_put_on_air_brings_it_to_viewers
    before = air_frames.size
    @show.ask { |show| show.desk(@stage.id).editor.edit({"do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 50}}) }
    wait_for("the draft") { hub.frames("draft:#{@stage.id}").last&.dig("style", "pieces", 0, "css", "--text-size") == "50px" }
    assert_equal before, air_frames.size
    assert_equal 2, @show.ask { |show| show.desk(@stage.id).put_on_air(show.now_ms) }
    wait_for("the air") { air_frames.last&.dig("style", "pieces", 0, "css", "--text-size") == "50px" }
    assert_equal 2, air_frames.last.dig("style", "revision")
    until_written
    kept = stores.stages.find(@stage.id)
    assert_equal [2, kept.draft], [kept.revision, kept.on_air]
  end

  def test_one_gesture_is_undone_in_one_step
    edit = ->(x) { @show.ask { |show| show.desk(@stage.id).editor.edit({"do" => "set", "piece" => "chat1", "values" => {"x" => x}, "gesture" => "g"}) } }
    [10, 20, 30].each { |x| edit.call(x) }
    @show.ask { |show| show.desk(@stage.id).editor.undo }
    x = -> { @show.ask { |show| show.desk(@stage.id).stage.draft["pieces"][0]["x"] } }
    assert_equal 0, x.call
    @show.ask { |show| show.desk(@stage.id).editor.redo }
    assert_equal 30, x.call
  end

  def test_a_test_goes_to_that_links_screens_and_nowhere_else
    @show.ask { |show| show.desk(@stage.id).send_test(3, show.now_ms) }
    wait_for("three test lines") { shown.size == 3 }
    assert_equal ["test"], shown.map { |card| card["o"] }.uniq
    assert_equal 0, figures["in"]
    until_written
    assert_empty stores.lines.latest(@record.id, 10)
  end

  def test_a_test_in_a_hosts_own_words_has_a_feeds_mark_and_goes_where_they_say
    feed = @show.ask { |show| show.lanes.keys.first }
    @show.ask { |show| show.desk(@stage.id).send_test(1, show.now_ms, name: "Ann", text: "is this readable?", feed_id: feed) }
    wait_for("the test line") { shown.size == 1 }
    assert_equal ["Ann", "is this readable?"], [shown[0]["n"], shown[0]["f"].flatten.grep(String).find { |words| words.include?("readable") }]
    refute_equal Bavard::Live::StageDesk::TEST_MARK, shown[0]["m"]
    @show.ask { |show| show.desk(@stage.id).send_test(1, show.now_ms, text: "only the draft", draft_only: true) }
    wait_for("it in the draft") { hub.frames("draft:#{@stage.id}").any? { |frame| JSON.generate(frame).include?("only the draft") } }
    refute(shown.any? { |card| JSON.generate(card).include?("only the draft") })
  end

  def test_a_cleared_screen_stays_clear_after_a_restart
    @server.say("ann", "old news")
    wait_for("the line") { shown.any? }
    @show.ask { |show| show.clear_air(@stage.id) }
    wait_for("the line to go") { air_frames.last["pulled"] }
    until_written
    again = Bavard::Live::Show.new(stores.shows.find(@record.id), means)
    assert_equal 0, again.desks[@stage.id].air.standing.tap { again.desks[@stage.id].air.flush(@clock.call) }
  end

  def test_a_rehearsal_plays_into_the_draft_alone
    @show.ask { |show| show.desk(@stage.id).room.play(scripts["quiet_dawn"], show.now_ms) }
    wait_for("a rehearsed line") do
      hub.frames("draft:#{@stage.id}").any? do |frame|
        frame.dig("in", "chat1")&.any? do |card|
          card["o"] == "rehearsal"
        end
      end
    end
    assert_empty shown
    @show.ask { |show| show.desk(@stage.id).room.play(nil, show.now_ms) }
    assert_nil(@show.ask { |show| show.desk(@stage.id).room.rehearsal })
  end

  def test_a_held_rehearsal_lets_time_stand_still_in_the_draft_and_costs_nothing
    desk = @show.ask { |show| show.desk(@stage.id) }
    @show.ask { |show| desk.editor.edit({"do" => "set", "piece" => "chat1", "values" => {"at_most" => 50, "stay_ms" => "for good"}}) && show }
    @show.ask { |show| desk.room.play(scripts["quiet_dawn"], show.now_ms, rate: 600) }
    wait_for("a rehearsed line") { desk.draft.standing.positive? }
    @show.ask { |show| desk.room.hold("hold", show.now_ms) }
    wait_for("the draft to rest") { @show.ask { desk.draft.due_ms.nil? } }
    standing = desk.draft.standing
    @show.ask { |show| desk.room.hold("step", show.now_ms) }
    wait_for("one line more") { desk.draft.standing == standing + 1 }
    wait_for("the draft to rest again") { @show.ask { desk.draft.due_ms.nil? && desk.room.due_ms.nil? } }
    @show.ask { |show| desk.room.hold("on", show.now_ms) }
    wait_for("the next lines") { desk.draft.standing > standing + 1 }
  end

  def test_disconnecting_stops_lines_and_connecting_brings_them_back
    @show.ask { |show| show.want_feed(@feed.id, false) }
    wait_for("the feed to be off") { report["feeds"].first["state"] == "off" }
    @show.ask { |show| show.want_feed(@feed.id, true) }
    wait_for("the feed to be live") { report["feeds"].first["state"] == "live" }
    wait_for("the server to see us") { @server.clients >= 1 }
    @server.say("ann", "again")
    wait_for("the line") { shown.any? }
  end

  def test_what_goes_wrong_in_a_question_is_told_to_who_asked_and_the_show_goes_on
    assert_raises(Bavard::Error) { @show.ask { |show| show.desk(9_999_999) } }
    @server.say("ann", "still here")
    wait_for("the line") { shown.any? }
  end

  def test_a_new_link_ends_the_old_one
    token = @show.ask { |show| show.desk(@stage.id).renew_link }
    assert_equal({"closed" => true}, air_frames.last)
    assert_nil @shows.by_token(@stage.token)
    assert_equal @show, @shows.by_token(token).first
    until_written
    assert_equal token, stores.stages.find(@stage.id).token
  end
end
