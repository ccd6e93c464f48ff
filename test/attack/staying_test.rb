# frozen_string_literal: true

require_relative "../support/team_test"

# What somebody keeps who was signed in once, or was let in once: nothing, from the moment it ends.
class StayingTest < TeamTest
  def lost?(path = "/feeds") = get(path).status == 302
  def cookies = rack_mock_session.cookie_jar.to_hash

  # Who is cut off comes back at once, and is looked up as everybody else sees it then.
  #
  # @return [Array<Hash>] envs of sockets that are cut
  def cut(*envs)
    was = []
    going_on = -> { Thread.new { db[:account_active_session_keys].select_map(:session_id) }.value }
    let_in = nil
    means.hub.define_singleton_method(:cut_where) { |&chosen| was.concat(envs.select(&chosen)).then { let_in = going_on.call } }
    yield
    assert_empty was.map { |env| env["bavard.session"] } & let_in.to_a
    was
  ensure
    means.hub.singleton_class.send(:remove_method, :cut_where)
  end

  # @return [String] of the session of whoever is signed in, as sockets have it
  def session_id(email = "host@reedmere.example")
    account_id = db[:accounts].where(email:).get(:id)
    db[:account_active_session_keys].where(account_id:).reverse(:created_at).get(:session_id)
  end

  def test_a_cookie_that_was_copied_before_its_owner_signed_out
    as(:owner) do
      copied = cookies
      id = session_id
      ended = cut({"bavard.session" => id}, {"bavard.session" => "another"}) { post("/account/logout", {"_csrf" => token_on("/account/logout")}) }
      assert_equal [{"bavard.session" => id}], ended
      copied.each { |name, value| set_cookie "#{name}=#{value}" }
      assert_predicate self, :lost?
      get "/live", {}, {"HTTP_CONNECTION" => "Upgrade", "HTTP_UPGRADE" => "websocket"}
      refute_equal 101, last_response.status
    end
  end

  def account = db[:accounts].where(email: "host@reedmere.example").get(:id)
  def session_here = db[:account_active_session_keys].where(account_id: account).order(:created_at).get(:session_id)
  def elsewhere = as(:elsewhere) { sign_in }

  def test_a_browser_elsewhere_after_the_password_was_changed
    elsewhere
    id = session_id
    as(:owner) do
      ended = cut({"bavard.account" => account, "bavard.session" => id}, {"bavard.account" => account, "bavard.session" => session_here}, {"bavard.account" => 0}) do
        post("/account/change-password", {"_csrf" => token_on("/account/change-password"), "password" => PASSWORD, "new-password" => "other-reeds-and-water"})
      end
      assert_equal [id], ended.map { |env| env["bavard.session"] }
      refute_predicate self, :lost?
    end
    as(:elsewhere) { assert_predicate self, :lost? }
  end

  def test_a_browser_elsewhere_that_is_ended_in_one_press
    elsewhere
    id = session_id
    as(:owner) do
      body = get("/account/places").body
      assert_equal 2, body.scan('class="place"').size
      assert_equal 1, body.scan("this browser").size
      form = body[/name="_csrf" value="([^"]+)"/, 1]
      handle = body[/name="place" value="(\h{16})"/, 1]
      refute_includes body, id
      assert_equal 1, cut({"bavard.session" => id}) { post("/account/places", {"_csrf" => form, "place" => handle}) }.size
      refute_predicate self, :lost?
    end
    as(:elsewhere) { assert_predicate self, :lost? }
  end

  def test_every_browser_but_this_one
    elsewhere
    as(:third) { sign_in }
    as(:owner) do
      post("/account/places", {"_csrf" => get("/account/places").body.scan(/name="_csrf" value="([^"]+)"/).last.first})
      refute_predicate self, :lost?
    end
    %i[elsewhere third].each { |name| as(name) { assert_predicate self, :lost?, name } }
  end

  def test_a_browser_of_another_account
    as(:stranger) { sign_up(email: "stranger@reedmere.example") }
    handle = Bavard::Web::SignIn::Sessions.handle(session_id("stranger@reedmere.example"))
    as(:owner) { post("/account/places", {"_csrf" => get("/account/places").body[/name="_csrf" value="([^"]+)"/, 1].to_s, "place" => handle}) }
    as(:stranger) { refute_predicate self, :lost? }
  end

  def test_what_a_browser_says_of_itself_is_words
    as(:elsewhere) do
      header "User-Agent", %(<script>alert(1)</script>\u0007"#{"x" * 300})
      sign_in
    end
    as(:owner) do
      body = get("/account/places").body
      refute_includes body, "<script>alert"
      assert_includes body, "&lt;script&gt;alert(1)"
    end
  end

  def test_places_are_told_in_words
    sessions = Bavard::Web::SignIn::Sessions
    now = Time.now
    {0 => "just now", 59 => "just now", 60 => "1 minute ago", 7199 => "1 hour ago", 7200 => "2 hours ago", 200_000 => "2 days ago"}.each do |seconds, words|
      assert_equal words, sessions.ago(now - seconds, now)
    end
    browsers = {"Reed/1 (Marsh; en) Quill/2" => "Marsh; en", "plain" => "plain", "" => "A browser that says nothing of itself"}
    browsers.each { |says, machine| assert_equal machine, sessions::Place.new("", says).machine }
  end

  def test_a_session_that_nobody_used_for_a_fortnight_or_that_is_a_month_old
    [{last_use: Time.now - (15 * 86_400)}, {created_at: Time.now - (31 * 86_400)}].each do |values|
      as(:owner) do
        sign_in if lost?
        refute_predicate self, :lost?
        db[:account_active_session_keys].update(values)
        assert_predicate self, :lost?
      end
    end
    assert_equal 0, db[:account_active_session_keys].count
  end

  def test_a_prompter_by_a_link_that_somebody_made_before_they_were_removed
    join(invite("director"), person: :teo)
    as(:teo) { send_json("/prompter/links", {"name" => "Kept for later", "acts" => true}) }
    as(:owner) { send_json("/prompter/links", {"name" => "The host's own"}) }
    token, id = stores.team.prompters(db[:shows].get(:id)).find { |link| link.name == "Kept for later" }.to_h.values_at(:token, :id)
    as(:owner) do
      account = db[:accounts].where(email: "teo@reedmere.example").get(:id)
      ended = cut({"bavard.prompter" => id}, {"bavard.prompter" => id + 1}) { send_form("/people/#{account}/remove") }
      assert_includes ended, {"bavard.prompter" => id}
      refute_includes ended, {"bavard.prompter" => id + 1}
    end
    with_session(:nobody) { assert_equal 404, get("/prompter/#{token}/").status }
    assert_equal ["The host's own"], db[:prompter_links].select_map(:name)
  end

  def test_a_prompter_by_a_link_of_somebody_who_only_reads_from_now_on
    join(invite("director"), person: :teo)
    as(:teo) { send_json("/prompter/links", {"name" => "Kept for later", "acts" => true}) }
    as(:owner) { send_form("/people/#{db[:accounts].where(email: "teo@reedmere.example").get(:id)}/role", {"role" => "reader"}) }
    assert_equal 0, db[:prompter_links].count
  end

  def test_an_invitation_that_lay_about_for_a_week
    link = invite("director")
    db[:invitations].update(made_at_ms: Sequel[:made_at_ms] - (7 * 86_400_000) - 1000)
    as(:teo) do
      sign_up(email: "teo@reedmere.example")
      assert_equal 404, get(link).status
      assert_equal 404, post(link, {"csrf" => token_on("/feeds")}).status
    end
    as(:owner) { get("/people/") }
    assert_equal [0, 0], [db[:members].count, db[:invitations].count]
  end

  def test_an_invitation_that_was_used
    link = invite("reader")
    join(link, person: :teo)
    as(:second) do
      sign_up(email: "second@reedmere.example")
      assert_equal 404, get(link).status
    end
  end

  # By letter, without telling whether there is such an account.
  def asked_anew(email)
    with_session(:forgetful) do
      clear_cookies
      post "/account/reset-password-request", {"_csrf" => token_on("/account/reset-password-request"), "login" => email}
      [last_response.status, last_response.headers["location"], get("/account/login").body[/door-note[^<]*<|role="alert">[^<]*/]]
    end
  end

  def letters = Dir["#{@mail}/*"]

  def test_who_has_an_account_here_by_asking_for_a_new_password
    known = asked_anew("host@reedmere.example")
    assert_equal known, asked_anew("nobody@reedmere.example")
    assert_equal 302, known.first
    wait_for("the letter") { letters.any? && db[:account_password_reset_keys].any? }
    assert_equal ["host@reedmere.example"], letters.map { |file| File.basename(file) }
  end

  def test_the_old_password_and_sessions_after_a_new_one_was_set_by_letter
    asked_anew("host@reedmere.example")
    wait_for("the letter") { letters.any? && File.read(letters.first).include?("key=") }
    assert_equal [0o600, 0o700], [letters.first, @mail].map { |path| File.stat(path).mode & 0o777 }
    id = session_id
    way = File.read(letters.first)[%r{http://127\.0\.0\.1:4600(/account/reset-password\?key=\S+)}, 1]
    with_session(:forgetful) do
      get way
      follow_redirect! while last_response.redirect?
      token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
      assert_equal 1, cut({"bavard.account" => account, "bavard.session" => id}) { post("/account/reset-password", {"_csrf" => token, "password" => "new-reeds-and-water"}) }.size
      sign_in(password: PASSWORD)
      assert_predicate self, :lost?
      sign_in(password: "new-reeds-and-water")
      refute_predicate self, :lost?
      clear_cookies
      get way
      follow_redirect! while last_response.redirect?
      assert_includes last_response.body, "That letter was used"
    end
    as(:owner) { assert_predicate self, :lost? }
  end
end
