# frozen_string_literal: true

require "minitest/mock"
require_relative "../support/drawings"
require_relative "../support/web_test"

# The cue sheet, the show's files and the cards of fellow hosts through their addresses: what is kept, tried, refused.
class CuesPagesTest < WebTest
  def setup
    super
    sign_up
  end

  def json(path)
    get path
    JSON.parse(last_response.body)
  end

  def sheet = json("/dress/cues/sheet")
  def try(**values) = send_form("/dress/cues/try", {"where" => "screens", "name" => "Ann", "kind" => "tip"}.merge(values.transform_keys(&:to_s)))
  def cue(id) = sheet["cues"].find { |one| one["id"] == id }
  def show = @shows.run(@record.id)

  def sound(name = "Bell.wav", seconds: 1)
    path = File.join(Dir.mktmpdir, name)
    system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "sine=frequency=700:duration=#{seconds}", path, exception: true)
    Rack::Test::UploadedFile.new(path, "audio/wav", original_filename: name)
  end

  def bytes(text, name) = Rack::Test::UploadedFile.new(StringIO.new(text), "application/octet-stream", true, original_filename: name)
  def bring(kind, file) = send_form("/dress/files/bring", {"kind" => kind, "file" => file})

  def test_the_sheet_has_a_cue_for_each_kind_and_says_what_each_is_called
    told = sheet
    assert_equal told["kinds"].keys, told["cues"].map { |one| one["kind"] }
    assert_equal ["whatever it is"], told["narrowed"].values.uniq
    assert_includes told["kinds"].keys, "reached"
  end

  def test_a_cue_is_set_moved_taken_away_and_put_back
    made = send_form("/dress/cues/cues", {"kind" => "tip"})["cues"].last
    send_json("/dress/cues/cues/#{made["id"]}", {"amount_from" => 50, "words" => "{name}!"})
    assert_equal "amount from 50", sheet["narrowed"][made["id"]]
    send_form("/dress/cues/cues/#{made["id"]}/move", {"by" => "-1"})
    refute_equal made["id"], sheet["cues"].last["id"]
    kept = cue(made["id"])
    send_form("/dress/cues/cues/#{made["id"]}/remove")
    assert_nil cue(made["id"])
    send_json("/dress/cues/put-back", kept)
    assert_equal kept, cue(made["id"])
  end

  def test_what_cannot_be_is_refused_with_a_reason_and_the_field
    {{"words" => "{nobody}"} => "words", {"length_s" => 900} => "length_s", {"flurry_way" => "sideways"} => "flurry_way", {"odd" => 1} => "odd",
     {"sound" => "../../etc"} => "sound", {"volume" => -3} => "volume"}.each do |values, field|
      answer = send_json("/dress/cues/cues/cue_tip", values)
      assert_equal [422, field], [last_response.status, answer["field"]], values
      refute_empty answer["error"]
    end
    assert_equal "cue", send_json("/dress/cues/cues/cue_nothing", {"on" => false})["field"]
    assert_equal "cue", send_form("/dress/cues/cues/cue_nothing/move", {"by" => "1"})["field"]
    assert_equal "cue", send_json("/dress/cues/put-back", {"id" => "../x"})["field"]
  end

  def test_made_up_events_with_odd_amounts_and_names_are_told_plainly
    assert_equal ["Tips", "5.00 EUR"], try(amount: "5", currency: "EUR").values_at("cue", "worth")
    assert_equal "3 sparks", try(amount: "3", currency: "")["worth"]
    assert_equal "7 florins of old", try(amount: "7", currency: "florins of old")["worth"]
    %w[lots 1e999 NaN].each { |amount| assert_equal "An amount is a number.", try(amount:)["error"] }
    [try(amount: "-5", currency: "EUR"), try(amount: "1e30", currency: "EUR")].each { |told| assert_match(/\AAn amount goes from 0 to \d+\.\z/, told["error"]) }
    assert_equal 60, try(name: "x" * 500)["name"].length
    assert_equal "<b>Ann</b>", try(name: "<b>Ann</b>")["name"]
    assert_equal "What happens?", try(kind: "nonsense")["error"]
    assert_equal 422, last_response.status
  end

  def test_a_sample_of_any_kind_plays
    sheet["kinds"].each_key { |kind| assert_equal kind, send_form("/dress/cues/try", {"kind" => kind, "where" => "draft", "sample" => "1"})["kind"] }
    assert_equal sheet["cues"].map { |one| one["id"] }, sheet["samples"].keys
  end

  def test_one_cue_is_tried_whatever_else_would_play_and_played_again
    made = send_form("/dress/cues/cues", {"kind" => "tip"})["cues"].last
    send_json("/dress/cues/cues/#{made["id"]}", {"name" => "From moderators", "roles" => ["moderator"], "share_percent" => 1})
    assert_equal "Tips", try(amount: "5", currency: "EUR")["cue"]
    tried = try(amount: "5", currency: "EUR", cue: made["id"])
    assert_equal "From moderators", tried["cue"]
    assert_equal({"done" => true}, send_form("/dress/cues/again", {"line" => tried["line"]}))
    assert_match(/no longer on the sheet/, try(amount: "5", currency: "EUR", cue: "cue_gone")["error"])
    assert_match(/too long ago/, send_form("/dress/cues/again", {"line" => "1"})["error"])
  end

  def test_a_broadcast_begins_and_ends_and_totals_are_typed
    assert_nil json("/dress/cues/now")["began"]
    began = send_form("/dress/cues/begin")["began"]
    refute_nil began
    refute_nil send_form("/dress/cues/end")["ended"]
    assert_equal [began, nil], send_form("/dress/cues/begun-before", {"began" => began.to_s}).values_at("began", "ended")
    assert_equal [began, began], send_form("/dress/cues/begun-before", {"began" => began.to_s, "ended" => began.to_s}).values_at("began", "ended")
    ["", "1", (began * 2).to_s].each { |at| assert_equal "began", send_form("/dress/cues/begun-before", {"began" => at})["field"] }
    assert_equal 1200, send_form("/dress/cues/totals", {"counted" => "followers", "number" => "1 200"})["totals"]["followers"]
    assert_equal "number", send_form("/dress/cues/totals", {"counted" => "followers", "number" => "many"})["field"]
    send_form("/dress/cues/totals", {"counted" => "worth_nothing", "number" => "1"})
    assert_equal 404, last_response.status
  end

  def test_a_sound_is_brought_named_put_on_a_shelf_and_kept_while_a_cue_plays_it
    made = bring("sound", sound)["sounds"].first
    assert_equal ["Bell", 96], [made["name"], made["peaks"].size]
    get "/sounds/#{made["id"]}.ogg"
    assert_equal ["audio/ogg", "OggS"], [last_response.content_type, last_response.body[0, 4]]
    named = send_form("/dress/files/sound/#{made["id"]}", {"name" => "Small bell", "shelf" => " Bells "})["sounds"].first
    assert_equal ["Small bell", "Bells"], named.values_at("name", "shelf")
    send_json("/dress/cues/cues/cue_tip", {"sound" => made["id"]})
    assert_match(/plays with “Tips”/, send_form("/dress/files/sound/#{made["id"]}/remove")["error"])
    send_json("/dress/cues/cues/cue_tip", {"sound" => nil})
    assert_empty send_form("/dress/files/sound/#{made["id"]}/remove")["sounds"]
    assert_equal ["Small bell"], send_form("/dress/files/sound/#{made["id"]}/put-back")["sounds"].map { |one| one["name"] }
  end

  def test_files_that_are_not_what_they_say_are_refused_by_name
    [["sound", bytes("no sound", "a.mp3")], ["film", bytes("no film", "b.mp4")], ["picture", bytes("no picture", "c.png")]].each do |kind, file|
      assert_match(/“[abc]\.\w+” was not taken: /, bring(kind, file)["error"])
    end
    assert_equal "It is no sound, film or picture.", bring("font", bytes("x", "d.ttf"))["error"]
    assert_equal "Which file?", send_form("/dress/files/bring", {"kind" => "sound"})["error"]
    %w[/sounds/../../etc/passwd /sounds/abc.ogg /films/00000000000000000000000000000000.ogg].each do |path|
      get path
      assert_includes [400, 404], last_response.status, path
    end
  end

  def test_a_card_of_a_fellow_host_is_made_filled_refused_and_taken_away
    card = send_form("/dress/fellows/", {"name" => "@Heron_House"})["fellows"].first
    path = "/dress/fellows/#{card["id"]}"
    told = send_form(path, {"words" => "<i>One</i> nest", "followers" => "12,400"})["fellows"].first
    assert_equal ["<i>One</i> nest", 12_400], told.values_at("words", "followers")
    assert_equal "followers", send_form(path, {"followers" => "many"})["field"]
    assert_equal "name", send_form("/dress/fellows/", {"name" => " "})["field"]
    send_form("/dress/fellows/", {"name" => "Saltpan"})
    assert_equal "There is a card of that name already.", send_form(path, {"name" => "saltpan"})["error"]
    assert_match(/No stage has a shout-out/, send_form("#{path}/play")["error"])
    assert_equal ["Saltpan"], send_form("#{path}/remove")["fellows"].map { |one| one["name"] }
    back = send_form("#{path}/put-back")["fellows"].find { |one| one["name"] == "@Heron_House" }
    assert_equal ["<i>One</i> nest", 12_400], back.values_at("words", "followers")
    send_form("#{path}/put-back")
    assert_equal 404, last_response.status
  end

  def test_what_is_said_aloud_is_heard_only_while_its_cue_plays
    make_stage
    token = stores.stages.find(@stage.id).token
    send_json("/dress/cues/cues/cue_tip", {"aloud" => true})
    try(amount: "5", currency: "EUR", message: "good morning")
    show.ask { |one| one.cues.advance(one.now_ms) }
    playing = show.ask { |one| one.cues.queue.playing.id }
    get "/air/#{token}/said/#{playing}.wav"
    assert_equal [200, "RIFF"], [last_response.status, last_response.body[0, 4]]
    ["/air/#{token}/said/#{playing + 1}.wav", "/air/#{"x" * 32}/said/#{playing}.wav"].each do |path|
      get path
      assert_equal 404, last_response.status, path
    end
    Bavard::Media::Espeak::TURNS.stub(:take, ->(_) { raise Bavard::Busy, "it is busy" }) do
      ["/air/#{token}/said/#{playing}.wav", "/dress/cues/cues/cue_tip/spoken.wav?message=hello"].each do |path|
        get path
        assert_equal 503, last_response.status, path
      end
      assert_match(/being said aloud just now/, last_response.body)
    end
    show.ask { |one| one.cues.skip(one.now_ms) }
    get "/air/#{token}/said/#{playing}.wav"
    assert_equal 404, last_response.status
  end

  def test_the_cue_that_alerts_show_is_told_by_their_kinds
    assert_equal({"id" => "cue_tip", "name" => cue("cue_tip")["name"]}, json("/dress/cues/shown?kinds=tip,nest"))
    assert_equal "cue_follow", json("/dress/cues/shown?kinds=")["id"]
    send_form("/dress/cues/cues/cue_tip/remove")
    assert_match(/No cue is for that yet/, json("/dress/cues/shown?kinds=tip")["error"])
  end

  def test_a_sound_that_is_dropped_on_a_cue_is_brought_and_plays_with_it
    at = "/dress/cues/cues/cue_tip/files"
    file = -> { sound("bell.wav") }
    told = send_form(at, {"kind" => "sound", "file" => file.call})
    sound = told["cues"].find { |cue| cue["id"] == "cue_tip" }["sound"]
    assert_equal [["", "None"], [sound, "bell"]], told.dig("named", "sounds")
    send_form(at, {"kind" => "font", "file" => file.call})
    assert_equal 404, last_response.status
    assert_match(/was not taken/, send_form(at, {"kind" => "film", "file" => file.call})["error"])
    assert_equal "Which file?", send_form(at, {"kind" => "sound", "file" => "x"})["error"]
  end

  def test_a_picture_that_takes_a_while_is_followed_stopped_and_of_its_own_show
    file = Rack::Test::UploadedFile.new(StringIO.new(Drawings.png(300, 200)), "image/png", original_filename: "wren.png")
    pictures = @site.pictures
    go = Queue.new
    pictures.define_singleton_method(:make) { |*given, **more| go.pop && super(*given, **more) }
    send_form("/dress/cues/cues", {"kind" => "tip"})
    Bavard::Web::Station.stub(:soon_s, 0) { post "/dress/cues/cues/cue_tip/picture", {"file" => file} }
    taking = JSON.parse(last_response.body)["taking"]
    get "/dress/files/takings/#{taking}"
    assert_equal({"state" => "running", "share" => 0, "name" => "wren.png"}, JSON.parse(last_response.body))
    assert_equal "stopped", send_form("/dress/files/takings/#{taking}/stop")["state"]
    go << true
    get "/dress/files/takings/other"
    assert_equal 404, last_response.status
    assert_nil show.ask { |one| one.cues.document["cues"].find { |cue| cue["id"] == "cue_tip" }["picture"] }
  end

  LONG = %w[one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen].join("+").freeze

  def seconds = (last_response.body.bytesize - 44) / 44_100.0

  def test_what_a_cue_would_say_is_heard_beforehand_and_has_its_ceiling
    get "/dress/cues/cues/cue_tip/spoken.wav"
    assert_equal 404, last_response.status
    send_json("/dress/cues/cues/cue_tip", {"spoken_words" => true, "aloud" => true})
    get "/dress/cues/cues/cue_tip/spoken.wav?name=ann"
    short = seconds
    get "/dress/cues/cues/cue_tip/spoken.wav?name=ann&message=#{LONG}"
    assert_operator seconds, :>, short + 2
    send_json("/dress/cues/cues/cue_tip", {"spoken_most_s" => 1})
    get "/dress/cues/cues/cue_tip/spoken.wav?name=ann&message=#{LONG}"
    assert_in_delta 1, seconds, 0.001
  end

  def test_all_cues_of_a_kind_are_said_alike_by_one_press
    send_form("/dress/cues/cues", {"kind" => "tip"})
    send_json("/dress/cues/cues/cue_tip", {"spoken_words" => true, "spoken_voice" => "de", "spoken_speed" => 80, "words" => "thanks {name}"})
    cues = send_form("/dress/cues/cues/cue_tip/spoken-alike")["cues"]
    assert_equal [[true, "de", 80]], cues.select { |cue| cue["kind"] == "tip" }.map { |cue| cue.values_at("spoken_words", "spoken_voice", "spoken_speed") }.uniq
    assert_equal [[false, "en-gb", 100]], cues.reject { |cue| cue["kind"] == "tip" }.map { |cue| cue.values_at("spoken_words", "spoken_voice", "spoken_speed") }.uniq
    assert_equal 1, cues.count { |cue| cue["words"] == "thanks {name}" }
  end
end
