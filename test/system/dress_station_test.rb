# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/prepared"

# The Dress station by mouse and keyboard, to the air page.
class DressStationTest < PreparedTest
  def setup
    super
    prepare(feed: feed_address)
    until_live
    sign_in "/dress"
  end

  def drop(path)
    attach_file("add-files", path, make_visible: {display: "block", visibility: "visible"})
  end

  def pack
    Drawings.zip({"manifest.json" => Drawings.manifest([{code: ":wren:", file: "a.svg"}, {code: ":film:", file: "b.gif"}, {code: ":bad:", file: "c.png"}]),
                  "a.svg" => Drawings.svg, "b.gif" => Drawings.gif, "c.png" => "no picture"})
  end

  def shelf(name, &block) = within(".shelf[aria-label='#{name}']", &block)

  def test_a_pack_dropped_and_seen_on_air
    assert_text "No shelf yet"
    drop(pack)
    assert_text "2 of 3 taken; one was not"
    find("summary", text: "Which, and why").click
    assert_text "c.png: it is no PNG"
    shelf("Test pack") { assert_selector ".emote-button", text: ":wren:" }
    open_screen(link)
    server.say("ann", "look :wren: and :film:")
    on_screen do
      assert_selector ".line .emote img", count: 2
      loaded = wait_for("the pictures") { page.evaluate_script("[...document.images].every((image) => image.complete && image.naturalWidth > 0)") }
      assert loaded
      hosts = page.evaluate_script("performance.getEntriesByType('resource').map((entry) => new URL(entry.name).host)").uniq
      assert_equal [URI(@app.address).then { |uri| "#{uri.host}:#{uri.port}" }], hosts
    end
  end

  # As the mouse drops it: the browser's own events, with files in them.
  DROP = <<~JS
    const [selector, files] = arguments;
    const carried = new DataTransfer();
    for (const [name, text] of files) carried.items.add(new File([text], name));
    const target = document.querySelector(selector);
    for (const kind of ["dragover", "drop"])
      target.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: carried }));
  JS

  def test_pictures_are_dropped_anywhere_or_on_a_shelf_and_what_is_unused_is_shown
    execute_script(DROP, ".dress-page", [["Snipe.svg", Drawings.svg]])
    shelf("Snipe") { assert_selector ".emote-button", text: ":snipe:" }
    execute_script(DROP, ".shelf", [["Teal.svg", Drawings.svg('<rect width="40" height="40"/>')], ["x.png", "no picture"]])
    assert_text "1 of 2 taken; one was not"
    shelf("Snipe") { assert_selector ".emote-button", count: 2 }
    click_on "Show what is unused"
    assert_selector ".only-unused .emote-button.unused", count: 2
  end

  def test_what_is_put_on_later_dresses_what_stands_and_what_is_taken_off_undresses_it
    open_screen(link)
    server.say("ann", "a :wren: early")
    on_screen { assert_selector ".line", text: "a :wren: early" }
    drop(pack)
    on_screen { assert_selector ".line .emote img[alt=':wren:']" }
    shelf("Test pack") { find("[role=switch]").click }
    on_screen { assert_no_selector ".emote" }
    shelf("Test pack") { find("[role=switch]").click }
    on_screen { assert_selector ".emote" }
  end

  def test_the_order_of_shelves_by_key_decides_who_wins
    2.times do |number|
      drop(Drawings.zip({"manifest.json" => Drawings.manifest([{code: ":wren:", file: "a.png"}], name: "Shelf #{number}"),
"a.png" => Drawings.png(20 + number)}))
      shelf("Shelf #{number}") { assert_selector ".emote-button" }
    end
    fill_in "A line to try", with: "a :wren:"
    assert_text "Shelf 0 wins because it stands first."
    find("[aria-label='Move Shelf 0: arrow up or down']").send_keys(:down)
    assert_text "Shelf 1 wins because it stands first."
    shelf("Shelf 0") { assert_selector ".emote-button.beaten" }
  end

  def test_renaming_taking_away_and_undo
    drop(pack)
    shelf("Test pack") { find(".shelf-menu summary").click }
    click_on "Rename"
    fill_in "Name", with: "Marsh"
    within("#ask") { click_on "Rename" }
    shelf("Marsh") { find(".emote-button", text: ":wren:").click }
    fill_in "Code", with: ":zaunkönig:"
    within("#ask") { click_on "Keep it so" }
    shelf("Marsh") do
      assert_selector ".emote-button", text: ":zaunkönig:"
      find(".shelf-menu summary").click
      click_on "Take it away"
    end
    assert_text "No shelf yet"
    click_on "Undo"
    assert_selector ".shelf[aria-label='Marsh']"
  end

  def test_words_that_become_a_picture
    drop(pack)
    assert_selector ".emote-button"
    click_on "Make words a picture"
    fill_in "The words", with: "reed warbler"
    within("#ask") do
      find(".picture-choice", match: :first).click
      click_on "Make it so"
    end
    assert_selector ".phrase", text: "reed warbler"
    fill_in "A line to try", with: "is it a Reed Warbler?"
    assert_selector "#try-line .emote"
  end

  # A server that sends badges, and a picture of the host's own in the place of theirs.
  def test_a_badge_of_ones_own_and_one_that_is_hidden
    server.write("@draft/badges=warden,ringer :ann!a@b PRIVMSG #reedmere :hello\r\n")
    visit "/dress"
    assert_selector ".badge-button", count: 2
    open_screen(link) { assert_selector ".badge.drawn", count: 2 }
    find("[aria-label^='Warden on']").click
    attach_file("A picture from this computer", File.join(Dir.mktmpdir, "w.svg").tap { |path| File.write(path, Drawings.svg) })
    within("#ask") { click_on "Keep it so" }
    on_screen { assert_selector "img.badge[data-badge=warden]" }
    find("[aria-label^='Ringer on']").click
    within("#ask") do
      find("label", text: "Shown").click
      click_on "Keep it so"
    end
    on_screen { assert_no_selector "[data-badge=ringer]" }
    find("[aria-label='Warden on Test: your picture']").click
    click_on "Back to theirs"
    on_screen { assert_selector ".badge.drawn[data-badge=warden]" }
  end

  def test_faces_and_names_are_drawn_as_they_are_set_also_on_what_stands
    open_screen(link)
    server.say("kestrel_ann", "hello")
    on_screen { assert_selector ".name", text: "kestrel_ann" }
    visit "/stage"
    find(".hand").click
    within("#part-tags") { click_on "Name" }
    select "As it is said", from: "Names written"
    within("#part-tags") { click_on "Avatar" }
    within(find(".row", text: "Avatars")) { find("label", text: "Shown", exact_text: true).click }
    put_on_air
    on_screen do
      assert_selector ".name", text: "kestrel ann", exact_text: true
      assert_selector ".avatar.drawn", text: "k"
    end
  end

  def test_moving_emotes_stand_still_where_that_is_set
    drop(pack)
    assert_selector ".emote-button"
    open_screen(link)
    server.say("ann", ":film:")
    on_screen { assert_selector ".emote img[src$='-2.webp']" }
    visit "/stage"
    find(".hand").click
    within("#part-tags") { click_on "Emotes" }
    find("label", text: "Still", exact_text: true).click
    put_on_air
    on_screen { assert_selector ".emote img[src$='-still.webp']" }
  end
end
