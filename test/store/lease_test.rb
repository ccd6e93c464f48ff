# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/test_database"
require_relative "../../lib/bavard/store/lease"

# A show runs in one process at a time, and where it is let go another may take it.
class LeaseTest < Minitest::Test
  def setup = @leases = Array.new(2) { Bavard::Store::Lease.new(TestDatabase.url) }
  def teardown = @leases.each(&:close)

  def one = @leases.first
  def other = @leases.last

  def test_one_at_a_time
    assert one.take(7)
    refute other.take(7)
    assert other.take(8)
    one.release(7)
    assert other.take(7)
  end

  # However long it was kept.
  def test_what_was_renewed_any_number_of_times_is_let_go_at_once
    assert one.take(7)
    3.times { assert_empty one.renew }
    refute other.take(7)
    one.release(7)
    assert other.take(7)
  end

  def test_what_went_with_a_connection_is_taken_again_or_told
    [7, 8].each { |id| assert one.take(id) }
    TestDatabase.db.get(Sequel.function(:pg_terminate_backend, one.instance_variable_get(:@db).get(Sequel.function(:pg_backend_pid))))
    assert other.take(8)
    one.reach?
    assert_equal [8], one.renew
    assert_empty one.renew
    refute other.take(7)
  end

  # Whoever ends while the database is away, ends.
  def test_who_leaves_while_the_database_is_away_is_not_there_afterwards
    assert one.stand(3)
    TestDatabase.away { one.sit }
    one.reach?
    assert_empty one.renew
    assert other.stand(3)
  end
end
