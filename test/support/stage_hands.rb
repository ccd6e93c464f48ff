# frozen_string_literal: true

# What a host does on the Stage with mouse and keys.
module StageHands
  def on_the_stage
    sign_in "/stage"
    first(".hand").click
    assert_selector ".hand.chosen"
  end

  # What the mouse is to take hold of stands still: the page is whole, and nothing moves from one frame to the next.
  STEADY = <<~JS
    const done = arguments[arguments.length - 1];
    let before = "";
    let same = 0;
    const look = () => {
      const now = JSON.stringify([...document.querySelectorAll("#hands, .hand")].map((one) => one.getBoundingClientRect()));
      same = now === before && document.readyState === "complete" && document.fonts.status === "loaded" ? same + 1 : 0;
      before = now;
      if (same >= 3) done(true);
      else requestAnimationFrame(look);
    };
    look();
  JS
  def steady = assert(page.driver.evaluate_async_script(STEADY))

  def hand(id) = find(".hand[data-piece=#{id}]")

  def pieces_by(selector) = evaluate_script("[...document.querySelectorAll(arguments[0])].map((hand) => hand.dataset.piece)", selector)

  # From the menu; and the one that is chosen then is the one that was added, not one of its name that stood there before.
  # @param label [String] of its kind
  # @yield while the menu is open
  def add_piece(label)
    before = pieces_by(".hand")
    click_on "Add"
    yield if block_given?
    find(".draw-menu button", text: /\A#{Regexp.escape(label)}/).click
    wait_for("#{label}, as it was added, to be chosen") { (chosen = pieces_by(".hand.chosen")).one? && (chosen - before).any? }
    assert_selector "#piece-title", text: label
  end

  def place = %w[X Y W H].map { |name| find_field(name, exact: true).value.to_i }

  def assert_place(wanted)
    wait_for("the piece at #{wanted}") { place == wanted }
  end

  # How much smaller than it is the stage is drawn here.
  def ratio = evaluate_script("document.querySelector('#hands').getBoundingClientRect().width / 1920")

  def mouse = page.driver.browser.mouse

  def press(*keys) = page.driver.browser.keyboard.type(keys.size == 1 ? keys.first : keys)

  # A point of the stage on this page.
  def at(x, y)
    left, top = evaluate_script("(() => { const box = document.querySelector('#hands').getBoundingClientRect(); return [box.left, box.top]; })()")
    {x: left + (x * ratio), y: top + (y * ratio)}
  end

  # Draws a box on free ground, in pixels of the stage.
  def draw(left, top, right, bottom)
    steady
    mouse.move(**at(left, top)).down
    mouse.move(**at(right, bottom), steps: 6).up
  end

  # Yields before it lets go.
  def hold_and_move(hand, right, down)
    steady
    x, y = evaluate_script("(() => { const box = arguments[0].getBoundingClientRect(); return [box.left + box.width / 2, box.top + box.height / 2]; })()", hand)
    mouse.move(x:, y:).down
    mouse.move(x: x + (right * ratio), y: y + (down * ratio), steps: 6)
    yield if block_given?
    mouse.up
  end

  def drag_grip(side, right, down)
    steady
    box = evaluate_script(<<~JS)
      (() => { const box = document.querySelector('.hand.chosen .grip[data-side="#{side}"]').getBoundingClientRect(); return [box.left + 7, box.top + 7]; })()
    JS
    mouse.move(x: box[0], y: box[1]).down
    mouse.move(x: box[0] + (right * ratio), y: box[1] + (down * ratio), steps: 5).up
  end

  def tops = all(".hand").map { |hand| hand.style("top")["top"] }

  def choose_in(label, choice)
    find(:xpath, "//*[@role='radiogroup'][@aria-label='#{label}']").find("label", text: choice, exact_text: true).click
  end

  # The draft as it is kept.
  def draft_piece(id)
    TestDatabase.db[:stages].where(id: @stage.id).get(:draft)["pieces"].find { |piece| piece["id"] == id }
  end
end
