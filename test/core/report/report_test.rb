# frozen_string_literal: true

require "csv"
require "json"
require "json_schemer"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/report/report"
require_relative "../../../lib/bavard/exports/report_csv"

# What a broadcast came to, as it is told, drawn and taken along.
class ReportTest < Minitest::Test
  include Bavard::Core::Report

  Csv = Bavard::Exports::ReportCsv
  BEGAN_MS = 1_795_499_520_000
  MINUTE = BEGAN_MS / 60_000

  def feed(name, *numbers) = Feed.new(name:, **%i[lines aired kept_off pulled people].zip(numbers).to_h)

  def sheet(minutes: {MINUTE => 4, MINUTE + 2 => 9}, lasts_min: 3, since_ms: BEGAN_MS, **more)
    counted = Counted.new(from_ms: BEGAN_MS, to_ms: BEGAN_MS + (lasts_min * 60_000), feeds: [feed("Oxbow", 9, 7, 2, 1, 4), feed("=Skein", 4, 4, 0, 0, 2)],
      rules: {"links" => 2, "repeats" => 5, "known_bots" => 2}, minutes:, people: 6, new_people: 1,
      events: [Event.new(kind: "tip", times: 2, worth: 1250, unit: "EUR"), Event.new(kind: "follow", times: 3)], **more)
    slow = Slow.new(line: 7, at_ms: BEGAN_MS + 20, took_ms: 340, who: "ann", feed: "Oxbow", text: "hello")
    Sheet.new(counted, Notes.new(since_ms:, slowest: [slow], troubles: [Trouble.new(at_ms: BEGAN_MS, stage: "Main", screen: "a screen", words: "closed")]))
  end

  def test_all_feeds_together
    assert_equal({lines: 13, aired: 11, kept_off: 2, pulled: 1}, sheet.totals)
    assert_equal [["repeats", 5], ["known_bots", 2], ["links", 2]], sheet.rules
  end

  def test_each_minute_has_a_bar_also_one_without_lines
    assert_equal [1, [[BEGAN_MS, 4], [BEGAN_MS + 60_000, 0], [BEGAN_MS + 120_000, 9]]], [sheet.bar_minutes, sheet.bars]
    assert_equal [[BEGAN_MS, 0]], sheet(lasts_min: 0, minutes: {}).bars
  end

  def test_a_long_broadcast_has_wider_bars_that_lose_no_line
    long = sheet(lasts_min: 721, minutes: {MINUTE => 4, MINUTE + 6 => 1, MINUTE + 720 => 9})
    assert_equal [7, 103, 14], [long.bar_minutes, long.bars.size, long.bars.sum(&:last)]
    assert_equal [5, 9], long.bars.values_at(0, -1).map(&:last)
  end

  def test_the_busiest_minutes_come_first_and_of_the_same_the_earlier
    minutes = {MINUTE => 3, MINUTE + 1 => 9, MINUTE + 2 => 3, MINUTE + 3 => 0, MINUTE + 4 => 1, MINUTE + 5 => 1, MINUTE + 6 => 1}
    assert_equal [1, 0, 2, 4, 5], sheet(minutes:, lasts_min: 7).busiest.map { |at_ms, _| (at_ms - BEGAN_MS) / 60_000 }
  end

  def test_it_says_since_when_notes_were_taken
    refute_predicate sheet, :noted_late?
    late = sheet(since_ms: BEGAN_MS + 1)
    assert_predicate late, :noted_late?
    assert_equal "2026-11-24T05:52:00.001Z", late.to_h["noted_since"]
    assert_equal late.to_h["from"], sheet(since_ms: 0).to_h["noted_since"]
  end

  def test_what_events_were_worth
    worth = ->(*given) { Sheet.worth(Event.new(**%i[kind times worth unit].zip(given).to_h)) }
    assert_equal ["12.50 EUR", "300 sparks", nil, nil], [worth["tip", 2, 1250, "EUR"], worth["paid", 1, 300, "sparks"], worth["follow", 3, nil, nil], worth["tip", 1, 0, "EUR"]]
  end

  def test_as_json_it_keeps_to_its_schema
    schema = JSONSchemer.schema(JSON.parse(File.read(File.expand_path("../../../docs/formats/report.schema.json", __dir__))))
    [sheet, sheet(minutes: {}, events: [])].each do |one|
      assert_empty schema.validate(JSON.parse(JSON.generate(one.to_h))).map { |error| error["error"] }
    end
    refute_empty schema.validate(sheet.to_h.except("lines")).to_a
  end

  def test_as_csv_no_cell_is_a_formula
    rows = CSV.parse(Csv.of(sheet))
    assert_equal Csv::COLUMNS, rows.first
    assert_includes rows, ["lines of", "'=Skein", nil, "4"]
    assert_includes rows, ["worth, in its smallest unit", "tip", nil, "1250", "EUR"]
    assert_includes rows, ["slow line", "ann", "2026-11-24T05:52:00.020Z", "340", "ms", "hello"]
    assert_equal 2, rows.count { |what, *| what == "lines in a minute" }
  end
end
