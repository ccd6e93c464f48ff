# frozen_string_literal: true

require_relative "../support/team_test"
require_relative "../../lib/bavard/web/http/remembered"

# Who is who while the database does not answer.
class RememberedTest < Minitest::Test
  AWAY = -> { raise Sequel::DatabaseConnectionError, "away" }

  def setup
    @now_ms = 0
    @remembered = Bavard::Web::Remembered.new(-> { @now_ms })
  end

  def ask(key = :ann, &says) = @remembered.of(:visitor, key, &says || AWAY)

  def test_what_was_said_last_counts_while_nothing_is_said
    ask { "reader" }
    ask { "moderator" }
    assert_equal "moderator", ask
    assert_raises(Sequel::DatabaseConnectionError) { ask(:bo) }
  end

  def test_not_for_good
    ask { "moderator" }
    @now_ms = Bavard::Web::Remembered::LASTS_MS + 1
    assert_raises(Sequel::DatabaseConnectionError) { ask }
  end

  def test_who_is_nobody_by_now_is_nobody
    ask { "moderator" }
    assert_nil(ask { nil })
    assert_raises(Sequel::DatabaseConnectionError) { ask }
    ask { "moderator" }
    @remembered.forget
    assert_raises(Sequel::DatabaseConnectionError) { ask }
  end

  # It was asked before, and is answered after.
  def test_who_is_forgotten_while_the_database_still_says_so
    ask { @remembered.forget.then { "moderator" } }
    assert_raises(Sequel::DatabaseConnectionError) { ask }
  end

  def test_a_session_that_was_ended_elsewhere_opens_nothing
    %i[session account factors].each { |kind| @remembered.of(kind, "gone") { 1 } }
    @remembered.of(:session, "goes on") { 1 }
    ask { "moderator" }
    @remembered.forget_sessions_but(["goes on"])
    %i[session account factors].each { |kind| assert_raises(Sequel::DatabaseConnectionError) { @remembered.of(kind, "gone", &AWAY) } }
    assert_equal [1, "moderator"], [@remembered.of(:session, "goes on", &AWAY), ask]
  end

  def test_there_are_only_so_many
    (0..Bavard::Web::Remembered::MOST).each { |number| ask(number) { true } }
    assert_raises(Sequel::DatabaseConnectionError) { ask(0) }
    assert ask(1)
  end

  def test_other_faults_are_faults
    ask { "moderator" }
    assert_raises(ArgumentError) { ask { raise ArgumentError } }
  end
end
