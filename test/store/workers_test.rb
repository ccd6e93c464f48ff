# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/test_database"
require_relative "../support/wait"
require_relative "../../lib/bavard/store/shows"
require_relative "../../lib/bavard/store/workers"

class WorkersStoreTest < Minitest::Test
  include Wait

  def setup
    TestDatabase.clean
    @leases = []
    @first, @second = %w[a:1 b:1].map { |address| of(address) }
  end

  def teardown = @leases.each(&:close)

  def db = TestDatabase.db
  def of(address) = Bavard::Store::Workers.new(db, Bavard::Store::Lease.new(TestDatabase.url).tap { |lease| @leases << lease }, address)
  def seen_before(address, seconds) = db[:workers].where(address:).update(seen_at: Sequel.lit("now() - make_interval(secs => ?)", seconds))

  def test_each_has_a_number_of_its_own_and_keeps_it
    assert_equal [0, 1], [@first.enter, @second.enter]
    @first.leave
    assert_equal [2, 0], [of("c:1").enter, @first.enter]
  end

  def test_a_number_is_free_again_once_nobody_was_seen_for_long
    @first.enter
    @first.leave
    seen_before("a:1", 3601)
    assert_equal 0, @second.enter
  end

  def test_who_takes_a_number_at_the_same_time_gets_another
    numbers = Array.new(6) { |number| Thread.new { of("t:#{number}").enter } }.map(&:value)
    assert_equal (0..5).to_a, numbers.sort
  end

  def test_there_are_only_so_many
    Bavard::Store::Workers::MOST.times { |number| db[:workers].insert(address: "m:#{number}", number:) }
    assert_match(/64 workers already/, assert_raises(Bavard::Error) { @first.enter }.message)
  end

  def test_who_is_gone_is_not_there_any_more
    [@first, @second].each(&:enter)
    assert_equal ["a:1", "b:1"], Bavard::Store::Workers.new(db).alive
    @leases.last.close
    wait_for("it to be known") { @first.alive == ["a:1"] }
    @first.leave
    assert_empty @first.alive
  end

  # As when a program is begun a second time.
  def test_nobody_takes_an_address_at_which_somebody_is
    @first.enter
    assert_match(/A worker is at a:1 already/, assert_raises(Bavard::Error) { of("a:1").enter }.message)
  end

  def test_who_lost_the_line_to_the_database_is_there_again
    @first.enter
    TestDatabase.db.get(Sequel.function(:pg_terminate_backend, @leases.first.instance_variable_get(:@db).get(Sequel.function(:pg_backend_pid))))
    wait_for("it to be gone") { @second.alive.empty? }
    @leases.first.reach?
    @leases.first.renew
    assert_equal ["a:1"], @second.alive
  end

  def test_where_a_show_runs_and_is_to_go_on
    show = Bavard::Store::Shows.new(db).create(db[:accounts].insert(email: "a@reedmere.example", password_hash: "none"), name: "One", host_name: "Odalys").id
    assert_equal [nil, 0], [@first.place_of(show), @first.ask_for(show, "b:1")]
    assert_nil @first.place(show)
    assert_nil @first.place(show)
    @first.ask_for(show, "b:1")
    assert_equal ["b:1", {show => "b:1"}], [@second.wanted_at(show), @second.asked_for]
    assert_equal "a:1", @second.place(show)
    assert_equal [{}, {show => "b:1"}], [@first.asked_for, @first.places]
  end
end
