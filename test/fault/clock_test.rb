# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/settable_clock"

# The machine's clock is set while the broadcast goes on, as by whoever corrects it: nothing stands still, and nothing is over too soon.
class ClockTest < PreparedTest
  HOUR_S = 3600
  # Where clocks go forward and back in the year.
  ZONE = "Europe/Berlin"
  # One after the other, seconds ahead of what it was at first.
  SETTINGS = [-HOUR_S, -HOUR_S - 30, HOUR_S, 86_400, 0].freeze

  def test_lines_come_are_held_and_stay_as_long_as_ever
    clock = SettableClock.new
    prepare(own: true, feed: feed_address, hold_ms: 400, pieces: [PIECE.merge("stay_ms" => 600_000)], env: {**clock.env, "TZ" => ZONE})
    until_live
    open_screen(link)
    sign_in
    visit "/prompter/"
    said("before")
    SETTINGS.each do |seconds|
      clock.set(seconds)
      said("with the clock at #{seconds}")
      assert_operator offset_ms.abs, :>, 1_000_000 unless seconds.zero?
    end
    over_the_change_of_the_hour(clock)
    # What was there before any of it stays for its ten minutes.
    on_screen { assert_selector ".line", count: SETTINGS.size + 3 }
    assert_selector ".row.aired", count: SETTINGS.size + 3
    clock.set(0)
    assert_operator offset_ms.abs, :<, 10_000
  end

  private

  # Two seconds before an hour is left out or comes twice, and after that.
  def over_the_change_of_the_hour(clock)
    ahead_s = change_of_the_hour - Time.now.to_i - 2
    clock.set(ahead_s)
    said("before the hour changes")
    wait_for("the hour to change") { Time.now.to_i + ahead_s > change_of_the_hour }
    said("after the hour has changed")
  end

  # @return [Integer] Unix seconds of the last one: so far ahead nobody would be signed in any more
  def change_of_the_hour
    @change_of_the_hour ||= begin
      before = ENV.fetch("TZ", nil)
      ENV["TZ"] = ZONE
      hour = (Time.now.to_i / HOUR_S) - 24
      hour -= 1 while Time.at(hour * HOUR_S).utc_offset == Time.at((hour + 1) * HOUR_S).utc_offset
      (hour + 1) * HOUR_S
    ensure
      ENV["TZ"] = before
    end
  end

  def said(text)
    server.say("ann", text)
    on_screen { assert_selector ".line", text: }
    assert_selector ".row.aired", text:
  end

  # As the operator sees it; with the clock where it was at first there is next to none.
  def offset_ms = JSON.parse(Net::HTTP.get(URI("#{@app.address}/healthz"))).fetch("clock_ahead_ms")
end
