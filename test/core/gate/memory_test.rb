# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/ladder"
require_relative "../../../lib/bavard/core/gate/lists"
require_relative "../../../lib/bavard/core/gate/sets"

# What rules know of the time before a line.
class GateMemoryTest < Minitest::Test
  include Lines

  Gate = Bavard::Core::Gate
  Memory = Gate::Memory
  LeftOut = Gate::LeftOut

  def sight(text, at_ms: 0, login: "ann") = Gate::Sight.new(line(@id = (@id || 0) + 1, text, at_ms:, login:))
  def noted(*texts, memory: Memory.new, login: "ann") = texts.each_with_index { |text, at| memory.note(sight(text, at_ms: at * 1000, login:)) }.then { memory }

  def test_the_same_is_counted_within_its_time_and_by_one_or_by_anybody
    memory = noted("a wren", "a wren", "an owl", "a wren")
    memory.note(sight("a wren", at_ms: 3500, login: "bo"))
    asked = sight("A WREN", at_ms: 4000)
    assert_equal [4, 3], [memory.same(asked, 60_000, by_one: false), memory.same(asked, 60_000, by_one: true)]
    assert_equal [2, 1, 0], [1001, 1000, 500].map { |within| memory.same(asked, within, by_one: false) }
    assert_equal 0, memory.same(sight("nobody said that", at_ms: 4000), 60_000, by_one: false)
  end

  def test_nearly_the_same_shares_most_of_its_words
    memory = noted("there is a wren in the reeds again today", "quite another line about an owl by night")
    near = ->(text) { memory.alike(sight(text, at_ms: 5000), 60_000, by_one: true, enough: 5) }
    assert_equal [1, 1, 0], [near.call("there is a wren in the reeds again now"), near.call("there is a wren in the reeds again today"), near.call("there was an owl by the boardwalk last night")]
    assert_equal 0, near.call("a wren again")
    assert_equal 0, memory.alike(sight("there is a wren in the reeds again today", at_ms: 5000, login: "bo"), 60_000, by_one: true, enough: 5)
    assert_equal 0, memory.alike(sight("there is a wren in the reeds again today", at_ms: 5000), 4000, by_one: false, enough: 5)
  end

  def test_no_more_alike_ones_are_counted_than_anybody_wants_to_know
    memory = noted(*Array.new(6) { "there is a wren in the reeds again today" })
    asked = sight("there is a wren in the reeds again today", at_ms: 7000)
    assert_equal [2, 6], [2, 9].map { |enough| memory.alike(asked, 60_000, by_one: false, enough:) }
  end

  def test_how_much_must_be_the_same
    near = lambda do |before, text|
      noted(before).alike(sight(text, at_ms: 5000, login: "bo"), 60_000, by_one: false, enough: 9)
    end
    # Of nine different words seven in common are enough, of ten six are not; and of three nothing is said.
    assert_equal [1, 0], [near["aa bb cc dd ee ff gg hh", "aa bb cc dd ee ff gg ii"], near["aa bb cc dd ee ff gg hh", "aa bb cc dd ee ff ii jj"]]
    assert_equal [1, 0], [near["aa bb cc dd", "dd cc bb aa"], near["aa bb cc", "aa bb cc"]]
    assert_equal [1, 0], [near["aa bb cc dd ee ff gg", "aa bb cc dd ee"], near["aa bb cc dd ee ff gg hh ii", "aa bb cc dd ee"]]
  end

  def test_of_the_same_so_many_are_remembered
    memory = Memory.new
    (Memory::MOST_ALIKE + 5).times { |number| memory.note(sight("a wren", at_ms: number, login: number.zero? ? "first" : "ann")) }
    assert_equal Memory::MOST_ALIKE, memory.same(sight("a wren", at_ms: 1000), 60_000, by_one: false)
    assert_equal 0, memory.same(sight("a wren", at_ms: 1000, login: "first"), 60_000, by_one: true)
    assert_equal [Memory::MOST_ALIKE, 0], [5000, 900].map { |within| memory.lines_of(sight("x", at_ms: 1000), within) }
  end

  def test_how_many_lines_somebody_wrote_lately
    memory = noted(*%w[a b c d])
    assert_equal [4, 3, 1, 0], [10_000, 3500, 1500, 500].map { |within| memory.lines_of(sight("e", at_ms: 4000), within) }
    assert_equal 0, memory.lines_of(sight("e", at_ms: 4000, login: "bo"), 10_000)
  end

  def test_since_when_somebody_is_known
    memory = Memory.new(first_seen: ->(key) { 1000 if key == line(1, login: "ann").person.key })
    assert_equal [4000, nil], %w[ann bo].map { |login| memory.known_ms(line(1, login:).person, 5000) }
    assert_nil Memory.new.known_ms(line(1).person, 5000)
  end

  def test_what_is_old_is_forgotten_and_a_flood_does_not_fill_the_memory
    memory = Memory.new
    (Memory::MOST_KEPT + Memory::FORGETS_EVERY).times { |number| memory.note(sight("line #{number}", at_ms: number, login: "p#{number}")) }
    sizes = %i[@same @by_person].map { |name| memory.instance_variable_get(name).size }
    assert(sizes.all? { |size| size <= Memory::MOST_KEPT })
    late = Memory::LONGEST_MS * 2
    Memory::FORGETS_EVERY.times { |number| memory.note(sight("late", at_ms: late + number)) }
    assert_equal([1, 1], %i[@same @by_person].map { |name| memory.instance_variable_get(name).size })
  end

  # Who is left out.

  def person(login, name: login, feed_id: 1) = Bavard::Core::Chat::Person.new(feed_id, login, name, nil, [])
  def left_out(*entries) = LeftOut.new(entries.map { |entry| LeftOut::Entry.new(*entry) })

  def test_names_that_look_the_same_are_the_same
    out = left_out(["Hill_10"])
    ["hill_10", "HILL_10", "@hill_10", "hi1l_lO", " hill_10 "].each { |name| assert out.find(person(name.delete("@").strip), 0), name }
    assert out.find(person("somebody", name: "Hill_1O"), 0)
    assert_nil out.find(person("hall_10"), 0)
  end

  def test_on_one_feed_or_on_every_and_for_a_time
    out = left_out(["ann", 2, nil], ["bo", nil, 5000])
    assert_equal [nil, "ann", "ann"], [1, 2, nil].map { |feed_id| out.find(person("ann", feed_id:), 0)&.name }
    assert_equal ["bo", nil], [4999, 5000].map { |now| out.find(person("bo"), now)&.name }
  end

  def test_left_out_again_counts_once_and_is_taken_back_where_it_was
    out = left_out(["ann", nil, 1000], ["Ann", nil, nil], ["ann", 2, nil])
    assert_equal [[nil, 2], 1], [out.to_a.map(&:feed_id), out.size]
    changes = out.changes
    assert_nil out.take_back("ann", 9)
    assert_equal "Ann", out.take_back("ANN").name
    assert_equal [2, nil], [out.find(person("ann", feed_id: 2), 0).feed_id, out.find(person("ann"), 0)]
    assert_operator out.changes, :>, changes
    out.take_back("ann", 2)
    assert_predicate out, :none?
    out.add(LeftOut::Entry.new(" @ "))
    assert_predicate out, :none?
  end

  # Lists.

  def read(text) = Gate::Lists.read(text, field: "words", most: 5)

  def test_lists_are_read_as_text_csv_or_json
    assert_equal "goose\nbrain", read("goose\r\n\r\nbrain\ngoose")
    assert_equal "goose\nbrain, too", read("\"goose\",1\n\"brain, too\",2")
    assert_equal "goose\nbrain", read("goose,mild\nbrain,strong")
    assert_equal "goose\n7\nbrain", read(%( ["goose", 7, {"word": "brain", "mild": true}]))
    assert_equal "goose", read("\uFEFFgoose\xFF".b)
    assert_equal "one, two\nthree", read("one, two\nthree")
  end

  def test_what_is_no_list_or_too_much_of_one_is_refused
    ["[1, 2", "\"a", "[[[[1]]]]"].each { |text| assert_match(/cannot be read/, assert_raises(Bavard::Error, text) { read(text) }.message) }
    assert_match(/room for 5 words; these are 6/, assert_raises(Bavard::Error) { read("a\nb\nc\nd\ne\nf") }.message)
    error = assert_raises(Bavard::Error) { Gate::Lists.room(["short", "x" * 30], 9, 20, "names") }
    assert_match(/longer than 20/, error.message)
    assert_nil Gate::Lists.room(["x" * 20], 1, 20, "names")
  end

  def test_lists_are_written_as_they_can_be_read
    words = ["goose", "brain, too", %(she said "x")]
    assert_equal "goose\nbrain, too\n#{words[2]}\n", Gate::Lists.write(words, "txt")
    %w[csv json].each { |format| assert_equal words.join("\n"), read(Gate::Lists.write(words, format)), format }
  end

  def test_the_houses_lists_have_no_empty_words
    Gate::Lists::STARTERS.each { |name| assert_operator Gate::Lists.starter(name).size, :>, 3, name }
    assert(Gate::Lists.bots.none?(&:empty?))
  end

  # Edits of sets.

  Sets = Gate::Sets
  DEFAULT = Gate::Settings::DEFAULT

  def test_each_edit_leaves_all_else_as_it_is
    gate = DEFAULT.merge("brake" => {"kind" => "slow"}, "hold" => {"ms" => 4000})
    from = Sets.version(gate)
    [Sets.keep(gate, [], from:), Sets.add(gate, "Rush", from:), Sets.rename(gate, "Storm", from:), Sets.use(gate, 0, "Calm day")].each do |after|
      assert_equal [{"kind" => "slow"}, {"ms" => 4000}], after.values_at("brake", "hold")
    end
    assert_equal "Calm day", gate["sets"][0]["name"]
  end

  def test_edits_are_of_the_set_that_is_in_force
    two = Sets.add(DEFAULT, " Rush ", from: Sets.version(DEFAULT))
    assert_equal [["Calm day", "Rush"], 1], [two["sets"].map { |set| set["name"] }, two["in_force"]]
    kept = Sets.keep(two, [], from: Sets.version(two))
    assert_equal [true, false], kept["sets"].map { |set| set["rules"].any? }
    gone = Sets.remove(kept, from: Sets.version(kept))
    assert_equal [["Calm day"], 0], [gone["sets"].map { |set| set["name"] }, gone["in_force"]]
    assert_raises(Bavard::Error) { Sets.remove(gone, from: Sets.version(gone)) }
  end

  def test_another_version_for_another_name_rule_or_choice_and_no_other
    two = Sets.add(DEFAULT, "Rush", from: Sets.version(DEFAULT))
    versions = [DEFAULT, two, Sets.use(two, 0, "Calm day"), Sets.rename(two, "Storm", from: Sets.version(two)), Sets.keep(two, [], from: Sets.version(two))].map { |gate| Sets.version(gate) }
    assert_equal 4, versions.uniq.size
    assert_equal versions[0], versions[2]
    assert_equal Sets.version(two), Sets.version(two.merge("brake" => {"kind" => "slow"}, "hold" => {}))
  end

  def test_what_somebody_else_changed_meanwhile_is_not_edited
    {keep: [[]], add: ["Rush"], rename: ["Storm"], remove: []}.each do |edit, more|
      error = assert_raises(Bavard::Conflict, edit) { Sets.public_send(edit, DEFAULT, *more, from: "0" * 16) }
      assert_equal "rules", error.field
    end
    assert_raises(Bavard::Conflict) { Sets.use(DEFAULT, 0, "Rush") }
    assert_raises(Bavard::Conflict) { Sets.use(DEFAULT, 1, "Calm day") }
  end

  def test_there_is_room_for_so_many_sets
    full = DEFAULT.merge("sets" => DEFAULT["sets"] * Gate::Settings::MOST_SETS)
    assert_raises(Bavard::Error) { Sets.add(full, "More", from: Sets.version(full)) }
    assert_raises(Bavard::Error) { Sets.add(DEFAULT, " ", from: Sets.version(DEFAULT)) }
  end
end
