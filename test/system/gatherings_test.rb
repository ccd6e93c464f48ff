# frozen_string_literal: true

require "net/http"
require_relative "../support/prepared"
require_relative "../support/stage_hands"

# Shout-outs, challenges, counters and captions, from the host's pages and from chat to the picture.
class GatheringsBrowserTest < PreparedTest
  include StageHands

  def air(*pieces)
    prepare(pieces:, feed: feed_address)
    open_screen(link) { assert_selector "#stage .piece", visible: :all, minimum: 1 }
    until_live
  end

  def mod_says(text) = server.write("@badges=moderator/1 :mod!mod@host PRIVMSG #reedmere :#{text}\r\n")

  def test_a_moderators_command_line_introduces_a_fellow_host_with_a_card_and_a_clip
    air({"kind" => "shout_out", "width" => 900, "height" => 400, "length_s" => 30})
    sign_in "/dress/fellows/"
    assert_text "No card yet"
    fill_in "Name of a fellow host", with: "Heron_House"
    click_on "A card for them"
    fill_in "A few words of Heron_House", with: "<b>One</b> nest, one camera\t"
    fill_in "How many follow them of Heron_House", with: "12400\t"
    attach_file "Picture of Heron_House", File.expand_path("../../demo/pictures/cast/teo.svg", __dir__), make_visible: true
    assert_selector ".fellow-picture img"
    attach_file "A clip of Heron_House", clip, make_visible: true
    assert_selector ".fellow-clips .chip", text: "clip"
    server.say("ann", "!hello heron_house")
    on_screen { assert_no_selector ".shout" }
    mod_says("!hello @heron_house")
    on_screen do
      assert_selector ".shout-name", text: "Heron_House"
      assert_selector ".shout-words", text: "<b>One</b> nest, one camera"
      assert_selector ".shout-followers", text: "12 400 follow"
      assert_selector "video.shout-seen"
    end
  end

  def clip
    File.join(Dir.mktmpdir, "clip.mp4").tap do |path|
      system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "testsrc=size=160x90:rate=5:duration=1", "-pix_fmt", "yuv420p", path, exception: true)
    end
  end

  def test_a_moderator_introduces_somebody_by_a_key_and_plays_the_hosts_own_cue
    air({"kind" => "shout_out", "width" => 900, "height" => 400, "length_s" => 60}, {"kind" => "alerts", "y" => 500})
    sign_in
    server.say("ann", "good morning")
    visit "/prompter/"
    find(".row", text: "good morning").click
    press("h")
    on_screen { assert_selector ".shout-name", text: "ann" }
    assert_selector ".row", text: "good morning"
    press("5")
    on_screen { assert_selector ".alert-words", text: "Odalys" }
  end

  def test_a_card_is_shown_by_a_press
    air({"kind" => "shout_out", "width" => 900, "height" => 400, "length_s" => 60})
    sign_in "/dress/fellows/"
    fill_in "Name of a fellow host", with: "Saltpan"
    click_on "A card for them"
    click_on "Show it now"
    on_screen { assert_selector ".shout-name", text: "Saltpan" }
  end

  def test_a_counter_counts_by_key_and_by_command
    air({"kind" => "counter", "words" => "Ringed: {count}", "command" => "!ringed", "cool_down_s" => 0})
    on_screen { assert_selector ".counter .text", text: "Ringed: 0" }
    on_the_stage
    within("#live") { click_on "Ten more" }
    on_screen { assert_selector ".counter .text", text: "Ringed: 10" }
    mod_says("!ringed")
    on_screen { assert_selector ".counter .text", text: "Ringed: 11" }
    within("#live") { click_on "One less" }
    on_screen { assert_selector ".counter .text", text: "Ringed: 10" }
  end

  def test_a_challenge_is_begun_and_ended_by_hand
    air({"kind" => "challenge", "title" => "Feeder", "total" => 50, "unit" => "seeds", "minutes" => 5, "missed" => "Next time"})
    on_screen { assert_selector ".goal-title", text: "Feeder, soon" }
    on_the_stage
    within("#live") { click_on "Begin" }
    on_screen do
      assert_selector ".goal-title", text: "Feeder", exact_text: true
      assert_selector ".goal-figures", text: "0 of 50 seeds"
      assert_selector ".goal-left", text: /\A[45]:\d\d\z/
      assert_selector ".stage-mark", count: 3, visible: :all
    end
    within("#live") { click_on "End" }
    on_screen { assert_selector ".goal-title", text: "Next time" }
  end

  def test_captions_come_from_whoever_has_their_address_and_from_a_file
    air({"kind" => "captions", "width" => 1200, "height" => 200, "least_s" => 8, "longest_s" => 9})
    on_the_stage
    told = "const done = arguments[0]; fetch('/stage/#{@stage.id}/pieces/captions1/address').then((answer) => answer.json()).then((told) => done(told.address))"
    answer = Net::HTTP.post(URI(page.evaluate_async_script(told)), "A <i>reed</i> warbler.", "content-type" => "text/plain")
    assert_equal "202", answer.code
    on_screen { assert_selector ".caption", text: "A <i>reed</i> warbler." }
    choose_source("file")
    file = File.join(Dir.mktmpdir, "a.vtt").tap { |path| File.write(path, "WEBVTT\n\n00:00.200 --> 00:59.000\nfrom a file\n") }
    attach_file "File of captions", file, make_visible: true
    assert_text "The captions are there."
    put_on_air
    within("#live") { click_on "Start" }
    on_screen { assert_selector ".caption", text: "from a file" }
    within("#live") { click_on "Stop" }
    on_screen { assert_no_selector ".caption" }
  end

  def choose_source(source)
    find(:xpath, "//*[@aria-label='From']").then { |field| field.tag_name == "select" ? field.select(source.capitalize) : field.find("label", text: /#{source}/i).click }
  end
end
