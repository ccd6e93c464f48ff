# frozen_string_literal: true

require_relative "../support/web_test"

# The page of whoever runs an installation.
class OperatorTest < WebTest
  def setup
    super
    sign_up
    db[:accounts].update(operator: true)
    @account_id = @record.account_id
    @other = stores.shows.of_account(another("ibrahim@reedmere.example"))
    @site.remembered.forget
  end

  def another(email)
    stores.accounts.make(email, "Ferry watch", by: "test")
    db[:accounts].where(email:).get(:id)
  end

  def answer = JSON.parse(last_response.body)
  def deeds = stores.accounts.deeds.latest.map { |deed| [deed.what, deed.by, deed.about] }
  def act(what, account = @other.account_id, **values) = send_form("/operator/#{account}/#{what}", values.transform_keys(&:to_s))
  def status = last_response.status

  def can_sign_in?(password, email: "ibrahim@reedmere.example")
    clear_cookies
    @csrf = nil
    sign_in(email:, password:)
    last_response.status == 302
  end

  def back_as_operator
    clear_cookies
    @csrf = nil
    sign_in
  end

  def test_to_everybody_else_there_is_nothing_here
    word = stores.accounts.new_password(@other.account_id, by: "test")
    assert can_sign_in?(word)
    get "/operator/"
    assert_equal 404, status
    get "/feeds"
    refute_includes last_response.body, "/operator/"
    %w[password close remove appoint ceilings].each { |what| act(what, @account_id) && assert_equal(404, status, what) }
    back_as_operator
    get "/operator/"
    assert_equal 200, status
    assert_includes last_response.body, "Ferry watch"
    assert_includes last_response.body, "asleep"
    get "/feeds"
    assert_includes last_response.body, "/operator/"
  end

  def test_what_is_no_show_any_more_is_on_no_screen
    show = @shows.run(@other.id)
    act("close")
    assert_equal [200, nil], [status, @shows[@other.id]]
    assert_includes hub.frames("show:#{@other.id}"), {"closed" => true}
    error = assert_raises(Bavard::Gone) { @shows.run(@other.id) }
    assert_includes error.message, "closed"
    assert_raises(Bavard::Gone) { show.ask(&:now_ms) }
    act("reopen")
    assert_equal @other.id, @shows.run(@other.id).id
    assert_equal [%w[reopen], %w[close]], deeds.first(2).map { |what, *| [what] }
    assert_equal [["reopen", "host@reedmere.example", "ibrahim@reedmere.example"]], deeds.first(1)
  end

  def test_a_closed_account_is_told_so_behind_its_password_only
    act("password")
    word = answer["word"]
    act("close")
    refute can_sign_in?("wrong-#{word}")
    refute_includes last_response.body, "closed"
    refute can_sign_in?(word)
    assert_includes last_response.body, "This account is closed"
    get "/feeds"
    assert_equal 302, status
  end

  def test_closing_ends_what_goes_on
    word = stores.accounts.new_password(@other.account_id, by: "test")
    assert can_sign_in?(word)
    stores.accounts.close(@other.account_id, by: "test")
    @site.remembered.forget
    get "/feeds"
    assert_equal 302, status
  end

  def test_it_goes_with_everything_that_is_theirs_once_its_address_is_typed
    @shows.run(@other.id)
    act("remove", email: "somebody@reedmere.example")
    assert_equal [422, 2], [status, db[:accounts].count]
    act("remove", email: "ibrahim@reedmere.example")
    assert_equal [200, 1, 1, nil], [status, db[:accounts].count, db[:shows].count, @shows[@other.id]]
    assert_equal [["remove", "host@reedmere.example", "ibrahim@reedmere.example"]], deeds.first(1)
    act("remove", email: "ibrahim@reedmere.example")
    assert_equal 404, status
  end

  def test_nobody_locks_themselves_out
    [["close", {}], ["remove", {email: "host@reedmere.example"}], ["dismiss", {}]].each do |what, values|
      act(what, @account_id, **values)
      assert_equal 409, status, what
      assert_includes answer["error"], "That is you"
    end
    get "/operator/"
    assert_equal 200, status
  end

  def test_an_invitation_opens_the_door_once
    @site.accounts = "closed"
    send_form("/operator/invitations", "name" => "Nils <b>")
    link = answer["word"]
    get "/operator/"
    assert_includes last_response.body, "Nils &lt;b&gt;"
    clear_cookies
    get "/account/create-account"
    assert_equal 403, status
    get link
    assert_equal 200, status
    @csrf = nil
    sign_up(email: "nils@reedmere.example", show: "Night watch")
    assert_equal ["made", "nils@reedmere.example", ""], deeds.first
    clear_cookies
    get link
    assert_equal 403, status
    refute db[:accounts].where(email: "nils@reedmere.example").get(:operator)
  end

  def test_an_invitation_can_be_taken_back_and_two_who_have_one_link_get_one_account
    @site.accounts = "closed"
    links = %w[Nils Ada].map do |name|
      send_form("/operator/invitations", "name" => name)
      answer["word"]
    end
    id = db[:account_invitations].where(name: "Nils").get(:id)
    send_form("/operator/invitations/#{id}/back")
    clear_cookies
    get links.first
    assert_equal 403, status
    get links.last
    db[:account_invitations].delete
    token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
    post "/account/create-account", {"_csrf" => token, "login" => "late@reedmere.example", "password" => PASSWORD}
    assert_equal 403, status
    assert_empty db[:accounts].where(email: "late@reedmere.example").all
  end

  def test_an_address_that_has_an_account_uses_up_no_invitation
    @site.accounts = "closed"
    send_form("/operator/invitations", "name" => "Nils")
    link = answer["word"]
    clear_cookies
    get link
    token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
    post "/account/create-account", {"_csrf" => token, "login" => "ibrahim@reedmere.example", "password" => PASSWORD}
    assert_includes 400..499, status
    assert_equal [2, 1], [db[:accounts].count, db[:account_invitations].count]
    token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
    post "/account/create-account", {"_csrf" => token, "login" => "nils@reedmere.example", "password" => PASSWORD}
    assert_equal [302, 3, 0], [status, db[:accounts].count, db[:account_invitations].count]
  end

  # Between the look at it and its use.
  def test_where_somebody_was_faster_there_is_no_account
    @site.accounts = "closed"
    send_form("/operator/invitations", "name" => "Nils")
    link = answer["word"]
    clear_cookies
    get link
    token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
    stores.accounts.define_singleton_method(:take_up) { |_| false }
    stores.accounts.define_singleton_method(:invited?) { |_| (@looks = (@looks || 0) + 1) == 1 }
    post "/account/create-account", {"_csrf" => token, "login" => "nils@reedmere.example", "password" => PASSWORD}
    assert_equal [403, 2, 2], [status, db[:accounts].count, db[:shows].count]
  end

  def test_a_new_account_a_new_operator_and_everywhere_signed_out
    send_form("/operator/accounts", "email" => "ada@reedmere.example", "show" => "Dusk watch")
    word = answer["word"]
    ada = db[:accounts].where(email: "ada@reedmere.example").get(:id)
    act("appoint", ada)
    act("one-factor", ada)
    assert can_sign_in?(word, email: "ada@reedmere.example")
    get "/operator/"
    assert_equal 200, status
    stores.accounts.sign_out(ada, by: "test")
    @site.remembered.forget
    get "/operator/"
    assert_equal 302, status
    back_as_operator
    send_form("/operator/accounts", "email" => "ada@reedmere.example")
    assert_equal 409, status
    send_form("/operator/accounts", "email" => "<b>")
    assert_equal 422, status
    act("sign-out", ada)
    assert_equal 200, status
  end

  def test_what_a_show_may_have
    act("ceilings", ceilings: "feeds=0 screens=2")
    assert_equal [0, 2, 40], %w[feeds screens stages].map { |what| stores.ceilings.most(@other.id, what) }
    assert_raises(Bavard::Error) { stores.ceilings.room(@other.id, "feeds") }
    stores.ceilings.room(@record.id, "feeds")
    act("ceilings", ceilings: "birds=1")
    assert_equal 422, status
    get "/operator/"
    assert_includes last_response.body, "feeds=0 screens=2"
    act("ceilings", ceilings: "")
    assert_equal 40, stores.ceilings.most(@other.id, "feeds")
  end

  def test_who_came_in_is_noted_and_who_tried_too_often_once_an_hour
    assert_includes deeds.map(&:first), "made"
    back_as_operator
    assert_equal ["signed_in", "host@reedmere.example", "from 127.0.0.1"], deeds.first
    8.times { can_sign_in?("wrong") }
    8.times { can_sign_in?("wrong", email: "nobody@reedmere.example") }
    assert_equal [["kept_out", "ibrahim@reedmere.example", "from 127.0.0.1"]], deeds.select { |what, *| what == "kept_out" }
  end
end
