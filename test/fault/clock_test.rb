# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/settable_clock"

# The machine's clock is set while the broadcast goes on, as by whoever corrects it: nothing stands still, and nothing is over too soon.
class ClockTest < PreparedTest
  HOUR_S = 3600
  # One after the other, seconds ahead of what it was at first.
  SETTINGS = [-HOUR_S, -HOUR_S - 30, HOUR_S, 86_400, 0].freeze

  def test_lines_come_are_held_and_stay_as_long_as_ever
    clock = SettableClock.new
    prepare(own: true, feed: feed_address, hold_ms: 400, pieces: [PIECE.merge("stay_ms" => 600_000)], env: clock.env)
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
    # What was there before any of it stays for its ten minutes.
    on_screen { assert_selector ".line", count: SETTINGS.size + 1 }
    assert_selector ".row.aired", count: SETTINGS.size + 1
    assert_operator offset_ms.abs, :<, 10_000
  end

  private

  def said(text)
    server.say("ann", text)
    on_screen { assert_selector ".line", text: }
    assert_selector ".row.aired", text:
  end

  # As the operator sees it; with the clock where it was at first there is next to none.
  def offset_ms = JSON.parse(Net::HTTP.get(URI("#{@app.address}/healthz"))).fetch("clock_ahead_ms")
end
