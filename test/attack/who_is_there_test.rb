# frozen_string_literal: true

require_relative "../support/web_test"

# What a stranger learns of who has an account here by trying to make one, where letters are delivered: nothing. And what they do to
# somebody's post, or get by a link that was not sent to them.
class WhoIsThereTest < WebTest
  # As a mail server would be asked to; into a folder all the same.
  class Delivered < Bavard::Web::SignIn::Letters
    def delivered? = true
  end

  PATH = "/account/create-account"

  def setup
    super
    @site.letters = Delivered.new(@mail)
    db[:accounts].insert(email: "known@reedmere.example", password_hash: "none")
  end

  # The files are named after who is written to; a further letter is written behind the one before.
  def letters_to(email) = File.exist?("#{@mail}/#{email}") ? File.read("#{@mail}/#{email}").split(/^Date: /).drop(1) : []

  def asked(email, session = email)
    with_session(session) do
      token = token_on(PATH)
      post PATH, {"_csrf" => token, "login" => email, "password" => PASSWORD, "show_name" => "Theirs"}
      seen = [last_response.status, last_response.headers["location"]]
      follow_redirect! if last_response.redirect?
      seen + [last_response.body.gsub(email, "…").gsub(/(?:content|value)="[^"]{40,}"/, "")]
    end
  end

  # @return [String] path of the link in a letter
  def link_to(email)
    asked(email)
    wait_for("the letter to #{email}") { letters_to(email).any? { |letter| letter.include?("letter=") } }
    letters_to(email).last[%r{http://127\.0\.0\.1:4600(/account/create-account\?letter=\S+)}, 1]
  end

  def made(link, login: nil, letter: link[/letter=(\S+)/, 1], session: :maker)
    with_session(session) do
      get link
      token = last_response.body[/name="_csrf" value="([^"]+)"/, 1]
      post PATH, {"_csrf" => token, "letter" => letter, "login" => login, "password" => PASSWORD, "show_name" => "Reeds"}.compact
      last_response.status
    end
  end

  def test_who_has_an_account_here
    known = asked("known@reedmere.example")
    assert_equal known, asked("nobody@reedmere.example")
    assert_equal [302, "/account/login"], known.first(2)
    assert_includes known.last, "A letter is on its way"
    wait_for("both letters") { %w[known nobody].all? { |name| letters_to("#{name}@reedmere.example").any? } }
    assert_includes letters_to("known@reedmere.example").first, "There is one already"
    assert_equal 1, db[:accounts].count
  end

  def test_an_account_with_an_address_that_is_not_theirs
    link = link_to("mine@reedmere.example")
    assert_equal 302, made(link, login: "theirs@reedmere.example")
    assert_equal %w[known@reedmere.example mine@reedmere.example], db[:accounts].order(:email).select_map(:email)
  end

  def test_an_account_by_a_link_that_they_made_up_or_bent
    link = link_to("mine@reedmere.example")
    token = link[/letter=(\S+)/, 1]
    bent = token.dup.tap { |text| text[20] = text[20] == "A" ? "B" : "A" }
    ["", "x", "😀", "%00", bent, token[0..-5]].each do |letter|
      made(PATH, login: "mine@reedmere.example", letter:, session: letter)
      assert_equal 1, db[:accounts].count, letter
    end
  end

  def test_an_account_by_a_letter_that_is_too_old_or_was_used
    link = link_to("mine@reedmere.example")
    @clock.now_ms += Bavard::Web::SignIn::Confirmation::LASTS_MS
    with_session(:late) { assert_includes get(link).body, "too old" }
    made(link, session: :late)
    assert_equal 1, db[:accounts].count
    @clock.now_ms -= 1
    assert_equal 302, made(link)
    assert_equal 422, made(link, session: :again)
    assert_equal 2, db[:accounts].count
  end

  def test_a_full_letter_box
    3.times { |number| asked("nobody@reedmere.example", number) }
    asked("other@reedmere.example")
    wait_for("the letters") { letters_to("other@reedmere.example").any? && letters_to("nobody@reedmere.example").any? }
    assert_equal 1, letters_to("nobody@reedmere.example").size
  end

  def test_a_letter_with_lines_of_theirs_in_its_head
    assert_equal 422, asked("a@reedmere.example\r\nBcc: all@reedmere.example").first
    assert_empty Dir["#{@mail}/*"]
  end

  # An invitation goes on after the account is there, though the letter is opened in another browser.
  def test_somebody_who_was_invited_is_not_kept_out
    @site.accounts = "invited"
    @record = stores.shows.create(db[:accounts].get(:id), name: "Night watch", host_name: "Odalys")
    token = stores.team.invite(@record.id, role: "reader", name: "Teo", at_ms: @clock.call).token
    with_session("new@reedmere.example") { get "/people/join/#{token}" }
    link = link_to("new@reedmere.example")
    assert_equal 302, made(link, session: :elsewhere)
    with_session(:elsewhere) { assert_equal "/people/join/#{token}", last_response.headers["location"] }
  end
end
