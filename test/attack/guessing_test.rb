# frozen_string_literal: true

require "rotp"
require_relative "../support/web_test"

# What somebody gains who guesses: neither the password, nor that its owner is kept out.
class GuessingTest < WebTest
  Patience = Bavard::Web::SignIn::Patience
  EMAIL = "host@reedmere.example"

  def setup
    super
    sign_up
    clear_cookies
  end

  # @return [Integer] status
  def tried(password = "wrong-password", **more) = sign_in(password:, **more).then { last_response.status }
  def guessed(times, password = "wrong-password") = Array.new(times) { tried(password) }
  def in? = get("/feeds").status == 200

  # So that no test is a race with the clock.
  def later(ms) = db[:sign_in_failures].update(last_ms: Sequel[:last_ms] + ms)

  def test_one_password_after_another
    assert_equal([401] * 5, guessed(5))
    later(60_000)
    assert_equal 429, tried
    assert_includes 60..61, last_response.headers["retry-after"].to_i
    assert_includes last_response.body, "Wait 2 min"
    # Not even the right one, until the wait is over.
    assert_equal 429, tried(PASSWORD)
    refute_predicate self, :in?
    later(-120_000)
    assert_equal 302, tried(PASSWORD)
    assert_predicate self, :in?
  end

  def test_waits_double_up_to_a_quarter_of_an_hour_and_are_forgotten
    now_ms = 10**12
    patience = Patience.new(db, "secret", -> { now_ms })
    waits = Array.new(16) { patience.failed(EMAIL, "192.0.2.1", nil).then { patience.wait_s(EMAIL, "192.0.2.1", nil) } }
    assert_equal [0, 0, 0, 0, 1, 2, 4, 8, 16, 32, 64, 128, 256, 512, 900, 900], waits
    assert_equal 900, patience.wait_s(" HOST@reedmere.example ", "192.0.2.1", nil)
    now_ms += Patience::FORGOTTEN_AFTER_MS + 1
    patience.failed("other@reedmere.example", "192.0.2.9", nil)
    assert_equal 0, patience.wait_s(EMAIL, "192.0.2.1", nil)
  end

  def test_one_password_for_many_accounts_from_one_address_and_its_household
    patience = Patience.new(db, "secret", -> { 10**12 })
    41.times { |n| patience.failed("host#{n}@reedmere.example", "2001:db8:0:7::#{n.to_s(16)}", nil) }
    assert_operator patience.wait_s("new@reedmere.example", "2001:db8:0:7::ffff", nil), :>, 0
    assert_equal 0, patience.wait_s("new@reedmere.example", "2001:db8:0:8::1", nil)
  end

  def test_an_account_from_many_addresses
    patience = Patience.new(db, "secret", -> { 10**12 })
    60.times { |n| patience.failed(EMAIL, "198.51.100.#{n}", nil) }
    assert_equal 60, patience.wait_s(EMAIL, "192.0.2.77", nil)
    assert_equal 0, patience.wait_s("other@reedmere.example", "192.0.2.77", nil)
    assert_equal 0, patience.wait_s(EMAIL, "192.0.2.77", "known")
  end

  # The browser that was signed in before is not counted with those that guess.
  def test_to_keep_the_owner_out
    tried(PASSWORD)
    post "/account/logout", {"_csrf" => token_on("/account/logout")}
    with_session(:guesser) { guessed(5) }
    later(60_000)
    with_session(:guesser) { assert_equal 429, tried(PASSWORD) }
    assert_equal 302, tried(PASSWORD)
    assert_predicate self, :in?
  end

  def test_a_known_browser_that_guesses_is_not_let_off
    tried(PASSWORD)
    post "/account/logout", {"_csrf" => token_on("/account/logout")}
    guessed(5)
    later(60_000)
    assert_equal 429, tried(PASSWORD)
  end

  def test_the_cookie_of_a_known_browser_made_up_or_of_another_account
    guessed(5)
    later(60_000)
    set_cookie "bavard.test.known=#{"a" * 24}.#{"b" * 64}"
    assert_equal 429, tried(PASSWORD)
    other = OpenSSL::HMAC.hexdigest("SHA256", "s" * 64, "known other@reedmere.example #{"a" * 24}")
    set_cookie "bavard.test.known=#{"a" * 24}.#{other}"
    assert_equal 429, tried(PASSWORD)
  end

  def test_who_has_a_second_factor_shows_it_and_does_not_wait
    id = db[:accounts].get(:id)
    secret = ROTP::Base32.random
    db[:account_otp_keys].insert(id:, key: secret, last_use: Time.now - 300)
    db[:account_recovery_codes].insert(id:, code: Bavard::Web::SignIn::Recovery.new(@site.session_secret).close("recovery-of-the-owner"))
    guessed(5)
    later(60_000)
    assert_equal 429, tried(PASSWORD)
    assert_includes last_response.body, "Code of your authenticator app"
    assert_equal [429, 429], [tried(PASSWORD, code: "000000"), tried(PASSWORD, code: "recovery-of-nobody")]
    assert_equal 401, tried("still-wrong-password", code: "recovery-of-the-owner")
    assert_equal 302, tried(PASSWORD, code: "recovery-of-the-owner")
    assert_equal 1, db[:account_recovery_codes].count, "a code that was shown is not used up"
    refute_predicate self, :in?, "the second factor is asked for all the same"
  end

  def test_a_code_opens_nothing_for_an_account_that_is_not_there
    5.times { sign_in(email: "nobody@reedmere.example", password: "wrong-password") }
    later(60_000)
    assert_equal 429, sign_in(email: "nobody@reedmere.example", password: "wrong-password", code: "1").status
  end
end
