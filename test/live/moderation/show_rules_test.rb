# frozen_string_literal: true

require_relative "../../support/still_show"

# What people do in a running show, step by step, and how each is taken back.
class ShowRulesTest < StillShowTest
  def setup
    super
    @record = make_show(document: with_chat(stay_ms: "for good"), on_air: true)
    begin_show
  end

  def undo(deed) = @show.undo_deed(deed.id, "Ibrahim").tap { advance }

  def leave_out(name, **more) = @show.leave_out(name, "Teo", **more).tap { advance }

  def test_leaving_somebody_out_is_taken_back_with_all_that_left_with_them
    hold(60_000, by_role: {"moderator" => 0})
    held = say("held", login: "ann")
    shown = say("shown", login: "ann", badges: ["moderator"])
    other = say("another's", login: "bo", badges: ["moderator"])
    deed = leave_out("Ann")
    assert_equal [[other], %w[pulled pulled aired]], [painted, [held, shown, other].map { |id| state(id) }]
    undo(deed)
    assert_equal [[other, shown], "aired"], [painted, state(shown)]
    assert_equal "held", state(held)
    assert @show.lines.held?(held)
    until_written
    assert_equal 0, db[:left_out].count
  end

  def test_what_was_pulled_before_stays_pulled_when_leaving_out_is_taken_back
    id = say("slip", login: "ann")
    @show.pull_line(id, "Teo")
    undo(leave_out("ann"))
    assert_equal [[], "pulled"], [painted, state(id)]
  end

  def test_leaving_out_for_a_time_ends_by_itself
    leave_out("ann", until_ms: clock.now_ms + 60_000)
    say("too early", login: "ann")
    assert_empty painted
    advance(60_000)
    id = say("in time", login: "ann")
    assert_equal [id], painted
  end

  def test_on_one_feed_alone_another_feeds_namesake_stays
    leave_out("ann", feed_id: @lane.id + 1)
    assert_equal [say("not me", login: "ann")], painted
  end

  def test_taking_somebody_back_can_be_taken_back
    leave_out("ann", feed_id: @lane.id)
    deed = @show.take_back("ANN", "Odalys", feed_id: @lane.id)
    undo(deed)
    say("still out", login: "ann")
    assert_empty painted
    assert_raises(Bavard::Error) { @show.take_back("nobody", "Odalys") }
    assert_raises(Bavard::Error) { leave_out(" @ ") }
  end

  def test_a_deed_is_taken_back_once_and_those_that_cannot_be_say_so
    id = say("hello")
    deed = @show.pull_line(id, "Teo")
    undo(deed)
    assert_includes assert_raises(Bavard::Error) { undo(deed) }.message, "Ibrahim took that back already"
    note = @show.note_person(@lane.id, "ann", "rings at the coast", "Teo")
    assert_includes assert_raises(Bavard::Error) { undo(note) }.message, "cannot be taken back here"
    assert_includes assert_raises(Bavard::Error) { @show.undo_deed(1, "Teo") }.message, "too long ago"
  end

  def test_marks_and_pins_go_and_come_back
    id = say("which bird?")
    pinned = @show.pin_line(id, true, "Teo")
    assert_raises(Bavard::Error) { @show.pin_line(id, true, "Odalys") }
    undo(pinned)
    assert_empty @show.prompter.pins
    answered = @show.mark_line(id, "answered", true, "Teo")
    unmarked = @show.mark_line(id, "answered", false, "Teo")
    undo(unmarked)
    assert_equal ["answered"], @show.prompter.marks(id)
    undo(answered)
    assert_empty @show.prompter.marks(id)
    assert_raises(Bavard::Error) { @show.mark_line(id, "loved", true, "Teo") }
  end

  def test_the_large_line_goes_back_to_the_one_before
    first, second = %w[first second].map { |text| say(text) }
    @show.enlarge(first, "Teo")
    deed = @show.enlarge(second, "Teo")
    undo(deed)
    assert_equal first, @show.prompter.large
    undo(@show.enlarge(nil, "Odalys"))
    assert_equal first, @show.prompter.large
    @show.pull_line(first, "Teo")
    assert_nil @show.prompter.large
  end

  def test_a_line_that_is_long_gone_can_not_be_found
    assert_includes assert_raises(Bavard::Error) { @show.pull_line(1, "Teo") }.message, "left long ago"
    assert_raises(Bavard::Error) { @show.let_line_go(1, "Teo") }
  end

  def test_what_is_on_the_picture_already_is_not_let_go
    id = say("hello")
    assert_includes assert_raises(Bavard::Error) { @show.let_line_go(id, "Teo") }.message, "on the picture already"
  end

  # What a cue plays of a line goes with the line.
  def test_the_cue_of_a_pulled_line_is_pulled_with_it
    stores.stages.put_on_air(@stage.id, 2, with_chat.merge("pieces" => with_chat["pieces"] + [Core::Pieces.kind("alerts").build("alerts1")]), 1)
    begin_show
    alert = -> { frames("air:#{@stage.id}").reverse_each.find { |frame| frame.key?("alert") }&.fetch("alert") }
    2.times { |number| take(:event, Core::Happened.new(:tip, said("p#{number}", "for a box", paid: Core::Amount.money(500, "EUR")), nil)) }
    lines = frames("prompter:#{@record.id}").flat_map { |frame| frame["lines"] || [] }.last(2).map { |card| card["i"] }
    assert_equal "tip", alert.call["k"]
    assert_equal 1, @show.cues.queue.waiting.size
    @show.pull_line(lines[1], "Teo")
    advance
    assert_empty @show.cues.queue.waiting
    assert @show.cues.queue.playing
    @show.pull_line(lines[0], "Teo")
    advance
    assert_nil @show.cues.queue.playing
    assert_raises(Bavard::Error) { @show.play_again(lines[0], "Teo") }
  end

  def test_a_paused_queue_keeps_its_order_and_goes_on_from_there
    tips = [Core::Happened.new(:tip, said("ann", "for a box", paid: Core::Amount.money(500, "EUR")), nil), Core::Happened.new(:follow, said("bo", ""), nil)]
    @show.direct_cues("cue_pause", nil, "Teo")
    tips.each { |tip| take(:event, tip) }
    assert_equal [nil, 2], [@show.cues.queue.playing, @show.cues.queue.waiting.size]
    @show.direct_cues("cue_go_on", nil, "Teo")
    advance
    assert_equal "ann", @show.cues.queue.playing.events.first.login
    @show.direct_cues("cue_off", @show.cues.queue.waiting.first.id, "Teo")
    assert_empty @show.cues.queue.waiting
    assert_raises(Bavard::Error) { @show.direct_cues("cue_off", 99, "Teo") }
    until_written
    assert_equal %w[cue_pause cue_go_on cue_off], stores.deeds.latest(@record.id).map(&:what)
  end
end
