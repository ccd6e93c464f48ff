# frozen_string_literal: true

require "vips"
require_relative "../support/lines"
require_relative "../support/web_test"

# What the Stage's pages answer, and what they refuse.
class StagePagesTest < WebTest
  def setup
    super
    sign_up
    post_json("/stage/", "layout" => "camera")
    @stage = db[:stages].first
  end

  def post_form(path, values = {}) = post(path, values, header)
  def header = {"HTTP_X_CSRF_TOKEN" => csrf, "HTTP_X_REQUESTED_WITH" => "XMLHttpRequest"}
  def csrf = @csrf ||= token_on("/feeds")
  def answer = JSON.parse(last_response.body)

  def post_json(path, values) = post(path, values, header)

  def edit(edit)
    post("/stage/#{@stage[:id]}/edits", JSON.generate(edit), header.merge("CONTENT_TYPE" => "application/json"))
  end

  def here(path) = "/stage/#{@stage[:id]}/#{path}"

  def picture(name, colour = [250, 240, 230], width: 320, height: 180)
    path = File.join(Dir.mktmpdir, name)
    Vips::Image.black(width, height, bands: 3).+(colour).cast(:uchar).write_to_file(path)
    Rack::Test::UploadedFile.new(path, "image/png")
  end

  def draft = @shows.running.first.ask { |show| show.desk(@stage[:id]).stage.draft }

  def test_a_layout_stands_as_it_was_chosen
    assert_equal %w[space text chat], draft["pieces"].map { |piece| piece["kind"] }
  end

  def test_what_was_said_lately_is_played_in_the_draft
    post_form(here("play-recent"), "minutes" => "10")
    assert_equal [422, "minutes"], [last_response.status, answer["field"]]
    feed = stores.feeds.create(db[:shows].get(:id), kind: "irc", name: "Marsh", shape: "circle", colour: "#5fb8d6", address: {})
    line = Lines.line(clock.call * 1000, "hello", at_ms: clock.call, feed_id: feed.id)
    stores.lines.add(db[:shows].get(:id), [Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false, [])])
    post_form(here("play-recent"), "minutes" => "10")
    assert_equal [200, 1], [last_response.status, answer["lines"]], last_response.body
  end

  def own_looks(query = "") = get(here("looks#{query}")) && answer["looks"].select { |look| look["own"] }

  def sent(path, values = {}) = post_json(path, values) && answer

  def test_a_host_keeps_looks_of_a_piece_and_of_the_stage_wears_them_and_takes_them_away
    edit("do" => "place", "kind" => "goal")
    edit("do" => "set", "piece" => "goal1", "values" => {"goal_colour" => "#123456"})
    sent(here("looks"), {"name" => "  Deep <b>blue</b> ", "piece" => "goal1"})
    stage = sent(here("looks"), {"name" => "All of it"})["id"]
    assert_equal "A look of your own has a name.", sent(here("looks"), {"name" => "  "})["error"]
    assert_equal [["Deep <b>blue</b>", "#123456"]], own_looks("?piece=goal1").map { |look| [look["name"], look["set"]["goal_colour"]] }
    assert_empty own_looks("?piece=chat1")
    all = own_looks.first
    assert_equal ["All of it", %w[text1 chat1 goal1]], [all["name"], all["pieces"].map { |piece| piece["style"]["id"] }]
    edit("do" => "set", "piece" => "goal1", "values" => {"goal_colour" => "#654321"})
    edit("do" => "dress", "set" => all["set"])
    assert_equal "#123456", draft["pieces"].find { |piece| piece["id"] == "goal1" }["goal_colour"]
    sent("/stage/looks/#{stage}/remove")
    assert_empty own_looks
    sent("/stage/looks/#{stage}/put-back")
    assert_equal ["All of it"], own_looks.map { |look| look["name"] }
    sent("/stage/looks/#{stage}/remove")
    assert_equal 404, last_response.status
  end

  def test_the_looks_are_told_each_with_what_it_draws
    get here("looks?piece=chat1&form=bright")
    looks = answer["looks"]
    assert_equal Bavard::Core::Pieces::Outfit.shipped.keys, looks.map { |look| look["key"] }
    assert(looks.all? { |look| look["set"] && look["pieces"].size == 1 && look["pieces"].first["cards"].size == 4 })
    faces = looks.map { |look| look["pieces"].first["style"]["css"]["--text-face"] }
    assert_operator faces.uniq.size, :>, 3
  end

  # The very pieces of the stage, each in what a press would put on it, with something in it.
  def test_outfits_are_told_with_the_stages_own_pieces
    edit("do" => "place", "kind" => "alerts", "values" => {"kinds" => ["follow"]})
    edit("do" => "place", "kind" => "goal")
    get here("looks")
    assert_equal [0, 0, 1920, 1080], answer["box"]
    draft["pieces"].reject { |piece| piece["kind"] == "space" }.map { |piece| piece["id"] }
      .then { |ids| assert_equal [ids] * 8, answer["looks"].map { |look| look["pieces"].map { |piece| piece["style"]["id"] } } }
    alert = answer["looks"].first["pieces"].find { |piece| piece["style"]["kind"] == "alerts" }
    assert_equal ["alert", "follow"], [alert["sample"][0], alert["sample"][1]["k"]]
    before = draft
    get here("looks?piece=goal1")
    assert_equal [["goal1"]] * 8, answer["looks"].map { |look| look["pieces"].map { |piece| piece["style"]["id"] } }
    assert_equal before, draft
    get here("looks?piece=nobody7")
    assert_equal 422, last_response.status
  end

  def test_sizes_that_cannot_be_make_no_stage
    before = db[:stages].count
    [{"width" => "0"}, {"height" => "1000000"}, {"frame_rate" => "x"}, {"layout" => "pyramid"}].each do |values|
      post_form("/stage/", values)
      assert_equal 422, last_response.status, values.inspect
    end
    assert_equal before, db[:stages].count
  end

  def test_two_pages_that_edit_at_once_keep_both_edits
    edit("do" => "set", "piece" => "chat1", "values" => {"text_size_px" => 40})
    edit("do" => "set", "piece" => "chat1", "values" => {"plate_opacity" => 11})
    assert_equal [40, 11], draft["pieces"].find { |piece| piece["id"] == "chat1" }.values_at("text_size_px", "plate_opacity")
  end

  def test_a_whole_document_is_no_edit
    [{"do" => "replace", "document" => {}}, {"do" => "many", "edits" => [{"do" => "replace", "document" => {}}]}].each do |given|
      edit(given)
      assert_equal 422, last_response.status
    end
    assert_equal 3, draft["pieces"].size
  end

  def test_a_picture_is_made_anew_and_stands_on_the_stage
    post_form(here("files"), "kind" => "picture", "file" => picture("logo.png"))
    id = answer.dig("file", "id")
    edit("do" => "add", "kind" => "picture", "values" => {"pictures" => [{"file" => id, "seconds" => 4}]})
    assert_equal 200, last_response.status
    get "/pictures/#{id}-4.webp"
    assert_equal 200, last_response.status
    assert_equal [["picture", id]], db[:files].select_map(%i[kind id])
  end

  def test_what_is_no_picture_or_film_is_refused_with_the_reason
    path = File.join(Dir.mktmpdir, "film.mp4")
    File.binwrite(path, "no film at all")
    {"picture" => "no PNG", "film" => "no WebM, MP4 or Ogg film", "song" => "pictures, films, sounds and fonts", "font" => "no TTF, OTF or WOFF2"}.each do |kind, words|
      post_form(here("files"), "kind" => kind, "file" => Rack::Test::UploadedFile.new(path, "video/mp4"))
      assert_equal 422, last_response.status, kind
      assert_includes answer["error"], words
    end
    assert_equal 0, db[:files].count
  end

  def test_a_face_of_the_hosts_own_is_made_anew_used_and_measured_with
    path = File.expand_path("../../assets/vendor/fonts/fraunces-latin-wght-normal.woff2", __dir__)
    post_form(here("files"), "kind" => "font", "file" => Rack::Test::UploadedFile.new(path, "font/woff2"))
    id = answer.dig("file", "id")
    edit("do" => "set", "piece" => "chat1", "values" => {"text_face" => "file:#{id}"})
    assert_equal 200, last_response.status
    get "/fonts/#{id}.woff2"
    assert_equal "wOF2", last_response.body[0, 4]
    own = @site.type_case.width("own-#{id}", 500, "reed warbler")
    assert_in_delta @site.type_case.width("Fraunces", 500, "reed warbler"), own, 0.001
    refute_in_delta @site.type_case.width("Anton", 400, "reed warbler"), own, 0.1
  end

  def test_legibility_is_measured_over_the_hosts_own_picture_and_made_better_in_one_step
    post_form(here("files"), "kind" => "backdrop", "file" => picture("studio.png"))
    post_form(here("backdrop"), "backdrop" => "file:#{answer.dig("file", "id")}")
    edit("do" => "set", "piece" => "chat1", "values" => {"plate_for" => "none"})
    get here("measures?piece=chat1")
    assert_equal ["poor", "studio.png"], answer["legibility"].values_at("word", "over")
    way = answer.dig("legibility", "ways").first
    edit("do" => "set", "piece" => "chat1", "values" => way["values"])
    get here("measures?piece=chat1")
    assert_equal "good", answer.dig("legibility", "word")
  end

  def test_pace_is_measured_for_chat_and_nothing_is_measured_for_a_space
    get here("measures?piece=chat1")
    assert_kind_of Integer, answer.dig("pace", "fits")
    get here("measures?piece=space1")
    assert_equal({"legibility" => nil, "pace" => nil, "room" => nil, "wrong" => [], "goal" => nil}, answer)
    get here("measures?piece=gone9")
    assert_equal 422, last_response.status
  end

  def test_a_copy_with_its_files_comes_back_the_same
    post_form(here("files"), "kind" => "picture", "file" => picture("logo.png"))
    edit("do" => "add", "kind" => "picture", "values" => {"pictures" => [{"file" => answer.dig("file", "id"), "seconds" => 4}]})
    get here("copy?what=stage&as=zip")
    copy = File.join(Dir.mktmpdir, "copy.zip")
    File.binwrite(copy, last_response.body)
    db[:files].delete
    post_form(here("copy-in/tell"), "file" => Rack::Test::UploadedFile.new(copy))
    assert_equal ["stage", []], answer.values_at("kind", "missing")
    post_form(here("copy-in"), "file" => Rack::Test::UploadedFile.new(copy), "into" => "new")
    assert_equal 200, last_response.status
    assert_equal 1, db[:files].count
    kept = db[:stages].order(:id).last[:draft]
    assert_equal draft["pieces"].map { |piece| piece.except("pictures") }, kept["pieces"].map { |piece| piece.to_h.except("pictures") }
  end

  def test_what_is_missing_is_told_before_anything_is_done
    edit("do" => "add", "kind" => "picture", "values" => {"pictures" => [{"file" => "0" * 32, "seconds" => 4}]})
    edit("do" => "set", "piece" => "text1", "values" => {"text_face" => "installed:Marsh Grotesk"})
    get here("copy?what=stage&as=json")
    post_form(here("copy-in/tell"), "text" => last_response.body)
    assert_equal 2, answer["missing"].size
    assert_includes answer["missing"].last, "Marsh Grotesk"
  end

  def test_all_stages_are_copied_and_taken_in_as_more
    gate = @shows.running.first.record.gate
    copy = JSON.parse(get(here("copy?what=show&as=json")).body)
    copy["gate"]["sets"][0]["name"] = "From elsewhere"
    post_form(here("copy-in"), "text" => JSON.generate(copy))
    assert_equal [2, gate], [db[:stages].count, @shows.running.first.record.gate]
    post_form(here("copy-in"), "text" => JSON.generate(copy), "into" => "all")
    assert_equal "From elsewhere", @shows.running.first.record.gate.dig("sets", 0, "name")
    post_form(here("copy-in"), "text" => JSON.generate(copy.merge("gate" => {"sets" => [7]})))
    assert_equal 422, last_response.status
  end

  def test_a_look_is_copied_as_text
    edit("do" => "set", "piece" => "chat1", "values" => {"plate_opacity" => 13})
    copy = get(here("copy?what=look&as=json&piece=chat1")).body
    edit("do" => "set", "piece" => "chat1", "values" => {"plate_opacity" => 99})
    post_form(here("copy-in/tell"), "text" => copy, "piece" => "chat1")
    assert_equal ["Chat: plate opacity 99 % → 13 %"], answer["changes"]
    post_form(here("copy-in"), "text" => copy, "piece" => "chat1")
    assert_equal 13, draft["pieces"].last["plate_opacity"]
  end

  def test_copies_that_do_not_fit_are_refused_and_nothing_is_lost
    good = JSON.parse(get(here("copy?what=stage&as=json")).body)
    before = draft
    ["", "{", "[]", "7", '"x"', "PK\x03\x04nonsense", JSON.generate(good.merge("format" => "other")), JSON.generate(good.merge("pieces" => 7)),
      JSON.generate(good.merge("width" => 0)), JSON.generate(good.merge("house" => [])), JSON.generate(good.merge("pieces" => [{"kind" => "chat"}])),
      JSON.generate(good.merge("pieces" => good["pieces"] * 2)), JSON.generate(good.merge("pieces" => [good["pieces"][0].merge("wobble" => 1)])),
      "[" * 5000].each do |text|
      post_form(here("copy-in"), "text" => text)
      assert_equal 422, last_response.status, text[0, 40]
      refute_empty answer["error"]
    end
    assert_equal before, draft
  end

  def test_a_now_line_is_set_by_its_address_and_by_nobody_without_the_key
    edit("do" => "add", "kind" => "now_line", "values" => {"source" => "address"})
    get here("pieces/now_line1/address")
    address = URI(answer["address"]).path
    post address, "In the net: a reed warbler", {"CONTENT_TYPE" => "text/plain"}
    assert_equal 202, last_response.status
    assert_equal "In the net: a reed warbler", @shows.running.first.ask { |show| show.desk(@stage[:id]).live.text_of("now_line1") }
    post address.sub(/.\z/) { |letter| letter == "0" ? "1" : "0" }, "mine", {"CONTENT_TYPE" => "text/plain"}
    assert_equal 404, last_response.status
    get address
    assert_equal 405, last_response.status
    edit("do" => "set", "piece" => "now_line1", "values" => {"source" => "hand"})
    post address, "late", {"CONTENT_TYPE" => "text/plain"}
    assert_equal 422, last_response.status
  end

  def test_a_stage_that_is_taken_away_has_no_link_until_it_is_put_back
    token = stores.stages.find(@stage[:id]).token
    get "/air/#{token}"
    assert_equal 200, last_response.status
    post_form(here("remove"))
    get "/air/#{token}"
    assert_equal 404, last_response.status
    post_form(here("put-back"))
    get "/air/#{token}"
    assert_equal 200, last_response.status
  end

  def test_stages_stand_in_the_order_they_are_put_in
    post_form("/stage/", "name" => "Second")
    ids = db[:stages].order(:id).select_map(:id)
    post_form("/stage/order", "ids" => ids.reverse.join(","))
    wait_for("the order to be kept") { stores.stages.of_show(db[:shows].get(:id)).map(&:id) == ids.reverse }
    post_form("/stage/order", "ids" => ids.first.to_s)
    assert_equal 422, last_response.status
  end
end
