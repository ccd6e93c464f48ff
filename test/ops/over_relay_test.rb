# frozen_string_literal: true

require_relative "../support/in_front"
require_relative "../support/prepared"

# The whole of it with nginx and Nchan in front, set as ops/nginx has it: screens and pages follow there, and what is on air goes on when
# either of the two is killed.
class OverRelayTest < PreparedTest
  include InFront

  def prepare_in_front
    prepare(own: true, feed: feed_address, env: relay_env)
    begin_in_front([@app], "relay-pages.conf")
    until_live
  end

  def act(what, text)
    line = wait_for("the line to be in the log") { TestDatabase.db[:lines].where(text:).get(:id) }
    answer = @hosts_browser.post_json("/prompter/", "/prompter/act", do: what, line:)
    assert_equal "200", answer.code, answer.body
  end

  def test_what_is_said_taken_away_and_told_of_screens_goes_over_it
    prepare_in_front
    open_screen(link)
    sign_in "/links"
    assert_text "1 screen"
    server.say("ann", "over the relay")
    on_screen { assert_selector ".line", text: "over the relay" }
    # Each of a screen and of the host's page.
    assert_operator gauge(@app, "pages_relayed"), :>=, 2
    assert_equal gauge(@app, "pages"), gauge(@app, "pages_relayed")
    # What the screen says of itself comes back the same way.
    assert_text "shows r1"
    act "pull", "over the relay"
    on_screen { assert_no_selector ".line" }
    click_on "New link"
    on_screen { assert_no_selector ".piece" }
  end

  def test_either_is_killed_and_what_is_on_air_goes_on
    prepare_in_front
    open_screen(link)
    server.say("ann", "before")
    on_screen { assert_selector ".line", text: "before" }
    wait_for("it to be in the log") { TestDatabase.db[:lines].where(text: "before").any? }
    server.cut
    @app.kill
    @app.start
    until_live
    until_said("after the first")
    @nginx.stop("KILL")
    wait_for("it to be known") { gauge(@app, "relay_up").zero? && gauge(@app, "pages_relayed").zero? }
    @nginx.start(in_front)
    until_said("after the second")
    on_screen { assert_equal ["after the first", "after the second", "before"], all(".line").map { |line| line.text[/before|after.*/] }.sort }
  end

  def until_said(text)
    wait_for("the screen to be back") { gauge(@app, "pages_relayed").positive? }
    server.say("ann", text)
    on_screen { assert_selector ".line", text: }
  end
end
