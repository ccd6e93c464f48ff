# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/core/voice/attendance"

# Who sits at the microphones of a room.
class AttendanceTest < Minitest::Test
  def setup = @attendance = Bavard::Core::Voice::Attendance.new

  def told(happenings)
    happenings.map do |one|
      one.what == :levels ? [:levels, *one.levels.first] : [one.what, one.people.first.key, one.people.first.name, one.people.first.marks].compact
    end
  end

  def enter(key, line, name: key.capitalize, **more) = told(@attendance.enter(key, name, line, **more))

  def test_somebody_comes_is_heard_mutes_and_goes
    assert_equal [[:join, "teo", "Teo", []]], enter("teo", :a)
    assert_empty enter("teo", :a)
    assert_equal [[:levels, "teo", -31.0]], told(@attendance.level("teo", :a, 31))
    assert_equal [[:change, "teo", "Teo", [:muted]]], told(@attendance.mute("teo", :a, true))
    assert_empty @attendance.mute("teo", :a, true)
    assert_empty @attendance.level("teo", :a, 31), "muted"
    assert_equal [[:change, "teo", "Teodor", []]], enter("teo", :a, name: "Teodor")
    assert_equal [[:leave, "teo"]], told(@attendance.put_out("teo"))
    assert_empty @attendance.put_out("teo")
    assert_empty @attendance.level("teo", :a, 31), "gone"
  end

  def test_what_is_no_level_is_none
    enter("teo", :a)
    assert_equal [[:levels, "teo", -0.0], [:levels, "teo", -127.0]], told(@attendance.level("teo", :a, 0) + @attendance.level("teo", :a, 127))
    [-1, 128, 3.5e9].each { |level| assert_empty @attendance.level("teo", :a, level) }
  end

  def test_whoever_is_cut_off_stays_for_a_while
    enter("teo", :a)
    enter("ann", :b)
    @attendance.leave("teo", :a, 1000)
    assert_empty @attendance.advance(1000 + 11_999)
    assert_empty enter("teo", :c), "back before anybody missed them"
    assert_empty @attendance.advance(100_000)
    @attendance.leave("teo", :c, 100_000)
    assert_equal [[:leave, "teo"]], told(@attendance.advance(112_000))
    assert_equal 1, @attendance.size
  end

  def test_of_two_pages_the_newer_counts_and_the_older_takes_over_again
    enter("teo", :old)
    enter("teo", :new)
    assert_empty @attendance.level("teo", :old, 20)
    assert_empty @attendance.mute("teo", :old, true)
    @attendance.leave("teo", :old, 0)
    assert_equal 1, @attendance.level("teo", :new, 20).size
    enter("teo", :third)
    @attendance.leave("teo", :third, 5000)
    assert_equal 1, @attendance.level("teo", :new, 20).size
    assert_empty @attendance.level("teo", :old, 20), "one of both"
    assert_empty @attendance.advance(60_000)
  end
end
