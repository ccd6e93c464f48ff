# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/web/stations/log/trace"

# Where it went, in words: for a host who asks why a line does not show.
class TraceTest < Minitest::Test
  Line = Struct.new(:arrived_at_ms, :platform_time_ms, :kind, :origin, :person)
  Entry = Struct.new(:line, :trace, :pulled)

  def steps(*trace, pulled: false)
    Bavard::Web::Trace.new(Entry.new(Line.new(1000, nil), trace, pulled), nil, []).steps.map { |step| step.values_at(:title, :words, :kind) }
  end

  def test_it_says_why_a_line_is_not_on_the_picture
    {"aired" => ["Went on the picture", nil, "well"],
     "draft" => ["In drafts only", "its feed is read for the draft alone, or no stage on air takes it in", "told"],
     "thinned" => ["Not on the picture", "its feed brings more than anybody can read; only some of it goes there", "told"],
     "nowhere" => ["On no stage", "no chat piece on air takes in such lines", "told"]}.each do |where, words|
      assert_equal [words], steps(["shown", 1500, where])
    end
  end

  def test_what_left_without_being_shown_says_so_and_what_is_pulled_counts_once
    assert_equal [["Left without being shown", "nobody let it go in time", "off"]], steps(["left", 9000, "nobody let it go in time"], pulled: true)
    assert_equal 1, steps(["judged", 1000, "passed"], pulled: true).count { |_, _, kind| kind == "off" }
  end
end
