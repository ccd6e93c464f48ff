# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/show/figures"
require_relative "../../../lib/bavard/live/lines/line_ids"
require_relative "../../../lib/bavard/live/show/mailbox"
require_relative "../../../lib/bavard/live/intake/pace_trace"
require_relative "../../../lib/bavard/live/stage/screen"

class FiguresTest < Minitest::Test
  def test_counts_are_of_the_last_hour
    figures = Bavard::Live::Figures.new
    figures.count(0, dropped: true, aired: false)
    figures.count(3_000_000, dropped: false, aired: true)
    assert_equal({in: 2, off: 1, aired: 1}, figures.at(3_000_000))
    assert_equal({in: 1, off: 0, aired: 1}, figures.at(3_700_000))
  end

  def test_the_pace_of_ten_minutes_in_slots_of_ten_seconds
    trace = Bavard::Live::PaceTrace.new
    [0, 5000, 599_000].each { |at_ms| trace.count(at_ms) }
    assert_equal [2, 1], trace.at(599_000).reject(&:zero?)
    assert_equal 1, trace.rate(599_000)
    assert_equal 60, trace.at(700_000).size
  end
end

class LineIdsTest < Minitest::Test
  def test_they_grow_even_when_the_clock_goes_back
    ids = Bavard::Live::LineIds.new(0)
    given = [ids.next(1000), ids.next(1000), ids.next(5), ids.next(2000)]
    assert_equal given.sort, given
    assert_equal given.uniq, given
  end

  def test_they_go_on_after_the_highest_of_last_time
    assert_operator Bavard::Live::LineIds.new(9_000_000).next(1), :>, 9_000_000
  end

  # A process that is killed has given out more than it kept.
  def test_what_was_given_and_not_kept_is_not_given_again_where_the_clock_was_set_back
    before = Bavard::Live::LineIds.new(0)
    kept = before.next(3_600_000)
    given = [before.next(3_600_000), before.next(3_605_000)]
    again = Bavard::Live::LineIds.new(kept)
    assert_empty given & Array.new(10_000) { again.next(1000) }
  end

  def test_a_json_reader_can_hold_them_for_two_hundred_years
    assert_operator Bavard::Live::LineIds.new(0).next(8_000_000_000_000), :<, 2**53
  end
end

class MailboxTest < Minitest::Test
  Mailbox = Bavard::Live::Mailbox

  def test_waits_only_so_long
    assert_empty Mailbox.new.take(0.01)
  end

  def test_hands_over_what_comes
    mailbox = Mailbox.new
    taken = Thread.new { mailbox.take(nil) }
    mailbox.put(:hello, :ours)
    assert_equal [:hello], taken.value
  end

  def test_who_brings_too_much_waits_and_nobody_else_does
    mailbox = Mailbox.new(most: 1)
    mailbox.put(1, :ours)
    assert mailbox.full?(:ours)
    refute mailbox.full?(:theirs)
    sender = Thread.new { mailbox.put(3, :ours) }
    Thread.pass until sender.status == "sleep"
    mailbox.put(2, :theirs)
    mailbox.follow(:heard, :theirs)
    assert_equal [1, 2, :heard], mailbox.take(0)
    sender.join
    assert_equal [3], mailbox.take(0)
  end

  def test_what_is_asked_comes_first_and_feeds_in_turn
    mailbox = Mailbox.new(at_once: 5)
    6.times { |number| mailbox.put("flood #{number}", :flood) }
    2.times { |number| mailbox.put("calm #{number}", :calm) }
    mailbox.drop_in(:brake)
    assert_equal [:brake, "flood 0", "calm 0", "flood 1", "calm 1", "flood 2"], mailbox.take(0)
    mailbox.put("calm 2", :calm)
    mailbox.drop_in(:pull)
    assert_equal [:pull, "flood 3", "calm 2", "flood 4", "flood 5"], mailbox.take(nil)
    assert_empty mailbox.take(0)
  end

  def test_once_it_is_given_up_nothing_is_taken
    mailbox = Mailbox.new
    assert mailbox.follow(1, :ours)
    refute_predicate mailbox, :retire
    assert mailbox.drop_in(:ask)
    assert_equal [:ask, 1], mailbox.take(0)
    assert_predicate mailbox, :retire
    refute mailbox.follow(2, :ours)
    refute mailbox.drop_in(:ask)
    assert_empty mailbox.take(0)
  end

  def test_once_it_is_closed_nobody_waits
    mailbox = Mailbox.new(most: 0)
    sender = Thread.new { mailbox.put(1, :ours) }
    mailbox.close
    sender.join
    assert_equal [1], mailbox.take(0)
  end
end

class ScreenTest < Minitest::Test
  DOCUMENT = {"width" => 1920, "height" => 1080, "pieces" => [{"kind" => "chat", "text_size_px" => 25}]}.freeze

  def screen = @screen ||= Bavard::Live::Screen.new(1, from: "127.0.0.1", now_ms: 0)

  def test_it_tells_what_to_change
    screen.hear('{"w":640,"h":360,"fps":59.7,"rev":3,"hidden":false,"not":["sparkle=1"]}', 1000)
    told = screen.card(DOCUMENT, 4, 3000)
    assert_equal ["drawn at 640 × 360, so 25 px text shows at 8 px", false, 60, 2000, ["sparkle=1"]],
      told.values_at(:words, :current, :rate, :heard, :not_understood)
    assert_includes told[:advice], "1920"
  end

  def test_it_is_fine_once_it_is_right_current_heard_of_and_understood
    right = {"w" => 1920, "h" => 1080, "fps" => 60, "rev" => 4}
    {right => true, right.merge("w" => 640) => false, right.merge("rev" => 3) => false, right.merge("not" => ["x=1"]) => false}.each do |said, fine|
      screen.hear(JSON.generate(said), 1000)
      assert_equal fine, screen.card(DOCUMENT, 4, 2000)[:fine], said.inspect
    end
    screen.hear(JSON.generate(right), 1000)
    refute screen.card(DOCUMENT, 4, 60_000)[:fine]
  end

  def test_before_it_has_said_anything
    assert_equal "has not said how it is drawn yet", screen.card(DOCUMENT, 1, 0)[:words]
  end

  def test_what_a_stranger_sends_is_never_believed
    ["", "x", "[]", "7", "null", "{", "\xFF", "[" * 50].each { |text| refute screen.hear(text, 1), text.inspect }
    ['{"w":"9","h":{},"fps":[],"rev":null,"hidden":"yes","not":{"a":1}}', '{"w":-5,"h":99999999,"fps":-1,"rev":1e300}', '{"w":1e999}'].each do |text|
      assert screen.hear(text, 1), text
      assert_kind_of Hash, screen.card(DOCUMENT, 1, 2)
    end
  end
end
