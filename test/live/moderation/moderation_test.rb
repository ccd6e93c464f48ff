# frozen_string_literal: true

require_relative "../../../lib/bavard/steady_clock"
require_relative "../../support/live_test"
require_relative "../../support/minimal_irc"

# What people with a role do while lines are held and shown.
class ModerationTest < LiveTest
  def setup
    super
    @server = MinimalIrc.new
    @clock = Bavard::SteadyClock.new
    make_means_with(@clock)
    @record = make_show_on(@server)
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @show = @shows.run(@record.id).tap(&:prompter_opened)
    wait_for("the feed to be live") { (hub.frames("show:#{@record.id}").last || {})["feeds"]&.first&.fetch("state") == "live" }
  end

  def teardown
    super
    @server.stop
  end

  def air = hub.frames("air:#{@stage.id}")
  def shown = air.flat_map { |frame| frame.dig("in", "chat1") || [] }.map { |card| card["f"].map(&:last).join }
  def gone = air.flat_map { |frame| frame.dig("pulled", "chat1") || [] }
  def frames = hub.frames("prompter:#{@record.id}")
  def cards = frames.flat_map { |frame| frame["lines"] || [] }
  def states = frames.map { |frame| frame["states"] || {} }.reduce({}, :merge)
  def deeds = frames.flat_map { |frame| frame["deeds"] || [] }
  def ask(&block) = @show.ask(&block)
  def hold(ms, **more) = ask { |show| show.use_gate(show.record.gate.merge("hold" => Bavard::Core::Gate::Settings.hold({"ms" => ms}.merge(more.transform_keys(&:to_s))))) }

  # @yield while nothing runs
  def start_again
    @shows.stop
    yield if block_given?
    @lease.close
    @lease = nil
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @show = @shows.run(@record.id).tap(&:prompter_opened)
  end

  # @return [Integer] the line's id
  def say(text, login: "ann")
    @server.say(login, text)
    wait_for("the prompter to have it") { cards.any? { |card| card["f"].map(&:last).join == text } }
    cards.find { |card| card["f"].map(&:last).join == text }["i"]
  end

  def test_a_held_line_goes_by_itself_and_the_log_knows
    hold(300)
    id = say("soon")
    assert_equal "held", cards.last["s"]
    wait_for("it to go") { shown == ["soon"] }
    wait_for("the prompter to know") { states[id.to_s] == "aired" }
    until_written
    row = db[:lines].first(id:)
    assert_equal [false, true, %w[received dressed judged held released shown]], [row[:held], row[:aired], row[:trace].to_a.map(&:first)]
  end

  def test_what_is_pulled_while_held_is_never_shown_and_stays_pulled_over_a_restart
    hold(60_000)
    id = say("never")
    ask { |show| show.pull_line(id, "Teo") }
    wait_for("the deed to be told") { deeds.last&.fetch("by") == "Teo" }
    until_written
    start_again
    refute(ask { |show| show.lines.held?(id) })
    assert_empty shown
  end

  def test_what_was_held_at_a_restart_is_held_again_and_masked_lines_stay_masked
    rules = ask { |show| show.record.gate }["sets"][0]["rules"].map { |rule| rule["id"] == "stopped_words" ? rule.merge("words" => "goosebrain") : rule }
    ask { |show| show.use_gate(show.record.gate.merge("sets" => [{"name" => "A", "rules" => rules}])) }
    say("you goosebrain")
    wait_for("it to be shown") { shown == ["you ●●●●●●●●●●"] }
    hold(60_000)
    id = say("later")
    until_written
    start_again
    assert(ask { |show| show.lines.held?(id) })
    standing = ask { |show| show.desk(@stage.id).air.each_line.map(&:text) }
    assert_equal ["you ●●●●●●●●●●"], standing
  end

  def test_after_a_start_with_the_clock_set_back_what_comes_stands_after_what_was_there
    9.times { |index| say("before #{index}") }
    until_written
    start_again { db[:lines].update(Sequel.lit("shown_at_ms = shown_at_ms + 3600000, arrived_at_ms = arrived_at_ms + 3600000")) }
    wait_for("the feed to be live again") { ask { |show| show.lanes.each_value.map { |lane| lane.state.state } } == [:live] }
    say("after")
    wait_for("it to be shown") { shown.last == "after" }
  end

  # Nobody could pull it meanwhile, and no screen would have painted it: the time that nothing ran does not count.
  def test_what_was_held_has_the_time_left_that_it_had_when_all_ended
    hold(60_000)
    first = say("first")
    second = say("second")
    until_written
    start_again do
      ended_ms = clock.call - 3_600_000
      {first => ended_ms - 20_000, second => ended_ms}.each { |id, arrived_at_ms| db[:lines].where(id:).update(arrived_at_ms:) }
      db[:feeds].update(heard_at_ms: ended_ms - 1000)
    end
    left = ask { |show| show.lines.held_report.to_h { |one| [one[:i], one[:left]] } }
    assert_includes 0..(40_000 + Bavard::Live::ShowLoading::SCREENS_BACK_MS), left[first]
    assert_includes left[first]..60_000, left[second]
    assert_operator left[second] - left[first], :>=, 18_000
    assert_empty shown
  end

  def test_a_picture_that_comes_later_is_in_the_prompter_too
    id = say("hello :wren:")
    ask do |show|
      line = show.lines[id].line
      line.placed = [[6, 6, "https://reedmere.example/wren.png"]]
      line.dress(nil)
      show.prompter.redraw { |one| one.addresses.include?("https://reedmere.example/wren.png") }
    end
    wait_for("the line to be told again") { cards.count { |card| card["i"] == id } == 2 }
    assert_equal "aired", cards.last["s"]
  end

  def test_a_shown_line_is_pulled_and_the_pull_taken_back
    id = say("hello")
    wait_for("it to be shown") { shown.any? }
    deed = ask { |show| show.pull_line(id, "Teo") }
    wait_for("it to leave") { gone == [id] }
    error = assert_raises(Bavard::Error) { ask { |show| show.pull_line(id, "Ibrahim") } }
    assert_includes error.message, "Teo"
    ask { |show| show.undo_deed(deed.id, "Ibrahim") }
    wait_for("it to stand again") { shown == %w[hello hello] }
    assert_raises(Bavard::Error) { ask { |show| show.undo_deed(deed.id, "Teo") } }
    until_written
    kept = stores.deeds.latest(@record.id).last
    assert_equal ["pull", "Teo", "Ibrahim", false], [kept.what, kept.by, kept.undone_by, db[:lines].first(id:)[:pulled]]
  end

  def test_a_line_that_a_rule_holds_waits_for_a_person
    rules = ask { |show| show.record.gate }["sets"][0]["rules"].map { |rule| rule["kind"] == "links" ? rule.merge("on" => true) : rule }
    ask { |show| show.use_gate(show.record.gate.merge("sets" => [{"name" => "A", "rules" => rules}])) }
    id = say("see marsh.example")
    assert_equal "waits", cards.last["s"]
    assert_equal "Links", cards.last["rule"]
    assert_empty shown
    ask { |show| show.let_line_go(id, "Odalys") }
    wait_for("it to go") { shown == ["see marsh.example"] }
    assert_raises(Bavard::Error) { ask { |show| show.let_line_go(id, "Odalys") } }
  end

  def test_a_line_that_was_kept_off_can_be_let_go
    id = say("!ring K41207")
    ask { |show| show.let_line_go(id, "Odalys") }
    wait_for("it") { shown == ["!ring K41207"] }
  end

  def test_who_is_left_out_leaves_with_what_stands_and_comes_back_with_undo
    id = say("one")
    wait_for("it to be shown") { shown.any? }
    deed = ask { |show| show.leave_out("ANN", "Teo") }
    wait_for("it to leave") { gone == [id] }
    say("two")
    assert_equal "off", cards.last["s"]
    ask { |show| show.undo_deed(deed.id, "Teo") }
    say("three")
    wait_for("the new one") { shown.last == "three" }
    refute_includes shown, "two"
  end

  def test_what_is_large_pinned_and_marked_stands_again_after_a_restart
    first = say("first")
    second = say("second")
    wait_for("both to be shown") { shown == %w[first second] }
    ask do |show|
      show.pin_line(first, true, "Teo")
      show.mark_line(first, "answered", true, "Teo")
      show.enlarge(second, "Teo")
      show.undo_deed(show.enlarge(first, "Teo").id, "Ibrahim")
      show.pin_line(second, true, "Teo")
      show.pin_line(second, false, "Teo")
    end
    until_written
    start_again
    assert_equal([[first], second, ["answered"]], ask { |show| [show.prompter.pins, show.prompter.large, show.prompter.marks(first)] })
    wait_for("it to stand large") { air.last.key?("large") && air.last["large"]["i"] == second }
  end

  def test_a_line_is_put_on_the_stage_large_until_it_is_taken_off_or_pulled
    id = say("what bird is it?")
    ask { |show| show.enlarge(id, "Odalys") }
    wait_for("it to be large") { air.last["large"]&.fetch("i") == id }
    ask { |show| show.pull_line(id, "Teo") }
    wait_for("it to be off") { air.any? { |frame| frame.key?("large") && frame["large"].nil? } }
  end

  def test_chat_is_off_the_picture_at_once_and_back_after_the_brake
    id = say("one")
    wait_for("it to be shown") { shown == ["one"] }
    brake = Bavard::Core::Gate::Brake.read({"kind" => "off_picture"}, now_ms: @clock.call, by: "Odalys")
    ask { |show| show.use_gate(show.record.gate.merge("brake" => brake.to_h)) }
    wait_for("it to leave") { gone == [id] }
    say("two")
    ask { |show| show.use_gate(show.record.gate.merge("brake" => nil)) }
    wait_for("both to stand") { shown == %w[one one two] }
  end

  def test_notes_pins_and_marks_are_seen_by_all
    id = say("hello")
    until_written
    ask { |show| show.pin_line(id, true, "Odalys") }
    ask { |show| show.mark_line(id, "answered", true, "Teo") }
    ask { |show| show.note_person(@feed.id, "ann", "rings at the coast", "Teo") }
    wait_for("all of it") { deeds.map { |deed| deed["what"] } == %w[pin answered note] }
    assert_equal [id], frames.filter_map { |frame| frame["pins"] }.last.map { |card| card["i"] }
    assert_equal ["answered"], frames.map { |frame| frame["marks"] || {} }.reduce({}, :merge)[id.to_s]
    until_written
    assert_equal ["rings at the coast", "Teo", 1], stores.known.find(@record.id, @feed.id, "ann").then { |known| [known.note, known.noted_by, known.lines] }
  end

  def test_where_it_was_painted_and_why_it_left_is_in_its_trace
    id = say("hello")
    wait_for("it to be shown") { shown.any? }
    connection = Struct.new(:id, :env).new(1, {"REMOTE_ADDR" => "127.0.0.1"})
    desk = ask { |show| show.desk(@stage.id) }
    @show.screen(desk, :opened, connection)
    @show.screen(desk, :heard, connection, JSON.generate({"w" => 1920, "h" => 1080, "painted" => [[id, 20], ["x", 1], [7, 1]]}))
    wait_for("its trace") { journal.waiting.zero? && db[:lines].first(id:)[:trace].to_a.any? { |step, _, what| step == "painted" && what.to_a[1].include?("1920") } }
  end

  # Whatever they wrote leaves every screen and every page, and what the program knows of them.
  def test_a_viewer_is_forgotten_while_the_show_runs
    standing = say("my street is Reed Lane 4", login: "kestrel")
    hold(60_000)
    waiting = say("and my number is 5", login: "kestrel")
    others = say("hello", login: "ann")
    ask { |show| show.moderation.pin_line(standing, true, "Teo") }
    ask { |show| show.note_person(show.lanes.keys.first, "kestrel", "lives in Reed Lane", "Teo") }
    before = frames.size
    ask { |show| show.moderation.erase(show.lanes.keys.first, "kestrel", "Odalys") }
    wait_for("it to leave the picture") { gone == [standing] }
    wait_for("pages to have it anew") { cards.last(2).map { |card| [card["i"], card["f"]] } == [[standing, []], [waiting, []]] }
    told = JSON.generate([frames.drop(before), ask { |show| [show.prompter.whole.call, show.lanes.each_value.map { |lane| lane.report(show.now_ms) }] }])
    %w[kestrel Reed number].each { |word| refute_includes told, word }
    assert_equal [[others], []], ask { |show| [show.lines.held_report.map { |one| one[:i] }, show.prompter.pins] }
    [standing, waiting].each { |id| assert_raises(Bavard::Gone) { ask { |show| show.moderation.let_line_go(id, "Teo") } } }
    refute(ask { |show| show.gatehouse.memory.known_ms(Bavard::Core::Chat::Person.new(show.lanes.keys.first, "Kestrel", "Kestrel"), show.now_ms) })
  end
end
