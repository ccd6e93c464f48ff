# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../../lib/bavard/store/members"

# The prompter, by mouse and keyboard; with two people at once.
class PrompterTest < PreparedTest
  def begin_with(ms: 0)
    prepare(feed: feed_address, hold_ms: ms)
  end

  def open_prompter
    sign_in
    until_live
    visit "/prompter/"
    assert_selector "#feed-choice label"
  end

  def link_with(acts:)
    Bavard::Store::Members.new(TestDatabase.db).add_prompter(@show.id, name: "Teo", acts:, at_ms: 0).then { |link| "#{@app.address}/prompter/#{link.token}/" }
  end

  def press(*keys) = page.driver.browser.keyboard.type(*keys)
  def row(text) = find(".scroller .row", text:)

  def test_lines_are_held_on_top_pulled_by_key_and_let_go
    begin_with(ms: 60_000)
    open_screen(link)
    open_prompter
    server.say("ann", "pull me")
    server.say("bo", "let me go")
    assert_selector ".held-row", count: 2
    row("pull me").click
    press("x")
    assert_selector ".row.pulled", text: "pull me"
    within(".held-row", text: "let me go") { click_on "Let go" }
    on_screen { assert_selector ".line", text: "let me go" }
    on_screen { assert_no_text "pull me" }
    assert_no_selector ".held-row"
    assert_text "Pulled ann’s line."
    click_on "Undo", match: :first
    assert_selector ".held-row", text: "pull me"
  end

  def test_a_press_is_for_the_line_it_began_on_whatever_comes_and_goes_meanwhile
    begin_with(ms: 60_000)
    open_prompter
    %w[first second].each { |text| server.say("ann", text) }
    assert_selector ".held-row", count: 2
    mouse = page.driver.browser.mouse
    mouse.move(**middle_of("second")).down
    server.say("bo", "third")
    assert_selector ".held-row", count: 3
    mouse.up
    assert_selector ".row.pulled", text: "second"
    assert_no_selector ".row.pulled", text: /first|third/
  end

  def test_a_button_that_is_pressed_for_long_is_still_there_when_it_is_let_go_whatever_became_of_its_line
    begin_with
    open_prompter
    server.say("ann", "hello")
    row("hello").click
    mouse = page.driver.browser.mouse
    mouse.move(**middle(find(".action", text: "Where it went"))).down
    assert_kind_of Net::HTTPOK, @hosts_browser.post_json("/prompter/", "/prompter/act", {"do" => "read", "on" => true, "line" => row("hello")["data-line"].to_i})
    assert_selector ".row.done.chosen", text: "hello"
    mouse.up
    assert_selector ".trace li"
    assert_selector ".row.chosen", text: "hello"
  end

  def test_where_no_line_is_seen_it_is_said_whether_any_came_in
    begin_with
    open_prompter
    assert_text "Nothing has come in yet"
    server.say("ann", "hello")
    row("hello").click
    find("#feed-choice label").click
    assert_no_selector ".row"
    assert_text "Nothing of what came in is shown here"
    assert_no_text "Nothing has come in yet"
    assert_no_selector ".action"
    find("#feed-choice label").click
    assert_selector ".row", text: "hello"
    assert_no_text "Nothing of what came in is shown here"
  end

  # Of its button.
  def middle_of(text) = middle(find(".held-row", text:).find_button("Pull"))

  def middle(element)
    element.evaluate_script("(({ x, y, width, height }) => [x + width / 2, y + height / 2])(this.getBoundingClientRect())")
      .then { |x, y| {x:, y:} }
  end

  def test_two_people_see_each_others_deeds_and_cannot_do_the_same_twice
    begin_with
    open_screen(link)
    open_prompter
    server.say("ann", "hello")
    on_screen { assert_selector ".line", text: "hello" }
    Capybara.using_session(:teo) do
      visit link_with(acts: true)
      row("hello").click
      find(".action", text: "Pull").click
      assert_selector ".row.pulled", text: "hello"
    end
    on_screen { assert_no_selector ".line", text: "hello" }
    assert_selector ".row.pulled", text: "hello"
    assert_text "Teo pulled a line of ann"
    press("d")
    within(".side") { click_on "Undo" }
    on_screen { assert_selector ".line", text: "hello" }
    Capybara.using_session(:teo) { assert_selector ".row.aired", text: "hello" }
  end

  def test_a_link_to_read_only_reads_only_and_is_taken_back_at_once
    begin_with
    open_prompter
    click_on_menu "More", "Prompters without signing in"
    fill_in "Name of the link", with: "Panel"
    click_on "Make a link"
    address = find(".links input", visible: :all).value
    server.say("ann", "hello")
    Capybara.using_session(:panel) do
      visit address
      row("hello").click
      assert_selector ".action", text: "Where it went"
      assert_no_selector ".action", text: "Pull"
      assert_equal 403, evaluate_async_script("fetch(`${location.pathname}act`, {method: 'POST', headers: {'Content-Type': 'application/json'}, body: '{\"do\": \"pull\", \"line\": 1}'}).then((answer) => arguments[0](answer.status))")
    end
    click_on "Take back"
    assert_no_selector ".links li"
    Capybara.using_session(:panel) { assert_text "The link may have been taken back" }
  end

  def test_where_a_line_went_who_wrote_it_and_finding_one_that_never_showed
    begin_with
    open_screen(link)
    open_prompter
    server.say("ann", "hello")
    server.say("ann", "!ring K41207")
    on_screen { assert_selector ".line", text: "hello" }
    row("hello").click
    press("w")
    within(".trace") { assert_selector "li", text: "Went on the picture" }
    find_by_id("side-close").click
    press("/")
    fill_in "Find a line by its words", with: "ring"
    find_by_id("find").send_keys(:enter)
    within(".side") do
      find(".row", text: "!ring").click
      assert_text "Gate kept it off"
      assert_text "Command lines"
    end
    find_by_id("side-close").click
    row("hello").click
    find(".action", text: "Person").click
    fill_in "Note, for everybody with a role", with: "rings at the coast"
    find_by_id("side-title").click
    assert_text "Noted."
  end

  # Pixels between one row and the next.
  GAPS = "[...document.querySelectorAll('#blocks .row')].map((row) => row.getBoundingClientRect()).map((box, at, all) => at ? Math.round(box.top - all[at - 1].bottom) : 0)"

  def test_it_stays_where_the_reader_scrolled_to_and_says_how_many_are_new
    begin_with
    open_prompter
    50.times { |number| server.say("ann", "line #{number}. #{"reeds " * 20}") }
    assert_selector ".row", text: "line 49."
    assert_equal [0], evaluate_script(GAPS).uniq
    execute_script("document.querySelector('#scroller').scrollTop = 0")
    assert_selector "#newer", text: "To the newest"
    top = evaluate_script("document.querySelector('.row').getBoundingClientRect().top")
    server.say("bo", "new one")
    server.say("bo", "new two")
    assert_selector "#newer", text: "2 new lines"
    assert_in_delta top, evaluate_script("document.querySelector('.row').getBoundingClientRect().top"), 1
    find_by_id("newer").click
    assert_no_selector "#newer"
    assert_selector ".row", text: "new two"
  end

  def test_a_line_stands_on_the_stage_large_while_it_is_answered
    begin_with
    open_screen(link)
    open_prompter
    server.say("ann", "what bird is it?")
    row("what bird").click
    press("g")
    on_screen { assert_selector ".large-line", text: "what bird is it?" }
    assert_selector ".action", text: "Off the stage"
    press("g")
    on_screen { assert_no_selector ".large-line", text: "what bird" }
    press("1")
    assert_text "There is none among the lines that are here."
    press("2")
    assert_selector ".row.chosen", text: "what bird"
  end

  private

  def click_on_menu(menu, item)
    find("summary[aria-label='#{menu}']").click
    click_on item
  end
end
