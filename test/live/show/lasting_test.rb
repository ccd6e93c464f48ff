# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../support/wait"
require_relative "../../../lib/bavard/lasting"

# A thread whose end is never unseen.
class LastingTest < Minitest::Test
  include Wait

  def setup
    @told = Queue.new
    @work = Queue.new
    @done = Queue.new
  end

  # Another one's may still be about to end.
  def thread_name = "lasting-#{object_id}"

  def lasting
    @lasting = Bavard::Lasting.new(thread_name, told: @told.method(:<<)) do
      loop do
        work = @work.pop
        break if work == :end

        raise ArgumentError, "broken" if work == :break

        @done << work
      end
    end
    @lasting.start
  end

  def teardown = @lasting&.kill

  def test_what_its_work_raises_is_told_and_it_begins_anew
    lasting
    3.times do |number|
      @work << :break
      @work << number
      assert_equal number, @done.pop
    end
    assert_equal ["broken"] * 3, Array.new(3) { @told.pop.message }
  end

  def test_a_thread_that_is_ended_is_begun_anew_by_whoever_looks
    lasting
    @work << 1
    @done.pop
    Thread.list.find { |thread| thread.name == thread_name }.kill
    wait_for("its end") { !@lasting.alive? }
    Bavard::Lasting.look
    @work << 2
    assert_equal 2, @done.pop
    assert_nil @told.pop
  end

  # A show or a feed would go on twice, and every line of it.
  def test_whoever_looks_while_it_begins_begins_no_other
    begun = Thread.method(:new)
    here = Thread.current
    looks = nil
    beginning = lambda do |*given, &work|
      next begun.call(*given, &work) unless Thread.current.equal?(here)

      looks = begun.call { Bavard::Lasting.look }
      wait_for("the look") { looks.stop? }
      begun.call(*given, &work)
    end
    Thread.stub(:new, beginning) { lasting }
    looks.join
    assert_empty @told
    assert_equal(1, Thread.list.count { |thread| thread.name == thread_name })
  end

  def test_what_is_done_stays_done
    lasting
    @work << :end
    assert @lasting.join(10)
    Bavard::Lasting.look
    refute_predicate @lasting, :alive?
    refute Bavard::Lasting::ALL.key?(@lasting)
  end

  def test_what_was_ended_on_purpose_stays_so
    lasting
    @lasting.kill
    @lasting.join
    Bavard::Lasting.look
    refute_predicate @lasting, :alive?
    assert_empty @told
  end
end
