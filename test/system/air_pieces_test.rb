# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/prepared"
require_relative "../support/stage_hands"

# Pieces other than chat, on the broadcast picture.
class AirPiecesTest < PreparedTest
  include StageHands

  def evaluated(script) = on_screen { evaluate_script(script) }

  def air(*pieces)
    prepare(pieces:)
    open_screen(link) { assert_selector "#stage .piece", visible: :all, minimum: 1 }
  end

  def test_text_stands_where_and_how_it_is_set
    air({"kind" => "text", "x" => 100, "y" => 50, "width" => 700, "height" => 90, "words" => "<i>Dawn</i>", "text_case" => "upper",
         "text_face" => "Anton", "text_align" => "end", "opacity" => 50})
    on_screen { assert_selector ".text-piece .text", text: "<I>DAWN</I>" }
    assert_equal ["0.5", "uppercase", true], evaluated("(() => { const piece = getComputedStyle(document.querySelector('.text-piece')); const text = getComputedStyle(document.querySelector('.text-piece .text')); return [piece.opacity, text.textTransform, piece.fontFamily.startsWith('Anton')]; })()")
    right = evaluated("document.querySelector('.text-piece .plate').getBoundingClientRect().right")
    assert_in_delta 800, right, 1
  end

  def test_clocks_tell_the_time_count_down_and_stand
    air({"kind" => "clock", "clock_form" => "seconds"}, {"kind" => "clock", "clock" => "length", "minutes" => 10, "before" => "Back in", "y" => 500})
    on_screen { assert_selector "[data-piece=clock1] .text", text: /\A\d\d:\d\d:\d\d\z/ }
    on_screen { assert_selector "[data-piece=clock2] .text", text: "Back in 10:00", exact_text: true }
    first = on_screen { find("[data-piece=clock1] .text").text }
    wait_for("the clock to go on") { on_screen { find("[data-piece=clock1] .text").text } != first }
  end

  def test_a_clock_is_started_and_stopped_from_the_stage_on_air_at_once
    air({"kind" => "clock", "clock" => "stopwatch", "width" => 400, "height" => 200})
    on_screen { assert_selector ".clock .text", text: "0:00", exact_text: true }
    on_the_stage
    within("#live") { click_on "Start" }
    on_screen { assert_selector ".clock .text", text: /0:0[1-9]/ }
    within("#live") { click_on "Stop" }
    within("#live") { click_on "Back to the beginning" }
    on_screen { assert_selector ".clock .text", text: "0:00", exact_text: true }
  end

  def test_a_now_line_is_set_by_hand_and_its_lines_come_in_turn
    air({"kind" => "now_line", "width" => 400, "height" => 60, "otherwise" => "nobody yet", "seconds" => 1})
    on_screen { assert_selector ".now-line .text", text: "nobody yet" }
    on_the_stage
    fill_in "On screen now, a line each", with: "a reed warbler\na wren"
    click_on "Set now"
    on_screen do
      assert_selector ".now-line .text", text: "a reed warbler"
      assert_selector ".now-line .text", text: "a wren"
      assert_selector ".now-line .text", text: "a reed warbler"
    end
  end

  def test_a_now_line_that_is_too_long_grows_smaller_and_never_leaves_its_box
    air({"kind" => "now_line", "width" => 300, "height" => 60, "otherwise" => "a line that is a good deal longer than its box"})
    on_screen { assert_selector ".now-line .text" }
    wait_for("it to fit") { evaluated("(() => { const box = document.querySelector('.now-line').getBoundingClientRect(); return document.querySelector('.now-line .text').getBoundingClientRect().right <= box.right + 1; })()") }
  end

  def test_a_space_and_a_hidden_piece_draw_nothing
    air({"kind" => "space"}, {"kind" => "text", "hidden" => true}, {"kind" => "text", "words" => "seen"})
    on_screen { assert_selector ".piece", count: 1, text: "seen" }
  end

  def test_pieces_stand_from_back_to_front_also_after_another_order
    air({"kind" => "text", "y" => 20}, {"kind" => "clock", "y" => 440}, {"kind" => "text", "x" => 800})
    order = -> { evaluated("[...document.querySelectorAll('.piece')].map((piece) => piece.dataset.piece)") }
    wait_for("the pieces") { order.call == %w[text1 clock2 text3] }
    on_the_stage
    execute_script("document.querySelector('[data-order-of=text1]').focus()")
    press(:alt, :left)
    click_on "Put on air"
    wait_for("the other order") { order.call == %w[clock2 text1 text3] }
  end

  def test_pictures_dropped_on_a_piece_come_in_turn
    air({"kind" => "picture", "width" => 500, "height" => 400})
    on_the_stage
    files = %w[one two].map { |name| File.join(Dir.mktmpdir, "#{name}.svg").tap { |path| File.write(path, Drawings.svg("<rect width='40' height='40' fill='#{name == "one" ? "red" : "blue"}'/>")) } }
    attach_file("Add pictures", files, make_visible: true)
    assert_selector ".file-item", count: 2
    2.times { |index| fill_in "Seconds of picture #{index + 1}", with: "1\t" }
    wait_for("the seconds") { draft_piece("picture1")["pictures"].map { |row| row["seconds"] } == [1, 1] }
    click_on "Put on air"
    on_screen do
      assert_selector ".piece.picture img"
      first = find(".piece.picture img", match: :first)["src"]
      assert_selector ".piece.picture img:not([src='#{URI(first).path}'])"
    end
  end

  def test_a_film_plays_again_and_again_without_a_sound
    path = File.join(Dir.mktmpdir, "clip.mp4")
    system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "testsrc=size=160x90:rate=10:duration=1", "-pix_fmt", "yuv420p", path, exception: true)
    air({"kind" => "video", "width" => 500, "height" => 400})
    on_the_stage
    attach_file("Choose a film", path, make_visible: true)
    assert_text "A film is there."
    click_on "Put on air"
    on_screen { assert_selector "video[src$='.webm']" }
    wait_for("the film to play") { evaluated("document.querySelector('video').currentTime > 0 && !document.querySelector('video').paused") }
    assert_equal [true, true], evaluated("[document.querySelector('video').loop, document.querySelector('video').muted]")
  end
end
