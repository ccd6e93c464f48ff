# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/core/chat/cleaning"
require_relative "../../lib/bavard/core/chat/line"
require_relative "../../lib/bavard/core/gate/ladder"
require_relative "../../lib/bavard/core/gate/memory"
require_relative "../../lib/bavard/core/gate/rule_set"
require_relative "../../lib/bavard/core/reading/rows"
require_relative "../../lib/bavard/core/reading/speech"

# What somebody gains by one long line: that a show stands still while it is cut, judged, measured and spoken. Each is twice as
# long as any that comes in, and may take a second of processor time: in time that grows with the length it is a fraction of that, with
# the length's square it was up to four seconds.
class LongLinesTest < Minitest::Test
  Core = Bavard::Core
  LENGTH = 16_000
  LONGEST_S = 1
  SHAPES = ["🦆", "👩‍👩‍👧‍👦", "🇩🇪", "👍🏽", "1️⃣", "🦆 ", "a\u0301", "\u200bn", "@ann ", "@éé ", "marsh.example ", "é.m ", "é.de ", "reed.example reed dot example ", "n e s t ", "ÉA ", "か", "صب ", "nе𝓈t", "!a ", "?!", ":a: ",
    "nestling ", "é nestling "].freeze

  # Of this thread alone, and without looking through what tests before it have left in the memory of this process: neither is the line's.
  def seconds
    GC.disable
    began = cpu_s
    yield
    cpu_s - began
  ensure
    GC.enable
  end

  def cpu_s = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)

  # A machine that others use counts time of theirs as well; what grows with the square takes too long each time.
  def always_too_long?(&) = 3.times.all? { seconds(&) > LONGEST_S }

  def text(shape) = (shape * LENGTH)[0, LENGTH]

  def line(text)
    said = Core::Said.new("ann", "Ann", nil, [], "hello", false, false)
    Core::Chat::Line.from(Core::Intake.new(:line, 1, nil, nil, 0, said), id: 1).dup.tap do |line|
      line.text = text
      line.fragments = Core::Chat::Fragments.cut(text)
    end
  end

  # Every rule, none of which ends what the others look at.
  def ladder
    more = {"stopped_words" => {"words" => "nestling\negg thief\nm*sh"}, "who_may_be_shown" => {"action" => "hold"}, "asked_for" => {"action" => "hold"},
            "scripts" => {"action" => "hold"}, "links" => {"action" => "hold"}}
    @ladder ||= Core::Gate::Ladder.from(Core::Gate::RuleSet::DEFAULT["rules"].map { |rule| rule.merge({"on" => true}, more.fetch(rule["kind"], {})) })
  end

  def memory = Core::Gate::Memory.new(left_out: Core::Gate::LeftOut.new([]), first_seen: ->(_) { 0 })

  def assert_short
    ladder.hear(line("hello"), memory)
    assert_empty(SHAPES.select { |shape| always_too_long? { yield shape } })
  end

  def test_a_show_that_stands_still_while_a_line_is_cut
    assert_short { |shape| Core::Chat::Fragments.cut(text(shape)) }
  end

  def test_or_while_a_platforms_emotes_are_placed_in_it
    placed = (0...(LENGTH / 2)).map { |at| [at * 2, 1, "http://x.example/a.png"] }
    assert_short do |shape|
      Core::Chat::Fragments.cut(text(shape), placed:)
      Core::Chat::Cleaning.with_ranges(text(shape), placed)
    end
  end

  def test_or_while_the_gate_judges_it
    assert_short { |shape| ladder.hear(line(text(shape)), memory) }
  end

  def test_or_while_it_is_spoken_and_measured
    assert_short do |shape|
      Core::Reading::Speech.of(line(text(shape)))
      Core::Reading::Rows.new(20.0) { |words| words.length * 0.5 }.count(text(shape))
    end
  end

  def test_or_while_what_a_rule_says_is_written_into_it
    edits = (0...(LENGTH / 2)).map { |at| Core::Gate::Edit.new(at * 2, (at * 2) + 1, "●") }.shuffle
    placed = (0...(LENGTH / 2)).map { |at| [(at * 2) + 1, 1, "http://x.example/a.png"] }
    assert_short { |shape| Core::Gate::Edits.apply(text(shape), edits, placed) }
  end
end
