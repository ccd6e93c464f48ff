# frozen_string_literal: true

require_relative "../support/web_test"
require_relative "../support/drawings"

# What one account makes without end, so that the machine is full: every ceiling is met by the way a host meets it.
class CeilingsTest < WebTest
  MOST = {"feeds" => 1, "stages" => 2, "shelves" => 1, "emotes" => 1, "phrases" => 1, "files" => 2, "megabytes" => 1, "links" => 1, "invitations" => 1, "screens" => 2,
          "pieces" => 2, "rules" => 9, "cues" => 14}.freeze

  def ceilings = MOST

  def setup
    super
    sign_up
  end

  def refused(what, answer) = assert_match(/\AA show may have #{MOST.fetch(what)} .*no room for more/, answer["error"], answer.inspect)
  def taken(answer) = refute(answer["error"], answer.inspect)

  def png(width) = Rack::Test::UploadedFile.new(StringIO.new(Drawings.png(width, 9)), "image/png", true, original_filename: "p#{width}.png")

  def test_feeds_made_and_taken_away_and_put_back
    add = -> { send_form("/feeds/", "kind" => "inbox", "name" => "In") }
    taken(add.call)
    refused("feeds", add.call)
    feed = remove_feed
    taken(add.call)
    refused("feeds", send_form("/feeds/#{feed.id}/put-back"))
    # What is taken away can be put back, but not without end.
    2.times do
      remove_feed
      taken(add.call)
    end
    remove_feed
    refused("feeds", add.call)
  end

  # Of a stage taken in as well, whole or in the place of another; what was there before the operator set less may stay and change.
  def test_pieces_on_a_stage
    send_form("/stage/", "name" => "Main")
    stage = stores.stages.of_show(@record.id).first
    edit = ->(given) { send_json("/stage/#{stage.id}/edits", given) }
    taken(edit.call({do: "add", kind: "chat"}))
    refused("pieces", edit.call({do: "many", edits: [{do: "add", kind: "text"}, {do: "add", kind: "text"}]}))
    taken(edit.call({do: "add", kind: "text"}))
    refused("pieces", edit.call({do: "add", kind: "text"}))
    assert_includes get("/stage/#{stage.id}").body, "2 of the 2 pieces on a stage that a show may have here"
    copy = get("/stage/#{stage.id}/copy?what=stage").body
    larger = JSON.parse(copy).tap { |read| read["pieces"] << read["pieces"].last.merge("id" => "text9") }
    %w[new this].each { |into| refused("pieces", send_form("/stage/#{stage.id}/copy-in", "text" => JSON.generate(larger), "into" => into)) }
    taken(send_form("/stage/#{stage.id}/copy-in", "text" => copy, "into" => "new"))
  end

  def test_rules_in_a_set
    state = -> { JSON.parse(get("/gate/state").body) }
    kept = lambda do |number|
      first, *, last = state.call["rules"]
      rules = [first, *(2..number).map { |index| last.merge("id" => "again#{index}") }]
      send_json("/gate/keep", {rules:, from: state.call["version"]})
    end
    taken(kept.call(9))
    refused("rules", kept.call(10))
    assert_includes get("/gate/").body, "9 of the 9 rules in a set"
    taken(send_json("/gate/brake", {kind: "off_picture", minutes: "5"}))
  end

  def test_cues
    there = JSON.parse(get("/dress/cues/sheet").body)["cues"]
    (14 - there.size).times { taken(send_form("/dress/cues/cues", "kind" => "follow")) }
    refused("cues", send_form("/dress/cues/cues", "kind" => "follow"))
    refused("cues", send_json("/dress/cues/put-back", {id: "cue_more", kind: "follow", name: "More"}))
    assert_includes get("/dress/cues/").body, "14 of the 14 cues that"
    taken(send_form("/dress/cues/cues/#{there.first["id"]}/remove"))
    taken(send_json("/dress/cues/put-back", there.first))
  end

  # Before anything is refused, whoever fills a ceiling is told of it where things are made.
  def test_what_is_nearly_full_is_told_where_more_of_it_is_made
    paths = {"/feeds" => "1 of the 1 feeds", "/people/" => "1 of the 1 invitations", "/dress" => "1 of the 1 shelves"}
    paths.each_key { |path| refute_includes get(path).body, "room-left" }
    taken(send_form("/feeds/", "kind" => "inbox", "name" => "In"))
    taken(send_form("/people/invite", "name" => "Teo", "role" => "reader"))
    taken(send_form("/dress/shelves", "name" => "One"))
    paths.each { |path, words| assert_includes get(path).body.gsub(/<[^>]*>/, ""), "#{words} that a show may have here. Whoever runs this Bavard sets how many." }
    assert_equal "1 of the 1 prompter links that a show may have here", send_json("/prompter/links", {name: "Panel"})["told"]
  end

  # The answer comes before it is kept.
  def remove_feed
    stores.feeds.of_show(@record.id).first.tap do |feed|
      send_form("/feeds/#{feed.id}/remove")
      wait_for("it to be taken away") { stores.feeds.of_show(@record.id).empty? }
    end
  end

  def test_stages_made_copied_and_put_back
    2.times { taken(send_form("/stage/", "name" => "More")) }
    refused("stages", send_form("/stage/", "name" => "Still more"))
    stage = stores.stages.of_show(@record.id).last
    refused("stages", send_form("/stage/#{stage.id}/copy"))
    taken(send_form("/stage/#{stage.id}/remove"))
    taken(send_form("/stage/", "name" => "Another"))
    refused("stages", send_form("/stage/#{stage.id}/put-back"))
  end

  # Each line looks there, on each shelf.
  def test_numbers_without_end_as_what_a_shelf_is_not_worn_on_or_as_its_place
    feed = send_form("/feeds/", "kind" => "inbox", "name" => "In")["id"]
    shelf = send_form("/dress/shelves", "name" => "One")["id"]
    numbers = [*1_000_000_000..1_000_002_000, feed, feed, shelf].join(",")
    taken(send_form("/dress/shelves/#{shelf}", "off_feeds" => numbers))
    assert_equal [feed], stores.dress.shelves(@record.id).first.shelf.off_feeds
    asked = StringIO.new
    db.loggers << Logger.new(asked)
    taken(send_form("/dress/shelves/order", "ids" => numbers))
    assert_equal 1, asked.string.scan("UPDATE \"shelves\"").size
  ensure
    db.loggers.clear
  end

  def test_a_shelf_that_was_taken_away_does_not_come_back_by_what_is_put_onto_it
    first = send_form("/dress/shelves", "name" => "One")["id"]
    taken(send_form("/dress/shelves/#{first}", "removed" => "1"))
    taken(send_form("/dress/shelves", "name" => "Two"))
    refused("shelves", send_form("/dress/shelves/#{first}", "removed" => "0"))
    send_form("/dress/shelves/#{first}/emotes", "code" => ":x:", "address" => "http://127.0.0.1/x.png")
    assert_equal 404, last_response.status
    send_form("/dress/shelves/upload", "files" => [png(8)], "shelf" => first.to_s)
    assert_equal 404, last_response.status
    assert_equal ["Two"], stores.dress.shelves(@record.id).map { |one| one.shelf.name }
  end

  def test_shelves_and_what_stands_on_them
    taken(send_form("/dress/shelves", "name" => "One"))
    refused("shelves", send_form("/dress/shelves", "name" => "Two"))
    shelf = stores.dress.shelves(@record.id).first.shelf.id
    import = send_form("/dress/shelves/upload", "files" => [png(8), png(9)], "shelf" => shelf.to_s)["import"]
    found = nil
    wait_for("it to be refused") { (found = imports.find(@record.id, import)).state == :refused }
    assert_match(/\AA show may have 1 emotes/, found.report[:words])
    assert_empty stores.dress.shelves(@record.id).first.shelf.emotes
  end

  def test_phrases
    stores.dress.picture(means.pictures.make(Drawings.png(8, 8), "emote", 1), 0)
    picture = db[:pictures].get(:id)
    taken(send_form("/dress/phrases", "words" => "reed warbler", "picture" => picture))
    refused("phrases", send_form("/dress/phrases", "words" => "marsh warbler", "picture" => picture))
  end

  def test_files_of_any_kind_and_their_bytes
    send_form("/stage/", "name" => "Main")
    stage = stores.stages.of_show(@record.id).first
    bring = ->(width) { send_form("/stage/#{stage.id}/files", "kind" => "picture", "file" => png(width)) }
    taken(bring.call(10))
    taken(send_form("/dress/fellows/", "name" => "Ines"))
    fellow = stores.fellows.of_show(@record.id).first
    taken(send_form("/dress/fellows/#{fellow.id}/picture", "file" => png(11)))
    refused("files", bring.call(12))
    refused("files", send_form("/dress/fellows/#{fellow.id}/picture", "file" => png(13)))
    db[:files].where(kind: "figure").delete
    db[:files].update(bytes: 1_000_000)
    refused("megabytes", bring.call(12))
  end

  def test_links_and_invitations
    link = ->(name) { send_json("/prompter/links", {name:, acts: false}) && JSON.parse(last_response.body) }
    taken(link.call("One"))
    refused("links", link.call("Two"))
    taken(send_form("/people/invite", "name" => "Teo", "role" => "moderator"))
    refused("invitations", send_form("/people/invite", "name" => "Bo", "role" => "moderator"))
  end

  # Counts the pages that follow.
  class Pages < Remembering
    def join(_io, _env, topic, **) = (@pages ||= []) << topic
    def size(topic) = @pages.to_a.count(topic)
  end

  def test_screens_of_one_link
    send_form("/stage/", "name" => "Main")
    token = stores.stages.of_show(@record.id).first.token
    means.hub = Pages.new
    sockets = Bavard::Web::LiveSockets.new(->(_) { flunk })
    env = {"SCRIPT_NAME" => "/air", "PATH_INFO" => "/#{token}/live", "QUERY_STRING" => "", "REQUEST_METHOD" => "GET", "HTTP_CONNECTION" => "Upgrade",
           "HTTP_UPGRADE" => "websocket", "bavard.site" => @site, "rack.hijack" => -> {}}
    assert_equal [-1, -1, 503, 503], Array.new(4) { sockets.call(env).first }
  end

  def test_what_an_operator_sets_is_read_or_refused_in_words
    assert_equal({"files" => 5, "screens" => 2}, Bavard::Store::Ceilings.read("files=5 screens=2"))
    assert_empty Bavard::Store::Ceilings.read(nil)
    error = assert_raises(Bavard::Error) { Bavard::Store::Ceilings.read("files=many") }
    assert_includes error.message, "files=many"
  end
end
