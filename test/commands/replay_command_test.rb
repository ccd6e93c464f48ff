# frozen_string_literal: true

require "minitest/mock"
require "stringio"
require_relative "../support/live_test"
require_relative "../support/lines"
require_relative "../../lib/bavard/commands/replay"
require_relative "../../lib/bavard/core/gate/rule_set"

# The trial of rules over the log, by one process and by two.
class ReplayCommandTest < LiveTest
  LINES = 40
  BEGAN_MS = 1_795_499_520_000

  def setup
    super
    @record = make_show
    stores.lines.add(@record.id, Array.new(LINES) { |at| entry(at) })
    @before = ENV.fetch("DATABASE_URL", nil)
    ENV["DATABASE_URL"] = TestDatabase.url
  end

  def teardown
    ENV["DATABASE_URL"] = @before
    super
  end

  # Half a minute apart; every second one is said again and again.
  def entry(at)
    at_ms = BEGAN_MS + (at * 30_000)
    Bavard::Store::Lines::Entry.new(Lines.line(at_ms * 1000, at.odd? ? "again and again" : "seen at #{at}", feed_id: @feed.id, at_ms:), Bavard::Core::Gate::PASS, true, false)
  end

  def rules(*given) = Bavard::Core::Gate::RuleSet.read("name" => "A", "rules" => given)["rules"]

  def told(alone: true, **more)
    order = {"alone" => alone, "show" => @record.id, "before" => rules, "after" => rules({"kind" => "repeats", "times" => 3, "within_s" => 300}),
             "from_ms" => BEGAN_MS, "to_ms" => BEGAN_MS + (LINES * 30_000)}
    output = StringIO.new
    Bavard::ReplayCommand.new(order, db, **more).run(output)
    output.string.lines.map { |line| JSON.parse(line) }.last
  end

  def test_two_processes_find_what_one_finds
    whole = told(halved_from: Float::INFINITY)
    assert_equal [LINES, LINES, LINES], [whole["done"], whole["total"], whole.dig("result", "lines")]
    assert_operator whole.dig("result", "off"), :>, 10
    assert_equal whole, told(halved_from: 2)
    Bavard::ReplayCommand::Elsewhere.stub(:new, ->(_order) { flunk "others are at it" }) { assert_equal whole, told(halved_from: 2, alone: false) }
  end
end
