# frozen_string_literal: true

require_relative "../../support/live_test"

# What a connection has read waits for its turn, in a rush for seconds. Where the feed is connected anew meanwhile, nobody would tell it again.
class EarlierConnectionTest < LiveTest
  # One whose words come when the test says so.
  class Kind
    Connection = Struct.new(:cursor, :heard_at_ms) do
      def run(stop) = stop.wait_readable && nil
      def joined? = true
    end

    def connection(_feed, _resume, **) = Connection.new({}, 5000)
  end

  def setup
    super
    @record = make_show(document: with_chat(stay_ms: "for good"), on_air: true)
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @lane.feed.wanted = true
    kind = Kind.new
    @lane.define_singleton_method(:kind) { kind }
    @lane.connect
    @before = @lane.runner
  end

  def teardown
    @lane.disconnect
    super
  end

  # @return [Array<String>] what stands in the log of what the earlier one says now
  def said_by(runner)
    said = ->(login) { Bavard::Core::Said.new(login, login, nil, [], "by #{login}", false, false) }
    %w[ann bo].each { |login| @show.reception.receive(@lane, runner, Bavard::Core::Intake.new(:line, @lane.id, login, nil, clock.now_ms, said.call(login))) }
    @show.reception.receive(@lane, runner, Bavard::Core::Intake.new(:delete_line, @lane.id, "bo", nil, clock.now_ms))
    until_written
    stores.lines.latest(@record.id, 9).reject(&:pulled).map { |entry| entry.line.text }
  end

  def test_it_counts_where_the_feed_is_connected_anew_however_often
    3.times { @lane.reconnect }
    refute_same @before, @lane.runner
    assert_equal ["by ann"], said_by(@before)
  end

  def test_how_that_one_fared_does_not_count
    @lane.reconnect
    over = Bavard::Core::FeedState.new(:waiting, "The other side closed the line.", 0, nil)
    @show.reception.receive(@lane, @before, Bavard::Core::Intake.new(:feed_state, @lane.id, nil, nil, 0, over))
    refute_equal :waiting, @lane.state.state
    @show.reception.receive(@lane, @lane.runner, Bavard::Core::Intake.new(:feed_state, @lane.id, nil, nil, 0, over))
    assert_equal :waiting, @lane.state.state
  end

  def test_it_counts_no_more_where_the_host_disconnects_or_reads_somewhere_else
    @lane.disconnect
    assert_empty said_by(@before)
    @lane.connect
    assert_empty said_by(@before)
    elsewhere = @lane.runner
    @lane.readdress({"room" => "another"})
    @lane.reconnect
    assert_empty said_by(elsewhere)
    assert_equal ["by ann"], said_by(@lane.runner)
  end
end
