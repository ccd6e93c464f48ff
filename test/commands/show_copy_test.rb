# frozen_string_literal: true

require "minitest/autorun"
require_relative "../support/lines"
require_relative "../support/test_database"
require_relative "../../lib/bavard/commands/admin"
require_relative "../../lib/bavard/core/gate/verdict"
require_relative "../../lib/bavard/store/secret_box"
require_relative "../../lib/bavard/store/stores"

# One show into one file, and out of it as the show of somebody else.
class ShowCopyTest < Minitest::Test
  ODALYS = "odalys@reedmere.example"
  TEO = "teo@reedmere.example"
  PICTURE = "0a" * 16
  SOUND = "0b" * 16
  OTHERS = "0c" * 16
  SECRET = "heronsecret"
  SIGNS_IN = /\A#{TEO} signs in with \w{20}\. 1 stage, 1 feed, 1 emote, 1 line new /
  HIDDEN = /lines|people|deeds|#{OTHERS}/
  # What belongs to a show and stays where it is: secrets, links, who helps, and where it runs.
  STAYS = %i[permissions members invitations prompter_links microphones show_places].freeze

  def setup
    TestDatabase.clean
    @folder = Dir.mktmpdir("bavard-copy")
    @data = Bavard::Start::DataFolder.new(@folder)
    @file = File.join(@folder, "show.tar.gz")
    run_with("make", ODALYS, "Dawn watch")
    @show = db[:shows].get(:id)
    fill
  end

  def teardown = FileUtils.rm_rf(@folder)

  def db = TestDatabase.db
  def run_with(*words) = Bavard::Commands::Admin.new(db, data: @data).run(words)
  def refused(*words) = assert_raises(Bavard::Error) { run_with(*words) }.message
  def stores = @stores ||= Bavard::Store::Stores.over(db, Bavard::Store::SecretBox.new("-" * 32))
  def of_teo(table, column = :show_id) = db[table].where(column => db[:shows].where(account_id: db[:accounts].where(email: TEO).select(:id)).select(:id))

  # Something of every kind; ids are not those that a new show would get.
  def fill
    7.times { stores.feeds.create(@show, kind: "irc", name: "gone", shape: "circle", colour: "#123456", address: {}).then { |feed| db[:feeds].where(id: feed.id).delete } }
    @description = db[:descriptions].insert(show_id: @show, text: "name: Lark", samples: Sequel.pg_jsonb([]), changed_at_ms: 1)
    @feed = db[:feeds].insert(show_id: @show, kind: "described", platform: "own.#{@description}", name: "Marsh", shape: "circle", colour: "#5fb8d6",
      address: Sequel.pg_jsonb({"room" => "marsh"}), secret: SECRET, wanted: true, cursor: Sequel.pg_jsonb({"at" => 5}))
    piece = Bavard::Core::Pieces.kind("chat").build("chat1", {"feeds" => [@feed.to_s, "999"]})
    @document = Bavard::Core::Stage::Document.empty.merge("pieces" => [piece])
    stage = stores.stages.create(@show, name: "Wide", document: @document)
    stores.stages.put_on_air(stage.id, 1, @document, 1)
    @token = stage.token
    db[:pictures].insert(id: PICTURE, width: 1, height: 2, frames: 1, made_at_ms: 1)
    shelf = db[:shelves].insert(show_id: @show, feed_id: @feed, name: "Birds", position: 0, off_feeds: Sequel.pg_jsonb([@feed]))
    db[:emotes].insert(shelf_id: shelf, code: ":wren:", picture_id: PICTURE)
    db[:emote_sets].insert(show_id: @show, feed_id: @feed, shelf_id: shelf, name: "a set", list: Sequel.pg_jsonb([]))
    db[:phrases].insert(show_id: @show, words: "good morning", picture_id: PICTURE)
    db[:badges].insert(feed_id: @feed, kind: "moderator", picture_id: PICTURE)
    db[:files].insert(show_id: @show, id: SOUND, kind: "sound", name: "Bell", bytes: 1, made_at_ms: 1)
    db[:fellows].insert(show_id: @show, key: "heron", name: "Heron_House", picture: PICTURE)
    db[:looks].insert(show_id: @show, name: "Dusk", document: Sequel.pg_jsonb({}))
    db[:cast_members].insert(show_id: @show, service: "hidewire", key: "1", name: "Sunniva", seen_at_ms: 1)
    db[:left_out].insert(show_id: @show, feed_id: @feed, name: "egg_thief", at_ms: 1)
    rules = stores.shows.find(@show).gate.then { |gate| gate.merge("sets" => gate["sets"].map { |set| set.merge("rules" => set["rules"].map { |rule| rule.merge("feeds" => [@feed.to_s]) }) }) }
    stores.shows.keep_gate(@show, rules)
    line = Lines.line(1_795_499_520_000_001, "good morning #{OTHERS}", login: "mudlark7", feed_id: @feed, platform_id: "m1")
    stores.lines.add(@show, [Bavard::Store::Lines::Entry.new(line, Bavard::Core::Gate::PASS, true, false, [["received", 1, nil]])])
    stores.deeds.add(@show, Bavard::Store::Deeds::Deed.new(id: 9, at_ms: 1, by: "Teo", what: "pull", about: "mudlark7", line_id: line.id, detail: {}))
    put("pictures/0a/#{PICTURE}-1.webp", "picture")
    put("sounds/#{SOUND}.ogg", "sound")
    put("pictures/0c/#{OTHERS}-1.webp", "another show's")
  end

  def put(path, bytes)
    FileUtils.mkdir_p(File.dirname(@data.path(path)))
    File.write(@data.path(path), bytes)
  end

  # As on another machine: nothing is there.
  def move_away
    TestDatabase.clean
    %w[pictures sounds].each { |folder| FileUtils.rm_rf(@data.path(folder)) }
  end

  # @return [String] a copy that is another one
  def changed(name, &block)
    Dir.mktmpdir do |folder|
      system("tar", "-xzf", @file, "-C", folder, exception: true)
      yield folder
      system("tar", "-czf", File.join(@folder, name), "-C", folder, ".", exception: true)
    end
    File.join(@folder, name)
  end

  def test_all_of_a_show_goes_to_another_place_and_belongs_to_somebody_there
    assert_match(/with what came in/, run_with("copy", @show.to_s, @file, "log"))
    move_away
    run_with("make", "first@reedmere.example")
    said = run_with("bring", @file, TEO)
    assert_match SIGNS_IN, said
    feed = of_teo(:feeds).first
    refute_equal @feed, feed[:id]
    assert_equal ["own.#{of_teo(:descriptions).get(:id)}", nil, false, nil], feed.values_at(:platform, :secret, :wanted, :cursor)
    stage = stores.stages.of_show(feed[:show_id]).first
    pieces = [stage.draft, stage.on_air].map { |document| document["pieces"].first["feeds"] }
    assert_equal [[feed[:id].to_s]] * 2, pieces, "a piece names feeds by their ids"
    shelf = of_teo(:shelves).first
    assert_equal [feed[:id], [feed[:id]]], [shelf[:feed_id], shelf[:off_feeds].to_a]
    assert_equal [[":wren:", PICTURE]], db[:emotes].where(shelf_id: shelf[:id]).select_map(%i[code picture_id])
    assert_equal [[feed[:id], shelf[:id]]], of_teo(:emote_sets).select_map(%i[feed_id shelf_id])
    assert_equal [[feed[:id].to_s]], of_teo(:shows, :id).get(:gate)["sets"].flat_map { |set| set["rules"].map { |rule| rule["feeds"].to_a } }.uniq
    assert_equal [1] * 8, %i[phrases files fellows looks cast_members left_out deeds lines].map { |table| of_teo(table).count }
    assert_equal %w[picture sound], ["pictures/0a/#{PICTURE}-1.webp", "sounds/#{SOUND}.ogg"].map { |path| File.read(@data.path(path)) }
    assert_equal [[1, 2]], db[:pictures].select_map(%i[width height])
    assert_equal ["Dawn watch", "good morning #{OTHERS}"], [of_teo(:shows, :id).get(:name), of_teo(:lines).get(:text)]
    assert_equal %w[bring make make], db[:operator_deeds].reverse(:id).select_map(:what)
  end

  # Whoever has it has no key to anything.
  def test_no_secret_no_link_and_nothing_that_others_wrote_is_in_it
    run_with("copy", @show.to_s, @file)
    assert_equal 0o600, File.stat(@file).mode & 0o777
    listed, = Open3.capture2("tar", "-tzf", @file)
    assert_includes listed, PICTURE
    refute_match HIDDEN, listed
    all, = Open3.capture2("tar", "-xzOf", @file)
    [SECRET, @token, "mudlark7", "argon2"].each { |word| refute_includes all, word }
    assert_match(/is there already/, refused("copy", @show.to_s, @file))
    assert_match(/no show 99/, refused("copy", "99", "#{@file}2"))
    refute_path_exists "#{@file}2"
  end

  def test_beside_the_show_that_it_was_made_of
    run_with("copy", @show.to_s, @file, "log")
    assert_match(/, 0 lines new to the log/, run_with("bring", @file, TEO))
    assert_equal [1, 1], [db[:lines].count, of_teo(:stages).count]
    refute_equal @token, stores.stages.of_show(of_teo(:stages).get(:show_id)).first.token
    assert_match(/has an account already/, refused("bring", @file, TEO))
  end

  # What is sent to the one never comes to the other, also where the first is gone.
  def test_an_address_that_things_are_sent_to_belongs_to_one_show
    made = Bavard::Feeds::Activities.read("name" => "A button")
    stores.feeds.create(@show, kind: "inbox", name: "A button", shape: "circle", colour: "#123456", address: made[:address].merge("expects_minutes" => 5),
      password: made[:password])
    token = made[:address]["token"]
    run_with("copy", @show.to_s, @file)
    refute_includes Open3.capture2("tar", "-xzOf", @file).first, token
    run_with("bring", @file, TEO)
    brought = of_teo(:feeds).first(kind: "inbox")
    refute_equal token, brought[:address]["token"]
    assert_equal [brought[:show_id], 5], [stores.feeds.show_of_inbox(brought[:address]["token"]), brought[:address]["expects_minutes"]]
    key = Bavard::Store::SecretBox.new(@data.feeds_key).open(brought[:secret])
    assert_equal made[:password].length, key.length
    refute_equal made[:password], key
    run_with("remove", ODALYS)
    assert_nil stores.feeds.show_of_inbox(token)
  end

  def test_what_is_no_copy_or_does_not_fit_changes_nothing
    run_with("copy", @show.to_s, @file)
    rows = ->(name, folder, &block) { File.join(folder, "rows", "#{name}.jsonl").then { |path| File.write(path, block.call(File.read(path))) } }
    bad = {
      "other.gz" => [/no copy of a show/, ->(folder) { File.write(File.join(folder, "show.json"), "{}") }],
      "newer.gz" => [/newer Bavard/, ->(folder) { File.join(folder, "show.json").then { |path| File.write(path, File.read(path).sub(/"schema":\d+/, '"schema":9999')) } }],
      "table.gz" => [/No table of a show is called accounts/, ->(folder) { File.join(folder, "show.json").then { |path| File.write(path, File.read(path).sub('"looks"', '"accounts"')) } }],
      "half.gz" => [/not whole/, ->(folder) { File.delete(File.join(folder, "rows", "stages.jsonl")) }],
      "stage.gz" => [/does not fit its format/, ->(folder) { rows.call("stages", folder) { |text| text.sub('"pieces": [{', '"pieces": [{"kind": "exe"}, {').sub('"pieces":[{', '"pieces":[{"kind":"exe"},{') } }],
      "gate.gz" => [/not a set of rules/, ->(folder) { File.join(folder, "show.json").then { |path| File.write(path, File.read(path).sub('\\"sets\\": [', '\\"sets\\": [7, ')) } }],
      "json.gz" => [/does not fit/, ->(folder) { rows.call("feeds", folder) { |text| text[0, 40] } }]
    }
    before = db[:accounts].count
    bad.each do |name, (words, change)|
      assert_match words, refused("bring", changed(name, &change), TEO), name
      assert_equal [before, 0], [db[:accounts].count, of_teo(:feeds).count], name
    end
    File.write(File.join(@folder, "x.gz"), "nothing")
    assert_match(/tar said/, refused("bring", File.join(@folder, "x.gz"), TEO))
  end

  # Files go where ours lie, by names as ours have, or nowhere.
  def test_files_that_are_none_of_ours
    run_with("copy", @show.to_s, @file)
    secret = File.join(@folder, "secret")
    File.write(secret, "keys")
    name = "0d" * 16
    hostile = changed("hostile.gz") do |folder|
      pictures = File.join(folder, "files", "pictures")
      File.symlink(secret, File.join(pictures, "#{name}-1.webp"))
      File.write(File.join(pictures, "feeds.key"), "mine")
      FileUtils.mkdir_p(File.join(folder, "files", "log"))
      File.write(File.join(folder, "files", "log", "#{name}-1.webp"), "mine")
      File.write(File.join(pictures, "0a", "#{PICTURE}-1.webp"), "another one")
      File.write(File.join(folder, "pictures.json"), JSON.generate(db[:pictures].all.flat_map { |row| [row, row.merge(id: "../../feeds")] }))
      File.join(folder, "rows", "files.jsonl").then { |path| File.write(path, File.read(path).sub(SOUND, "../../feeds")) }
    end
    run_with("bring", hostile, TEO)
    assert_equal "picture", File.read(@data.path("pictures/0a/#{PICTURE}-1.webp")), "what is there stays"
    ["pictures/#{name}-1.webp", "pictures/feeds.key", "log/#{name}-1.webp"].each { |path| refute_path_exists @data.path(path) }
    assert_equal [[PICTURE], []], [db[:pictures].select_map(:id), of_teo(:files).select_map(:id)]
  end

  # What is added later is either taken along, or named here.
  def test_no_table_of_a_show_is_forgotten
    names = db.fetch("SELECT conrelid::regclass::text AS name, confrelid::regclass::text AS of FROM pg_constraint WHERE contype = 'f'").map { |row| row.values_at(:name, :of) }
    known = ["shows"]
    known.each { |of| known.concat(names.select { |_, other| other == of }.map(&:first) - known) }
    shows = Bavard::Store::WholeShow.new(db)
    assert_equal (known - ["shows"]).map(&:to_sym).sort, (shows.tables(true) + STAYS).sort
  end
end
