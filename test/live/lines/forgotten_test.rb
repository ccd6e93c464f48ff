# frozen_string_literal: true

require_relative "../../support/still_show"

# Lines that said so much came after that nothing can be done about them any more: a flood brings thousands in a second, while the log is
# seconds behind, and prompters show them.
class ForgottenTest < StillShowTest
  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    begin_show
    said = [["ann", "a heron by the sluice"], ["bo", "which ring was that"], ["ann", "it has gone now"]]
    @ids = said.map.with_index { |(login, text), at| say(text, login:, platform_id: "p#{at}") }
    until_written
    @entries = @ids.map { |id| stores.lines.find(@record.id, id) }
    forget
  end

  # As when thousands have come since.
  def forget
    desk = @show.desks.values.first
    desk.clear_air(means.ids.next(clock.now_ms))
    advance
    kept = @show.lines.instance_variable_get(:@newest)
    @ids.each { |id| @show.lines.send(:forget, kept.delete(id)) }
  end

  def said_of(id) = frames("prompter:#{@record.id}").filter_map { |frame| frame.dig("states", id.to_s) }.last
  def card(at) = @show.prompter.card_of(@lane, @entries[at])

  def test_one_that_its_platform_deletes_is_told_to_pages_that_have_it
    take(:delete_line, nil, platform_id: "p1")
    assert_equal [nil, "deleted", nil], @ids.map { |id| said_of(id) }
    before = frames("prompter:#{@record.id}").size
    take(:delete_line, nil, platform_id: "p1")
    assert_equal before, frames("prompter:#{@record.id}").size
  end

  def test_what_the_log_does_not_say_yet_is_known_all_the_same
    assert_equal(%w[aired aired aired], [0, 1, 2].map { |at| card(at)[:s].to_s })
    take(:clear_person, "ann")
    assert_equal(%w[deleted aired deleted], [0, 1, 2].map { |at| card(at)[:s].to_s })
    assert_equal ["deleted", nil, "deleted"], @ids.map { |id| said_of(id) }
    take(:clear_all, nil)
    assert_equal "deleted", card(1)[:s].to_s
  end

  def test_another_feed_s_lines_and_those_of_others_stay
    other = Bavard::Live::Forgotten.new
    other.add(Bavard::Live::LineBook.of_log(@entries[0]).tap { |kept| kept.lane_id = 1 })
    assert_empty other.delete(2, "p0")
    assert_empty other.delete_of(1, "bo")
    assert_equal [@ids[0]], other.delete(1, "p0")
    assert_empty other.delete_of(1, nil)
    assert_equal :deleted, other.taken_away(@ids[0])
  end

  def test_only_so_many_are_known
    few = Bavard::Live::Forgotten.new
    kept = Struct.new(:id, :lane_id, :line, :state)
    line = Struct.new(:platform_id, :person)
    person = Struct.new(:login).new("ann")
    state = Bavard::Core::Moderation::LineState.new(:aired)
    most = Bavard::Live::Forgotten::MOST
    (0..most).each { |id| few.add(kept.new(id, 1, line.new("p#{id}", person), state)) }
    assert_equal [[], [1], [most]], [few.delete(1, "p0"), few.delete(1, "p1"), few.delete(1, "p#{most}")]
    assert_equal most - 2, few.delete_of(1, "ann").size
  end
end
