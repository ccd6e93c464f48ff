# frozen_string_literal: true

require_relative "../../support/live_test"

# Until when a feed was heard is kept only once everything that it covers is: whoever is killed in between asks again from there.
class HeardTest < LiveTest
  # A feed that has read further than its show.
  Ahead = Struct.new(:heard_at_ms, :cursor) do
    def joined? = true
  end

  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @lane.instance_variable_set(:@connection, @ahead = Ahead.new(clock.now_ms, {"after" => 7}))
  end

  def kept
    until_written
    row = db[:feeds].where(id: @lane.id).first
    [row[:heard_at_ms], row[:cursor]&.to_hash]
  end

  def test_it_is_kept_behind_what_it_covers
    heard = @lane.heard_so_far(clock.now_ms)
    assert_equal [nil, nil], kept
    # What is read meanwhile is not covered.
    @ahead.cursor = {"after" => 9}
    @lane.keep_heard(heard)
    assert_equal [clock.now_ms, {"after" => 7}], kept
  end

  def test_it_goes_the_way_that_lines_go
    said = Bavard::Core::Said.new("ann", "Ann", nil, [], "before", false, false)
    @show.send(:take_in, @lane, nil, Bavard::Core::Intake.new(:line, @lane.id, "m1", nil, clock.now_ms, said))
    @show.instance_variable_get(:@mailbox).follow(@lane.heard_so_far(clock.now_ms), @lane)
    assert_equal [nil, nil], kept
    order = []
    journal.define_singleton_method(:line) { |show_id, entry| (order << :line) && super(show_id, entry) }
    journal.define_singleton_method(:behind) { |*what| (order << :heard) && super(*what) }
    @show.start
    wait_for("what was heard") { kept.last == {"after" => 7} }
    assert_operator order.index(:line), :<, order.rindex(:heard)
    assert_equal 1, db[:lines].where(feed_id: @lane.id).count
  ensure
    @show.stop
  end

  # As in a show that was brought.
  def test_what_nobody_connected_yet_was_not_disconnected_by_anybody
    assert_equal "Not connected yet.", @lane.state.reason
    stores.feeds.keep(@lane.id, heard_at_ms: clock.now_ms)
    assert_equal "Disconnected by you.", Bavard::Live::Show.new(@record, means).lanes.values.first.state.reason
  end

  # The machine's clock was set an hour ahead, and the process was killed.
  def test_where_the_clock_was_set_meanwhile_it_was_heard_by_ours
    clock.mark = {"boot" => "b", "ahead_ms" => 500}
    @lane.keep_heard(@lane.heard_so_far(clock.now_ms))
    said = Bavard::Core::Said.new("ann", "Ann", nil, [], "before", false, false)
    @show.reception.receive(@lane, nil, Bavard::Core::Intake.new(:line, @lane.id, "m1", clock.now_ms - 40, clock.now_ms, said))
    heard_ms = kept.first
    clock.mark = {"boot" => "b", "ahead_ms" => 3_600_500}
    clock.now_ms += 3_600_200
    later = Bavard::Live::Show.new(@record, means).lanes.values.first
    assert_equal 3_600_040, later.clock_behind_ms
    assert_equal heard_ms + 3_600_000, resumed(later).heard_at_ms
  end

  # @return [Bavard::Feeds::Resume] from where it goes on
  def resumed(lane)
    wait_for("the connection to be asked for") do
      lane.kind.stub(:connection, ->(_, resume, **) { (@resume = resume) && raise(IOError) }) { lane.send(:open_connection, nil) }
    rescue IOError
      @resume
    end
  end

  def test_what_an_earlier_connection_had_heard_counts_no_more
    heard = @lane.heard_so_far(clock.now_ms)
    @lane.instance_variable_set(:@runner, Object.new)
    @lane.keep_heard(heard)
    assert_equal [nil, nil], kept
  end
end
