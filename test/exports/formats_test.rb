# frozen_string_literal: true

require "csv"
require "json_schemer"
require_relative "../support/lines"
require_relative "../support/plain"
require_relative "../../lib/bavard/core/gate/verdict"
require_relative "../../lib/bavard/exports/formats"
require_relative "../../lib/bavard/feeds/activities/reading"
require_relative "../../lib/bavard/live/rehearsal/playback"
require_relative "../../lib/bavard/live/rehearsal/rehearsal"
require_relative "../../lib/bavard/store/lines"

# The log in each of its formats, and back again where that is promised.
class FormatsTest < Minitest::Test
  include Bavard

  FEEDS = {1 => {name: "Skein", shape: "triangle", colour: "#63c58a"}}.freeze
  AT_MS = 1_795_499_520_250

  def entry(text, at_ms: AT_MS, pass: true, **more)
    line = Lines.line(at_ms * 1000, text, at_ms:, platform_id: "m#{at_ms}", name: more[:name])
    line.kind = more[:kind] if more[:kind]
    line.paid = more[:paid]
    line.reply = more[:reply]
    line.number = more[:number]
    verdict = pass ? Core::Gate::PASS : Core::Gate::Verdict.new(:drop, "command_lines", "!ring")
    Store::Lines::Entry.new(line, verdict, pass, more[:pulled] || false, [["received", at_ms, nil]])
  end

  def written(format, *entries)
    writer = Exports::FORMATS.fetch(format).new(FEEDS)
    writer.head + entries.map { |one| writer.entry(one) }.join + writer.foot
  end

  def test_csv_is_read_back_as_it_was
    rows = CSV.parse(written("csv", entry("a, \"b\" c"), entry("!ring", pass: false)), headers: true)
    assert_equal ["2026-11-24T05:52:00.250Z", "Skein", "mudlark7", "a, \"b\" c"], rows[0].values_at("at", "feed", "login", "text")
    assert_equal %w[drop command_lines], rows[1].values_at("verdict", "rule")
  end

  def test_csv_has_no_formulas
    cells = ["=1+1", "+1", "-1", "@x", "\tx"].map { |text| CSV.parse(written("csv", entry(text)), headers: true)[0]["text"] }
    assert(cells.all? { |cell| !cell.start_with?("=", "+", "-", "@", "\t") }, cells.inspect)
  end

  def test_json_lines_are_played_back_with_their_times
    text = written("jsonl", entry("one"), entry("follows", kind: :follow, at_ms: AT_MS + 5),
      entry("two", at_ms: AT_MS + 1500, paid: Core::Amount.own(3, "sparks")))
    lines = Live::Playback.read(text)
    assert_equal [[0, "one", nil], [1500, "two", "3 sparks"]], lines.map { |at, said| [at, said.text, said.paid&.words] }
  end

  def test_every_line_of_json_lines_fits_its_published_format
    schema = JSONSchemer.schema(JSON.parse(File.read(File.expand_path("../../docs/formats/log.schema.json", __dir__))))
    all = [entry("one", reply: Core::Reply.new("m0", "Bob", nil)), entry("two", paid: Core::Amount.own(3, "sparks")), entry("", kind: :visit, number: 41), entry("!ring", pass: false, pulled: true)]
    written("jsonl", *all).each_line { |line| assert_empty schema.validate(JSON.parse(line)).map { |wrong| wrong["error"] } }
  end

  def test_what_is_no_export_says_which_line
    good = written("jsonl", entry("one"))
    {"#{good}{oh no\n" => "Line 2", "{\"kind\":\"said\"}\n" => "Line 1", "[]\n" => "Line 1", "" => "no line",
     "{\"kind\":\"follow\"}\n" => "no line"}.each do |text, words|
      assert_includes assert_raises(Error, text) { Live::Playback.read(text) }.message, words
    end
  end

  def test_activities_are_taken_in_again_as_what_they_were
    text = written("activities", entry("hello", reply: Core::Reply.new("m0", "Bob", nil)),
      entry("take this", kind: :tip, paid: Core::Amount.money(500, "EUR")), entry("", kind: :visit, number: 41))
    items = JSON.parse(text)
    assert_equal "OrderedCollection", items["type"]
    line, tip, visit = items["orderedItems"].map { |item| Feeds::Activities::Reading.read(JSON.generate(item), 1, AT_MS, fallback_id: "x") }
    assert_equal [:line, "hello", "m0", "m#{AT_MS}"], [line.kind, line.body.text, line.body.reply.platform_id, line.platform_id]
    assert_equal [:tip, "5.00 EUR", "take this"], [tip.body.what, tip.body.said.paid.words, tip.body.said.text]
    assert_equal [:visit, 41], [visit.body.what, visit.body.number]
  end

  def test_captions_count_from_the_first_line_and_leave_out_what_nobody_saw
    text = written("vtt", entry("<b>1 & 2</b>", name: "A<nn"), entry("!ring", pass: false, at_ms: AT_MS + 10),
      entry("gone", pulled: true, at_ms: AT_MS + 20), entry("later", at_ms: AT_MS + 3_661_500))
    assert_equal <<~VTT, text
      WEBVTT

      00:00:00.000 --> 00:00:07.000
      <v A&lt;nn>&lt;b&gt;1 &amp; 2&lt;/b&gt;</v>

      01:01:01.500 --> 01:01:08.500
      <v mudlark7>later</v>

    VTT
  end

  def test_a_playback_keeps_its_pace_or_a_chosen_one_and_ends
    text = written("jsonl", entry("one"), entry("two", at_ms: AT_MS + 1000))
    ids = Struct.new(:last) { def next(_now) = self.last += 1 }.new(0)
    [[1.0, 1000], [4.0, 250]].each do |speed, due|
      playback = Live::Rehearsal.new(Live::Playback.script(text, speed), 5000)
      assert_equal "one", playback.line(5000, ids).text
      assert_equal 5000 + due, playback.due_ms
      assert_nil playback.line(5000 + due - 1, ids)
      assert_equal "two", playback.line(5000 + due, ids).text
      assert_predicate playback, :over?
    end
  end
end
