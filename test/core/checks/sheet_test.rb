# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/checks/sheet"
require_relative "../../../lib/bavard/core/stage/document"
require_relative "../../../lib/bavard/core/voice/cast"

# What is looked at before a broadcast, and what is said of it.
class ChecksSheetTest < Minitest::Test
  include Bavard::Core::Checks

  Checks = Bavard::Core::Checks
  Document = Bavard::Core::Stage::Document
  SCREEN = {drawn: [1920, 1080], right: true, current: true, heard: 900, missing: [], not_understood: [], fine: true, words: "drawn at its true size"}.freeze

  def feed(**more) = Facts::Feed.new(id: 3, name: "Oxbow", wanted: true, state: "live", numbers: {}, behind_ms: 0, **more)

  def stage(document = Document.empty, **more)
    Facts::Stage.new(id: 7, name: "Main", document:, revision: 4, waiting: 0, screens: [SCREEN], **more)
  end

  # A show with nothing to look at.
  def facts(**more)
    Facts.new(feeds: [feed], gate: Facts::Gate.new(hold: hold(0), rules: "Calm day"), stages: [stage],
      texts: [text], chats: [chat], files: Facts::Files.new(many: {"sound" => 2, "picture" => 1}, missing: []),
      sounds: Facts::Sounds.new(cues: 2, screens: 3, heard: "a screen"), voices: Facts::Voices.new(drawn: true, people: [member("Odalys", face: "f1")]),
      cues: Facts::Cues.new(on: 5, played_on: ["Main"], findings: []), goals: [goal], **more)
  end

  def hold(milliseconds, by_role = {}) = {"ms" => milliseconds, "by_role" => by_role, "leaves_after_ms" => nil}
  def member(name, face: nil, states: {}) = Bavard::Core::Voice::CastMember.new(name:, face:, states:)
  def text(**more) = Facts::Text.new(stage: 7, piece: "text1", label: "Text", ratio: 6.1, part: "text", over: "dawn.png", ways: [], **more)
  def chat(word = "calm", **more) = Facts::Chat.new(stage: 7, piece: "chat1", label: "Chat", by: "time", pace: {word:, stays_ms: 14_000, longest_needs_ms: 5800, **more})
  def goal(**more) = Facts::Goal.new(stage: 7, title: "Nest boxes", value: 42, from: 0, to: 60, since: "month", **more)

  # @return [Finding] of the one check whose facts are other ones
  def found(key, **more) = Sheet.of(facts(**more)).find { |finding| finding.key == key }
  def told(key, **more) = found(key, **more).then { |finding| [finding.well, finding.title, finding.words] }

  def test_where_nothing_is_wrong_each_says_what_it_looked_at
    all = Sheet.of(facts)
    assert_equal Sheet::ALL.map { |check| check::KEY }, all.map(&:key)
    assert all.all?(&:well)
    assert(all.all? { |finding| finding.mend.nil? && !finding.words.empty? })
    assert_equal ["Oxbow is live", "One screen shows it", "Main at 1920 × 1080, in its true size.", "2 sounds, 1 picture.", "From a screen; 2 others would take over."],
      [found("feeds").title, found("screens").title, found("screens").words, found("files").words, found("sounds").words]
    assert_equal "Nest boxes: 42 of 60, since the month began.", found("goals").words
  end

  def test_what_is_not_well_stands_first
    assert_equal %w[feeds gate], Sheet.of(facts(feeds: [], gate: Facts::Gate.new(hold: hold(0), brake: "Slow down", rules: "x"))).first(2).map(&:key)
  end

  def test_what_a_show_has_not_is_not_looked_at
    bare = facts(feeds: [feed(behind_ms: nil)], stages: [stage(nil)], texts: [], chats: [], sounds: Facts::Sounds.new(cues: 0), voices: Facts::Voices.new(drawn: false), goals: [],
      cues: Facts::Cues.new(on: 0))
    assert_equal %w[feeds files gate on_air screens], Sheet.of(bare).map(&:key).sort
    refute_includes Sheet.of(facts(stages: [])).map(&:key), "on_air"
  end

  def test_of_several_chats_the_worst_is_told
    chats = [chat("brisk"), chat("stale"), chat("too fast"), chat("empty")].each_with_index { |one, at| one.label = "Chat #{at}" }
    assert_equal "Lines of Chat 2 go too fast", found("lasting", chats:).title
    assert_equal "Chat 3 is empty most of the time", found("lasting", chats: [chats[0], chats[3]]).title
    assert_equal "/stage/7#chat1", found("lasting", chats: [chat, chat.tap { |one| one.piece = "chat2" }]).at
  end

  def test_chats_that_are_not_read
    assert_equal [false, "No chat is read", "Nothing can come onto the picture."], told("feeds", feeds: [feed(wanted: false)])
    dead = feed(state: "waiting", reason: "The server said: no such channel.")
    assert_equal [false, "Oxbow is not live", "The server said: no such channel."], told("feeds", feeds: [feed, dead].last(1))
    assert_equal ["/feeds/3/connect", true], found("feeds", feeds: [dead]).mend.to_h.values_at(:path, :form)
    assert_equal "2 of 3 feeds are not live", found("feeds", feeds: [dead, feed, dead]).title
    assert_nil found("feeds", feeds: [dead, dead]).mend
  end

  def test_numbers_that_are_other_ones_each_time
    without = feed(state: "waiting", numbers: {"Today’s number" => nil})
    assert_equal [false, "Oxbow has nothing set for today", "“Today’s number” is another one for each broadcast, and none is set."], told("feeds", feeds: [without])
    assert_equal [true, "Oxbow is live", "Oxbow: “Today’s number” is 2231."], told("feeds", feeds: [feed(numbers: {"Today’s number" => "2231"})])
    assert found("feeds", feeds: [feed(numbers: {"Room" => nil})]).well
  end

  def test_clocks_that_do_not_agree
    assert_equal [true, "The clocks agree", "Oxbow and this computer mean the same time."], told("clocks", feeds: [feed, feed(behind_ms: nil)])
    {3_600_000 => "60 min behind", 9_000_000 => "2.5 h behind", -86_400_000 => "24 h ahead of", 119_000 => "119 s behind", -2000 => "2 s ahead of"}
      .each { |behind_ms, said| assert_equal [false, "Oxbow’s clock is #{said} this computer’s"], told("clocks", feeds: [feed, feed(behind_ms:)]).first(2) }
    assert_nil found("clocks", feeds: [feed(behind_ms: nil), feed(behind_ms: 3_600_000, wanted: false)])
  end

  def test_what_is_held_and_braked
    gate = ->(**more) { told("gate", gate: Facts::Gate.new(rules: "Calm day", **more)) }
    assert_equal [true, "The gate is open", "Each line is held for 4 s. The rules are “Calm day”."], gate[hold: hold(4000)]
    assert_equal "Each line is held for 4 s. The rules are “Calm day”.", gate[hold: hold(4000, "bot" => 4000)].last
    assert_equal "Lines are held for up to 2.5 s, by the role of who wrote. The rules are “Calm day”.", gate[hold: hold(0, "viewer" => 2500)].last
    assert_equal "Lines are held for up to 4 s, by the role of who wrote. The rules are “Calm day”.", gate[hold: hold(4000, "host" => 0)].last
    assert_equal [false, "The brake is on", "Hold everything. Nothing is held."], gate[hold: hold(0), brake: "Hold everything"]
    lift = found("gate", gate: Facts::Gate.new(hold: hold(0), brake: "x")).mend
    assert_equal ["/gate/brake", {"kind" => "off"}, false], lift.to_h.values_at(:path, :sends, :form)
  end

  def test_what_is_made_and_not_on_air
    assert_equal [false, "Nothing of Main is on air", "Its link shows an empty picture until it is put on air."], told("on_air", stages: [stage(nil)])
    assert_equal "Nothing is on air", found("on_air", stages: [stage(nil), stage(nil)]).title
    behind = stage(waiting: 1)
    assert_equal [false, "Not all you made is on air", "Main: 1 change. Viewers see what was there before."], told("on_air", stages: [stage, behind])
    assert_equal ["Put Main on air", "/stage/7/put-on-air"], found("on_air", stages: [behind]).mend.to_h.values_at(:words, :path)
    assert_equal "Main r4. Nothing of Interval is on air yet.", found("on_air", stages: [stage, stage(nil, name: "Interval")]).words
  end

  def test_each_trouble_of_a_screen
    assert_equal [false, "No screen shows it yet"], told("screens", stages: [stage(screens: [])]).first(2)
    {{drawn: nil} => "has not said how it is drawn", {right: false, words: "drawn at 640 × 360", advice: "Set it."} => "is not as large as its stage",
     {current: false, revision: 3} => "shows an old Main", {missing: ["Fraunces"]} => "lacks a face", {not_understood: ["sise"]} => "does not understand its link",
     {heard: 20_000} => "says nothing"}.each do |wrong, title|
      finding = found("screens", stages: [stage(screens: [SCREEN, SCREEN.merge(fine: false, **wrong)])])
      assert_equal [false, "One screen #{title}"], [finding.well, finding.title]
    end
    two = Array.new(2) { SCREEN.merge(fine: false, heard: 20_000) }
    assert_equal [false, "2 screens: one says nothing", "It showed Main, and was last heard 20 s ago."], told("screens", stages: [stage(screens: two)])
  end

  def test_words_that_are_hard_to_read
    way = {words: "A darker plate", values: {"plate_opacity" => 80}}
    finding = found("legible", texts: [text, text(ratio: 3.9, part: "name", piece: "alerts1", label: "Alerts", ways: [way])])
    assert_equal [false, "Alerts is hard to read", "3.9 : 1 where 4.5 is wanted, the name of Alerts over dawn.png."], [finding.well, finding.title, finding.words]
    assert_equal ["A darker plate, in the draft", "/stage/7/edits", {"do" => "set", "piece" => "alerts1", "values" => way[:values]}],
      finding.mend.to_h.values_at(:words, :path, :sends)
    assert_nil found("legible", texts: [text(ratio: 4.4)]).mend
    assert found("legible", texts: [text(ratio: 4.5)]).well
  end

  def test_the_worst_pace_of_all_counts
    empty = chat("empty", advice: "It is empty 46 s of each minute.", values: {"keep_last" => 5})
    assert_equal [false, "Chat is empty most of the time", "It is empty 46 s of each minute."], told("lasting", chats: [chat, empty])
    assert_equal({"do" => "set", "piece" => "chat1", "values" => {"keep_last" => 5}}, found("lasting", chats: [empty]).mend.sends)
    fast = found("lasting", chats: [empty, chat("brisk"), chat("too fast", advice: "x")])
    assert_equal ["Lines of Chat go too fast", nil], [fast.title, fast.mend]
    assert_equal "14 s on the picture; the longest needs 5.8 s to read.", found("lasting").words
    assert_equal "As long as each takes to read.", found("lasting", chats: [chat.tap { |one| one.by = "reading" }]).words
  end

  def test_what_cannot_be_seen
    outside = Document.empty.merge("pieces" => [Bavard::Core::Pieces::TextPiece.build("text1", "x" => 1800, "y" => 0, "width" => 400, "height" => 80)])
    finding = found("hidden", stages: [stage(outside)])
    assert_equal [false, "Text is outside of the picture", "On Main, 70 % of it."], [finding.well, finding.title, finding.words]
    assert_equal ["/stage/7#text1", {"do" => "set", "piece" => "text1", "values" => {"x" => 1520, "y" => 0}}], [finding.at, finding.mend.sends]
    off = Document.empty.merge("pieces" => [outside["pieces"].first.merge("hidden" => true)])
    assert_equal [true, "Nothing is hidden by accident", "Switched off on purpose: Text."], told("hidden", stages: [stage(off)])
  end

  def test_files_sounds_faces_and_cues
    assert_equal [false, "2 files not there", "The sound of Thanks, The film of Main."],
      told("files", files: Facts::Files.new(many: {"sound" => 3}, missing: [%w[sound Thanks], %w[film Main]]))
    assert_equal "None is used.", found("files", files: Facts::Files.new(many: {"sound" => 0}, missing: [])).words
    assert_equal [false, "No screen is heard"], told("sounds", sounds: Facts::Sounds.new(cues: 1, screens: 0)).first(2)
    assert_equal "From a screen.", found("sounds", sounds: Facts::Sounds.new(cues: 1, screens: 1, heard: "a screen")).words
    assert_equal "A, B, C and 1 more without a face", found("voices", voices: Facts::Voices.new(drawn: true, people: [member("E", face: "f1"), member("F", states: {"talking" => "f2"}), *%w[A B C D].map { |name| member(name) }])).title
    assert_equal "Nobody is in a voice room just now.", found("voices", voices: Facts::Voices.new(drawn: true, people: [])).words
    assert_equal [false, "Cues play nowhere"], told("cues", cues: Facts::Cues.new(on: 1, own: true, played_on: [], findings: [])).first(2)
    assert_equal [true, "No alerts are shown", "No stage on air has a piece for alerts, where 9 cues would play."],
      told("cues", cues: Facts::Cues.new(on: 9, own: false, played_on: [], findings: []))
    assert_equal [false, "“Thanks” does not play as it says", "no emotes fly."], told("cues", cues: Facts::Cues.new(on: 1, played_on: ["Main"], findings: [["Thanks", "no emotes fly"]]))
  end

  def test_goals_that_begin_wrong
    title = ->(**more) { told("goals", goals: [goal, goal(**more)]).first(2) }
    assert_equal [false, "“Nest boxes” is reached already"], title[value: 60]
    assert_equal [[false, "“Nest boxes” is reached already"], [true, "Goals begin where they should"]], [title[from: 9, to: 0, value: 0], title[from: 9, to: 0, value: 1]]
    assert_equal [false, "“Nest boxes” leads nowhere"], title[from: 60]
    assert_equal [false, "“Nest boxes” begins at no time"], title[since: "start", unread: "25:00"]
  end
end
