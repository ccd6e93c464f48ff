# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/cue"
require_relative "../../../lib/bavard/core/cues/sample"
require_relative "../../../lib/bavard/core/cues/queue"
require_relative "../../../lib/bavard/core/cues/sheet"
require_relative "../../../lib/bavard/core/cues/words"

class CuesTest < Minitest::Test
  include Bavard::Core::Cues

  Amount = Bavard::Core::Amount

  def event(kind = "tip", **more)
    Event.new(id: 1, kind:, at_ms: 0, feed_id: 3, login: "ann", name: "Ann", roles: ["viewer"], first_ever: false, **more)
  end

  def cue(id, kind = "tip", **more) = {"id" => id, "name" => id, "kind" => kind, "on" => true}.merge(more.transform_keys(&:to_s))
  def sheet(*cues) = Sheet.new(cues)
  def chosen(sheet, event, **more) = sheet.choose(event, now_ms: 10_000, **more).cue&.fetch("id")
  def euros(number) = Amount.money(number * 100, "EUR")

  def test_the_most_specific_that_fits_is_played
    tips = sheet(cue("any"), cue("large", when: {"amount" => [50, nil]}), cue("exact", when: {"amount" => [69, 69]}), cue("ann", when: {"people" => ["ANN"]}))
    assert_equal "ann", chosen(tips, event(amount: euros(5)))
    assert_equal %w[any large exact], [5, 50, 69].map { |number| chosen(tips, event(amount: euros(number), login: "bo", name: "Bo")) }
    assert_nil chosen(tips, event("visit"))
  end

  def test_another_currency_is_another_thing_and_no_amount_is_none
    tips = sheet(cue("euros", when: {"amount" => [5, nil], "currency" => "EUR"}))
    assert_equal ["euros", nil, nil], [euros(5), Amount.money(900, "JPY"), nil].map { |amount| chosen(tips, event(amount:)) }
    assert_equal "yen", chosen(sheet(cue("yen", when: {"amount" => [500, 900]})), event(amount: Amount.money(900, "JPY")))
  end

  def test_a_renewal_differs_from_a_first_subscription_and_a_first_one_from_others
    all = sheet(cue("new", "subscription"), cue("again", "renewal"), cue("year", "renewal", when: {"months" => [12, nil]}), cue("first", "follow", when: {"first" => true}))
    assert_equal "new", chosen(all, event("subscription"))
    assert_equal %w[again year], [2, 12].map { |months| chosen(all, event("renewal", months:)) }
    assert_equal [nil, "first"], [false, true].map { |first| chosen(all, event("follow").tap { |one| one.first_ever = first }) }
  end

  def test_cool_down_chance_and_time_of_the_broadcast_let_others_play
    tips = sheet(cue("any"), cue("rare", when: {"amount" => [1, nil]}, cool_down_s: 60, share_percent: 50, from_min: 10))
    asked = ->(**more) { tips.choose(event(amount: euros(5)), now_ms: 700_000, **more) }
    assert_equal "rare", asked.call(began_ms: 0, chance: 0.4).cue["id"]
    [{began_ms: 0, chance: 0.6}, {began_ms: 600_000}, {}, {began_ms: 0, played: {"rare" => 690_000}}].each do |more|
      choice = asked.call(**more)
      assert_equal ["any", "rare"], [choice.cue["id"], choice.passed[0][0]], more
    end
  end

  def test_both_ends_of_a_cool_down_a_chance_and_a_time_of_the_broadcast
    plays = ->(given, **more) { !sheet(cue("one", **given)).choose(event, now_ms: 600_000, **more).cue.nil? }
    assert_equal [false, true], [540_001, 540_000].map { |last| plays.call({cool_down_s: 60}, played: {"one" => last}) }
    assert_equal [true, true], [plays.call({cool_down_s: 0}, played: {"one" => 600_000}), plays.call({cool_down_s: 60}, played: {"other" => 600_000})]
    assert_equal [true, false, false], [0.49, 0.5, 0.51].map { |chance| plays.call({share_percent: 50}, chance:) }
    assert plays.call({share_percent: 100}, chance: 0.999)
    assert_equal [false, true, true, false], [9.9, 10, 20, 20.1].map { |minutes| plays.call({from_min: 10, to_min: 20}, began_ms: 0, now_ms: minutes * 60_000) }
    assert_equal [true, true, false], [plays.call({from_min: 10}, began_ms: 0), plays.call({to_min: 10}, began_ms: 0), plays.call({to_min: 10})]
  end

  def test_somebody_is_found_by_login_and_by_name_among_cues_for_everybody
    tips = sheet(cue("any"), cue("login", when: {"people" => ["ann"]}), cue("name", when: {"people" => ["Ann Reed"]}), cue("both", when: {"people" => ["ann", "ann reed"], "feeds" => ["3"]}))
    told = ->(login, name) { tips.choose(event(login:, name:), now_ms: 0).then { |choice| [choice.cue["id"], choice.ties] } }
    assert_equal [["both", []], ["any", []], ["both", []]], [told.call("ann", "Ann Reed"), told.call("bo", "Bo"), told.call("bo", "ann reed")]
    apart = sheet(cue("any"), cue("login", when: {"people" => ["ann"]}), cue("name", when: {"people" => ["Ann Reed"]}))
    assert_equal [["login", ["name"]], ["name", []], ["login", []]], [["ann", "Ann Reed"], ["bo", "Ann Reed"], %w[ann Bo]].map { |login, name|
      apart.choose(event(login:, name:), now_ms: 0).then { |choice| [choice.cue["id"], choice.ties] }
    }
  end

  def test_a_cue_that_plays_only_at_times_does_not_keep_others_away
    kept = ->(**more) { sheet(cue("first", **more), cue("second")).findings.map(&:last) }
    assert_match(/“first” always comes first/, kept.call.join)
    [{share_percent: 50}, {from_min: 5}, {to_min: 5}, {cool_down_s: 5}].each { |more| assert_match(/can fit the same as “first”/, kept.call(**more).join, more) }
    assert_empty sheet(cue("a", when: {"amount" => [1, 5]}), cue("b", when: {"amount" => [6, 9]}), cue("c", when: {"feeds" => ["3"]})).findings
  end

  def test_what_narrows_a_cue_is_said
    narrowed = ->(**more) { Cue.narrowed(Cue.build("a", more.transform_keys(&:to_s))) }
    assert_equal "whatever it is", narrowed.call
    assert_equal "EUR from 50, only Ann, their first", narrowed.call(amount_from: 50, currency: "EUR", people: "Ann", first: true)
    assert_equal "months 12, 20 % of the time", narrowed.call(months_from: 12, months_to: 12, share_percent: 20)
    assert_equal "number up to 9, not again within 60 s", narrowed.call(number_to: 9, cool_down_s: 60)
  end

  def test_ties_are_settled_by_order_and_told
    choice = sheet(cue("one", when: {"feeds" => ["3"]}), cue("two", when: {"feeds" => %w[3 4]})).choose(event, now_ms: 0)
    assert_equal ["one", ["two"]], [choice.cue["id"], choice.ties]
  end

  def test_no_cue_ties_with_itself_or_with_one_that_does_not_fit
    choice = sheet(cue("no", when: {"feeds" => ["9"]}), cue("yes", when: {"feeds" => ["3"]}), cue("nor", when: {"feeds" => ["8"]})).choose(event, now_ms: 0)
    assert_equal ["yes", []], [choice.cue["id"], choice.ties]
  end

  def test_what_can_never_play_and_what_overlaps_is_found
    found = sheet(cue("odd", when: {"amount" => [9, 3]}), cue("any", when: {"amount" => [5, nil]}), cue("same", when: {"amount" => [6, nil]}),
      cue("crossing", when: {"amount" => [1, nil]}), cue("apart", "visit")).findings.to_h
    assert_includes found["odd"], "can never play"
    assert_includes found["same"], "“any” always comes first"
    assert_includes found["crossing"], "can fit the same"
    assert_equal %w[crossing odd same], found.keys.sort
  end

  def test_words_never_break_on_missing_data_and_stay_text
    words = "{name} gave {amount}[ and {number} more], “{message}”"
    assert_equal [["name", "<b>Ann</b>"], ["text", " gave "], ["amount", "5.00 EUR"], ["text", ", “"], ["message", "{name}"], ["text", "”"]],
      Words.of(words, event(name: "<b>Ann</b>", amount: euros(5), message: "{name}"))
    assert_equal "somebody gave something, “”", Words.of(words, event(name: "\u0000", message: nil)).map(&:last).join
    assert_equal "Ann gave something and 3 more, “”", Words.of(words, event(number: 3)).map(&:last).join
    assert_equal "Ann", Words.of("{name}[ and {number} more for {months} months]", event(number: 3)).map(&:last).join
    assert_equal "{nothing} Ann {", Words.of("{nothing} {name} {", event).map(&:last).join
    assert_equal ["nothing"], Words.unknown("{nothing} {name}")
    assert_equal 500, Words.of("{message}", event(message: "m" * 9000)).first.last.length
  end

  def queue(**settings) = Queue.new(Queue::Settings.new(**Queue::CALM.to_h, **settings))

  # @return [Array<Integer>] how many events each that was played stood for, in order
  def played(queue, ms, step: 100)
    (0..ms).step(step).filter_map { |now| queue.advance(now).last&.events&.size }
  end

  def test_one_after_another_the_more_important_first
    one = queue(gap_ms: 500)
    one.add(event, cue("small"), 0, length_ms: 1000, joins: false)
    one.add(event, cue("large"), 0, importance: 5, length_ms: 1000, joins: false)
    began = (0..4000).step(100).filter_map { |now| (begun = one.advance(now).last) && [now, begun.cue["id"]] }
    assert_equal [[0, "large"], [1500, "small"]], began
  end

  def test_many_alike_become_one_and_what_waits_too_long_is_left
    one = queue(alike_ms: 4000, longest_wait_ms: 3000)
    12.times { |number| one.add(event("gift", number: 1), cue("gift", "gift"), number * 10) }
    assert_equal [12], played(one, 1000)
    one.add(event("visit"), cue("visit", "visit"), 1000, joins: false)
    one.pause
    one.advance(9000)
    assert_equal [[], 1], [one.waiting, one.left]
  end

  def test_a_flood_is_bounded_and_what_is_important_stays
    one = queue(most: 5)
    one.add(event, cue("dear"), 0, importance: 9, joins: false)
    100.times { one.add(event, cue("cheap"), 0, joins: false) }
    assert_equal [5, 96, true], [one.waiting.size, one.left, one.waiting.any? { |waiting| waiting.cue["id"] == "dear" }]
  end

  def test_pause_skip_clear_and_approval
    one = queue(approve: true, gap_ms: 0)
    waiting = one.add(event, cue("a"), 0)
    assert_empty played(one, 1000)
    one.approve(waiting.id)
    assert_equal "a", one.advance(1100).last.cue["id"]
    assert_equal "a", one.skip(1200).cue["id"]
    one.add(event, cue("b"), 1200)
    one.clear
    assert_equal [nil, nil], one.advance(2000)
  end

  def test_a_pull_reaches_what_waits_and_what_plays
    one = queue
    one.add(event, cue("a"), 0, joins: false)
    one.add(event.tap { |other| other.id = 2 }, cue("b"), 0, joins: false)
    one.advance(0)
    assert one.pull_where(10) { |pulled| pulled.id == 1 }
    refute one.pull_where(10) { |pulled| pulled.id == 2 }
    assert_equal [nil, []], [one.playing, one.waiting]
  end

  def test_a_sample_fits_the_cue_it_was_made_for
    narrow = [{"kind" => "tip", "amount_from" => 50, "currency" => "JPY"}, {"kind" => "renewal", "months_to" => 6}, {"kind" => "visit", "number_from" => 100},
      {"kind" => "follow", "people" => "Bo\nAnn"}, {"kind" => "gift"}]
    told = narrow.map { |given| Bavard::Core::Cues::Sample.for(Bavard::Core::Cues::Cue.build("a", given)).values_at("name", "amount", "currency", "number") }
    assert_equal [["kestrel_ann", "50", "JPY", nil], ["kestrel_ann", nil, nil, "6"], ["kestrel_ann", nil, nil, "100"], ["Bo", nil, nil, nil], ["kestrel_ann", nil, nil, "5"]], told
  end

  # What usually comes, up to ten times as much, and never beside what the cue asks for; a milestone lies on the way.
  def test_what_is_thrown_by_chance_fits_the_cue_too
    narrow = {{"kind" => "tip", "amount_from" => 4, "amount_to" => 30} => 4..30, {"kind" => "gift", "number_to" => 3} => 1..3,
              {"kind" => "renewal", "months_from" => 20} => 20..200, {"kind" => "milestone"} => 5..99, {"kind" => "visit"} => 4..410}
    narrow.each do |given, range|
      cue = Bavard::Core::Cues::Cue.build("a", given)
      thrown = Array.new(60) { |seed| Bavard::Core::Cues::Sample.thrown(cue, Random.new(seed)).values_at("amount", "number").compact.first.to_i }
      assert_equal range.minmax, thrown.minmax, given.inspect
    end
  end

  def test_nothing_plays_twice_whatever_the_order
    100.times do |seed|
      random = Random.new(seed)
      one = queue(most: 50, alike_ms: random.rand(0..50))
      added = (1..40).map { |id| event.tap { |made| made.id = id } }
      seen = []
      now = 0
      added.each do |made|
        one.add(made, cue("c#{random.rand(3)}"), now, importance: random.rand(3), length_ms: random.rand(1..40))
        now += random.rand(60)
        seen.concat(one.advance(now).last&.events.to_a.dup)
      end
      400.times { seen.concat(one.advance(now += 100).last&.events.to_a.dup) }
      assert_equal seen.map(&:id), seen.map(&:id).uniq, seed
    end
  end
end
