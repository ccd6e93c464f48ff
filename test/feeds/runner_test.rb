# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/wait"
require_relative "../../lib/bavard/feeds/outbox"
require_relative "../../lib/bavard/feeds/runner"

# What keeps a feed connected, whatever its connections do.
class RunnerTest < Minitest::Test
  include Wait

  # A connection that ends as it is told.
  Connection = Struct.new(:joined, :ending) do
    def joined? = joined

    def run(stop)
      raise ending if ending.is_a?(Exception)

      ending || stop.wait_readable.then { nil }
    end
  end
  Soon = Struct.new(:asked) do
    def next_ms(_joined_ms) = 1
  end
  REFUSED = Bavard::Error.new("There is no server called reedmere.example in the open.")

  def run_with(*connections)
    @told = Queue.new
    runner = Bavard::Feeds::Runner.new(feed_id: 1, connect: -> { connections.shift || Connection.new(true, nil) }, clock: -> { 0 }, backoff: Soon.new,
      take: ->(intake) { @told << intake.body })
    runner.start
  end

  def told(state)
    found = nil
    wait_for("to be #{state}") { found ||= Array.new(@told.size) { @told.pop }.find { |body| body.state == state } }
    found
  end

  def test_what_was_read_before_is_tried_again_whatever_stands_in_its_way
    runner = run_with(Connection.new(true, Bavard::Feeds::Ended.new(:waiting, "The line broke.")), Connection.new(false, REFUSED), Connection.new(false, REFUSED))
    wait_for("both refusals") do
      Array.new(@told.size) { @told.pop }.each do |body|
        (@reasons ||= []) << body.reason if body.state == :waiting
      end && @reasons.to_a.count(REFUSED.message) == 2
    end
    runner.stop
    assert_equal "Disconnected by you.", told(:off).reason
  end

  # Of two ends of a pipe one is closed before the other.
  def test_asked_to_end_while_it_ends_nothing_is_raised
    reader, writer = IO.pipe
    runner = IO.stub(:pipe, [reader, writer]) { Bavard::Feeds::Runner.new(feed_id: 1, connect: nil, clock: nil, take: nil) }
    outbox = IO.stub(:pipe, [reader, writer]) { Bavard::Feeds::Outbox.new }
    [reader, writer].each do |half|
      half.close
      assert_nil runner.halt
      assert_nil outbox.ask("ann")
    end
  end

  def test_what_never_was_is_told_to_the_host
    runner = run_with(Connection.new(false, REFUSED))
    assert_equal REFUSED.message, told(:needs_you).reason
    runner.stop
  end
end
