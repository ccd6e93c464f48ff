# frozen_string_literal: true

require "minitest/mock"
require "semantic_logger"
require "socket"
require_relative "../../support/plain"
require_relative "../../support/wait"
require_relative "../../../lib/bavard/live/moderation/replays"

# Edited rules being run over the log.
class ReplaysTest < Minitest::Test
  include Wait

  # A database that takes whoever comes, and never says a word.
  def setup
    @silent = TCPServer.new("127.0.0.1", 0)
    @replays = Bavard::Live::Replays.new("postgres://127.0.0.1:#{@silent.addr[1]}/silent", log: SemanticLogger["test"])
  end

  def teardown
    @replays.stop_all
    @silent.close
  end

  def under_way = Thread.list.count { |thread| thread.name == "replay" }

  def test_one_that_is_stopped_while_its_process_is_being_begun_does_not_go_on
    begun = Queue.new
    command = Bavard::Aside.method(:command)
    stopping = lambda do |*given|
      @replays.stop(begun.pop)
      command.call(*given)
    end
    run = Bavard::Aside.stub(:command, stopping) do
      # More than fits in a pipe: it is still being written when there is nobody left to read it.
      @replays.begin(1, {"rules" => "x" * 200_000}).tap do |one|
        begun << one
        wait_for("its process") { begun.empty? && (one.pid || under_way.zero?) }
      end
    end
    wait_for("its process to go") { under_way.zero? }
    assert_equal [:stopped, nil], [run.state, run.pid]
    assert_equal :wait_readable, @silent.accept_nonblock(exception: false), "nobody asked the database"
  end

  def test_one_that_waits_for_its_turn_is_stopped_without_a_process
    first = @replays.begin(1, {})
    wait_for("its process") { first.pid }
    second = @replays.begin(1, {})
    assert_equal :stopped, first.state
    wait_for("the next one's process") { second.pid }
    @replays.stop(second)
    wait_for("both to go") { under_way.zero? }
    assert_equal [:stopped, :stopped], [first.state, second.state]
  end

  def test_of_many_one_waits_the_newest
    others = [2, 3].map { |show_id| @replays.begin(show_id, {}) }
    wait_for("their processes") { others.all?(&:pid) }
    runs = Array.new(20) { @replays.begin(1, {}) }
    assert_equal [3, [:stopped], :running], [under_way, runs[..-2].map(&:state).uniq, runs.last.state]
    @replays.stop(others.first)
    wait_for("the newest one's process") { runs.last.pid }
    assert(runs[..-2].none?(&:pid))
  end
end
