# frozen_string_literal: true

require_relative "../support/still_show"

# Whatever happens to lines, in whatever order, what every screen paints is what their states say, and what prompters and the log say is
# the same; and what was taken away is never painted, however the network behaves: frames come late, in one go after a cut, or as a whole
# picture instead.
class LineBookPropertyTest < StillShowTest
  RUNS = 8
  STEPS = 60
  HOLD_MS = 3000
  PEOPLE = %w[ann bo cy].freeze
  # What is said decides what the gate says: let through, covered in part, held for somebody, kept off.
  WORDS = ["saw a wren", "saw a goosebrain", "see marsh.example", "!ring"].freeze
  BRAKES = [nil, {"kind" => "hold_all"}, {"kind" => "off_picture"}].freeze
  MOST_LINES = 38

  # Draws what frames say, as the page does: whole pictures, frames one after another, and missed ones in one go.
  class Page
    LEAVING = %w[out pulled].freeze
    attr_reader :standing, :words, :last

    def initialize
      @standing = []
      @words = {}
    end

    # @yieldparam id [Integer] of a line that is painted
    def hear(message, &block)
      @last = message["at"]
      message["missed"] ? missed(message["missed"], &block) : frame(message, &block)
    end

    private

    def frame(frame, &block)
      @standing = [] if frame["whole"]
      LEAVING.each { |how| (frame.dig(how, "chat1") || []).each { |id| @standing.delete(id) } }
      [*frame.dig("in", "chat1"), *frame.dig("again", "chat1")].each { |card| @words[card["i"]] = card["f"].map { |_, text| text }.join }
      ids = (frame.dig("in", "chat1") || []).map { |card| card["i"] }
      @standing |= ids
      ids.each(&block)
    end

    # What came and went in between is not painted.
    def missed(frames, &)
      frames.each_with_index do |one, at|
        gone = frames.drop(at + 1).flat_map { |later| LEAVING.flat_map { |how| later.dig(how, "chat1") || [] } }
        frame(one.merge("in" => {"chat1" => (one.dig("in", "chat1") || []).reject { |card| gone.include?(card["i"]) }}), &)
      end
    end
  end

  def test_what_screens_paint_is_what_the_table_says
    RUNS.times do |run|
      @random = Random.new(@seed = Minitest.seed + run)
      begin_walk
      STEPS.times do
        step(@random.rand(18), @random.rand(1000))
        agree
      end
      agree_with_log
    end
  rescue Minitest::Assertion
    warn "walk #{@seed}: #{@steps.inspect}"
    raise
  end

  private

  def begin_walk
    until_written
    TestDatabase.clean
    @number = 0
    @deeds = []
    @taken = {}
    @steps = []
    begin_show(make_show(document: with_chat(stay_ms: "for good", at_most: 40), on_air: true))
    rules = @show.record.gate["sets"][0]["rules"].map do |rule|
      {"links" => rule.merge("on" => true), "stopped_words" => rule.merge("words" => "goosebrain"), "repeats" => rule.merge("on" => false)}.fetch(rule["id"], rule)
    end
    @show.use_gate(@show.record.gate.merge("sets" => [{"name" => "A", "rules" => rules}]))
    @pages = %w[air draft].to_h { |which| [which, Page.new] }
    @seen = @pages.transform_values { 0 }
    @cut = false
    mend
  end

  def step(what, number)
    @steps << [what, number]
    case what
    when 0..4 then come(number)
    when 5 then advance((number % 40) * 100)
    when 6 then act(number) { |id| take_away(id) { @show.pull_line(id, "Teo") } }
    when 7 then act(number) { |id| bring_back(id) { @show.let_line_go(id, "Ibrahim") } }
    when 8 then delete(number)
    when 9 then silence(PEOPLE[number % 3])
    when 10 then leave_out(PEOPLE[number % 3], number)
    when 11, 12 then undo(number)
    when 13 then set(number)
    when 14 then @cut ? mend : @cut = true
    when 15 then number.odd? ? begin_again_here : mend
    when 16, 17 then edit(number)
    end
    advance
    arrive unless @cut
  end

  def come(number)
    return if @show.lines.to_a.size >= MOST_LINES

    say("#{WORDS[number % 4]} #{@number}", login: PEOPLE[number % 3])
  end

  # One of the last.
  def act(number)
    kept = @show.lines.to_a.last(6)[number % 6] or return
    yield kept.id
  rescue Bavard::Error
    nil # it is so already
  end

  def take_away(*ids)
    yield.tap do |deed|
      ids.each { |id| @taken[id] = true }
      @deeds << deed if deed.is_a?(Core::Moderation::Deed)
    end
  end

  def bring_back(*ids)
    @deeds << yield
    ids.each { |id| @taken.delete(id) }
  end

  def delete(number)
    kept = @show.lines.to_a.last(6)[number % 6] or return
    take_away(kept.id) { take(:delete_line, nil, platform_id: kept.line.platform_id) }
  end

  # It says something else, which may not be let through: then it is never painted again until somebody lets it go.
  def edit(number)
    kept = @show.lines.to_a.last(6)[number % 6] or return
    words = "#{WORDS[(number / 6) % 4]} #{number}"
    take(:edit_line, Bavard::Core::Edited.new(nil, words, nil), platform_id: kept.line.platform_id)
    assert_equal words, kept.line.text
    @taken[kept.id] = true if %i[off left].include?(kept.state.name)
  end

  def silence(login)
    take_away(*@show.lines.to_a.select { |kept| kept.line.person.login == login }.map(&:id)) { take(:clear_person, login) }
  end

  def leave_out(login, number)
    return @show.take_back(login, "Teo") if number.odd?

    standing = @show.lines.standing_where { |kept| kept.line.person.login == login }.map(&:id)
    take_away(*standing) { @show.leave_out(login, "Teo") }
  rescue Bavard::Error
    nil # nobody is left out
  end

  # Of what was taken away by a deed that is taken back nobody can say here whether it is to be seen; its state can.
  def undo(number)
    deed = @deeds.last(3)[number % 3] or return
    @show.undo_deed(deed.id, "Odalys")
    ids = deed.what == "leave_out" ? deed.detail["lines"].map(&:first) : [deed.line_id]
    ids.each do |id|
      unless @show.lines[id].state.name == :deleted
        deed.what == "let_go" ? @taken[id] = true : @taken.delete(id)
      end
    end
  rescue Bavard::Error
    nil # it was taken back already
  end

  def set(number)
    return hold((number / 2).odd? ? HOLD_MS : 0) if number.odd?

    kind = BRAKES[(number / 2) % 3]
    brake = kind && Core::Gate::Brake.read(kind, now_ms: clock.now_ms, by: "Odalys").to_h
    @show.use_gate(@show.record.gate.merge("brake" => brake))
  end

  def begin_again_here
    agree_with_log
    pulled = db[:lines].where(pulled: true).select_map(:id)
    # What was let go and taken back again is kept off; the log says that it was pulled.
    before = states.to_h { |id, name| [id, name == :off && pulled.include?(id) ? :pulled : name] }
    begin_again
    assert_equal before, states.slice(*before.keys)
    mend
  end

  def topic(which) = @show.desks.each_value.first.public_send(which).topic
  def frames_of(which) = frames("#{which}:#{@show.desks.keys.first}")
  def states = @show.lines.to_a.to_h { |kept| [kept.id, kept.state.name] }

  def arrive
    @pages.each do |which, _page|
      frames_of(which).drop(@seen[which]).each { |frame| hear(which, frame) }
      @seen[which] = frames_of(which).size
    end
  end

  # The line to the pages is there again, and they say what they heard last.
  def mend
    @cut = false
    @pages.each do |which, page|
      hear(which, JSON.parse(topic(which).catch_up(page.last)))
      @seen[which] = frames_of(which).size
    end
  end

  def hear(which, message) = @pages[which].hear(message) { |id| refute @taken[id], "line #{id} was painted after it was taken away" }

  def agree
    by_state = @show.lines.to_a.group_by { |kept| kept.state.name }.transform_values { |all| all.map(&:id) }
    off = @show.gatehouse.brake&.off_picture?
    unless @cut
      assert_equal off ? [] : by_state.fetch(:aired, []).sort, @pages["air"].standing.sort
      assert_equal by_state.fetch(:aired, []).sort, @pages["draft"].standing.sort
    end
    assert_equal [*by_state[:held], *by_state[:waits]].sort, @show.lines.held_report.map { |one| one[:i] }.sort
    assert_empty @taken.keys & [*by_state[:aired], *by_state[:held], *by_state[:waits]]
    agree_about_words unless @cut
    whole = @show.prompter.whole.call[:lines].to_h { |card| [card[:i], card[:s]] }
    assert_equal(@show.lines.to_a.to_h { |kept| [kept.id, kept.state.name.name] }, whole)
  end

  # What stands on screens is what the lines say now, as the gate has it written.
  def agree_about_words
    @pages.each_value do |page|
      page.standing.each { |id| assert_equal @show.lines[id].shown.text, page.words[id], "line #{id}" }
    end
  end

  def agree_with_log
    until_written
    assert_equal @show.lines.to_a.to_h { |one| [one.id, one.line.text] }, db[:lines].where(show_id: @record.id).select_hash(:id, :text)
    rows = db[:lines].where(show_id: @record.id).as_hash(:id, %i[held pulled deleted])
    kept = @show.lines.to_a.to_h { |one| [one.id, [one.state.held?, one.state.taken?, one.state.name == :deleted]] }
    # What was let go and then taken back is off, and its pull stands in the log.
    assert_equal(kept, rows.to_h { |id, (held, pulled, deleted)| [id, [held && !pulled, pulled && @show.lines[id].state.name != :off, deleted]] })
  end
end
