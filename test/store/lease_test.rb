# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../support/proxy"
require_relative "../support/test_database"
require_relative "../../lib/bavard/store/lease"
require "uri"

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

  # The database was not told that nobody is at the other end any more, as where the way to it is broken.
  def test_what_a_line_of_our_own_still_has_is_ours
    way = Proxy.new(URI(TestDatabase.url).port)
    @leases << (far = Bavard::Store::Lease.new(TestDatabase.url.sub(%r{:\d+/}, ":#{way.port}/")))
    assert far.take(7)
    assert far.stand(3)
    way.strand
    refute_predicate far, :reach?
    refute one.take(7)
    assert_predicate far, :anew?
    assert_empty far.renew
    refute_predicate far, :anew?
    refute one.take(7)
    refute one.stand(3)
    far.release(7)
    assert one.take(7)
  ensure
    way&.stop
  end

  # Others may have them, and once the database is there again it is told so.
  def test_what_was_let_go_while_the_database_was_away_is_not_taken_again
    [7, 8].each { |id| assert one.take(id) }
    one.forget([7])
    refute other.take(7)
    assert_empty one.renew
    assert other.take(7)
    refute other.take(8)
    TestDatabase.away { nil }
    [one, other].each(&:reach?)
    assert_empty one.renew
    assert other.take(7)
    refute other.take(8)
  end

  GIVEN_UP_BY = {"tcp_keepalives_idle" => :TCP_KEEPIDLE, "tcp_keepalives_interval" => :TCP_KEEPINTVL, "tcp_keepalives_count" => :TCP_KEEPCNT}.freeze

  # A machine that was switched off does not say that it lets go.
  def test_a_line_on_which_nothing_comes_back_is_given_up_by_either_end
    seconds = Bavard::Store::Database::SILENT_S
    [one.db, TestDatabase.db].each do |db|
      theirs = GIVEN_UP_BY.keys.map { |name| db.fetch("SHOW #{name}").get.to_i }
      socket = Socket.for_fd(db.synchronize(&:socket)).tap { |line| line.autoclose = false }
      ours = GIVEN_UP_BY.values.map { |name| socket.getsockopt(Socket::IPPROTO_TCP, Socket.const_get(name)).int }
      assert_equal theirs, ours
      assert_equal seconds, ours[0] + (ours[1] * ours[2])
      assert_equal [seconds * 1000] * 2,
        [db.fetch("SHOW tcp_user_timeout").get.to_i, socket.getsockopt(Socket::IPPROTO_TCP, Socket::TCP_USER_TIMEOUT).int]
    end
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
