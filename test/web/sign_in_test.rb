# frozen_string_literal: true

require "rotp"
require_relative "../support/web_test"

class SignInTest < WebTest
  def test_every_page_but_the_air_page_asks_who_you_are
    %w[/feeds /feeds/ /gate /stage /stage/1 /stage/1/draft /links /feeds/1/mapping].each do |path|
      get path
      assert_equal [302, "/account/login"], [last_response.status, last_response.headers["location"].sub("http://example.org", "")], path
    end
  end

  def test_a_new_account_begins_with_an_empty_show
    sign_up(show: "Dawn watch")
    get "/feeds"
    assert_includes last_response.body, "Dawn watch"
    assert_empty stores.feeds.of_show(@record.id)
    assert_empty stores.stages.of_show(@record.id)
  end

  def test_passwords_are_kept_with_argon2
    sign_up
    assert_match(/\A\$argon2id\$/, db[:accounts].get(:password_hash))
  end

  def test_the_same_address_in_another_case_is_the_same_account
    sign_up
    clear_cookies
    post "/account/create-account", {"_csrf" => token_on("/account/create-account"), "login" => "HOST@reedmere.example", "password" => PASSWORD}
    assert_equal 422, last_response.status
  end

  def test_too_many_tries_a_minute_are_asked_to_wait_and_air_links_are_not
    sign_up
    make_stage
    assert_operator tries_until_told_to_wait(60) { post("/account/login", {}) }, :>, 1
    assert_equal "60", last_response.headers["retry-after"]
    100.times { get "/air/#{@stage.token}" }
    assert_equal 200, last_response.status
  end

  def test_a_form_that_is_too_old_is_refused_in_words
    post "/account/login", {"_csrf" => "x", "login" => "host@reedmere.example", "password" => PASSWORD}
    assert_equal 403, last_response.status
    assert_includes last_response.body, "This form is too old"
  end

  def test_a_page_of_accounts_that_is_not_there_says_so_and_leads_on
    ["/account", "/account/", "/account/nothing"].each do |path|
      get path, {}, "HTTP_ACCEPT" => "text/html"
      assert_equal 404, last_response.status, path
      assert_match(%r{Nothing here.*nothing at this address.*href="/"}m, last_response.body, path)
    end
    post "/account/login", {}, "HTTP_ACCEPT" => "text/html"
    assert_match(%r{<!doctype html>.*This form is too old.*href="/"}m, last_response.body)
  end

  def test_who_asks_to_be_remembered_is
    sign_up
    clear_cookies
    sign_in(stay: "1")
    assert_match(/\Abavard\.test=.*max-age=2592000/, session_cookie)
  end

  def test_who_does_not_ask_is_not
    sign_up
    clear_cookies
    sign_in
    refute_match(/max-age|expires/i, session_cookie)
  end

  def test_a_second_factor_is_asked_for_once_it_is_set_up
    sign_up
    secret = set_up_second_factor
    clear_cookies
    db[:account_otp_keys].update(last_use: Time.now - 300)
    sign_in
    get "/feeds"
    assert_match(/otp-auth|multifactor-auth/, last_response.headers["location"])
    get "/account/otp-auth"
    post "/account/otp-auth", {"_csrf" => last_response.body[/name="_csrf" value="([^"]+)"/, 1], "otp" => ROTP::TOTP.new(secret).now}
    get "/feeds"
    assert_equal 200, last_response.status
  end

  def test_half_signed_in_listens_to_nothing
    sign_up
    set_up_second_factor
    clear_cookies
    sign_in
    get "/live", {}, websocket
    assert_equal 404, last_response.status
  end

  def test_signing_out_ends_it
    sign_up
    post "/account/logout", {"_csrf" => token_on("/account/logout")}
    get "/feeds"
    assert_equal 302, last_response.status
  end

  def test_the_cookie_is_for_this_site_alone_and_no_script_reads_it
    get "/account/login"
    cookie = last_response.headers["set-cookie"]
    assert_match(/\Abavard\.test=/, Array(cookie).first)
    assert_match(/httponly/i, Array(cookie).first)
    assert_match(/samesite=lax/i, Array(cookie).first)
  end

  def test_a_show_name_that_is_too_long_is_refused_with_the_reason
    post "/account/create-account",
      {"_csrf" => token_on("/account/create-account"), "login" => "a@reedmere.example", "password" => PASSWORD, "show_name" => "x" * 81}
    assert_equal 422, last_response.status
    assert_includes last_response.body, "at most 80 characters"
  end

  def test_a_lost_second_factor_is_replaced_by_codes_that_serve_once_and_that_the_database_does_not_tell
    sign_up
    set_up_second_factor
    codes = recovery_codes("add" => "1")
    assert_equal [16, 16], [codes.size, codes.uniq.size]
    kept = db[:account_recovery_codes].select_map(:code)
    assert_equal 16, kept.size
    assert_empty kept & codes
    # What stood there in the open before is closed by the next start, and serves as well.
    db[:account_recovery_codes].where(code: kept.first).update(code: "of-former-times#{"x" * 28}")
    Bavard::Web::SignIn.for(@site)
    refute_includes db[:account_recovery_codes].select_map(:code).map(&:length), 43
    [codes[9], "of-former-times#{"x" * 28}"].each do |code|
      assert_equal [302, 401], [recovered_by(code), recovered_by(code)]
    end
    # As it stands in the database it opens nothing.
    assert_equal 401, recovered_by(db[:account_recovery_codes].get(:code))
  end

  private

  # @return [Integer] status of trying that code after signing in
  def recovered_by(code)
    clear_cookies
    sign_in
    fill_form("/account/recovery-auth", "recovery-code" => code)
    last_response.status
  end

  def fill_form(path, values)
    get path
    post path, {"_csrf" => last_response.body[/name="_csrf" value="([^"]+)"/, 1], **values}
  end

  def recovery_codes(asks)
    fill_form("/account/recovery-codes", "password" => PASSWORD, **asks)
    last_response.body.scan(/[\w-]{43}(?=[\s<])/)
  end

  def session_cookie = Array(last_response.headers["set-cookie"]).flat_map { |lines| lines.split("\n") }.find { |line| line.start_with?("bavard.test=") }

  def websocket
    {"HTTP_CONNECTION" => "Upgrade", "HTTP_UPGRADE" => "websocket"}
  end

  def set_up_second_factor
    get "/account/otp-setup"
    body = last_response.body
    secret = body[/name="otp_secret" value="([^"]+)"/, 1]
    raw = body[/name="otp_raw_secret" value="([^"]+)"/, 1]
    post "/account/otp-setup", {"_csrf" => body[/name="_csrf" value="([^"]+)"/, 1], "otp_secret" => secret, "otp_raw_secret" => raw,
                                "password" => PASSWORD, "otp" => ROTP::TOTP.new(secret).now}
    assert_equal 302, last_response.status, last_response.body
    secret
  end
end
