# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/live_test"
require_relative "../../../lib/bavard/live/lines/screen_times"

# What is noted while a broadcast runs: its slowest lines, and its screens' troubles.
class BroadcastNotesTest < LiveTest
  Time = Bavard::Live::ScreenTimes::Time
  Connection = Struct.new(:id, :env)

  def setup
    super
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @record = make_show(document: with_chat, on_air: true)
    @show = @shows.run(@record.id)
  end

  def ask(&block) = @show.ask(&block)
  def notes = ask { |show| show.notes.report }
  def painted(*took) = ask { |show| took.each_with_index { |ms, id| show.notes.painted(Time.new(clock.call, ms, Lines.line(id, "line #{ms}", feed_id: @feed.id))) } }

  def screen(id, said = nil)
    connection = Connection.new(id, {"REMOTE_ADDR" => "127.0.0.1"})
    @show.screen(desk, :opened, connection)
    hears(connection, said) if said
    connection
  end

  def desk = ask { |show| show.desk(@stage.id) }
  def hears(connection, said) = @show.screen(desk, :heard, connection, JSON.generate({"w" => 1920, "h" => 1080, "rev" => 1}.merge(said)))
  def troubles = notes.troubles.map(&:words)

  def test_the_ten_slowest_the_slowest_first
    painted(*(1..30).to_a.shuffle(random: Random.new(4)))
    assert_equal (21..30).to_a.reverse, notes.slowest.map(&:took_ms)
    assert_equal ["line 30", "Test"], notes.slowest.first.to_h.values_at(:text, :feed)
  end

  def test_a_new_broadcast_begins_without_those_of_the_last
    painted(500)
    clock.now_ms += 1000
    ask(&:begin_broadcast)
    assert_equal [[], [], clock.call], notes.then { |told| [told.slowest, told.troubles, told.since_ms] }
    painted(400)
    ask { |show| show.begin_broadcast(at_ms: clock.call - 1000) }
    assert_equal [400], notes.slowest.map(&:took_ms)
  end

  def test_each_trouble_of_a_screen_once
    screen("one", {})
    assert_empty troubles
    two = screen("two", {"w" => 640, "h" => 360})
    3.times { hears(two, {"w" => 640, "h" => 360, "missing" => ["Fraunces"], "not" => ["sise"]}) }
    hears(two, {"silent" => 4})
    @show.screen(desk, :closed, two)
    assert_equal ["drawn at 640 × 360, so 25 px text shows at 8 px", "has no Fraunces", "does not understand sise", "could not play a sound", "closed"], troubles
    assert_equal ["Main", "a screen of 1920 × 1080 at 127.0.0.1"], notes.troubles.last.to_h.values_at(:stage, :screen)
  end

  def test_whoever_opens_and_closes_all_day_takes_no_more_room
    many = Bavard::Live::BroadcastNotes::MOST_TROUBLES + 20
    many.times { |id| @show.screen(desk, :closed, screen("screen #{id}")) }
    assert_equal Bavard::Live::BroadcastNotes::MOST_TROUBLES, troubles.size
  end
end
