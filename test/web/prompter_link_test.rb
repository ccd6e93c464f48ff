# frozen_string_literal: true

require_relative "../support/lines"
require_relative "../support/web_test"

# A prompter by a link of its own: no cookie, its rights and no others, and nothing that is asked of it brings it down.
class PrompterLinkTest < WebTest
  def setup
    super
    @account = db[:accounts].insert(email: "odalys@reedmere.example", password_hash: "none")
    @record = stores.shows.create(@account, name: "Test", host_name: "Odalys")
    @feed = stores.feeds.create(@record.id, kind: "irc", name: "Marsh", shape: "circle", colour: "#5fb8d6",
      address: {"host" => "127.0.0.1", "port" => 1, "tls" => false, "channel" => "#x"})
    stores.feeds.keep(@feed.id, wanted: false)
    stores.lines.add(@record.id, [entry(1, "hello <b>there</b>"), entry(2, "!ring", drop: true), entry(3, "see reedmere.example/log 🪶🪶🪶")])
    @link = stores.team.add_prompter(@record.id, name: "Panel", acts: false, at_ms: 0)
  end

  def entry(number, text, drop: false)
    line = Lines.line((clock.call * 1000) + number, text, at_ms: clock.call, login: "ann", feed_id: @feed.id)
    finding = {"rule" => "command_lines", "action" => "drop", "seen" => "!ring", "why" => "a command"}
    verdict = drop ? Bavard::Core::Gate::Verdict.new(:drop, "command_lines", "!ring", []) : Bavard::Core::Gate::PASS
    judged = drop ? {"action" => "drop", "found" => [finding]} : "passed"
    Bavard::Store::Lines::Entry.new(line, verdict, !drop, false, [["received", clock.call, nil], ["judged", clock.call + 1, judged]], false)
  end

  def line_id(number) = (clock.call * 1000) + number
  def here(path, token = @link.token) = "/prompter/#{token}#{path}"
  def told(path) = JSON.parse(get(here(path)).body)
  def ask(path, body) = post(here(path), JSON.generate(body), "CONTENT_TYPE" => "application/json")

  def test_the_page_needs_no_cookie_and_sets_none
    get here("/")
    assert_equal 200, last_response.status, last_response.body
    assert_nil last_response.headers["set-cookie"]
    refute_includes last_response.body, "csrf"
    get here("", @link.token)
    assert_equal 302, last_response.status
    get here("/", "x" * 32)
    assert_equal 404, last_response.status
  end

  def over(query)
    get "#{here("/")}?#{query}"
    assert_equal 200, last_response.status, query
    JSON.parse(CGI.unescapeHTML(last_response.body[/data-setup="([^"]+)"/, 1])).values_at("over", "acts")
  end

  def test_it_may_be_laid_over_a_game_and_is_read_there_alone
    acting = stores.team.add_prompter(@record.id, name: "Panel", acts: true, at_ms: 0)
    @link = acting
    assert_equal [nil, true], over("size=26")
    assert_equal [{"size" => 26, "ground" => 60}, false], over("over&size=26&ground=60")
    assert_includes last_response.body, 'class="prompter over"'
    assert_equal [{"size" => 60, "ground" => 0}, false], over("over=1&size=9999&ground=-5")
    assert_equal [{"size" => 20, "ground" => 0}, false], over("over[x]=1&size[]=26&ground=%3Cscript%3E")
  end

  # The scripts' tests have the same, in a file of their own.
  def test_the_page_is_told_what_may_be_done_about_a_line_by_where_it_is
    get here("/")
    offers = JSON.parse(CGI.unescapeHTML(last_response.body[/data-setup="([^"]+)"/, 1]))["offers"]
    assert_equal Bavard::Core::Moderation::LineState::OFFERS[:aired], offers["aired"]
    twin = File.read(File.expand_path("../js/support/offers.js", __dir__)).scan(/^  (\w+): (\[.*\]),$/).to_h { |name, deeds| [name, JSON.parse(deeds)] }
    assert_equal offers, twin
  end

  def test_lines_their_traces_and_people_are_told
    assert_equal([line_id(1), line_id(2)], told("/lines?before=#{line_id(3)}")["lines"].map { |card| card["i"] })
    assert_equal [["text", "hello <b>there</b>"]], told("/lines?before=#{line_id(2)}")["lines"][0]["f"]
    steps = told("/trace/#{line_id(2)}")["steps"]
    assert_equal(["Came in from Marsh", "Gate kept it off"], steps.map { |step| step["title"] })
    assert_equal "Command lines: a command", steps[1]["words"]
    assert_equal(["!ring"], told("/find?text=ring")["lines"].map { |card| card["f"].map(&:last).join })
    assert_equal(["ann"], told("/people?name=AN")["people"].map { |one| one["login"] })
    person = told("/person?feed=#{@feed.id}&login=ann")
    assert_equal [3, false, 3], [person["person"]["lines"], person["person"]["left_out"], person["lines"].size]
  end

  def test_what_is_said_of_a_line
    assert_equal "ann says: see a link to reedmere.example 3 times emoji", told("/say/#{line_id(3)}")["text"]
    assert_nil told("/say/#{line_id(2)}")["text"]
    get here("/say/#{line_id(3)}/wav")
    assert_equal ["audio/wav", "RIFF"], [last_response.headers["content-type"], last_response.body[0, 4]]
  end

  def test_a_link_to_read_only_does_nothing
    ask("/act", {"do" => "pull", "line" => line_id(1)})
    assert_equal 403, last_response.status
    ask("/answer", {"text" => "hello", "feeds" => [@feed.id]})
    assert_equal 403, last_response.status
  end

  def test_a_link_with_rights_acts_in_its_own_name_and_nothing_brings_it_down
    acting = stores.team.add_prompter(@record.id, name: "Panel with rights", acts: true, at_ms: 0)
    post here("/act", acting.token), JSON.generate({"do" => "pin", "line" => line_id(1)}), "CONTENT_TYPE" => "application/json"
    assert_equal 200, last_response.status
    hostile = [nil, "", "x", -1, 10**30, [], {}, "\u0000", "9" * 400]
    %w[pull let_go pin unpin large read answered leave_out take_back note undo nonsense].product(hostile).each do |what, value|
      body = {"do" => what, "line" => value, "name" => value, "feed" => value, "minutes" => value, "text" => value, "deed" => value, "on" => value}
      post here("/act", acting.token), JSON.generate(body), "CONTENT_TYPE" => "application/json"
      assert_operator last_response.status, :<, 500, "#{what} #{value.inspect}"
    end
    until_written
    assert_equal "Panel with rights", stores.deeds.latest(@record.id).first.by
  end

  def test_a_link_that_was_taken_back_is_nothing_any_more
    stores.team.take_prompter_back(@record.id, @link.id)
    get here("/")
    assert_equal 404, last_response.status
  end
end
