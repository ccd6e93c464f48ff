# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/ladder"
require_relative "../../../lib/bavard/core/gate/rule_set"

# Each kind of rule at the edges of what is set, and what it says of itself.
class GateRulesTest < Minitest::Test
  include Lines

  Gate = Bavard::Core::Gate

  def rule(kind, **given) = {"kind" => kind}.merge(given.transform_keys(&:to_s))
  def built(rule) = Gate::Ladder.from(Gate::RuleSet.read("name" => "Test", "rules" => [rule])["rules"])
  def words(kind, **given) = Gate::Rules::KINDS.fetch(kind).then { |type| type.new(type.build(kind, given.transform_keys(&:to_s))).words }

  def judge(text, rule, **person)
    made = line(1, text, **person)
    yield made if block_given?
    built(rule).judge(made, Gate::Memory.new)
  end

  def why(...) = judge(...).findings.first&.why
  def pass?(...) = judge(...).pass?
  # Whether nothing is found; what is only calmed passes as well.
  def fine?(...) = judge(...).findings.none?
  def shown(...) = judge(...).shown&.text

  # What follows each other within a second each, and what becomes of each.
  def said(rule, *texts, every_ms: 1000)
    ladder = built(rule)
    memory = Gate::Memory.new
    texts.each_with_index.map { |(text, login), at| ladder.hear(line(at + 1, text, at_ms: at * every_ms, login: login || "ann"), memory) }
  end

  def test_what_each_rule_says_of_itself
    assert_equal ["Only lines with ?", "Only lines with table or ?", "Only lines with anything"], ["?", "table\n？", ""].map { |marks| words("asked_for", marks:) }
    assert_equal ["Lines that begin with ! or .", "No prefix is set"], ["! .", " "].map { |prefixes| words("command_lines", prefixes:) }
    assert_equal "Over 6 lines of one person inside 15 s", words("floods")
    assert_equal ["#{Gate::Lists.bots.size} names kept by the house, 2 of yours", "0 of yours"], [words("known_bots", names: "a\nb"), words("known_bots", kept_list: false)]
    assert_equal ["None may be shown", "1 site may be shown", "2 sites may be shown"], ["", "a.example", "a.example\nb.example"].map { |sites| words("links", sites:) }
    assert_equal "Same line 3 times inside 30 s, from anyone", words("repeats")
    assert_equal "Only Latin, Greek", words("scripts", read: %w[Latin Greek])
    assert_equal "Over 70 % capitals, 12 emotes, or stacked marks", words("shouting")
  end

  def test_words_stand_by_themselves_and_marks_anywhere
    asked = rule("asked_for", marks: "table\n#tag")
    assert_equal [true, false, true, true, false], ["a TABLE!", "tables", "the table", "x#tagged", "nothing"].map { |text| pass?(text, asked) }
    assert_equal "has none of table #tag in it", why("no", asked)
    assert pass?("anything", rule("asked_for", marks: ""))
    assert_equal [true, true, false], ["γιατί;?", "¿que", "γιατί;"].map { |text| pass?(text, rule("asked_for")) }
  end

  def test_commands_where_there_is_a_prefix_and_no_deed
    assert pass?("!ring", rule("command_lines", prefixes: " "))
    assert pass?("!ring", rule("command_lines")) { |made| made.kind = :action }
    assert_equal "a command", why("!ring", rule("command_lines"))
  end

  def test_a_flood_begins_with_the_line_after_so_many
    verdicts = said(rule("floods", lines: 2, within_s: 3), "a", "b", "c", "d", "e", every_ms: 1000)
    assert_equal [true, true, false, false, false], verdicts.map(&:pass?)
    assert_equal "line 3 inside 3 s", verdicts[2].findings.first.why
    assert_equal [true, true, true], said(rule("floods", lines: 1, within_s: 1), "a", "b", "c").map(&:pass?)
  end

  def test_repeats_say_how_often_and_count_nearly_the_same_only_where_that_is_set
    verdicts = said(rule("repeats", times: 2, within_s: 30), "x" * 70, "x" * 70, "x" * 70)
    assert_equal [nil, "2 times inside 30 s", "3 times inside 30 s"], verdicts.map { |one| one.findings.first&.why }
    assert_equal 60, verdicts[1].seen.length
    near = ["there is a wren in the reeds again today", "there is a wren in the reeds again now", "there is a wren in the reeds again soon"]
    assert_equal [true, true, false], said(rule("repeats", times: 3), *near).map(&:pass?)
    assert_equal [true] * 3, said(rule("repeats", times: 3, nearly: false), *near).map(&:pass?)
    by_one = rule("repeats", times: 2, by: "from one person")
    assert_equal [true, true, false], said(by_one, %w[egg ann], %w[egg bo], %w[egg ann]).map(&:pass?)
  end

  def test_scripts_by_their_share_of_all_letters
    scripts = rule("scripts", percent: 50)
    assert_equal [true, false, false], ["abв", "aв", "в"].map { |text| pass?(text, scripts) }
    assert_equal ["1 of 2 letters are in another script", "в"], judge("aв", scripts).findings.first.then { |one| [one.why, one.seen] }
    assert_equal 12, judge("в" * 30, scripts).seen.length
    greek = rule("scripts", read: %w[Greek])
    assert_equal [true, false, true], ["γ", "a", "123 ?!"].map { |text| pass?(text, greek) }
  end

  def test_capitals_above_their_share_and_of_enough_letters
    capitals = rule("shouting", capitals_percent: 50)
    assert_equal [true, false, true], ["ABCDefgh", "ABCDEfgh", "ABCDEFG"].map { |text| fine?(text, capitals) }
    assert_equal ["Abcdefgh ij", "xy abcdefgh", "62 % capitals"], [shown("ABCDEFGH IJ", capitals), shown("xy ABCDEFGH", capitals), why("ABCDEfgh", capitals)]
    assert_equal ["Äöüäöüßéa", "Äöüäöü äö"], [shown("ÄÖÜäöüßéa", rule("shouting", capitals_percent: 20)), shown("ÄÖÜÄÖÜ ÄÖ", capitals)]
    assert fine?("A B C D E F G H I J", capitals)
    assert fine?("ABCDEFGHIJ", rule("shouting", capitals_percent: 100))
  end

  def test_length_over_so_many_characters_is_cut_at_a_word
    longest = rule("shouting", longest: 40)
    assert_equal [true, false], [40, 41].map { |count| fine?(("ab " * 13) + ("x" * (count - 39)), longest) }
    assert_equal ["#{"ab " * 12}ab…", "43 characters"], [shown("#{"ab " * 13}x yz", longest), why("#{"ab " * 13}x yz", longest)]
    assert_equal "#{"z" * 39}…", shown("z" * 60, rule("shouting", longest: 40, repeated: 200))
  end

  def test_the_same_character_in_a_row_over_so_many
    drawn = rule("shouting", repeated: 4)
    assert_equal [true, false], [4, 5].map { |count| fine?("h#{"m" * count}", drawn) }
    assert_equal ["hmmm", "“m” 5 times in a row", "mmmmm"], [shown("hmmmmm", drawn), why("hmmmmm", drawn), judge("hmmmmm", drawn).seen]
    assert_equal "aaabbb", shown("aaaaaabbbbbbb", drawn)
    assert fine?("a          b", drawn)
  end

  def test_marks_stacked_over_so_many
    marks = rule("shouting", marks: 2)
    assert_equal [true, false], [2, 3].map { |count| fine?("x#{"\u0301\u0302\u0303"[0, count]}", marks) }
    assert_equal "x\u0334\u0321", shown("x\u0334\u0321\u0322\u0323", marks)
    assert_equal "x\u0334\u0321\u0322", judge("abx\u0334\u0321\u0322", marks).seen
  end

  def test_emotes_over_so_many
    emotes = rule("shouting", emotes: 2)
    assert_equal [true, false], [2, 3].map { |count| fine?("🦆 " * count, emotes) }
    assert_equal ["a 🦆 b 🦆 c", "3 emotes"], [shown("a 🦆 b 🦆 c 🦆", emotes), why("🦆🦆🦆", emotes)]
    assert fine?("🦆", rule("shouting", emotes: 1))
  end

  def test_a_site_allows_what_is_below_it_but_nothing_hidden
    links = rule("links", sites: "reedmere.example")
    assert pass?("a.b.reedmere.example", links)
    refute pass?("reedmere dot example", links)
    assert pass?("reedmere dot example", rule("links", sites: "", hidden: false))
    assert_equal "röhricht.example (xn--rhricht-90a.example) is not on your list", why("röhricht.example", links)
    assert_match(/\Asee ●+ and ●+\z/, shown("see marsh.example and hi.example", rule("links", action: "mask")))
  end

  def test_names_that_stand_without_a_line_go_by_the_rules_for_names
    called = lambda do |rule, **person|
      sight = Gate::Sight.new(line(1, "", **person))
      built(rule).called(sight, Gate::Memory.new(left_out: Gate::LeftOut.new([Gate::LeftOut::Entry.new("bo")])))
    end
    stopped = rule("stopped_words", words: "goosebrain")
    assert_equal ["Ann", "xX ●●●●●●●●●● Xx", nil], [called[stopped, login: "ann", name: "Ann"], called[stopped, login: "x", name: "xX goosebrain Xx"], called[stopped.merge("action" => "hold"), login: "x", name: "goosebrain"]]
    assert_equal [nil, "Ann"], [called[rule("left_out"), login: "bo"], called[rule("left_out"), login: "ann", name: "Ann"]]
    # What is only about what was said keeps no name off.
    assert_equal "Ann", called[rule("asked_for"), login: "ann", name: "Ann"]
  end

  def test_only_who_signs_in_by_that_very_name_is_spared
    commands = rule("command_lines", except_people: "@Mudlark7\n\n heron ")
    assert_equal [true, true], [pass?("!ring", commands, login: "MUDLARK7"), pass?("!ring", commands, login: "heron")]
    # What anybody may take: the shown name, and names that look the same.
    assert_equal [false, false, false], [pass?("!ring", commands, login: "eve", name: "Mudlark7"), pass?("!ring", commands, login: "rnudlark7"), pass?("!ring", commands, login: "mudIark7")]
    refute pass?("!ring", rule("command_lines", except_people: " \n@"))
  end

  def test_ids_are_taken_as_they_come_unless_they_are_of_another_kind_or_taken
    ids = ->(*given) { Gate::RuleSet.read("name" => "A", "rules" => given.map { |id| {"kind" => "links", "id" => id} })["rules"].map { |one| one["id"] } }
    assert_equal %w[links7 links links2], ids["links7", nil, "links7"]
    assert_equal %w[links links2 links3], ids["floods", "links12345", 7]
    assert_equal %w[links2 links], ids["links2", "x"]
  end
end
