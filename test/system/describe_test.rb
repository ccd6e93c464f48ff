# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../support/stage_hands"

# A platform that nobody listed: recorded, described, repaired, connected, and its line on the broadcast picture.
class DescribeBrowserTest < PreparedTest
  include StageHands

  SKEIN = JSON.parse(File.read(File.expand_path("../../docs/platforms/skein.json", __dir__))).freeze

  def setup
    super
    @skein = RunningStandin.new("Skein", BEAT_MS: 1000).start
    prepare(platforms: [@skein])
    sign_in "/feeds/describe/"
  end

  # As one writes it who knows how Skein is reached, and not yet what it sends.
  def beginning
    known = SKEIN.except("samples", "consent").merge("key" => "mine", "name" => "Mine", "base" => @skein.platform.base,
      "reads" => [{"is" => "delete", "when" => "kind == 'deleted'", "id" => "target"}, {"is" => "nothing", "when" => "op == 'beat'"}])
    JSON.pretty_generate(known)
  end

  def write(text)
    page.execute_script("const field = document.querySelector('#text'); field.value = arguments[0]; field.dispatchEvent(new Event('input'))", text)
  end

  def test_recorded_described_repaired_connected_and_on_air
    click_on "A WebSocket"
    assert_selector ".chip", text: "fits the schema"
    write(beginning.sub('"reads"', '"raeds"'))
    assert_selector ".chip", text: "things are wrong"
    click_on "a description has no “raeds”", match: :first
    assert_includes evaluate_script("(field => field.value.slice(field.selectionStart, field.selectionEnd))(document.querySelector('#text'))"), '"raeds"'
    write(beginning)
    assert_selector ".chip", text: "fits the schema"
    assert_select "Which description", selected: "Mine"
    click_on "Record"
    fill_in "Room", with: "reedmere"
    click_on "Record for a minute"
    assert_selector "#record-state", text: "Reading Mine."
    @skein.say("look at the <b>iris</b>", login: "kestrel_ann")
    assert_selector ".frame.unread", text: "look at the", match: :first
    click_on "Stop"
    assert_no_selector "#record.recording"
    find(".frame.unread .frame-head", text: "look at the", match: :first).click
    assert_text "Nothing reads this yet. What is it?"
    select "line", from: "What it is"
    click_on "Add a rule"
    assert_selector ".drawn-line", text: "look at the <b>iris</b>"
    repair
    find(".frame.chosen .frame-pin").click
    assert_selector "#checks", text: "1 pinned frame reads as before"
    click_on "Keep it"
    assert_text "It is kept, and can be connected."
    connect
  end

  # What was guessed is not all that there is.
  def repair
    within(".fields-list") do
      select "is the name", from: "What from.nick is"
    end
    assert_selector ".fields-list > div:not(.lacking) dt", text: "name", exact_text: true
    assert_field "The description, as JSON", with: /"name": "from.nick"/
  end

  def connect
    click_on "Connect it"
    within("#add") do
      assert_selector ".kind:has(input:checked)", text: "Mine"
      fill_in "Room", with: "reedmere"
      click_on "Connect", exact: true
    end
    within(".lane[aria-label=Mine]") { assert_selector ".chip", text: "live" }
    open_screen(link)
    @skein.say("through a description of my own", login: "kestrel_ann")
    on_screen { assert_selector ".line .text", text: "through a description of my own" }
  end

  def test_frames_are_pasted_and_a_sample_that_reads_otherwise_says_so
    click_on "A WebSocket"
    click_on "Paste"
    click_on "Read it"
    assert_selector "#paste-sheet .error-line", text: "There is nothing in it"
    fill_in "Frames", with: %({"type":"message","id":1,"user":{"login":"ann"},"text":"one"}\nPING\n{"type":"delete","id":1})
    click_on "Read it"
    assert_selector ".frame", count: 3
    assert_selector "#counts", text: "3 frames: 1 line, 1 delete, 1 unread."
    find(".frame .frame-pin", match: :first).click
    assert_selector ".frame.pinned", count: 1
    write(find("#text").value.sub('"text": "text"', '"text": "user.login"'))
    assert_selector ".frame-otherwise", text: 'the text of number 1 is "ann", not "one"'
    assert_selector "#checks", text: "1 of 1 pinned frames reads otherwise than before"
    click_on "It is right now"
    assert_selector "#checks", text: "1 pinned frame reads as before"
    click_on "Keep it"
    assert_text "It is kept, and can be connected."
    page.refresh
    assert_selector ".frame.pinned", count: 1
    click_on "Take it away"
    click_on "Really take it away"
    assert_text "How is it reached?"
  end
end
