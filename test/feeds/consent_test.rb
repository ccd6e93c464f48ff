# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/feed_probe"
require_relative "../support/processes"
require_relative "../../lib/bavard/feeds/consent"
require_relative "../../lib/bavard/feeds/held_permission"

# Permission from a platform that grants, refuses, expires and revokes, over HTTP.
class ConsentTest < Minitest::Test
  include Wait

  def setup
    @standin = RunningStandin.new("Lantern", EVERY_MS: 200).start
    @consent = Bavard::Feeds::Consent.new(@standin.platform, "http://127.0.0.1:4600/feeds/granted", clock: FeedProbe::CLOCK)
  end

  def teardown
    @probe&.stop
    @standin.stop
  end

  # What somebody does on the platform's page.
  #
  # @return [Hash] what comes back to us
  def decide(address, decision, account: "reedmere")
    asked = URI.decode_www_form(URI(address).query).to_h
    answer = @standin.post("/oauth/authorize", asked.merge("decision" => decision, "account" => account))
    URI.decode_www_form(URI(answer["location"]).query).to_h
  end

  def permission
    address, kept = @consent.ask(%w[read write])
    back = decide(address, "grant")
    assert_equal kept.state, back["state"]
    @consent.granted(back["code"], kept)
  end

  def held(permission, keep: ->(_newer) {})
    Bavard::Feeds::HeldPermission.new(permission, consent: @consent, keep:, clock: FeedProbe::CLOCK)
  end

  def probe(permission)
    @probe = FeedProbe.of(@standin.platform, {"channel" => "reedmere"}, permission: held(permission)).start
  end

  def test_the_question_names_what_is_wanted_and_carries_a_pkce_challenge
    address, kept = @consent.ask(%w[read])
    asked = URI.decode_www_form(URI(address).query).to_h
    assert_equal ["code", "chat.read", "S256", "bavard"], asked.values_at("response_type", "scope", "code_challenge_method", "client_id")
    assert_equal Digest::SHA256.base64digest(kept.verifier).tr("+/", "-_").delete("="), asked["code_challenge"]
    refute_includes address, kept.verifier
  end

  def test_granted_it_says_whose_it_is_and_what_it_allows
    given = permission
    assert_equal ["reedmere", "Reedmere", %w[read write]], [given.account, given.name, given.may]
    refute_includes given.inspect, given.access
  end

  def test_refused_there_is_no_code
    address, = @consent.ask(%w[read write])
    assert_equal "access_denied", decide(address, "refuse")["error"]
  end

  def test_a_code_without_its_verifier_is_worth_nothing_and_counts_once
    address, kept = @consent.ask(%w[read])
    code = decide(address, "grant")["code"]
    other = Bavard::Feeds::Consent::Kept.new(kept.state, "x" * 43)
    assert_raises(Bavard::Error) { @consent.granted(code, other) }
    error = assert_raises(Bavard::Error) { @consent.granted(code, kept) }
    assert_includes error.message, "did not give the permission"
  end

  def test_it_is_renewed_before_it_runs_out
    given = permission
    given.expires_at_ms = FeedProbe::CLOCK.call + 1000
    kept = []
    token = held(given, keep: kept.method(:<<)).token
    refute_equal given.access, token
    assert_equal token, kept.first.access
  end

  def test_one_that_ran_out_early_is_renewed_while_live
    given = permission
    probe(given).until_live
    @standin.post("/expire")
    @standin.say("still reading")
    @probe.line_with("still reading")
    refute_includes @probe.states, :needs_you
  end

  def test_taken_back_while_live_the_feed_needs_the_host_and_says_so
    probe(permission).until_live
    @standin.post("/revoke")
    wait_for("it to need somebody") { @probe.state.state == :needs_you }
    assert_equal :permission, @probe.state.want
    assert_includes @probe.state.reason, "took back the permission of reedmere"
  end

  def test_given_back_it_counts_no_more
    given = permission
    assert_equal 1, @standin.state["grants"]
    @consent.give_back(given)
    assert_equal 0, @standin.state["grants"]
  end

  def test_an_answer_goes_with_it_and_not_without
    probe(permission).until_live
    @probe.say("thank you all")
    answered = wait_for("the answer") { @probe.of(:answered).last }
    assert_equal [7, true, nil], answered.body.to_a
    assert_equal "thank you all", @probe.line_with("thank you all").body.text
    guest = FeedProbe.of(@standin.platform, {"channel" => "reedmere"}).start.until_live
    guest.say("me too")
    refute wait_for("the answer") { guest.of(:answered).last }.body.went
  ensure
    guest&.stop
  end
end
