# frozen_string_literal: true

require_relative "../support/browser"

# The whole way, from nothing: account, feed, stage, link, line; then a change of look, then a crash.
class FromNothingTest < BrowserTest
  BOX = [100, 420, 800, 600].freeze
  # A pixel or two lost to the mouse's way in a picture that is drawn smaller.
  GROWN = [96, 416, 808, 608].freeze

  def test_a_typed_line_stands_on_the_broadcast_picture
    oxbow(pace: 60)
    make_account
    click_on "Not now"
    assert_text "What comes in"
    add_feed(oxbow.address)
    make_stage
    link = air_link

    open_screen(link) { assert_no_selector ".piece" }
    on_screen { assert_predicate picture.extract_band(3).max, :zero?, "before the first Put on air the page is empty" }

    visit "/stage"
    assert_text "nothing on air yet"
    draw_chat(*BOX)
    put_on_air

    says_and_shows("first")
    before = on_screen { picture }
    assert clear_outside?(before, *GROWN), "a pixel outside of the chat piece is painted"
    assert_operator painted_inside(before, *GROWN), :>, 2000
    says_and_shows("second")
    after = on_screen { picture }
    assert clear_outside?(after, *GROWN)
    assert_operator (before - after).abs.max, :>, 0, "the picture changed inside"

    a_change_of_look_shows_without_a_reload
    the_next_line_comes_after_a_crash
  end

  private

  def says_and_shows(what)
    word = "#{what}-#{rand(10**9)}"
    oxbow.type("hello #{word}")
    on_screen { assert_selector ".line", text: word }
  end

  def a_change_of_look_shows_without_a_reload
    on_screen { execute_script("document.body.dataset.unmoved = 'yes'") }
    visit "/stage"
    assert_selector ".hand.chosen"
    fill_in "Size", with: "52"
    find_field("Size").send_keys(:enter)
    assert_text "1 change waiting"
    on_screen { assert_equal "25px", size_of_text }
    put_on_air
    on_screen do
      wait_for("the new size on what already stands") { size_of_text == "52px" }
      assert_equal "yes", evaluate_script("document.body.dataset.unmoved")
    end
  end

  def size_of_text
    evaluate_script("getComputedStyle(document.querySelector('.line .text')).fontSize")
  end

  def the_next_line_comes_after_a_crash
    @app.kill
    @app.start
    says_and_shows("after-the-crash")
    on_screen { assert_equal "yes", evaluate_script("document.body.dataset.unmoved") }
  end
end
