# frozen_string_literal: true

require "semantic_logger"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/pictures/takings"

# What somebody brings and what takes a while.
class TakingsTest < Minitest::Test
  LONG_S = 30

  def setup
    @takings = Bavard::Live::Takings.new(SemanticLogger["test"])
    @go = Queue.new
  end

  def teardown = @takings.stop_all

  # Waits until it is let go, as long as it is wanted.
  def waiting(show_id = 1)
    @takings.begin(show_id, "wren.gif") do |watch|
      watch.told(3, 4)
      @go.pop
      raise Bavard::Stopped, "it was stopped" if watch.stopped?

      {id: 7}
    end
  end

  def test_how_far_it_is_and_what_came_of_it
    taking = waiting
    refute taking.over?(0)
    Thread.pass until taking.share == 75
    assert_equal({state: :running, share: 75, name: "wren.gif"}, taking.report)
    @go << true
    assert taking.over?(LONG_S)
    assert_equal({state: :done, share: 75, name: "wren.gif", result: {id: 7}}, taking.report)
  end

  def test_one_that_is_stopped_is_over_at_once_and_whatever_comes_of_it_counts_no_more
    taking = waiting
    taking.stop
    assert taking.over?(LONG_S)
    @go << true
    assert_equal [:stopped, nil], [taking.state, taking.result]
  end

  def test_a_refusal_is_told_in_its_words_and_a_fault_of_ours_without_them
    refused = @takings.begin(1, "a") { raise Bavard::Error, "it is no film" }
    broken = @takings.begin(1, "b") { raise "something inside" }
    full = @takings.begin(1, "c") { raise Errno::ENOSPC }
    [refused, broken, full].each { |taking| assert taking.over?(LONG_S) }
    assert_equal [:refused, Bavard::Live::Disk::FULL], [full.state, full.error.message]
    assert_equal [[:refused, "it is no film"], [:refused, "Something went wrong on our side. Nothing was changed."]],
      [refused, broken].map { |taking| taking.report.values_at(:state, :words) }
  end

  def test_each_show_has_its_own_and_no_more_than_some_on_their_way
    theirs = Array.new(4) { waiting }
    assert_equal [theirs.first, nil], [@takings.find(1, theirs.first.id), @takings.find(2, theirs.first.id)]
    assert_raises(Bavard::Busy) { waiting }
    assert waiting(2)
    5.times { @go << true }
    theirs.each { |taking| assert taking.over?(LONG_S) }
    30.times { @takings.begin(1, "c") { {} }.over?(LONG_S) }
    assert_nil @takings.find(1, theirs.first.id)
  end
end
