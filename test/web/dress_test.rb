# frozen_string_literal: true

require_relative "../support/drawings"
require_relative "../support/web_test"
require_relative "../../lib/bavard/feeds/platform"

# The Dress station through its addresses: what is dropped, kept, worn, refused.
class DressTest < WebTest
  def setup
    @files = TCPServer.new("127.0.0.1", 0)
    super
    sign_up
  end

  def teardown
    super
    @serving&.kill
    @files.close
  end

  def platforms = {"x" => Bavard::Feeds::Platform.new(key: "x", base: "http://127.0.0.1:#{@files.addr[1]}")}

  def inside = []

  def sheet
    get "/dress/sheet"
    JSON.parse(last_response.body)
  end

  def upload(files, **more)
    header "X-CSRF-Token", (@csrf ||= token_on("/feeds"))
    header "X-Requested-With", "XMLHttpRequest"
    given = files.map { |name, bytes| Rack::Test::UploadedFile.new(StringIO.new(bytes), "application/octet-stream", true, original_filename: name) }
    post "/dress/shelves/upload", {"files" => given}.merge(more.transform_keys(&:to_s))
    JSON.parse(last_response.body)
  end

  # Drops files and waits until they are through.
  def drop(files, **more)
    until_through(upload(files, **more).fetch("import"))
  end

  def until_through(id)
    wait_for("the import") { get("/dress/imports/#{id}") && JSON.parse(last_response.body)["state"] != "running" }
    JSON.parse(last_response.body)
  end

  # A server that hands out these bytes, which the house trusts.
  def serve(bytes)
    @bytes = bytes
    @serving = Thread.new { loop { hand_out(@files.accept) } } if @serving.nil?
  end

  def hand_out(socket)
    line = socket.gets until line == "\r\n"
    socket.write("HTTP/1.1 200 OK\r\nContent-Length: #{@bytes.bytesize}\r\n\r\n", @bytes)
    socket.close
  end

  def pack(**more)
    files = {"manifest.json" => Drawings.manifest([{code: ":wren:", file: "wren.svg"}, {code: ":egg:", file: "egg.gif"}, {code: ":bad:", file: "bad.png"}]),
             "wren.svg" => Drawings.svg, "egg.gif" => Drawings.gif, "bad.png" => "no picture"}.merge(more.transform_keys(&:to_s))
    {"marsh.zip" => File.binread(Drawings.zip(files))}
  end

  def tried(text)
    get "/dress/try", {"text" => text}
    JSON.parse(last_response.body)
  end

  def test_a_pack_becomes_a_shelf_and_says_what_was_not_taken
    done = drop(pack)
    assert_equal ["done", 3, 2, "2 of 3 taken; one was not"], done.values_at("state", "total", "taken", "words")
    assert_equal [["bad.png", "it is no PNG, GIF, APNG, WebP, SVG, AVIF or JPEG"]], done["refused"]
    shelf = sheet["shelves"].first
    assert_equal ["Test pack", [":wren:", ":egg:"], [false, true]], [shelf["name"], *%w[code moves].map do |key|
      shelf["emotes"].map do |emote|
        emote[key]
      end
    end]
    get "/pictures/#{shelf["emotes"].first["picture"]}-2.webp"
    assert_equal ["image/webp", "public, max-age=31536000, immutable"], last_response.headers.values_at("content-type", "cache-control")
    assert_equal "emote", tried("look :wren:")["card"]["f"].last.first
  end

  def test_loose_pictures_go_onto_the_shelf_they_are_dropped_on
    shelf = send_form("/dress/shelves", {"name" => "Own"})["id"]
    drop({"Snipe.svg" => Drawings.svg, "Teal.png" => Drawings.png}, shelf:)
    assert_equal [["Own", %w[:snipe: :teal:]]], sheet["shelves"].map { |one| [one["name"], one["emotes"].map { |emote| emote["code"] }] }
  end

  def test_a_manifest_that_does_not_fit_leaves_nothing_behind
    done = drop({"marsh.zip" => File.binread(Drawings.zip({"manifest.json" => "{}", "wren.svg" => Drawings.svg}))})
    assert_equal "refused", done["state"]
    assert_includes done["words"], "does not fit the format"
    assert_empty sheet["shelves"]
    assert_equal 0, db[:pictures].count
  end

  # Behind a film's end nothing is read, yet each is a file of its own.
  def long_pack
    film = Drawings.film(20, 100).gifsave_buffer
    Drawings.zip((0...80).to_h { |number| ["m#{number}.gif", "#{film}#{number}"] })
  end

  def begin_long
    id = upload({"many.zip" => File.binread(long_pack)}).fetch("import")
    until_under_way(id)
    id
  end

  def until_under_way(id, but: nil)
    wait_for("it to be under way") do
      pid = imports.find(@record.id, id).pid
      pid if pid && pid != but && get("/dress/imports/#{id}") && JSON.parse(last_response.body)["done"].positive?
    end
  end

  # As a machine that is short of memory does.
  def test_an_import_whose_process_is_killed_is_begun_once_more_and_then_nothing_of_it_is_kept
    id = begin_long
    first = imports.find(@record.id, id).pid
    Process.kill("KILL", -first)
    second = until_under_way(id, but: first)
    assert_equal 80, imports.find(@record.id, id).total
    Process.kill("KILL", -second)
    ended = until_through(id)
    assert_equal ["refused", "It ended before it was through. Nothing was changed."], ended.values_at("state", "words")
    assert_empty sheet["shelves"]
  end

  def test_an_import_that_nothing_can_be_kept_of_says_so
    FileUtils.rm_rf(pictures_folder)
    File.write(pictures_folder, "in the way")
    ended = until_through(upload({"a.svg" => Drawings.svg}).fetch("import"))
    assert_equal "refused", ended["state"]
    assert_includes ended["words"], "cannot be kept here"
  ensure
    FileUtils.rm_f(pictures_folder)
  end

  def test_an_import_that_is_stopped_leaves_nothing_and_no_process_behind
    id = begin_long
    pid = imports.find(@record.id, id).pid
    send_form("/dress/imports/#{id}/stop")
    wait_for("it to have ended") { imports.find(@record.id, id).words.is_a?(String) }
    get "/dress/imports/#{id}"
    assert_equal ["stopped", "It was stopped. Nothing was changed."], JSON.parse(last_response.body).values_at("state", "words")
    assert_empty sheet["shelves"]
    assert_raises(Errno::ESRCH) { Process.kill(0, -pid) }
    get "/dress/imports/nothing"
    assert_equal 404, last_response.status
  end

  def test_what_is_unused_is_told
    drop(pack)
    assert_equal 2, sheet["shelves"].first["unused"]
    stores.dress.count_uses({sheet["shelves"].first["emotes"].first["id"] => 3}, clock.call)
    assert_equal [1, [3, 0]], sheet["shelves"].first.then { |shelf| [shelf["unused"], shelf["emotes"].map { |emote| emote["used"] }] }
  end

  def test_nothing_but_rubbish_makes_no_shelf
    assert_includes drop({"a.png" => "x", "b.png" => "y"})["words"], "None of it is a picture"
    assert_empty sheet["shelves"]
    assert_equal "files", upload({}, files: "x")["field"]
  end

  def test_the_shelf_that_stands_first_wins_and_it_is_said
    2.times do |number|
      drop({"#{number}.zip" => File.binread(Drawings.zip({
        "manifest.json" => Drawings.manifest([{code: ":wren:", file: "a.png"}], name: "Shelf #{number}"), "a.png" => Drawings.png(20 + number)
      }))})
    end
    assert_equal ["“:wren:” is on 2 shelves; Shelf 0 wins because it stands first."], tried("a :wren:")["said"]
    send_form("/dress/shelves/order", {"ids" => sheet["shelves"].map { |shelf| shelf["id"] }.reverse.join(",")})
    assert_includes tried("a :wren:")["said"].first, "Shelf 1 wins"
    assert_equal [[false], [true]], sheet["shelves"].map { |shelf| shelf["emotes"].map { |emote| emote["beaten"] } }
  end

  def test_a_shelf_is_renamed_switched_off_taken_away_and_put_back
    drop(pack)
    id = sheet["shelves"].first["id"]
    send_form("/dress/shelves/#{id}", {"name" => "Marsh"})
    send_form("/dress/shelves/#{id}", {"on" => "0"})
    assert_equal [["Marsh", false], "text"], [sheet["shelves"].first.values_at("name", "on"), tried(":wren:")["card"]["f"].first.first]
    send_form("/dress/shelves/#{id}", {"removed" => "1"})
    assert_empty sheet["shelves"]
    send_form("/dress/shelves/#{id}", {"removed" => "0"})
    assert_equal 1, sheet["shelves"].size
    assert_equal "name", send_form("/dress/shelves/#{id}", {"name" => " "})["field"]
  end

  def test_an_emote_gets_another_code_and_goes_and_comes_back
    drop(pack)
    emote = sheet["shelves"].first["emotes"].first
    send_form("/dress/emotes/#{emote["id"]}", {"code" => "zaunkönig", "any_case" => "1"})
    assert_equal "emote", tried("ein ZAUNKÖNIG")["card"]["f"].last.first
    assert_equal "code", send_form("/dress/emotes/#{emote["id"]}", {"code" => ":egg:"})["field"]
    assert_equal "code", send_form("/dress/emotes/#{emote["id"]}", {"code" => "two words"})["field"]
    send_form("/dress/emotes/#{emote["id"]}/remove")
    assert_equal 1, sheet["shelves"].first["count"]
    send_form("/dress/emotes/#{emote["id"]}/put-back")
    assert_equal 2, sheet["shelves"].first["count"]
  end

  def test_words_become_a_picture
    drop(pack)
    picture = sheet["shelves"].first["emotes"].first["picture"]
    send_form("/dress/phrases", {"words" => " Reed  warbler ", "picture" => picture})
    assert_equal [["emote", "reed WARBLER", picture]], tried("reed WARBLER")["card"]["f"].map { |fragment| fragment.first(3) }
    phrase = sheet["phrases"].first
    send_form("/dress/phrases/#{phrase["id"]}/remove")
    assert_empty sheet["phrases"]
    send_form("/dress/phrases/#{phrase["id"]}/put-back")
    assert_equal 1, sheet["phrases"].size
    assert_equal "words", send_form("/dress/phrases", {"words" => " … ", "picture" => picture})["field"]
    assert_equal "picture", send_form("/dress/phrases", {"words" => "x", "picture" => "0" * 32})["field"]
  end

  def test_addresses_inside_the_house_are_refused_with_a_reason
    id = send_form("/dress/shelves", {"name" => "Own"})["id"]
    refused = send_form("/dress/shelves/#{id}/emotes", {"code" => ":x:", "address" => "http://127.0.0.1/secret.png"})
    assert_equal ["address", 422], [refused["field"], last_response.status]
    assert_includes refused["error"], "inside this house"
    assert_includes send_form("/dress/shelves/from-address", {"address" => "http://10.0.0.1/pack.zip"})["error"], "inside this house"
    assert_empty sheet["shelves"].first["emotes"]
  end

  # From a place that the operator trusts: what the pack has lost meanwhile goes with the next reading.
  def test_a_shelf_from_an_address_can_be_read_again
    serve(pack.values.first)
    address = "http://127.0.0.1:#{@files.addr[1]}/pack.zip"
    read = ->(**more) { send_form("/dress/shelves/from-address", {"address" => address, **more.transform_keys(&:to_s)}).fetch("import").then { |id| until_through(id) } }
    assert_equal "done", read.call["state"]
    shelf = sheet["shelves"].first
    assert_equal [address, [":wren:", ":egg:"]], [shelf["address"], shelf["emotes"].map { |emote| emote["code"] }]
    serve(File.binread(Drawings.zip({"manifest.json" => Drawings.manifest([{code: ":egg:", file: "egg.gif"}]), "egg.gif" => Drawings.gif})))
    read.call(shelf: shelf["id"])
    assert_equal [[shelf["id"], [":egg:"]]], sheet["shelves"].map { |one| [one["id"], one["emotes"].map { |emote| emote["code"] }] }
  end

  def test_another_host_can_touch_nothing_of_it
    drop(pack)
    shelf = sheet["shelves"].first
    clear_cookies
    @csrf = nil
    sign_up(email: "other@reedmere.example")
    ["/dress/shelves/#{shelf["id"]}", "/dress/emotes/#{shelf["emotes"].first["id"]}",
      "/dress/emotes/#{shelf["emotes"].first["id"]}/remove"].each do |path|
      send_form(path, {"name" => "mine", "code" => "mine", "on" => "0"})
      assert_equal 404, last_response.status, path
    end
    assert_empty sheet["shelves"]
    assert_equal "Test pack", db[:shelves].get(:name)
  end

  def test_a_picture_that_is_none_is_not_there
    ["/pictures/x", "/pictures/#{"0" * 32}-1.webp", "/pictures/../serve.rb", "/pictures/%2e%2e/x"].each do |path|
      get path
      assert_includes [400, 404], last_response.status, path
    end
  end
end
