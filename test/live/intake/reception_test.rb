# frozen_string_literal: true

require_relative "../../support/live_test"

# What happens to intakes that no server in these tests sends by itself.
class ReceptionTest < LiveTest
  def setup
    super
    @record = make_show(document: with_chat(stay_ms: "for good"), on_air: true)
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @reception = @show.reception
    %w[ann bo ann].each_with_index { |login, index| take(:line, said(login, "line #{index}"), "m#{index}") }
  end

  def said(login, text) = Bavard::Core::Said.new(login, login.capitalize, nil, [], text, false, false)

  # A lane that was never connected has no runner, and hears what no runner says.
  def take(kind, body = nil, platform_id = nil)
    @reception.receive(@lane, nil, Bavard::Core::Intake.new(kind, @lane.id, platform_id, nil, clock.now_ms, body))
    clock.now_ms += 100
    @show.desks.each_value { |desk| desk.advance(clock.now_ms) { true } }
  end

  def standing = @show.desks.values.first.air.standing

  def pulled
    until_written
    stores.lines.latest(@record.id, 10).map(&:pulled)
  end

  def test_a_silenced_persons_lines_leave_every_stage_and_the_log_knows
    assert_equal 3, standing
    take(:clear_person, "ann")
    assert_equal [1, [true, false, true]], [standing, pulled]
    assert_equal [true, nil, true], @lane.lines.map { |card| card[:pulled] }
  end

  # @param at_ms [Integer] by the platform's clock
  def tell(body, platform_id, at_ms)
    @reception.receive(@lane, nil, Bavard::Core::Intake.new(:line, @lane.id, platform_id, at_ms, clock.now_ms, body))
    until_written
  end

  # What was said while the line was cut is told again with the platform's own times.
  def test_what_a_platform_tells_again_stands_from_when_it_was_said_whichever_of_the_clocks_goes_wrong
    [3_600_000, -3_600_000].each do |behind_ms|
      Bavard::Core::Chat::PlatformClock::LATEST.times { |number| tell(said("bo", "now"), "now #{behind_ms} #{number}", clock.now_ms - behind_ms - 30) }
      again = said("ann", "again").tap { |one| one.history = true }
      tell(again, "again #{behind_ms}", clock.now_ms - behind_ms - 9000)
      line = stores.lines.latest(@record.id, 1).first.line
      assert_equal ["again", clock.now_ms - 8970], [line.text, line.shown_at_ms], "#{behind_ms} ms behind"
    end
  end

  def test_a_chat_that_is_emptied_leaves_nothing
    take(:clear_all)
    assert_equal [0, [true, true, true]], [standing, pulled]
  end

  def test_the_host_is_known_by_the_account_they_are_signed_in_with
    @lane.feed.permission = Bavard::Core::Permission.new(1, "pond", "Bo", "Whoever", ["read"])
    roles = []
    @show.happenings.define_singleton_method(:said) { |line| roles << line.person.roles }
    %w[bo ann whoever].each_with_index { |login, index| take(:line, said(login, "!hello teo"), "h#{index}") }
    assert_equal [%w[host viewer], %w[viewer], %w[viewer]], roles
  end

  def words = @lane.lines.map { |card| card[:f].map(&:last).join }
  def edit(id, text, login: nil) = take(:edit_line, Bavard::Core::Edited.new(login, text, nil), id)

  # @return [Bavard::Store::Lines::Entry] with its trace
  def kept_second = stores.lines.latest(@record.id, 10)[1].then { |entry| stores.lines.find(@record.id, entry.line.id) }

  def test_a_line_that_is_changed_says_the_other_thing_where_it_stands
    edit("m1", "line one, I mean")
    assert_equal [["line 0", "line one, I mean", "line 2"], 3], [words, standing]
    assert_equal [nil, true, nil], @lane.lines.map { |card| card[:ed] }
    assert_equal({"chat1" => ["line one, I mean"]}, hub.frames("air:#{@show.desks.keys.first}").last["again"].transform_values { |cards| cards.map { |card| card["f"][0][1] } })
    until_written
    entry = kept_second
    assert_equal ["line one, I mean", ["edited", clock.now_ms - 100, "line 1"]], [entry.line.text, entry.trace.last]
    edit("m1", "line one, I mean")
    until_written
    assert_equal 1, kept_second.trace.count { |name, *| name == "edited" }
  end

  def test_a_line_that_is_changed_into_what_the_gate_keeps_off_leaves_and_somebody_may_show_it
    rules = @record.gate["sets"][0]["rules"].map { |rule| rule.merge("on" => rule["kind"] == "command_lines") }
    @show.use_gate(@record.gate.merge("sets" => [@record.gate["sets"][0].merge("rules" => rules)]))
    edit("m1", "!ring K41207")
    assert_equal [2, :off, "Command lines"], [standing, @show.lines.to_a[1].state.name, @lane.lines[1][:off]]
    edit("m1", "line 1")
    assert_equal [2, :off], [standing, @show.lines.to_a[1].state.name], "a line that was taken off does not come back by itself"
    @show.let_line_go(@show.lines.to_a[1].id, "Teo")
    @show.desks.each_value { |desk| desk.advance(clock.now_ms) { true } }
    assert_equal 3, standing
  end

  def test_nobody_changes_what_somebody_else_said_and_what_nobody_knows_is_nothing
    edit("m1", "I was never here", login: "ann")
    edit("nowhere", "x")
    assert_equal ["line 0", "line 1", "line 2"], words
    until_written
    assert_equal ["line 0", "line 1", "line 2"], stores.lines.latest(@record.id, 10).map { |entry| entry.line.text }
    edit("m1", "yes, me", login: "bo")
    assert_equal "yes, me", words[1]
  end

  def test_a_delete_that_comes_before_its_line_takes_it_away
    take(:delete_line, nil, "late")
    take(:line, said("ann", "too late"), "late")
    take(:line, said("ann", "another"), "other")
    assert_equal [4, [false, false, false, true, false]], [standing, pulled]
    assert_equal %w[deleted], @show.prompter.whole.call[:lines].select { |card| card[:f].to_s.include?("too late") }.map { |card| card[:s] }
    # Once it has come, it is a line like any other.
    take(:line, said("bo", "again"), "late")
    assert_equal 4, standing
  end

  def test_a_prompter_that_opens_learns_from_where_on_it_has_all_there_are
    before = @show.prompter.whole.call
    assert_equal [0, 3], [before[:from], before[:lines].size]
    Bavard::Live::PrompterDesk::SHOWN.times { |number| take(:line, said("ann", "line #{number}"), "n#{number}") }
    now = @show.prompter.whole.call
    assert_equal [now[:lines].first[:i], Bavard::Live::PrompterDesk::SHOWN], [now[:from], now[:lines].size]
  end

  def test_a_delete_of_nothing_is_forgotten_after_a_while_and_there_are_only_so_many
    take(:delete_line, nil, "old")
    clock.now_ms += Bavard::Live::TakenBefore::LASTS_MS
    take(:line, said("ann", "said anew"), "old")
    assert_equal 4, standing
    (0..Bavard::Live::TakenBefore::MOST).each { |number| @lane.taken_before.remember("n#{number}", clock.now_ms) }
    refute @lane.taken_before.came?("n0", clock.now_ms)
    assert @lane.taken_before.came?("n1", clock.now_ms)
  end

  # All at once, as a raid does.
  def flood(count = 200)
    count.times do |number|
      intake = Bavard::Core::Intake.new(:line, @lane.id, "f#{number}", nil, clock.now_ms, said("bo", "flood #{number}"))
      @reception.receive(@lane, nil, intake)
    end
  end

  def logged(number)
    until_written
    row = db[:lines].first(text: "flood #{number}")
    [row[:aired], row[:trace].to_a.last[2]]
  end

  def test_of_a_flood_only_what_can_be_read_goes_on_the_picture_and_all_of_it_into_the_log
    flood
    assert_equal [[true, "aired"], [false, "thinned"], [false, "thinned"]], [logged(0), logged(100), logged(199)]
    assert_in_delta 140, @lane.thinned(clock.now_ms), 5
    clock.now_ms += 1000
    @show.lines.advance(clock.now_ms)
    # Of those that were too many the last ones come when there is room.
    assert_equal [[false, "thinned"], [true, "aired"]], [logged(100), logged(199)]
    assert_equal 203, db[:lines].count
  end

  def hold(ms) = @show.use_gate(@show.record.gate.merge("hold" => Bavard::Core::Gate::Settings.hold("ms" => ms)))

  def test_of_a_flood_that_is_held_only_what_can_be_read_is_held
    hold(4000)
    flood
    assert_equal Bavard::Core::Chat::Throng::BURST, @show.lines.held
    clock.now_ms += 1000
    @show.lines.advance(clock.now_ms)
    until_written
    assert_equal ["held", true], db[:lines].first(text: "flood 199").then { |row| [row[:trace].to_a.last[0], row[:held]] }
    clock.now_ms += 4000
    @show.lines.advance(clock.now_ms)
    assert_equal [[true, "aired"], [false, "thinned"], [true, "aired"]], [logged(0), logged(100), logged(199)]
    assert_equal [0, 0], [@show.lines.held, db[:lines].where(held: true).count]
  end

  def test_what_there_was_no_room_for_can_be_let_go
    flood
    kept = @show.lines.to_a.find { |one| one.line.text == "flood 100" }
    assert_equal :washed, kept.state.name
    @show.let_line_go(kept.id, "Teo")
    assert_equal [true, "aired"], logged(100)
    assert_equal :aired, Bavard::Live::Show.new(@record, means).lines[kept.id].state.name
  end

  # What stands keeps its place in the book, however much comes after it.
  def test_a_line_that_stands_can_be_taken_away_after_thousands_of_others
    clock.now_ms += 10_000
    5.times { |number| take(:line, said("cy", "stands #{number}"), "s#{number}") }
    @lane.draft_only = true
    (Bavard::Live::LineBook::KEPT + 600).times { |number| take(:line, said("bo", "draft #{number}"), "d#{number}") }
    assert_operator @show.lines.to_a.size, :<, Bavard::Live::LineBook::KEPT + 600
    ids = @show.desks.values.first.air.each_line.select { |line| line.person.login == "cy" }.map(&:id)
    @show.pull_line(ids.first, "Teo")
    take(:delete_line, nil, "s1")
    assert_equal %i[pulled deleted aired aired aired], ids.map { |id| @show.lines[id].state.name }
    take(:clear_person, "cy")
    assert_equal [[:deleted] * 5, 3], [ids.map { |id| @show.lines[id].state.name }, @show.desks.values.first.air.standing]
  end

  def test_what_waits_for_room_and_is_deleted_never_comes
    flood
    take(:delete_line, nil, "f199")
    clock.now_ms += 1000
    @show.lines.advance(clock.now_ms)
    assert_equal [[true, "aired"], [false, "by the platform"]], [logged(198), logged(199)]
  end

  def test_the_same_platform_id_counts_once
    take(:line, said("ann", "again"), "m1")
    assert_equal 3, standing
  end

  def test_a_line_with_nothing_in_it_is_counted_and_left_out
    take(:line, said("ann", " \u0007 "), "m9")
    assert_equal 3, standing
    assert_equal 1, means.meters.rejected_count(:irc).to_i
  end

  def test_a_gap_is_told_for_an_hour_and_kept
    take(:gap, Bavard::Core::Gap.new(clock.now_ms - 5000, clock.now_ms))
    assert_equal 5000, @lane.report(clock.now_ms)[:gap].then { |from, to| to - from }
    assert_nil @lane.report(clock.now_ms + 3_700_000)[:gap]
    until_written
    assert_equal @lane.gap, stores.feeds.find(@feed.id).gap
  end

  def test_what_an_earlier_connection_still_says_does_not_count
    @reception.receive(@lane, Object.new, Bavard::Core::Intake.new(:clear_all, @lane.id, nil, nil, clock.now_ms, nil))
    @show.desks.each_value { |desk| desk.advance(clock.now_ms + 500) { true } }
    assert_equal 3, standing
  end
end
