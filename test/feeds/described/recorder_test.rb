# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/feeds/described/bench/recorder"
require_relative "../../../lib/bavard/feeds/platform"
require_relative "../../support/wait"
require_relative "examples"
require_relative "small_server"

# A platform recorded for a while, and cut once: whether what was said before comes again.
class DescribedRecorderTest < Minitest::Test
  include Wait

  CLOCK = -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) }

  def setup
    @asked = []
    @server = SmallServer.new { |path, _| answer(path) }
  end

  def teardown
    @recorder&.stop
    @server.stop
  end

  def answer(path)
    @asked << path
    said = path.include?("since=") ? [] : [{"type" => "said", "id" => 7, "person" => 4, "html" => "once"}]
    [200, {}, JSON.generate("data" => {"messages" => said, "people" => [{"id" => 4, "name" => "ann"}], "mark" => "m7", "wait" => 200})]
  end

  def record(**more)
    platform = Bavard::Feeds::Platform.of(Examples.description("kettle", base: @server.address, **more))
    @recorder = Bavard::Feeds::Described::Bench::Recorder.new(platform, {address: {"room" => "reedmere"}, password: nil}, CLOCK, cut_after_s: 0.3).start
  end

  def told = @recorder.since(0).last

  # How often it was asked by the time of the cut, and a few times more.
  def until_cut_and_back
    wait_for("the cut, not #{told}") { told.twice }
    asked = @asked.size
    wait_for("it to be read again") { @asked.size > asked + 1 }
  end

  def test_a_platform_with_a_mark_tells_nothing_twice
    record
    until_cut_and_back
    assert_equal [:live, 1, 0], [told.state, told.lines, told.twice]
    assert_equal 1, @recorder.since(0).first.first["data"]["messages"].size
  end

  def test_one_without_a_mark_does_and_it_is_said
    record(poll: {"ask" => "/rooms/{room}/chat", "items" => "data.messages", "wait_ms" => 200})
    wait_for("the line again, not #{told}") { told.twice.to_i.positive? }
    assert_equal 1, told.lines
    @recorder.stop
    assert_predicate @recorder, :over?
  end
end
