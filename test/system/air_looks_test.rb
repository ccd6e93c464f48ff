# frozen_string_literal: true

require_relative "../support/prepared"

# How chat is drawn on the broadcast picture: motion, flow, forms, highlights, the host's own work.
class AirLooksTest < PreparedTest
  SLOW = {"motion_in" => "rise", "motion_in_ms" => 2000, "motion_out" => "mist", "motion_out_ms" => 2000, "motion_room_ms" => 2000}.freeze

  def air(*pieces, options: "")
    prepare(feed: feed_address, pieces: pieces.map { |piece| PIECE.merge(piece) })
    until_live
    open_screen("#{link}#{options}") { assert_selector ".piece", minimum: pieces.size }
  end

  def stands(text) = on_screen { assert_selector ".line", text: }
  def still = wait_for("all to stand still") { evaluated("document.getAnimations().length === 0") }
  def evaluated(script) = on_screen { evaluate_script(script) }

  # Remembers how each line came in, by the words in it.
  def watch_motion
    on_screen do
      execute_script(<<~JS)
        window.ways = {};
        const animate = Element.prototype.animate;
        Element.prototype.animate = function (frames, options) {
          const line = this.closest(".line");
          if (line) (window.ways[line.textContent] ??= []).push([JSON.stringify(frames), options.duration]);
          return animate.call(this, frames, options);
        };
      JS
    end
  end

  def ways(text) = evaluated("Object.entries(window.ways).filter(([words]) => words.includes('#{text}')).flatMap(([, ways]) => ways)")

  def test_lines_come_in_and_make_room_as_ruby_describes_it
    air(SLOW)
    server.say("ann", "first line")
    stands("first line")
    watch_motion
    server.say("ann", "second line")
    stands("second line")
    frames, duration = wait_for("the line to come in") { ways("second line").first }
    assert_equal [Bavard::Core::Look::Motion.keyframes("rise"), 2000], [JSON.parse(frames), duration]
    moved = wait_for("the first to make room") { ways("first line").first }
    assert_match(/translate\(0px, \d+px\)/, moved.first)
  end

  def test_what_leaves_goes_out_where_it_stood
    air(SLOW.merge("at_most" => 2))
    %w[one two].each { |text| server.say("ann", text) && stands(text) }
    still
    top = evaluated("[...document.querySelectorAll('.line')].find((line) => line.textContent.includes('one')).getBoundingClientRect().top")
    server.say("ann", "three")
    on_screen { assert_selector ".line.leaving", text: "one" }
    assert_in_delta top, evaluated("document.querySelector('.line.leaving').getBoundingClientRect().top"), 2
  end

  def test_a_flood_does_not_move_at_all
    air(SLOW.merge("at_most" => 50))
    watch_motion
    40.times { |number| server.say("ann", "flood #{number}.") }
    stands("flood 39.")
    assert_empty ways("flood 39.")
  end

  def test_none_is_none
    air({"motion_in" => "none", "motion_room" => "jump"})
    watch_motion
    server.say("ann", "still")
    stands("still")
    assert_empty ways("still")
  end

  def test_what_is_deleted_vanishes_at_once_while_others_go_out_in_their_way
    prepare(feed: oxbow.address, pieces: [PIECE.merge(SLOW, "at_most" => 2)])
    say = ->(text) { oxbow.post("/say", "login" => "birdbath", "text" => text) }
    %w[one two].each(&say)
    open_screen(link) { assert_selector ".line", count: 2 }
    say["three"]
    on_screen { assert_selector ".line.leaving", text: "one" }
    oxbow.post("/delete", "id" => oxbow.lines.find { |line| line["text"] == "two" }["id"])
    on_screen { assert_no_selector ".line", text: "two" }
    assert_equal 0, evaluated("[...document.querySelectorAll('.leaving')].filter((line) => line.textContent.includes('two')).length")
  end

  def test_typed_lines_are_written_letter_by_letter_and_an_emote_is_one
    air({"motion_in" => "typed", "motion_in_ms" => 2000})
    server.say("ann", "écrit 🌅")
    on_screen { assert_selector ".line .text span", minimum: 6 }
    letters = evaluated("[...document.querySelectorAll('.line .text span')].map((span) => span.textContent)")
    assert_equal %w[é c r i t], letters.first(5)
  end

  def test_lines_of_a_ticker_run_by_one_after_another_and_leave
    air({"flow" => "ticker", "width" => 900, "height" => 80, "ticker_speed" => 800})
    2.times { |number| server.say("ann", "running #{number} is as long as that") }
    stands("running 1")
    delays = evaluated("[...document.querySelectorAll('.line')].reverse().map((line) => { const { delay, duration } = line.getAnimations()[0].effect.getTiming(); return [delay, duration]; })")
    assert_operator delays[1][0], :>, delays[0][0]
    on_screen { assert_no_selector ".line:not([hidden])", text: "running 0" }
  end

  def test_newest_at_the_left_and_at_the_right
    air({"newest" => "left"}, {"newest" => "right", "x" => 950})
    %w[older newer].each { |text| server.say("ann", text) && stands(text) }
    still
    lefts = ->(piece) { evaluated("[...document.querySelectorAll('[data-piece=#{piece}] .line')].map((line) => line.getBoundingClientRect().left)") }
    newest, oldest = lefts["chat1"]
    assert_operator newest, :<, oldest
    newest, oldest = lefts["chat2"]
    assert_operator newest, :>, oldest
  end

  def test_a_link_shows_the_form_for_bright_pictures
    bright = {"text_colour" => "#101820", "plate_colour" => "#f4f6f8"}
    air({"plate_opacity" => 100, "bright" => bright}, options: "?form=bright")
    server.write("@color=#ffee00 :ann!a@b PRIVMSG #reedmere :over a white sky\r\n")
    stands("over a white sky")
    assert_equal "rgb(16, 24, 32)", evaluated("getComputedStyle(document.querySelector('.text')).color")
    on_bright = evaluated("getComputedStyle(document.querySelector('.name')).color")
    open_screen(link, name: :dark) { assert_selector ".line", text: "over a white sky" }
    on_dark = on_screen(:dark) { evaluate_script("getComputedStyle(document.querySelector('.name')).color") }
    refute_equal on_dark, on_bright
    ratio = Bavard::Core::Palette::Colour.parse(hex(on_bright)).contrast_ratio(Bavard::Core::Palette::Colour.parse("#f4f6f8"))
    assert_operator ratio, :>=, 4.4
  end

  def hex(rgb) = format("#%02x%02x%02x", *rgb.scan(/\d+/).map(&:to_i))

  def test_what_stands_out_wears_its_colour_and_times_are_told
    air({"highlight_mentions" => true, "highlight_mentions_colour" => "#00ff00", "times" => "shown", "time_form" => "seconds"})
    server.say("ann", "@Odalys look")
    server.say("ann", "nothing special")
    stands("nothing special")
    on_screen { assert_selector ".line[data-highlight=mentions]", count: 1 }
    assert_includes evaluated("getComputedStyle(document.querySelector('[data-highlight] .plate')).boxShadow"), "rgb(0, 255, 0)"
    on_screen { assert_selector ".time", text: /\A\d\d:\d\d:\d\d\z/, count: 2 }
  end

  def test_events_are_written_as_lines_where_a_piece_takes_them_in
    prepare(pieces: [PIECE.merge("kinds" => %w[said visit]), PIECE.merge("x" => 1000)])
    sign_in "/stage"
    find("label", text: "Visit", exact_text: true).click
    click_on "Rehearse"
    within_frame(find("#draft")) do
      assert_selector "[data-piece=chat1] .line[data-event] .event", text: "came with 64 viewers"
      assert_no_selector "[data-piece=chat2] .line[data-event]"
    end
  end

  def test_own_css_and_own_markup_are_drawn_and_reach_no_other_piece
    air({"own_css" => ".name { letter-spacing: 7px } .own-says { color: rgb(1, 2, 3) } body { display: none }",
         "own_markup" => "<b class=\"own-who\">{name}</b><div class=\"own-says\">{text}</div>"}, {"x" => 950})
    server.say("ann", "<b>mine</b>")
    stands("<b>mine</b>")
    on_screen { assert_selector "[data-piece=chat1] .plate > .own-says > .text", text: "<b>mine</b>" }
    spacing = ->(piece) { evaluated("getComputedStyle(document.querySelector('[data-piece=#{piece}] .name')).letterSpacing") }
    assert_equal "7px", spacing["chat1"]
    refute_equal "7px", spacing["chat2"]
    assert_equal "rgb(1, 2, 3)", evaluated("getComputedStyle(document.querySelector('[data-piece=chat1] .text')).color")
  end

  def test_css_of_the_broadcast_software_does_not_break_the_box
    air({})
    server.say("ann", "stays in its box")
    stands("stays in its box")
    on_screen do
      execute_script(<<~JS)
        const sheet = new CSSStyleSheet();
        sheet.replaceSync("div { position: static } .piece { overflow: visible; contain: none; position: static } .text { color: rgb(9, 8, 7) }");
        document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
      JS
    end
    assert_equal %w[absolute hidden strict], evaluated("(() => { const style = getComputedStyle(document.querySelector('.piece')); return [style.position, style.overflow, style.contain]; })()")
    assert_equal "rgb(9, 8, 7)", evaluated("getComputedStyle(document.querySelector('.text')).color")
  end

  def test_a_screen_says_which_face_its_computer_does_not_have
    air({"text_face" => "installed:Marsh Grotesk Nowhere"})
    sign_in "/links"
    assert_text "its computer does not have the face Marsh Grotesk Nowhere"
  end

  def test_a_tail_a_turn_and_depth_are_drawn
    air({"plate_tail" => "turn", "line_sides" => "turn", "line_turn" => 3, "tilt" => 20, "fade" => 40})
    %w[one two].each { |text| server.say("ann", text) && stands(text) }
    sides = evaluated("[...document.querySelectorAll('.line')].map((line) => [getComputedStyle(line).textAlign, getComputedStyle(line.firstElementChild).rotate])")
    assert_equal 2, sides.uniq.size
    assert_equal %w[-3deg 3deg], sides.map(&:last).sort
    assert_match(/matrix3d/, evaluated("getComputedStyle(document.querySelector('.stack')).transform"))
    assert_match(/linear-gradient/, evaluated("getComputedStyle(document.querySelector('.chat')).maskImage || getComputedStyle(document.querySelector('.chat')).webkitMaskImage"))
    assert_equal "polygon", evaluated("getComputedStyle(document.querySelector('.plate'), '::after').clipPath.slice(0, 7)")
  end
end
