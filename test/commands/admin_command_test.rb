# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/test_database"
require_relative "../../lib/bavard/commands/admin"

# What an operator does from a terminal.
class AdminCommandTest < Minitest::Test
  ODALYS = "odalys@reedmere.example"

  def setup = TestDatabase.clean

  def db = TestDatabase.db
  def run_with(*words) = Bavard::Commands::Admin.new(db, "https://reedmere.example").run(words)
  def refused(*words) = assert_raises(Bavard::Error) { run_with(*words) }.message
  def fits?(word) = Argon2::Password.verify_password(word, db[:accounts].get(:password_hash))
  def show_id = db[:shows].get(:id)

  def test_an_account_is_made_listed_and_gets_a_new_password
    assert_equal "Nobody yet.", run_with
    first = run_with("make", ODALYS, " Dawn watch ")[/\w+\z/]
    assert fits?(first)
    assert_equal "#{ODALYS}  Dawn watch (#{show_id})", run_with("list")
    db[:account_active_session_keys].insert(account_id: db[:accounts].get(:id), session_id: "x")
    second = run_with("password", "ODALYS@reedmere.example")[/with (\w{20}),/, 1]
    assert fits?(second)
    refute fits?(first)
    assert_equal 0, db[:account_active_session_keys].count
  end

  def test_a_lost_second_factor
    run_with("make", ODALYS)
    id = db[:accounts].get(:id)
    db[:account_otp_keys].insert(id:, key: "x")
    db[:account_recovery_codes].insert(id:, code: "y")
    run_with("one-factor", ODALYS)
    assert_equal [0, 0], [db[:account_otp_keys].count, db[:account_recovery_codes].count]
  end

  def test_processes_that_share_shows_and_a_show_that_goes_on_in_another
    run_with("make", ODALYS, "Dawn watch")
    assert_equal "One process runs all shows.", run_with("workers")
    leases = Array.new(2) { Bavard::Store::Lease.new(TestDatabase.url) }
    first, second = %w[10.0.0.5:4600 10.0.0.6:4600].zip(leases).map { |address, lease| Bavard::Store::Workers.new(db, lease, address).tap(&:enter) }
    assert_match(/No show #{show_id} has run yet/, refused("move", show_id.to_s, second.address))
    first.place(show_id)
    assert_equal "10.0.0.5:4600  shows #{show_id}\n10.0.0.6:4600", run_with("workers")
    assert_match(/No worker is at 10.0.0.7:4600: 10.0.0.5:4600, 10.0.0.6:4600/, refused("move", show_id.to_s, "10.0.0.7:4600"))
    refused("move", "x", second.address)
    assert_equal "Show #{show_id} goes on at 10.0.0.6:4600.", run_with("move", show_id.to_s, second.address)
    assert_equal({show_id => second.address}, first.asked_for)
    assert_match(%r{bin/admin moved show #{show_id}}, run_with("deeds"))
  ensure
    leases&.each(&:close)
  end

  def test_closed_opened_again_made_an_operator_and_removed
    run_with("make", ODALYS, "Dawn watch")
    db[:account_active_session_keys].insert(account_id: db[:accounts].get(:id), session_id: "x")
    assert_includes run_with("close", ODALYS), "closed"
    assert_equal 0, db[:account_active_session_keys].count
    assert_includes run_with, "(#{show_id})  closed"
    run_with("reopen", ODALYS)
    run_with("operator", ODALYS)
    assert_includes run_with, "  operator"
    run_with("no-operator", ODALYS)
    refute_includes run_with, "operator"
    run_with("remove", ODALYS)
    assert_equal [0, 0], [db[:accounts].count, db[:shows].count]
    assert_includes run_with("deeds").lines.first, "bin/admin removed the account of #{ODALYS}"
    assert_equal 6, run_with("deeds").lines.size
  end

  def test_an_invitation_is_a_link_that_works_once_for_a_week
    link = run_with("invite", "Ibrahim", "of", "the", "ferry")
    token = link[%r{\Ahttps://reedmere.example/account/create-account\?invitation=([\w-]{32})\z}, 1]
    accounts = Bavard::Store::Accounts.new(db)
    assert_equal ["Ibrahim of the ferry"], accounts.invitations.map(&:name)
    refute accounts.invited?("x" * 32)
    assert accounts.invited?(token)
    assert accounts.take_up(token)
    refute accounts.take_up(token)
    old = accounts.invite("Old", by: "test").token
    db[:account_invitations].update(made_at_ms: Sequel[:made_at_ms] - Bavard::Store::Accounts::INVITED_FOR_MS - 1000)
    refute accounts.take_up(old)
    assert_empty accounts.invitations
    assert_equal 0, db[:account_invitations].count
  end

  def test_what_a_show_uses_and_what_it_may_have
    run_with("make", ODALYS, "Dawn watch")
    db[:files].insert(show_id:, id: "a" * 32, kind: "sound", name: "Bell", bytes: 2_300_000, made_at_ms: 1)
    now_ms = (Time.now.to_f * 1000).to_i
    [now_ms - (2 * 86_400_000), now_ms - 1000].each { |at_ms| line(at_ms) }
    assert_equal "#{show_id}  Dawn watch  #{ODALYS}  1 lines  2.3 MB of files", run_with("use")
    assert_includes run_with("ceilings", show_id.to_s), "files=3000"
    assert_includes run_with("ceilings", show_id.to_s, "files=7", "screens=3"), "files=7"
    other = Bavard::Store::Ceilings.new(db, "feeds" => 9).refresh
    assert_equal [7, 3, 9, 3000], [other.most(show_id, "files"), other.most(show_id, "screens"), other.most(show_id, "feeds"), other.most(0, "files")]
    assert_includes run_with("ceilings", show_id.to_s, "stages=3"), "files=3000"
    assert_includes refused("ceilings", "0", "files=7"), "no such show"
    assert_includes refused("ceilings", show_id.to_s, "birds=7"), "birds=7"
    assert_includes refused("ceilings", show_id.to_s, "files=-7"), "none of them"
  end

  def line(at_ms)
    feed_id = db[:feeds].get(:id) || db[:feeds].insert(show_id:, kind: "irc", name: "Chat", shape: "circle", colour: "#5fb8d6", address: Sequel.pg_jsonb({}))
    db[:lines].insert(id: at_ms * 1000, show_id:, feed_id:, shown_at_ms: at_ms, login: "ann", display_name: "Ann", kind: "said", text: "x", arrived_at_ms: at_ms, action: "pass")
  end

  def test_a_database_that_is_not_there_is_said_in_a_line
    gone = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
    env = {"DATABASE_URL" => "postgres://bavard@127.0.0.1:#{gone}/bavard", "BAVARD_DATA" => "/nowhere"}
    said = [["list"], %w[backup never.tar.gz]].map { |words| assert_raises(Bavard::Error) { Bavard::Commands::Admin.call(env, words) } }
    said.each { |error| assert_match(/\AThe database cannot be reached: connection to server at .*port #{gone} failed.*\.\z/, error.message) }
  end

  def test_it_waits_longer_for_a_busy_database_than_a_page_does
    lines = [Bavard::Store::Database.open(TestDatabase.url), Bavard::Store::Database.open_patiently(TestDatabase.url)]
    waits = lines.map { |line| line.synchronize { |connection| connection.conninfo_hash[:connect_timeout].to_i } }
    assert_operator waits.last, :>=, 10 * waits.first
  ensure
    lines.each(&:disconnect)
  end

  def test_what_it_does_not_do
    run_with("make", ODALYS)
    assert_includes refused("make", "Odalys@reedmere.example"), "already"
    assert_includes refused("make", "odalys"), "e-mail"
    assert_includes refused("make"), "e-mail"
    assert_includes refused("invite"), "whom"
    assert_includes refused("password", "nobody@reedmere.example"), "Nobody"
    ["remove", %w[remove a b], "make-coffee", "password", "ceilings", %w[ceilings x]].each { |words| assert_includes refused(*words), "bin/admin" }
    assert_equal 1, db[:accounts].count
  end
end
