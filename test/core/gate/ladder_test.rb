# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/amount"
require_relative "../../../lib/bavard/core/gate/ladder"
require_relative "../../../lib/bavard/core/gate/rule_set"

class LadderTest < Minitest::Test
  include Lines

  Gate = Bavard::Core::Gate

  # @param rules [Array<Hash>] kind and what is set otherwise
  def ladder(*rules)
    Gate::Ladder.from(Gate::RuleSet.read("name" => "Test", "rules" => rules.map { |rule| rule.transform_keys(&:to_s) })["rules"])
  end

  def memory(*left_out) = Gate::Memory.new(left_out: Gate::LeftOut.new(left_out))
  def judge(text, *rules, memory: self.memory, **person) = ladder(*rules).judge(line(1, text, **person), memory)

  def test_what_nothing_can_be_seen_of_stays_off_without_any_rule
    ["\u202E\u200B", "\u3164 \u2800", "\u{E0001}\uFE0F", "", " "].each do |text|
      verdict = judge(text)
      assert_equal [:drop, "nothing to see in it"], [verdict.action, Gate::Rules.label(verdict.rule)], text.inspect
    end
    [".", "\u0301", "🦆", "\u200Fا", "\uFFFC"].each { |text| assert_predicate judge(text), :pass?, text.inspect }
    bare = line(1, "")
    assert_predicate ladder.judge(bare.dup.tap { |one| one.kind = :tip }, memory), :pass?
    assert_predicate ladder.judge(bare.dup.tap { |one| one.paid = Bavard::Core::Amount.new(200, "EUR") }, memory), :pass?
    assert_predicate ladder.judge(bare.dup.tap { |one| one.placed = [[0, 1, "http://x/y"]] }, memory), :pass?
  end

  def test_a_command_line_is_dropped_and_the_verdict_says_what_was_seen_and_where
    verdict = judge("!ring K41207", {kind: "command_lines"})
    assert_equal [:drop, "command_lines", "!ring"], [verdict.action, verdict.rule, verdict.seen]
    assert_equal [0, 5], [verdict.findings.first.from, verdict.findings.first.to]
  end

  def test_feelings_are_no_commands
    ["!!!", "! what", "wow!", "!", "?!"].each { |text| assert_predicate judge(text, {kind: "command_lines"}), :pass?, text }
  end

  def test_any_prefix_can_be_named_and_some_commands_let_through
    rule = {kind: "command_lines", prefixes: ".* !", except: "!song\nring"}
    assert_predicate judge("xxhelp", rule), :pass?
    assert_equal :drop, judge(".*help", rule).action
    assert_predicate judge("!song", rule), :pass?
    assert_predicate judge("!RING 4", rule), :pass?
  end

  def test_who_is_left_out_is_left_out_in_any_case_and_with_look_alikes_here_or_everywhere_for_a_time
    entry = Gate::LeftOut::Entry
    rule = {kind: "left_out"}
    assert_equal "left_out", judge("hi", rule, memory: memory(entry.new("@MudLark7"))).rule
    assert_equal "left_out", judge("hi", rule, memory: memory(entry.new("egg thief")), login: "x9", name: "Еgg Тhief").rule
    assert_equal "left_out", judge("hi", rule, memory: memory(entry.new("pilot")), login: "piI0t").rule
    assert_predicate judge("hi", rule, memory: memory(entry.new("mudlark7", 99))), :pass?
    assert_predicate judge("hi", rule, memory: memory(entry.new("mudlark7", nil, 1))), :pass?
    assert_equal :drop, judge("hi", rule, memory: memory(entry.new("mudlark7", nil, 2))).action
    assert_equal "left out as “pilot”", judge("hi", rule, memory: memory(entry.new("pilot")), login: "piI0t").findings.first.why
    assert_equal "left out", judge("hi", rule, memory: memory(entry.new("egg thief")), login: "x9", name: "Egg Thief").findings.first.why
  end

  def test_bots_are_known_by_the_houses_list_the_hosts_and_the_platforms_badge
    rule = {kind: "known_bots", names: "my_helper"}
    assert_equal :drop, judge("tick", rule, login: "Mere_Clock").action
    assert_equal :drop, judge("tick", rule, login: "MY_HELPER").action
    assert_equal :drop, judge("tick", rule, login: "anything", badges: ["bot"]).action
    assert_predicate judge("tick", rule), :pass?
    assert_predicate judge("tick", {kind: "known_bots", kept_list: false}, login: "mere_clock"), :pass?
  end

  def test_rules_that_are_off_or_for_others_say_nothing
    assert_predicate judge("!ring", {kind: "command_lines", on: false}), :pass?
    assert_predicate judge("!ring", {kind: "command_lines", roles: ["moderator"]}), :pass?
    assert_equal :drop, judge("!ring", {kind: "command_lines", roles: ["moderator"]}, badges: ["moderator"]).action
    assert_equal :drop, judge("!ring", {kind: "command_lines", roles: ["viewer"]}).action
    assert_predicate judge("!ring", {kind: "command_lines", roles: ["viewer"]}, badges: ["moderator"]), :pass?
    assert_predicate judge("!ring", {kind: "command_lines", feeds: ["7"]}), :pass?
    assert_predicate judge("!ring", {kind: "command_lines", except_roles: ["subscriber"]}, badges: ["subscriber/12"]), :pass?
    assert_predicate judge("!ring", {kind: "command_lines", except_people: "Mudlark7"}), :pass?
  end

  def test_a_rule_can_be_for_people_who_are_known_only_since_lately
    known = Gate::Memory.new(first_seen: ->(key) { key.end_with?("old") ? -10 * 3_600_000 : nil })
    rule = {kind: "command_lines", known_under_h: 2}
    assert_predicate judge("!ring", rule, memory: known, login: "old"), :pass?
    assert_equal :drop, judge("!ring", rule, memory: known, login: "new").action
  end

  def test_the_gravest_decides_and_all_that_was_found_is_told
    verdict = judge("you goosebrain see marsh.example", {kind: "stopped_words", words: "goosebrain"}, {kind: "links", action: "hold"})
    assert_equal [:hold, "links", "marsh.example"], [verdict.action, verdict.rule, verdict.seen]
    assert_equal %w[stopped_words links], verdict.findings.map(&:rule)
    assert_equal "you ●●●●●●●●●● see marsh.example", verdict.shown.text
  end

  def test_a_rule_that_drops_ends_the_way
    verdict = judge("!goosebrain", {kind: "command_lines"}, {kind: "stopped_words", words: "goosebrain"})
    assert_equal %w[command_lines], verdict.findings.map(&:rule)
    assert_nil verdict.shown
  end

  def test_links_but_for_listed_sites_with_look_alikes_and_hidden_ones
    rule = {kind: "links", sites: "https://www.reedmere.example/\nnest.test"}
    ["see reedmere.example/log", "log.reedmere.example", "it is at 5.30, e.g. here", "the end.In this case", "v1.2.3", "so.me of it", "wait...what"].each do |text|
      assert_predicate judge(text, rule), :pass?, text
    end
    {"oxb0w.example/win" => "not on your list", "rеedmere.example" => "looks like reedmere.example", "xn--redmere-7gg.example" => "looks like",
     "marsh-market dot example" => "written to avoid", "marsh[.]example" => "written to avoid", "marsh . example" => "written to avoid",
     "ｍａｒｓｈ．ｅｘａｍｐｌｅ" => "", "www marsh example" => "written to avoid", "hxxps://marsh.example" => "", "ma\u200brsh.example" => "",
     "http://10.0.0.1/x" => "10.0.0.1", "notreedmere.example" => "not on your list", "reedmere.example.marsh.test" => "not on your list"}.each do |text, why|
      verdict = judge("look #{text} now", rule)
      assert_equal :drop, verdict.action, text
      assert_includes verdict.findings.first.why, why, text
    end
    assert_predicate judge("marsh.example", rule, badges: ["moderator"]), :pass?
  end

  def test_repeats_are_counted_from_anyone_also_when_nearly_the_same_and_only_within_a_time
    shared = memory
    rules = ladder({kind: "repeats", times: 3, within_s: 30})
    say = ->(id, text, login = "ann") { rules.hear(line(id, text, at_ms: id * 1000, login:), shared).action }
    assert_equal %i[pass pass drop], [say[1, "egg egg"], say[2, "EGG egg!", "bo"], say[3, "egg  egg"]]
    assert_equal %i[pass pass drop], (4..6).map { |id| say[id, "please look at the wing of this bird now #{id}"] }
    assert_equal :pass, say[60, "egg egg"]
  end

  def test_a_stopped_word_in_a_name_is_covered_or_keeps_the_line_off
    rule = {kind: "stopped_words", words: "goosebrain"}
    covered = judge("hello", rule, name: "xX g00sebrain Xx")
    assert_equal [:mask, "hello", "xX ●●●●●●●●●● Xx"], [covered.action, covered.shown.text, covered.shown.name]
    line = line(1, "hello", login: "g00sebrain", name: "g00sebrain").as_shown(judge("hello", rule, login: "g00sebrain", name: "g00sebrain").shown, nil)
    assert_equal ["●●●●●●●●●●", "1/g00sebrain"], [line.person.display_name, line.person.key]
    assert_equal :drop, judge("hello", {kind: "stopped_words", words: "goosebrain", action: "drop"}, name: "Goosebrain").action
    assert_predicate judge("hello", {kind: "stopped_words", words: "goosebrain", names: false}, name: "Goosebrain"), :pass?
    assert_predicate judge("hello", rule, name: "kestrel_ann"), :pass?
  end

  def test_events_without_a_message_are_no_repeats
    shared = memory
    rules = ladder({kind: "repeats", times: 2, within_s: 30})
    happened = (1..4).map { |id| line(id, "", at_ms: id * 1000, login: "p#{id}").tap { |one| one.kind = :follow } }
    assert_equal [:pass], happened.map { |one| rules.hear(one, shared).action }.uniq
  end

  def test_floods_are_counted_by_person
    shared = memory
    rules = ladder({kind: "floods", lines: 2, within_s: 10})
    said = [[1, "ann"], [2, "ann"], [3, "ann"], [3, "bo"], [14, "ann"]].map { |at, login| rules.hear(line(at, "x#{at}", at_ms: at * 1000, login:), shared).action }
    assert_equal %i[pass pass drop pass pass], said
  end

  def test_shouting_is_calmed
    rule = {kind: "shouting"}
    assert_equal "Birders assemble!!!", judge("BIRDERS ASSEMBLE!!!!!!!!!!", rule).shown.text
    assert_equal 3, judge("Z\u0334\u0321\u0322\u0323\u0324\u0325", rule).shown.text.scan(/\p{M}/).size
    assert_equal 12, judge("🐦 " * 20, rule).shown.text.count("🐦")
    assert_predicate judge("OK BTO", rule), :pass?
    long = judge("reeds and " * 60, rule).shown.text
    assert_equal ["…", true], [long[-1], long.length <= 401]
    assert_equal "nooo way", judge("noooooooooooooo way", rule).shown.text
  end

  def test_only_some_people_only_what_is_asked_for_only_some_scripts
    assert_equal :drop, judge("hi", {kind: "who_may_be_shown", shown: ["subscriber"]}).action
    assert_predicate judge("hi", {kind: "who_may_be_shown", shown: ["subscriber"]}, badges: ["subscriber/3"]), :pass?
    assert_predicate judge("what is it？", {kind: "asked_for"}), :pass?
    assert_equal :drop, judge("what a bird", {kind: "asked_for"}).action
    assert_predicate judge("for the #table now", {kind: "asked_for", marks: "#table"}), :pass?
    assert_equal :hold, judge("привет всем", {kind: "scripts"}).action
    assert_predicate judge("привет всем", {kind: "scripts", read: %w[Latin Cyrillic]}), :pass?
    assert_predicate judge("naïve 10 × 3 🐦", {kind: "scripts"}), :pass?
  end

  def test_masking_keeps_emotes_where_they_are
    cleaned = line(1, "goosebrain Wren here", emotes: Bavard::Core::Chat::Placed.new(:code_points, [[11, 4, "https://p.example/wren"]]))
    shown = ladder({kind: "stopped_words", words: "goosebrain"}).judge(cleaned, memory).shown
    assert_equal ["●●●●●●●●●● Wren here", [[11, 4, "https://p.example/wren"]]], [shown.text, shown.placed]
  end

  def test_a_word_split_over_an_emote_of_a_shelf_is_seen
    split = line(1, "goo Wren sebrain", emotes: Bavard::Core::Chat::Placed.new(:code_points, [[4, 4, "https://p.example/wren"]]))
    assert_equal :mask, ladder({kind: "stopped_words", words: "goosebrain"}).judge(split, memory).action
  end
end
