# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/rehearsal/rehearsal"

class RehearsalTest < Minitest::Test
  Live = Bavard::Live

  # Counts up.
  class Ids
    def initialize = @last = 0
    def next(_now_ms) = @last += 1
  end

  def self.scripts = @scripts ||= Live::Script.all(File.expand_path("../../../demo/scripts", __dir__), {})

  def scripts = self.class.scripts
  def ids = @ids ||= Ids.new

  def rehearsal(key = "quiet_dawn", now_ms: 0, **more) = Live::Rehearsal.new(scripts.fetch(key), now_ms, **more)

  def played(rehearsal, from_ms, to_ms)
    (from_ms..to_ms).step(10).filter_map { |ms| rehearsal.line(ms, ids) }
  end

  def test_the_scripts_of_the_demo_are_there_in_their_order
    assert_equal %w[quiet_dawn rare_bird awkward_lines evasions visit], scripts.keys
    scripts.each_value { |script| assert_equal script.steps.size, script.bars(60).flatten.sum }
  end

  def test_a_script_keeps_its_own_pace_or_a_chosen_one
    assert_equal 6, played(rehearsal, 0, 59_999).size
    assert_equal 60, played(rehearsal("quiet_dawn", rate: 60), 0, 59_999).size
    rush = scripts["rare_bird"].steps.each_cons(2).map { |one, other| other.at_ms - one.at_ms }.min
    assert_equal 200, rush
  end

  def test_it_begins_anew_when_it_is_over
    short = rehearsal("visit", rate: 600)
    lines = played(short, 0, 3200)
    assert_equal lines[0].text, lines[scripts["visit"].steps.size].text
  end

  def test_held_nothing_comes_and_each_step_is_one_line
    held = rehearsal(rate: 60)
    played(held, 0, 2500)
    held.hold(2500)
    assert_nil held.due_ms
    assert_empty played(held, 2500, 60_000)
    steps = Array.new(2) { held.step(60_000, ids).text }
    assert_equal scripts["quiet_dawn"].steps[3, 2].map { |step| step.what.text }, steps
    held.go_on(70_000)
    assert_equal 1, played(held, 70_000, 70_100).size
  end

  def test_a_moment_is_the_same_every_time
    draw = lambda do |now_ms|
      rehearsal("rare_bird", now_ms:).go_to(70_000, now_ms, ids).map { |line| [line.person.login, line.text, now_ms - line.shown_at_ms] }
    end
    first = draw[1_000_000]
    refute_empty first
    assert_equal first, draw[7_777_777]
    assert(first.all? { |_, _, age_ms| age_ms.between?(0, 70_000) })
  end

  def test_after_a_moment_it_goes_on_with_the_next_line
    moved = rehearsal("quiet_dawn")
    before = moved.go_to(35_000, 100_000, ids)
    assert_equal 4, before.size
    assert_equal 105_000, moved.due_ms
    assert_equal scripts["quiet_dawn"].steps[4].what.text, moved.line(105_000, ids).text
  end

  def test_another_pace_keeps_its_place
    moved = rehearsal("quiet_dawn")
    played(moved, 0, 30_000)
    moved.rate_to(60, 30_000)
    assert_equal 4, moved.report(30_000)[:next]
    moved.rate_to(999_999, 30_000)
    assert_equal 1200, moved.per_minute
  end

  def test_what_happens_in_a_script_is_an_event
    kinds = played(rehearsal("visit", rate: 600), 0, 1700).map(&:kind)
    %i[visit follow tip renewal gift paid action].each { |kind| assert_includes kinds, kind }
  end
end
