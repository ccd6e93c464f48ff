# frozen_string_literal: true

require_relative "../support/web_test"

# What somebody gains by saying that they are somebody else, or that this is another place: nothing, but from a proxy of the operator's.
class InFrontTest < WebTest
  TrueClient = Bavard::Web::TrueClient
  SEEN = ->(env) { [200, {}, [[env["REMOTE_ADDR"], env["rack.url_scheme"], env["HTTP_HOST"], Rack::Request.new(env).ip, Rack::Request.new(env).base_url].join(" ")]] }

  # @return [String] who asked, how, where; then the same as Rack has it
  def seen(from, proxies: "", hosts: "", path: "/", **headers)
    front = TrueClient.new(SEEN, proxies: TrueClient.proxies(proxies), hosts: TrueClient.hosts(hosts))
    Rack::MockRequest.new(front).get("http://bavard.example#{path}", {"REMOTE_ADDR" => from, "HTTP_HOST" => "bavard.example"}.merge(headers.transform_keys(&:to_s)))
  end

  FORGED = {HTTP_X_FORWARDED_FOR: "6.6.6.6", HTTP_X_FORWARDED_PROTO: "https", HTTP_X_FORWARDED_HOST: "evil.example", HTTP_FORWARDED: "for=6.6.6.6;host=evil.example;proto=https",
            HTTP_X_REAL_IP: "6.6.6.6", HTTP_CLIENT_IP: "6.6.6.6", HTTP_X_FORWARDED_SSL: "on", HTTP_X_FORWARDED_PORT: "1"}.freeze

  def test_another_address_so_that_limits_do_not_count
    %w[127.0.0.1 10.0.0.7 192.168.1.9 203.0.113.5 ::1].each do |from|
      assert_equal "#{from} http bavard.example #{from} http://bavard.example", seen(from, **FORGED).body
      assert_equal "#{from} http bavard.example #{from} http://bavard.example", seen(from, proxies: "198.51.100.0/24", **FORGED).body
    end
  end

  def test_another_address_behind_a_proxy_by_what_was_there_before_it
    asked = ->(hops) { seen("10.0.0.1", proxies: "10.0.0.0/8, ::1", HTTP_X_FORWARDED_FOR: hops).body.split.first }
    assert_equal %w[203.0.113.5 203.0.113.5 203.0.113.5 2001:db8::1], ["203.0.113.5", "6.6.6.6, 203.0.113.5", "6.6.6.6, 203.0.113.5, 10.0.0.9", "2001:db8::1"].map(&asked)
    # What is none is not believed at all.
    assert_equal %w[10.0.0.1 10.0.0.1 10.0.0.1], ["6.6.6.6, nonsense", "", "10.0.0.2"].map(&asked)
    assert_equal "10.0.0.1", asked[(["10.0.0.3"] * 5000).join(",")]
  end

  def test_another_place_in_the_links_a_host_copies
    told = seen("10.0.0.1", proxies: "10.0.0.1", HTTP_X_FORWARDED_PROTO: "https", HTTP_X_FORWARDED_HOST: "chat.example")
    assert_equal "https://chat.example", told.body.split.last
    assert_equal "max-age=31536000", told.headers["strict-transport-security"]
    assert_nil seen("10.0.0.2", HTTP_X_FORWARDED_PROTO: "https").headers["strict-transport-security"]
    assert_equal "http://bavard.example", seen("10.0.0.1", proxies: "10.0.0.1", HTTP_X_FORWARDED_PROTO: "javascript", HTTP_X_FORWARDED_HOST: "a/b?<x>").body.split.last
  end

  def test_pages_under_a_name_of_somebody_elses
    assert_equal [200, 421, 421, 200], [seen("::1", hosts: "Bavard.example other.example"), seen("::1", hosts: "other.example"), seen("::1", hosts: "bavard.example", HTTP_HOST: "evil.example:4600"),
      seen("::1", hosts: "other.example", path: "/healthz")].map(&:status)
    assert_equal 200, seen("::1", hosts: "bavard.example", HTTP_HOST: "BAVARD.example:4600").status
  end

  def test_what_is_no_address_of_a_proxy_is_said_to_be_none
    assert_match(/“everybody” is none/, assert_raises(Bavard::Error) { TrueClient.proxies("10.0.0.1 everybody") }.message)
  end

  # In the application itself: the links a host copies, and what counts tries to sign in.
  def test_the_application_believes_none_of_it
    sign_up
    make_stage
    header "X-Forwarded-Host", "evil.example"
    header "X-Forwarded-Proto", "https"
    refute_includes get("/links/").body, "evil.example"
    tries_until_told_to_wait(Bavard::Web::Limits::ACCOUNT_POSTS) do |number|
      header "X-Forwarded-For", "6.6.#{number / 200}.#{number % 200}"
      post("/account/login", {"login" => "a"})
    end
  end
end
