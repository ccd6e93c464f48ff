# frozen_string_literal: true

require_relative "../../support/live_test"
require_relative "../../../lib/bavard/live/pictures/collector"
require_relative "../../../lib/bavard/store/spoken_of"

# What nothing speaks of goes, and nothing else.
class CollectorTest < LiveTest
  DAYS = 86_400

  def setup
    super
    @record = make_show(document: Bavard::Core::Stage::Document.empty, on_air: true)
    @root = Dir.mktmpdir("collected")
    @folders = %w[pictures films sounds faces].map { |name| File.join(@root, name) }
  end

  def id_of(letter) = letter * 32

  def put(path, age_s: 2 * DAYS)
    file = File.join(@root, path)
    FileUtils.mkdir_p(File.dirname(file))
    File.write(file, "1234567890")
    File.utime(Time.now - age_s, Time.now - age_s, file)
    file
  end

  def collect = Bavard::Live::Collector.new(@folders, Bavard::Store::SpokenOf.new(db), stores.accounts.deeds, logger: nil).collect
  def there?(path) = File.exist?(File.join(@root, path))
  def picture(id) = db[:pictures].insert(id:, width: 1, height: 1, frames: 1, made_at_ms: 1)

  def test_what_is_spoken_of_nowhere_goes_with_all_its_sizes
    %W[pictures/aa/#{id_of("a")}-1.webp pictures/aa/#{id_of("a")}-still.webp films/#{id_of("b")}.webm sounds/#{id_of("c")}.ogg faces/#{id_of("d")}.woff2
      faces/own-#{id_of("d")}.ttf].each { |path| put(path) }
    picture(id_of("a"))
    assert_equal [6, 60], collect.to_a
    assert_equal 0, db[:pictures].count
    assert_empty Dir.glob("#{@root}/**/*").select { |path| File.file?(path) }
    assert_equal ["collect", "bavard", "6 files, 0.0 MB"], stores.accounts.deeds.latest.first.to_h.values_at(:what, :by, :about)
    assert_equal [0, 0], collect.to_a
  end

  # Each in the place where something speaks of it.
  def test_what_is_spoken_of_anywhere_stays
    picture(id_of("1"))
    shelf = db[:shelves].insert(show_id: @record.id, name: "Shelf", position: 1)
    db[:emotes].insert(shelf_id: shelf, code: ":a:", picture_id: id_of("1"))
    db[:files].insert(show_id: @record.id, id: id_of("2"), kind: "sound", name: "Bell", bytes: 1, made_at_ms: 1)
    db[:revisions].insert(stage_id: @stage.id, number: 99, document: Sequel.pg_jsonb({"pieces" => [{"picture" => id_of("3")}]}), made_at_ms: 1)
    stores.shows.keep_cues(@record.id, @record.cues.merge("cues" => @record.cues["cues"].map { |cue| cue.merge("picture" => id_of("4")) }))
    db[:looks].insert(show_id: @record.id, name: "Look", document: Sequel.pg_jsonb({"face" => "own:#{id_of("5")}"}))
    paths = (1..5).map { |number| put("pictures/#{number}#{number}/#{id_of(number.to_s)}-1.webp") }
    assert_equal 0, collect.files
    assert_equal paths, paths.select { |path| File.exist?(path) }
  end

  def test_what_is_young_what_ships_and_what_is_called_otherwise_stays
    put("pictures/aa/#{id_of("a")}-1.webp", age_s: 60)
    put("pictures/aa/#{id_of("a")}-2.webp")
    put("pictures/bb/#{id_of("b")}.grid")
    put("faces/Atkinson.ttf")
    put("sounds/#{"c" * 31}.ogg")
    assert_equal 0, collect.files
    assert_equal 5, Dir.glob("#{@root}/**/*").count { |path| File.file?(path) }
  end

  def test_what_was_an_accounts_goes_when_that_is_removed
    db[:files].insert(show_id: @record.id, id: id_of("e"), kind: "sound", name: "Bell", bytes: 1, made_at_ms: 1)
    put("sounds/#{id_of("e")}.ogg")
    assert_equal 0, collect.files
    stores.accounts.remove(@record.account_id, by: "test")
    assert_equal 1, collect.files
  end

  # A folder that is not there yet, and files that go while they are looked at.
  def test_nothing_there_is_no_trouble
    assert_equal [0, 0], collect.to_a
  end
end
