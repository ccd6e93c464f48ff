# frozen_string_literal: true

require_relative "../support/live_test"
require_relative "../support/feed_probe"
require_relative "../support/minimal_irc"

# Whichever thread is ended or raises, what it does goes on.
class ThreadsTest < LiveTest
  # What is heard of a topic, as a page would.
  class Heard
    attr_reader :texts

    def initialize = @texts = Queue.new
    def deliver(_topic, frame) = @texts << frame
  end

  # It is seen, and begun anew.
  def end_thread_of(object)
    lasting = object.instance_variable_get(:@thread)
    lasting.instance_variable_get(:@thread).kill
    wait_for("the end of #{lasting.name}") { !lasting.alive? }
    Bavard::Lasting.look
    wait_for("#{lasting.name} anew") { lasting.alive? }
  end

  def test_a_show
    show = Bavard::Live::Show.new(make_show(document: with_chat, on_air: true), means).start
    assert_equal 1, show.ask { 1 }
    end_thread_of(show)
    assert_equal 2, show.ask { 2 }
  ensure
    show&.stop
  end

  def test_the_journal
    record = make_show
    end_thread_of(journal)
    written = Queue.new
    journal.later { written << record.id }
    assert_equal record.id, written.pop
  end

  # One that can never be written stands in nobody's way.
  def test_the_journal_with_work_that_is_broken
    written = Queue.new
    journal.later { raise NoMethodError, "a fault of ours" }
    journal.later { written << :next }
    assert_equal :next, written.pop
    assert_equal 1, journal.lost
  end

  # Nor is one left out that only could not be written just then.
  def test_the_journal_with_work_that_has_no_room_just_then
    written = Queue.new
    tries = 0
    journal.later { (tries += 1) < 3 ? raise(Errno::ENOSPC) : written << tries }
    assert_equal 3, written.pop
    assert_equal 0, journal.lost
  end

  def test_a_feed
    server = MinimalIrc.new
    probe = FeedProbe.irc("irc://127.0.0.1:#{server.port}/%23reedmere").start
    wait_for("it to read") { server.clients.positive? }
    server.say("ann", "before")
    probe.line_with("before")
    end_thread_of(probe.instance_variable_get(:@runner))
    wait_for("it to read again") { server.clients > 1 }
    server.say("ann", "after")
    probe.line_with("after")
    assert(probe.of(:feed_state).any? { |intake| intake.body.reason.include?("A fault of ours") })
  ensure
    probe&.stop
    server&.stop
  end
end
