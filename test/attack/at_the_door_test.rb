# frozen_string_literal: true

require_relative "../support/team_test"

# What a stranger gains at the door: neither who is inside, nor a way in that the operator did not open.
class AtTheDoorTest < TeamTest
  def stranger = with_session(:stranger) { yield }

  def tried(email, password)
    stranger do
      clear_cookies
      post "/account/login", {"_csrf" => token_on("/account/login"), "login" => email, "password" => password}
      [last_response.status, last_response.body.gsub(email, "…").gsub(/(?:content|value)="[^"]{40,}"/, "")]
    end
  end

  def test_who_has_an_account_here
    known = tried("host@reedmere.example", "not-the-password")
    assert_equal known, tried("nobody@reedmere.example", "not-the-password")
    assert_equal 401, known.first
    assert_includes known.last, Bavard::Web::SignIn::NOT_TOGETHER
  end

  # The same work is done for somebody who is not there.
  def test_who_has_an_account_here_by_how_long_an_answer_takes
    asked = []
    verify = Argon2::Password.method(:verify_password)
    Argon2::Password.define_singleton_method(:verify_password) { |*given| (asked << given.first) && verify.call(*given) }
    tried("host@reedmere.example", "not-the-password")
    tried("nobody@reedmere.example", "not-the-password")
    assert_equal %w[not-the-password not-the-password], asked
  ensure
    Argon2::Password.singleton_class.send(:remove_method, :verify_password)
    Argon2::Password.define_singleton_method(:verify_password, verify)
  end

  def test_a_password_that_everybody_tries_first
    stranger do
      post "/account/create-account", {"_csrf" => token_on("/account/create-account"), "login" => "new@reedmere.example", "password" => "qwertyuiop"}
      assert_includes last_response.body, "thousands of people use"
    end
    assert_equal 1, db[:accounts].count
  end

  # @return [Integer] status of making one
  def made(email, path = "/account/create-account")
    get path
    token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
    post "/account/create-account", {"_csrf" => token.to_s, "login" => email, "password" => PASSWORD}
    last_response.status
  end

  def test_who_has_an_account_here_by_making_one_for_each_of_a_list
    assert_operator tries_until_told_to_wait(Bavard::Web::Limits::NEW_ACCOUNTS) { post("/account/create-account", {}) }, :>, 1
    assert_equal "3600", last_response.headers["retry-after"]
    assert_includes last_response.body, "an hour"
  end

  # Of IPv6 a household has more addresses than there are accounts.
  def test_the_same_from_another_address_of_the_household_each_time
    from = ->(address) { post("/account/create-account", {}, "REMOTE_ADDR" => address) }
    assert_operator tries_until_told_to_wait(Bavard::Web::Limits::NEW_ACCOUNTS) { |number| from.call("2001:db8:0:7::#{number}") }, :>, 1
    assert_equal 429, from.call("2001:db8:0:7:ffff::1").status
    refute_equal 429, from.call("2001:db8:0:8::1").status
  end

  def test_whoever_is_counted_is_a_household
    {"192.0.2.7" => "192.0.2.7", "::ffff:192.0.2.7" => "192.0.2.7", "2001:db8:0:7:1:2:3:4" => "2001:db8:0:7::", "2001:db8:0:7::" => "2001:db8:0:7::",
     "::1" => "::", nil => "unknown", "unix:" => "unknown", "1.2.3" => "unknown"}.each do |address, household|
      assert_equal household, Bavard::Web::Household.of(address), address.inspect
    end
  end

  def test_an_account_where_none_is_made
    @site.accounts = "closed"
    stranger do
      assert_equal 403, get("/account/create-account").status
      assert_includes last_response.body, "Whoever runs this Bavard"
      assert_equal 403, made("new@reedmere.example")
      refute_includes get("/account/login").body, "create-account"
    end
    assert_equal 1, db[:accounts].count
  end

  def test_an_account_without_the_invitation_it_takes
    link = invite("reader")
    @site.accounts = "invited"
    stranger { assert_equal 403, made("new@reedmere.example") }
    with_session(:guesser) do
      get "/people/join/#{"x" * 32}"
      assert_equal 403, made("guesser@reedmere.example")
    end
    with_session(:guest) do
      get link
      assert_equal 302, made("guest@reedmere.example")
    end
    assert_equal 2, db[:accounts].count
  end

  def test_the_first_account_by_a_key_that_was_guessed_or_used
    @site.accounts = "closed"
    stranger do
      assert_equal 403, made("new@reedmere.example", "/account/create-account?begin=#{"a" * 32}")
      clear_cookies
      assert_equal 302, made("new@reedmere.example", "/account/create-account?begin=#{"b" * 32}")
    end
    with_session(:late) { assert_equal 403, made("late@reedmere.example", "/account/create-account?begin=#{"b" * 32}") }
  end
end
