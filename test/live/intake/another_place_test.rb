# frozen_string_literal: true

require_relative "../../support/live_test"

# A feed that reads somewhere else from now on goes on nowhere: what is known of the one place says nothing of the other.
class AnotherPlaceTest < LiveTest
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
    @show = Bavard::Live::Show.new(make_show, means)
    @lane = @show.lanes.values.first
    @lane.feed.wanted = true
    @kind = Kind.new
    kind = @kind
    @lane.define_singleton_method(:kind) { kind }
    @lane.new?("m1")
    @lane.connect
    @kind.resumed.pop
  end

  def teardown
    @lane.disconnect
    super
  end

  def test_connected_anew_it_goes_on_where_it_was
    wait_for("a connection") { @lane.connection }
    @lane.reconnect
    assert_equal ["m1", 5000, {"resume" => "of the old room"}], @kind.resumed.pop.to_a.first(3)
  end

  def test_somewhere_else_it_begins
    wait_for("a connection") { @lane.connection }
    @lane.readdress({"room" => "another"})
    @lane.reconnect
    assert_equal [nil, nil, nil], @kind.resumed.pop.to_a.first(3)
  end
end
