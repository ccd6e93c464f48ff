# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/test_database"
require_relative "../../lib/bavard/commands/account"

# What an operator does about accounts.
class AccountCommandTest < Minitest::Test
  def setup = TestDatabase.clean

  def db = TestDatabase.db
  def run_with(*words) = Bavard::Commands::Account.new(db).run(words)
  def refused(*words) = assert_raises(Bavard::Error) { run_with(*words) }.message
  def fits?(word) = Argon2::Password.verify_password(word, db[:accounts].get(:password_hash))

  def test_an_account_is_made_listed_and_gets_a_new_password
    assert_equal "Nobody yet.", run_with
    first = run_with("make", "odalys@reedmere.example", " Dawn watch ")[/\w+\z/]
    assert fits?(first)
    assert_equal "odalys@reedmere.example  Dawn watch", run_with("list")
    id = db[:accounts].get(:id)
    db[:account_active_session_keys].insert(account_id: id, session_id: "x")
    second = run_with("password", "ODALYS@reedmere.example")[/with (\w{20}),/, 1]
    assert fits?(second)
    refute fits?(first)
    assert_equal 0, db[:account_active_session_keys].count
  end

  def test_a_lost_second_factor
    run_with("make", "odalys@reedmere.example")
    id = db[:accounts].get(:id)
    db[:account_otp_keys].insert(id:, key: "x")
    db[:account_recovery_codes].insert(id:, code: "y")
    run_with("one-factor", "odalys@reedmere.example")
    assert_equal [0, 0], [db[:account_otp_keys].count, db[:account_recovery_codes].count]
  end

  def test_what_it_does_not_do
    run_with("make", "odalys@reedmere.example")
    assert_includes refused("make", "Odalys@reedmere.example"), "already"
    assert_includes refused("make", "no address"), "e-mail"
    assert_includes refused("password", "nobody@reedmere.example"), "Nobody"
    [%w[password], %w[dance], %w[one-factor]].each { |words| assert_includes refused(*words), "bin/account make" }
  end
end
