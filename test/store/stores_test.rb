# frozen_string_literal: true

require_relative "../support/live_test"
require_relative "../support/lines"
require_relative "../../lib/bavard/store/tallies"

class StoresTest < LiveTest
  def entry(id, **options)
    Bavard::Store::Lines::Entry.new(Lines.line(id, feed_id: @feed.id, **options), Bavard::Core::Gate::PASS, true, false)
  end

  def test_a_password_is_not_to_be_found_in_the_database
    make_show
    assert_equal "marsh", stores.feeds.find(@feed.id).password
    refute_includes db[:feeds].get(:secret), "marsh"
  end

  def test_a_password_closed_with_another_key_is_gone_and_not_wrong
    make_show
    assert_nil Bavard::Store::Feeds.new(db, Bavard::Store::SecretBox.new("j" * 32)).find(@feed.id).password
  end

  def test_what_happened_is_counted_from_the_log
    show = make_show
    tips = [entry(1000), entry(2000), entry(9000)].each { |one| one.line.kind = :tip }
    tips.each { |one| one.line.paid = Bavard::Core::Amount.money(1250, "EUR") }
    gift = entry(3000).tap { |one| one.line.kind = :gift }
    gift.line.number = 5
    stores.lines.add(show.id, [*tips, gift, entry(4000)])
    store = Bavard::Store::Tallies.new(db)
    assert_equal [37.5, 5, 0], [store.since(show.id, 0)].flat_map { |tally| [tally.value("worth"), tally.value("gifts"), tally.value("followers")] }
    assert_equal 0, store.since(show.id, 10**15).value("gifts")
  end

  # In one go, as where the database was slow for a moment.
  def test_of_several_outcomes_of_one_line_none_is_lost
    show = make_show
    lines = stores.lines
    held = entry(1000).tap { |one| one.aired = false }
    lines.add(show.id, [held, entry(2000).tap { |one| one.aired = false }])
    outcome = Bavard::Store::Lines::Outcome
    settled = [outcome.new(1000, true, false, [["let go", 5, nil], ["shown", 5, "aired"]], 5, false), outcome.new(1000, false, false, [["held", 3, nil]], 3, true),
      outcome.new(2000, false, false, [["left", 4, nil]], 4, false)]
    2.times { lines.settle(settled.values_at(1, 2, 0)) }
    rows = db[:lines].order(:id).select_map(%i[aired held shown_at_ms trace])
    assert_equal [[true, false, 5], [false, false, 4]], rows.map { |row| row.first(3) }
    assert_equal [["held", "let go", "shown"], ["left"]], rows.map { |row| row.last.to_a.map(&:first) }
  end

  def test_steps_of_one_line_come_to_its_trace_in_their_order_from_memory_and_from_files
    show = make_show
    stores.lines.add(show.id, [entry(1000), entry(2000)])
    writing = Bavard::Store::LogWriting.new(stores.lines, feeds: stores.feeds, people: Bavard::Store::People.new(db))
    steps = [{1000 => [["painted", 1, nil]]}, {2000 => [["gone", 2, nil]], 1000 => [["gone", 3, nil]]}]
    writing.write(show.id, :steps, steps)
    writing.write(show.id, :steps, JSON.parse(JSON.generate(steps), symbolize_names: true))
    # Once more changes nothing.
    assert_equal [%w[painted gone], %w[gone]], db[:lines].order(:id).select_map(:trace).map { |trace| trace.to_a.map(&:first) }
  end

  def test_the_same_platform_id_is_kept_once
    show = make_show
    stores.lines.add(show.id, [entry(1000, platform_id: "m1"), entry(2000, platform_id: "m1"), entry(3000)])
    assert_equal [1000, 3000], stores.lines.latest(show.id, 10).map { |one| one.line.id }
  end

  def test_a_deleted_line_is_pulled_by_its_platform_id
    show = make_show
    stores.lines.add(show.id, [entry(1000, platform_id: "m1"), entry(2000, platform_id: "m2")])
    stores.lines.pull(@feed.id, "m1")
    assert_equal [true, false], stores.lines.latest(show.id, 10).map(&:pulled)
  end

  def test_a_line_comes_back_as_it_was
    show = make_show
    line = Lines.line(1000, "hi @Odalys 🌅", feed_id: @feed.id, colour: "#f3b634", name: "Ann", platform_id: "m1")
    stores.lines.add(show.id, [Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false)])
    assert_equal line, stores.lines.latest(show.id, 1).first.line.dress(nil)
  end

  def test_whoever_wrote_several_lines_is_one_person_in_all_of_them
    show = make_show
    [["ann", "#f3b634"], ["ann", "#f3b634"], ["bob", "#f3b634"], ["ann", "#1eaedb"]].each_with_index do |(login, colour), at|
      line = Lines.line(1000 + at, "hi", feed_id: @feed.id, colour:, login:, platform_id: "m#{at}")
      stores.lines.add(show.id, [Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false)])
    end
    first, second, *others = stores.lines.latest(show.id, 4).map { |one| one.line.person }
    assert_same first, second
    assert_equal [["bob", "#f3b634"], ["ann", "#1eaedb"]], others.map { |person| [person.login, person.colour] }
  end

  # For a show that begins anew.
  def test_of_what_was_on_air_the_newest_come_without_their_trace
    show = make_show
    steps = [["received", 1, nil], ["held", 2, "5000"]]
    kept = {1000 => true, 2000 => false}.map { |id, aired| entry(id).tap { |one| one.to_h.merge(aired:, trace: steps).each { |name, value| one[name] = value } } }
    stores.lines.add(show.id, kept)
    latest = stores.lines.latest(show.id, 2)
    assert_equal [[], steps], latest.map(&:trace)
    whole = latest.map { |entry| stores.lines.find(show.id, entry.line.id) }
    assert_equal [steps, steps], whole.map(&:trace)
    untold = ->(entry) { entry.to_h.except(:trace, :line).merge(text: entry.line.text, login: entry.line.person.login, badges: entry.line.person.badges) }
    assert_equal whole.map(&untold), latest.map(&untold)
  end

  def test_a_document_that_does_not_fit_its_format_makes_no_stage
    show = make_show
    error = assert_raises(Bavard::Error) do
      stores.stages.create(show.id, name: "Bad", document: Bavard::Core::Stage::Document.empty.merge("width" => 5))
    end
    assert_equal "/width", error.field
    assert_equal 1, stores.stages.of_show(show.id).size
  end

  def test_the_published_schema_is_what_the_properties_say
    published = JSON.parse(File.read(File.expand_path("../../docs/formats/stage.schema.json", __dir__)))
    assert_equal JSON.parse(JSON.generate(Bavard::Core::Stage::Document.schema)), published, "bin/formats writes it anew"
  end

  def test_a_token_has_192_bits
    make_show
    assert_equal 24, @stage.token.tr("-_", "+/").unpack1("m").bytesize
  end

  def test_a_feed_that_was_taken_away_can_be_put_back_by_its_own_show_only
    show = make_show
    stores.feeds.remove(@feed.id, 1)
    assert_nil stores.feeds.find(@feed.id)
    assert_nil stores.feeds.put_back(show.id + 1, @feed.id)
    assert_equal @feed.id, stores.feeds.put_back(show.id, @feed.id).id
  end

  def test_migrations_go_both_ways
    db.run("DROP DATABASE IF EXISTS there_and_back")
    db.run("CREATE DATABASE there_and_back")
    away = Bavard::Store::Database.open(TestDatabase.url.sub(%r{/\w+\z}, "/there_and_back"))
    Sequel::Migrator.run(away, Bavard::Store::Database::MIGRATIONS, target: 22)
    account_id = away[:accounts].insert(email: "ann@reedmere.example", password_hash: "none")
    show_id = Bavard::Store::Shows.new(away).create(account_id, name: "Reed", host_name: "Ann").id
    %w[polling socket].each { |kind| away[:feeds].insert(show_id:, kind:, name: kind, shape: "circle", colour: "#63c58a", address: "{}") }
    Bavard::Store::Database.migrate(away)
    assert_includes away.tables, :lines
    assert_equal %w[described described], away[:feeds].select_map(:kind)
    Sequel::Migrator.run(away, Bavard::Store::Database::MIGRATIONS, target: 0)
    assert_equal [:schema_info], away.tables
  ensure
    away&.disconnect
  end

  def test_a_show_is_leased_to_one_process_at_a_time
    other = Bavard::Store::Lease.new(TestDatabase.url)
    assert lease.take(7)
    refute other.take(7)
    assert other.take(8)
    lease.close
    assert(wait_for("the lock to be let go") { other.take(7) })
  ensure
    other.close
  end

  def test_a_lease_whose_connection_was_lost_is_taken_again_or_known_to_be_gone
    other = Bavard::Store::Lease.new(TestDatabase.url)
    lease.take(7)
    lease.take(8)
    lease.close
    wait_for("the lock to be let go") { other.take(7) }
    assert_equal [7], lease.renew
    assert_empty lease.renew
  ensure
    other.close
  end

  def test_the_journal_leaves_out_what_the_database_refuses_and_goes_on
    show = make_show
    journal.line(show.id, entry(1000))
    journal.line(show.id, entry(2000).tap { |one| one.line.kind = :impossible })
    journal.line(show.id, entry(3000))
    until_written
    assert_equal [1000, 3000], stores.lines.latest(show.id, 10).map { |one| one.line.id }
    assert_equal 1, journal.lost
  end
end
