# frozen_string_literal: true

require_relative "../../support/live_test"

# What a feed that is connected anew goes on from, and what counts of the connection before.
class LaneConnectionsTest < LiveTest
  # Connections that only stand there, and from where each was to go on.
  class Kind
    Connection = Struct.new(:cursor, :heard_at_ms) do
      def run(stop) = stop.wait_readable && nil
      def joined? = true
    end

    attr_reader :resumed

    def initialize = @resumed = Queue.new

    def connection(_feed, resume, **)
      @resumed << resume
      Connection.new({"resume" => "of the old room"}, 5000)
    end
  end

  def setup
    super
    @record = make_show(document: with_chat(stay_ms: "for good"), on_air: true)
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @lane.feed.wanted = true
    kind = @kind = Kind.new
    @lane.define_singleton_method(:kind) { kind }
    @lane.new?("m1")
    @lane.connect
    @before = @lane.runner
    @kind.resumed.pop
    wait_for("a connection") { @lane.connection }
  end

  def teardown
    @lane.disconnect
    super
  end

  def test_connected_anew_it_goes_on_where_it_was
    @lane.reconnect
    assert_equal ["m1", 5000, {"resume" => "of the old room"}], @kind.resumed.pop.to_a.first(3)
  end

  def test_somewhere_else_it_begins
    @lane.readdress({"room" => "another"})
    @lane.reconnect
    assert_equal [nil, nil, nil], @kind.resumed.pop.to_a.first(3)
  end

  # @return [Array<String>] what stands in the log of what the earlier one says now
  def said_by(runner)
    said = ->(login) { Bavard::Core::Said.new(login, login, nil, [], "by #{login}", false, false) }
    %w[ann bo].each { |login| @show.reception.receive(@lane, runner, Bavard::Core::Intake.new(:line, @lane.id, login, nil, clock.now_ms, said.call(login))) }
    @show.reception.receive(@lane, runner, Bavard::Core::Intake.new(:delete_line, @lane.id, "bo", nil, clock.now_ms))
    until_written
    stores.lines.latest(@record.id, 9).reject(&:pulled).map { |entry| entry.line.text }
  end

  # It waits for its turn, in a rush for seconds, and nobody would tell it again.
  def test_what_a_connection_has_read_counts_where_the_feed_is_connected_anew_however_often
    3.times { @lane.reconnect }
    refute_same @before, @lane.runner
    assert_equal ["by ann"], said_by(@before)
  end

  def test_how_an_earlier_one_fared_does_not_count
    @lane.reconnect
    over = Bavard::Core::FeedState.new(:waiting, "The other side closed the line.", 0, nil)
    @show.reception.receive(@lane, @before, Bavard::Core::Intake.new(:feed_state, @lane.id, nil, nil, 0, over))
    refute_equal :waiting, @lane.state.state
    @show.reception.receive(@lane, @lane.runner, Bavard::Core::Intake.new(:feed_state, @lane.id, nil, nil, 0, over))
    assert_equal :waiting, @lane.state.state
  end

  def test_what_a_connection_has_read_counts_no_more_where_the_host_disconnects_or_reads_somewhere_else
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
