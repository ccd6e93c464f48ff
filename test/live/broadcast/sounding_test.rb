# frozen_string_literal: true

require "json"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/stage/screens"
require_relative "../../../lib/bavard/live/broadcast/sounding"

# One screen is heard, whatever screens come and go.
class SoundingTest < Minitest::Test
  Connection = Struct.new(:id, :env)
  Desk = Struct.new(:air_topic, :screens, :plays) do
    def plays_alerts? = plays
  end
  # Keeps what each page is told.
  class Whispers < Array
    def whisper(topic, id, text) = self << [topic, id, JSON.parse(text)["only"]]
  end
  CARD = {i: 7, u: "/sounds/a.ogg", v: 0.8}.freeze

  def setup
    @hub = Whispers.new
    @desks = [Desk.new("air:1", Bavard::Live::Screens.new, true), Desk.new("air:2", Bavard::Live::Screens.new, false)]
    @sounding = Bavard::Live::Sounding.new(@hub, -> { @desks })
  end

  def see(id, desk = 0, hidden: false)
    connection = Connection.new(id, {"REMOTE_ADDR" => "127.0.0.1"})
    @desks[desk].screens.opened(connection, 0)
    @desks[desk].screens.heard(connection, JSON.generate(w: 1920, h: 1080, hidden:), 0)
    connection
  end

  def heard = @hub.map { |_, id, what| [id, what.keys.first, what.dig("sound", "from")].compact }

  def test_one_of_several_is_told_and_the_same_again
    see(1)
    see(2)
    2.times { |at| @sounding.play(CARD, at * 1000, 900) }
    assert_equal [[1, "sound", 0], [1, "stop"], [1, "sound", 0]], heard
  end

  def test_a_stage_without_alerts_and_a_hidden_page_are_not_heard
    see(1, 1)
    see(2, hidden: true)
    see(3)
    @sounding.play(CARD, 0, 5000)
    assert_equal [[3, "sound", 0]], heard
  end

  def test_another_takes_over_where_it_was_and_only_once
    see(1)
    see(2)
    @sounding.play(CARD, 1000, 5000)
    @desks[0].screens.closed(Connection.new(1))
    @sounding.closed(1, 2500)
    @sounding.closed(1, 2600)
    assert_equal [[1, "sound", 0], [2, "sound", 1500]], heard
  end

  def test_what_began_where_no_screen_was_goes_on_from_the_first_that_comes
    @sounding.there(0)
    @sounding.play(CARD, 1000, 5000)
    @sounding.there(1500)
    see(1)
    @sounding.there(2500)
    see(2)
    @sounding.there(2600)
    assert_equal [[1, "sound", 1500]], heard
  end

  def test_and_on_one_that_was_gone_and_is_back_unless_it_is_nearly_over
    see(1)
    @sounding.play(CARD, 1000, 5000)
    @desks[0].screens.closed(Connection.new(1))
    @sounding.closed(1, 2500)
    see(2)
    @sounding.there(3000)
    @desks[0].screens.closed(Connection.new(2))
    @sounding.closed(2, 3500)
    see(3)
    @sounding.there(5800)
    assert_equal [[1, "sound", 0], [2, "sound", 2000]], heard
  end

  def test_what_is_nearly_over_and_what_was_skipped_is_not_taken_over
    [1, 2].each { |id| see(id) }
    @sounding.play(CARD, 0, 5000)
    @sounding.closed(1, 4900)
    @sounding.stop
    @sounding.closed(1, 100)
    assert_equal [[1, "sound", 0], [1, "stop"]], heard
  end

  def test_a_screen_that_plays_no_sounds_is_passed_over_until_it_is_opened_anew
    [1, 2].each { |id| see(id) }
    @sounding.play(CARD, 0, 5000)
    @sounding.failed(1, 100)
    @sounding.play(CARD, 6000, 5000)
    assert_equal [[1, "sound", 0], [2, "sound", 100], [2, "stop"], [2, "sound", 0]], heard
  end

  def test_an_alert_that_is_over_lets_its_sound_ring_out
    see(1)
    @sounding.play(CARD, 0, 5000)
    @sounding.over(5000)
    assert_equal [[1, "sound", 0]], heard
    @sounding.play(CARD, 6000, 5000)
    @sounding.over(7000)
    assert_equal [1, "stop"], heard.last
  end

  def test_without_a_screen_nothing_is_told
    @sounding.play(CARD, 0, 5000)
    @sounding.stop
    assert_empty @hub
  end
end
