# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/stage/live_values"

class LiveValuesTest < Minitest::Test
  Document = Bavard::Core::Stage::Document

  def setup
    # 07:24:05 of some day, where this machine is.
    @now_ms = (Time.new(2026, 11, 25, 7, 24, 5).to_r * 1000).to_i
  end

  def values(kept = {}) = Bavard::Live::LiveValues.new(kept, -> { @now_ms })

  def document(kind, **given)
    piece = Bavard::Core::Pieces.kind(kind).build("#{kind}1", given.transform_keys(&:to_s))
    Document.empty.merge("pieces" => [piece])
  end

  def test_a_now_line_shows_what_is_set_else_what_stands_there_otherwise
    live = values
    stage = document("now_line", otherwise: "nobody yet")
    assert_equal({lines: ["nobody yet"]}, live.report(stage)["now_line1"])
    live.text("now_line1", "a reed warbler\n\n  K41 207\u0007 \n")
    assert_equal({lines: ["a reed warbler", "K41 207"]}, live.report(stage)["now_line1"])
    live.text("now_line1", "")
    assert_equal({lines: ["nobody yet"]}, live.report(stage)["now_line1"])
  end

  def test_clocks_tell_what_a_page_counts_from
    day = ((7 * 60) + 24) * 60_000
    assert_equal({value_ms: day + 5000, goes: :up}, values.report(document("clock"))["clock1"])
    assert_equal({value_ms: 55_000, goes: :down}, values.report(document("clock", clock: "until", until: "07:25"))["clock1"])
    assert_equal({value_ms: 86_400_000 - 65_000, goes: :down}, values.report(document("clock", clock: "until", until: "7.23"))["clock1"])
    assert_equal({value_ms: 300_000, goes: :stands}, values.report(document("clock", clock: "length", minutes: 5))["clock1"])
  end

  def test_a_stopwatch_runs_stops_and_goes_back
    live = values
    stage = document("clock", clock: "stopwatch")
    live.run("clock1", "start")
    @now_ms += 4000
    assert_equal({value_ms: 4000, goes: :up}, live.report(stage)["clock1"])
    live.run("clock1", "stop")
    @now_ms += 9000
    assert_equal({value_ms: 4000, goes: :stands}, live.report(stage)["clock1"])
    live.run("clock1", "start")
    @now_ms += 1000
    assert_equal 5000, live.report(stage)["clock1"][:value_ms]
    live.run("clock1", "back")
    assert_equal 0, live.report(stage)["clock1"][:value_ms]
    assert_raises(Bavard::Error) { live.run("clock1", "explode") }
  end

  def test_a_countdown_ends_at_nothing
    live = values
    live.run("clock1", "start")
    @now_ms += 3_600_000
    assert_equal 0, live.report(document("clock", clock: "length", minutes: 5))["clock1"][:value_ms]
  end

  def test_it_is_the_same_after_a_restart
    live = values
    live.text("now_line1", "a wren")
    live.run("clock1", "start")
    @now_ms += 2000
    again = values(JSON.parse(JSON.generate(live.to_h)))
    assert_equal "a wren", again.text_of("now_line1")
    assert_equal 2000, again.report(document("clock", clock: "stopwatch"))["clock1"][:value_ms]
  end
end
