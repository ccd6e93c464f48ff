# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/web_test"

# A whole show handed on: with its cue sheet, its sounds by their names, and the cards of its fellow hosts.
class ShowCopiesTest < WebTest
  def setup
    super
    sign_up
    send_form("/stage/", {"layout" => "camera"})
  end

  def show = @shows.running.first
  def sheet = show.ask { |one| one.cues.document }
  def here(path) = "/stage/#{db[:stages].get(:id)}/#{path}"

  def sound
    path = File.join(Dir.mktmpdir, "Bell.wav")
    system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "sine=frequency=700:duration=1", path, exception: true)
    Rack::Test::UploadedFile.new(path, "audio/wav", original_filename: "Bell.wav")
  end

  def picture = Rack::Test::UploadedFile.new(StringIO.new(Drawings.png), "image/png", true, original_filename: "heron.png")

  # With a sound and a picture in a cue, and a fellow host who has a picture.
  def prepare
    bell = send_form("/dress/files/bring", {"kind" => "sound", "file" => sound})["sounds"].first
    send_form("/dress/files/sound/#{bell["id"]}", {"shelf" => "Thanks"})
    send_json("/dress/cues/cues/cue_tip", {"sound" => bell["id"], "words" => "{name}, thank you!", "amount_from" => 7})
    send_form("/dress/cues/cues/cue_tip/picture", {"file" => picture})
    fellow = send_form("/dress/fellows/", {"name" => "Heron_House"})["fellows"].first
    send_form("/dress/fellows/#{fellow["id"]}", {"words" => "One nest", "followers" => "4100"})
    send_form("/dress/fellows/#{fellow["id"]}/picture", {"file" => picture})
  end

  def copy
    get here("copy?what=show&as=zip")
    path = File.join(Dir.mktmpdir, "copy.zip")
    File.binwrite(path, last_response.body)
    -> { Rack::Test::UploadedFile.new(path) }
  end

  # As on another computer: nothing of it is there.
  def forget
    db[:files].delete
    db[:fellows].delete
    show.ask { |one| one.use_cues(one.cues.document.merge(Bavard::Core::Cues::Settings.default.slice("cues"))) }
  end

  def test_a_copy_brings_the_cue_sheet_its_sounds_by_name_and_the_fellow_hosts
    prepare
    before = sheet["cues"].find { |cue| cue["id"] == "cue_tip" }
    brought = copy
    forget
    told = send_form(here("copy-in/tell"), {"file" => brought.call})
    assert_empty told["missing"]
    assert_equal ["A cue sheet with #{sheet["cues"].size} cues", "1 fellow host"], told["holds"].last(2)
    send_form(here("copy-in"), {"file" => brought.call})
    refute_includes(sheet["cues"].map { |cue| cue["words"] }, "{name}, thank you!")
    send_form(here("copy-in"), {"file" => brought.call, "into" => "all"})
    assert_equal 200, last_response.status, last_response.body
    cue = sheet["cues"].find { |one| one["id"] == "cue_tip" }
    assert_equal before.except("sound", "picture"), cue.except("sound", "picture")
    kept = stores.files.find(@record.id, "sound", cue["sound"])
    assert_equal ["Bell", "Thanks"], [kept.name, kept.more["shelf"]]
    assert cabinet.find("#{cue["picture"]}-4.webp")
    fellow = stores.fellows.of_show(@record.id).first
    assert_equal ["Heron_House", "One nest", 4100, false], [fellow.name, fellow.words, fellow.followers, fellow.picture.nil?]
    assert(show.ask { |one| one.shout_outs.instance_variable_get(:@fellows).key?("heron_house") })
  end

  # A look whose plate is drawn from a picture, and one of the whole stage, in a face of the host's own.
  def keep_looks
    font = Rack::Test::UploadedFile.new(File.expand_path("../../assets/vendor/fonts/fraunces-latin-wght-normal.woff2", __dir__), "font/woff2")
    face = send_form(here("files"), {"kind" => "font", "file" => font}).dig("file", "id")
    frame = send_form(here("files"), {"kind" => "picture", "file" => picture}).dig("file", "id")
    chat = show.ask { |one| one.desks.values.first.stage.draft["pieces"].find { |piece| piece["kind"] == "chat" } }["id"]
    send_json(here("edits"), {"do" => "set", "piece" => chat, "values" => {"plate_frame" => frame}})
    send_json(here("edits"), {"do" => "house", "sort" => "faces", "key" => "text", "value" => {"name" => "Text", "value" => "file:#{face}"}})
    send_form(here("looks"), {"name" => "Reeds", "piece" => chat})
    send_form(here("looks"), {"name" => "All reeds"})
    [face, frame]
  end

  def test_a_copy_brings_looks_of_the_hosts_own_with_what_they_are_drawn_from
    files = keep_looks
    before = stores.looks.of_show(@record.id).map(&:document)
    brought = copy
    db[:looks].delete
    db[:files].delete
    told = send_form(here("copy-in/tell"), {"file" => brought.call})
    assert_equal [[], "2 looks of their own"], [told["missing"], told["holds"].last]
    2.times { send_form(here("copy-in"), {"file" => brought.call, "into" => "all"}) }
    kept = stores.looks.of_show(@record.id)
    assert_equal [["All reeds", "Reeds"], before.map(&:keys)], [kept.map(&:name), kept.map { |look| look.document.keys }]
    now = kept.flat_map { |look| Bavard::Copies::OwnLooks.files(look.document) }
    assert_equal %w[font picture], now.map(&:first).uniq.sort
    assert(now.all? { |sort, id| stores.files.find(@record.id, sort, id) })
    assert_equal files.size, (db[:files].select_map(:id) & now.map(&:last)).size
  end

  def test_a_copy_with_more_looks_than_there_is_room_for_changes_nothing
    given = JSON.parse(get(here("copy?what=show&as=json")).body)
    look = Bavard::Core::Pieces::LookDocument.shipped.fetch("quiet")
    60.times { |at| stores.looks.add(@record.id, "Look #{at}", look) }
    before = [sheet, db[:stages].count]
    given["cues"]["cues"].first["words"] = "Somebody else's"
    told = send_form(here("copy-in"), {"text" => JSON.generate(given.merge("looks" => [look])), "into" => "all"})
    assert_equal [422, "There is room for 60 looks of your own. Take one away first.", before], [last_response.status, told["error"], [sheet, db[:stages].count]]
    told = send_form(here("copy-in"), {"text" => JSON.generate(given.merge("looks" => [{"format" => "x"}])), "into" => "all"})
    assert_equal [422, "One of its looks cannot be read."], [last_response.status, told["error"]]
  end

  def test_a_cue_for_chats_that_are_not_here_rests
    given = JSON.parse(get(here("copy?what=show&as=json")).body)
    given["cues"]["cues"].first["feeds"] = ["987654"]
    send_form(here("copy-in"), {"text" => JSON.generate(given), "into" => "all"})
    assert_equal [[], false], sheet["cues"].first.values_at("feeds", "on")
    assert(sheet["cues"].drop(1).all? { |cue| cue["on"] })
  end

  def test_what_cannot_be_a_sheet_or_a_card_is_refused_and_the_broadcast_goes_on
    given = JSON.parse(get(here("copy?what=show&as=json")).body)
    show.ask(&:begin_broadcast)
    began = sheet["began_ms"]
    before = sheet
    [{"cues" => {"cues" => [{"words" => "{nobody}"}]}}, {"fellows" => [{"name" => ""}]}, {"fellows" => [{"followers" => "many", "name" => "x"}]}].each do |wrong|
      send_form(here("copy-in"), {"text" => JSON.generate(given.merge(wrong)), "into" => "all"})
      assert_equal 422, last_response.status, wrong
    end
    assert_equal before, sheet
    send_form(here("copy-in"), {"text" => JSON.generate(given.merge("cues" => [7], "fellows" => 7, "files" => {"x" => 7})), "into" => "all"})
    assert_equal [200, began], [last_response.status, sheet["began_ms"]]
  end
end
