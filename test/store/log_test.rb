# frozen_string_literal: true

require "minitest/mock"
require_relative "../support/live_test"
require_relative "../support/lines"
require_relative "../../lib/bavard/live/journal/sweeper"
require_relative "../../lib/bavard/store/log"

class LogTest < LiveTest
  Search = Bavard::Store::Log::Search
  Entry = Bavard::Store::Lines::Entry

  def setup
    super
    @show = make_show
    @log = Bavard::Store::Log.new(db)
    @at = clock.call
  end

  # @return [Bavard::Store::Lines::Entry]
  def keep(text, back_ms: 0, verdict: Bavard::Core::Gate::PASS, pulled: false, **more)
    at_ms = @at - back_ms
    line = Lines.line((at_ms * 1000) + (@count = @count.to_i + 1), text, at_ms:, feed_id: @feed.id, **more.except(:kind))
    line.kind = more[:kind] if more[:kind]
    Entry.new(line, verdict, verdict.pass?, pulled, [["received", at_ms, nil], ["judged", at_ms, "passed"]]).tap { |entry| stores.lines.add(@show.id, [entry]) }
  end

  def found(**search) = @log.page(@show.id, Search.new(**search)).map { |entry| entry.line.text }

  def setup_lines
    keep("the reed is singing", login: "ann", name: "Ann B", back_ms: 3000)
    keep("a marsh warbler", login: "bob", back_ms: 2000)
    keep("!ring", login: "bob", verdict: Bavard::Core::Gate::Verdict.new(:drop, "command_lines", "!ring"), back_ms: 1000)
    keep("well done", login: "ann", name: "Ann B", kind: :tip)
  end

  def test_words_people_feeds_times_and_kinds
    setup_lines
    assert_equal ["the reed is singing"], found(text: "REED")
    assert_equal ["a marsh warbler", "the reed is singing"], found(text: "reed or marsh")
    assert_equal ["a marsh warbler"], found(text: "marsh -reed")
    assert_equal ["well done", "the reed is singing"], found(person: "ann")
    assert_equal ["well done", "the reed is singing"], found(person: "ann b")
    assert_equal ["!ring", "a marsh warbler"], found(from_ms: @at - 2500, to_ms: @at - 500)
    assert_equal ["!ring"], found(kind: "kept_off")
    assert_equal ["well done"], found(kind: "events")
    assert_empty found(feed_id: @feed.id + 1)
    assert_equal 4, found.size
  end

  # Whatever became of them.
  def test_lines_alone_are_the_same_lines
    setup_lines
    more = keep("with all that a line can have", login: "cid").line
    more.reply = Bavard::Core::Reply.new("m1", "ann", "the reed is singing")
    more.placed = [[0, 4, "reed"]]
    more.person = Bavard::Core::Chat::Person.new(@feed.id, "cid", "Cid", "#5fb8d6", ["broadcaster"], avatar: "https://pictures.example/cid.png")
    db[:lines].where(id: more.id).delete
    stores.lines.add(@show.id, [Entry.new(more, Bavard::Core::Gate::PASS, true, false)])
    entries = enum_for_log(:each)
    assert_equal entries.map { |entry| plain(entry.line) }, enum_for_log(:each_line).map { |line| plain(line) }
    assert_equal [["broadcaster"], "ann", [[0, 4, "reed"]]], [entries.last.line.person.badges, entries.last.line.reply.name, entries.last.line.placed]
  end

  def enum_for_log(which) = @log.enum_for(which, @show.id, Search.new(kind: nil)).to_a
  def plain(line) = line.to_h.merge(person: line.person.instance_variables.to_h { |name| [name, line.person.instance_variable_get(name)] })

  def test_hostile_words_are_only_words
    setup_lines
    ["'; DROP TABLE lines; --", "\\", "& | !", "((((", "a" * 200, ":*", "'"].each { |text| assert_kind_of Array, found(text:) }
    assert_equal 4, db[:lines].count
  end

  def test_an_entry_comes_back_with_its_steps_and_all_it_had
    line = keep("for the boxes", kind: :paid).line
    line.paid = Bavard::Core::Amount.own(3, "sparks")
    line.reply = Bavard::Core::Reply.new("m0", "Bob", "hi")
    line.id += 1
    line.first_time = true
    line.placed = [[0, 3, "https://x.example/a.png"]]
    line.person = Bavard::Core::Chat::Person.new(line.feed_id, "mudlark7", "mudlark7", avatar: "https://x.example/b.png")
    stores.lines.add(@show.id, [Entry.new(line, Bavard::Core::Gate::PASS, true, false, [["received", 5, nil]])])
    back = @log.page(@show.id, Search.new).first
    assert_equal [["received", 5, nil]], back.trace
    assert_equal line.to_a.values_at(4, 5, 11, 12, 13, 14), back.line.to_a.values_at(4, 5, 11, 12, 13, 14)
    assert_equal line.person.avatar, back.line.person.avatar
    assert_equal [:emote, "for", "https://x.example/a.png"], back.line.fragments.first
  end

  def test_all_of_it_in_order_however_many
    stub_batch(2) do
      5.times { |number| keep("line #{number}") }
      all = []
      @log.each(@show.id, Search.new) { |entry| all << entry.line.text }
      assert_equal (0..4).map { |number| "line #{number}" }, all
    end
  end

  def test_what_is_older_than_it_is_kept_goes
    keep("old", back_ms: 3 * 86_400_000)
    keep("new", back_ms: 86_400_000)
    stores.shows.keep_for(@show.id, 2)
    # One of them is removed while the others are looked through.
    ids = [0, *stores.shows.ids]
    stores.shows.stub(:ids, ids) { Bavard::Live::Sweeper.new(stores.shows, @log, stores.accounts.deeds, clock:, logger: means.log).sweep }
    assert_equal ["new"], found
  end

  def test_migrations_go_down_and_up_again
    setup_lines
    down = Sequel::IntegerMigrator.new(db, Bavard::Store::Database::MIGRATIONS, target: 3)
    down.run
    assert_equal 3, db[:lines].count
    refute_includes db.tables, :shelves
  ensure
    Bavard::Store::Database.migrate(db)
    assert_includes db.tables, :shelves
  end

  private

  def stub_batch(size)
    before = Bavard::Store::Log.send(:remove_const, :BATCH)
    Bavard::Store::Log.const_set(:BATCH, size)
    yield
  ensure
    Bavard::Store::Log.send(:remove_const, :BATCH)
    Bavard::Store::Log.const_set(:BATCH, before)
  end
end
