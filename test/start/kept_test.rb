# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/start/kept"

# A part that is started again, however often it ends.
class KeptTest < Minitest::Test
  Status = Struct.new(:termsig, :exitstatus)

  # A process that ends when a test says so.
  class Part
    attr_reader :starts, :name
    attr_accessor :ended

    def initialize
      @name = "Bavard"
      @starts = 0
    end

    def start
      @starts += 1
      @ended = nil
      self
    end
  end

  def setup
    @now = 100r
    @said = []
    @part = Part.new
    @kept = Bavard::Start::Kept.new(@part, say: @said.method(:<<), clock: -> { @now }).start
  end

  def break_it(status = Status.new(9, nil))
    @part.ended = status
    @kept.look
  end

  # @return [Float] seconds until it is started again
  def pause
    before = @part.starts
    from = @now
    until @part.starts > before
      @kept.look
      @now += Rational(1, 20)
    end
    @now - from
  end

  def test_what_runs_is_left_alone
    3.times { assert_nil @kept.look }
    assert_equal 1, @part.starts
  end

  def test_what_ends_a_hundred_times_is_started_a_hundred_times_and_ever_later
    pauses = Array.new(100) do
      break_it
      pause
    end
    assert_equal 101, @part.starts
    assert_equal pauses, pauses.sort
    assert_in_delta 0.25, pauses.first, 0.11
    assert_in_delta 10, pauses.last, 0.11
  end

  def test_it_is_said_how_it_ended_and_when_it_is_started_again
    assert_equal 9, break_it.termsig
    pause
    break_it(Status.new(nil, 1))
    pause
    3.times do
      break_it(Status.new(nil, 1))
      pause
    end
    assert_equal ["Bavard ended (signal 9); starting it again.", "Bavard ended (status 1); starting it again.",
      "Bavard ended (status 1); starting it again in 1 s."], @said.first(3)
  end

  def test_what_held_for_a_while_is_started_again_at_once
    5.times do
      break_it
      pause
    end
    @now += Bavard::Start::Kept::STEADY_S + 1
    break_it
    assert_in_delta 0.25, pause, 0.11
  end

  def test_the_end_is_told_once
    break_it
    assert_nil @kept.look
    assert_equal 1, @said.size
  end
end
