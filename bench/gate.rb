# frozen_string_literal: true

require_relative "../lib/bavard/core/chat/line"
require_relative "../lib/bavard/core/gate/ladder"
require_relative "../lib/bavard/core/gate/replay"
require_relative "../lib/bavard/core/gate/rule_set"
require_relative "cpu"
require_relative "steal"

module Bench
  # The gate with everything on: 10 000 stopped words and 5 000 people left out, on one core; beside it the same with 100
  # words, and lines that are only looked at once each. And a replay of 50 000 lines.
  class Gate
    include Cpu

    LINES = 3000
    RUNS = 12
    PEOPLE = 400
    SYLLABLES = %w[gru bwi glo mu kle nest spo tri vel wob zan dro fli hep jaw kor lun].freeze
    TEXTS = ["morning all 🌅 who is on the boardwalk today?", "@Odalys can we see the wing again please",
      "that is a second-year bird, look at the iris", "log of yesterday is on reedmere.example/log", "صباح الخير من شرفة الطيور",
      "the mist coming off the water is unreal", "🪶🪶🪶", "ring number looks like K41 207", "it's a reed warbler I think",
      "first time catching this live from the night shift", "どの鳥ですか",
      "is that a reed warbler or a marsh warbler?? the song had so much mimicry in it", "BIRDERS ASSEMBLE", "!ring K41207", "yes",
      "so close!"].freeze
    REPLAYED = 50_000
    # What would keep every other line off stays out of the way of the rules behind it.
    SETTINGS = {"who_may_be_shown" => {"action" => "hold"}, "asked_for" => {"action" => "hold"}, "scripts" => {"action" => "hold"},
                "links" => {"action" => "hold", "sites" => "reedmere.example"}, "floods" => {"lines" => 50}}.freeze

    def run
      lines = (0...LINES).map { |number| line(number) }
      ladders = {many: ladder(10_000), few: ladder(100)}
      least = {many: Float::INFINITY, few: Float::INFINITY, floor: Float::INFINITY}
      _, steal = Steal.around do
        RUNS.times do
          ladders.each { |name, ladder| least[name] = [least[name], cpu { judge(ladder, lines) }].min }
          least[:floor] = [least[:floor], cpu { lines.each { |one| one.text.unicode_normalize(:nfkc).downcase.split } }].min
        end
      end
      told(least, steal)
    end

    private

    def told(least, steal)
      seconds, result = replay
      {lines_per_s: (LINES / least[:many]).round, us_per_line: (least[:many] / LINES * 1e6).round(1),
       ratio_to_100_words: (least[:many] / least[:few]).round(2), ratio_to_normalise_and_split: (least[:many] / least[:floor]).round(1),
       build_10_000_words_s: cpu { ladder(10_000) }.round(2), replay_50_000_lines_s: seconds.round(1), replay_found: result[:off],
       steal_percent: steal.round(1)}
    end

    def replay
      before = ladder(100)
      after = ladder(10_000)
      from_ms = 1_795_499_520_000
      replay = Bavard::Core::Gate::Replay.new(before, after, from_ms:, to_ms: from_ms + REPLAYED) { memory }
      seconds = cpu { REPLAYED.times { |number| replay.hear(line(number, at_ms: from_ms + number)) } }
      [seconds, replay.to_h]
    end

    def judge(ladder, lines)
      memory = memory()
      lines.each { |one| ladder.hear(one, memory) }
    end

    def memory
      @left_out ||= Bavard::Core::Gate::LeftOut.new(words(5000).map { |name| Bavard::Core::Gate::LeftOut::Entry.new(name) })
      Bavard::Core::Gate::Memory.new(left_out: @left_out, first_seen: ->(_key) { 0 })
    end

    # Every kind of rule, and none that stops at the first.
    def ladder(count)
      rules = Bavard::Core::Gate::RuleSet::DEFAULT["rules"].map do |rule|
        more = rule["kind"] == "stopped_words" ? {"words" => words(count).join("\n")} : SETTINGS.fetch(rule["kind"], {})
        rule.merge({"on" => true}, more)
      end
      Bavard::Core::Gate::Ladder.from(rules)
    end

    def words(count)
      random = Random.new(count)
      (0...count).map { |number| Array.new(random.rand(3..5)) { SYLLABLES.sample(random:) }.join + (number % 10).to_s.tr("0-9", "abcdefghij") }
    end

    # No two lines are the same, as in a chat: some words of a few thousand around one of those above.
    def text(number)
      random = Random.new(number)
      words = Array.new(random.rand(0..5)) { "#{SYLLABLES.sample(random:)}#{SYLLABLES.sample(random:)}#{random.rand(30)}" }
      [*words, TEXTS[number % TEXTS.size]].join(" ")
    end

    def line(number, at_ms: number * 20)
      said = Bavard::Core::Said.new("viewer#{number % PEOPLE}", "Viewer #{number % PEOPLE}", nil, [], text(number), false, false)
      Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, 1, nil, nil, at_ms, said), id: number + 1)
    end
  end
end
