# frozen_string_literal: true

require "minitest/autorun"
require "semantic_logger"
require "tmpdir"
require_relative "../../lib/bavard/live/show/house"
require_relative "../../lib/bavard/live/pictures/imports"
require_relative "../../lib/bavard/live/journal/journal"
require_relative "../../lib/bavard/live/lines/line_ids"
require_relative "../../lib/bavard/live/show/meters"
require_relative "../../lib/bavard/live/pictures/picture_desk"
require_relative "../../lib/bavard/live/rehearsal/rehearsal"
require_relative "../../lib/bavard/live/show/shows"
require_relative "../../lib/bavard/pictures/cabinet"
require_relative "../../lib/bavard/pictures/fetcher"
require_relative "../../lib/bavard/pictures/workshop"
require_relative "../../lib/bavard/store/cast"
require_relative "../../lib/bavard/store/ceilings"
require_relative "../../lib/bavard/store/dress"
require_relative "../../lib/bavard/store/deeds"
require_relative "../../lib/bavard/store/feeds"
require_relative "../../lib/bavard/store/fellows"
require_relative "../../lib/bavard/store/left_out"
require_relative "../../lib/bavard/store/members"
require_relative "../../lib/bavard/store/people"
require_relative "../../lib/bavard/store/lease"
require_relative "../../lib/bavard/store/lines"
require_relative "../../lib/bavard/store/secret_box"
require_relative "../../lib/bavard/store/shows"
require_relative "../../lib/bavard/store/files"
require_relative "../../lib/bavard/store/stages"
require_relative "../../lib/bavard/store/tallies"
require_relative "test_database"
require_relative "wait"

# A test with running shows in this process, a clock of its own, and a relay that only remembers.
class HouseTest < Minitest::Test
  include Wait

  # Remembers the frames that would go to screens, by topic.
  class Remembering
    attr_reader :whispers

    def initialize
      @frames = Hash.new { |hash, name| hash[name] = [] }
      @whispers = []
    end

    def whisper(_topic, id, text) = @whispers << [id, JSON.parse(text)["only"]]
    def deliver(topic, frame) = @frames[topic.name] << JSON.parse(frame)
    def cut_where = nil
    def close(topic) = @frames[topic.name] << {"closed" => true}
    def frames(name) = @frames[name].dup
  end

  # Stands still until it is moved.
  class StillClock
    attr_accessor :now_ms

    def initialize = @now_ms = 1_795_499_520_000
    def call = now_ms
    def offset_ms = 0
  end

  # The same for all tests of a process: what makes pictures takes longer to begin than a picture takes.
  class KeptWorkshop < Bavard::Pictures::Workshop
    def self.here = @here ||= new

    def stop = nil
  end

  attr_reader :house, :clock, :hub, :journal

  def setup
    TestDatabase.db
    TestDatabase.clean
    @clock = StillClock.new
    build_house
  end

  def teardown
    @imports.stop_all
    @shows&.stop
    @pictures.stop
    journal.stop
    @lease&.close
  end

  def db = TestDatabase.db
  def lease = @lease ||= Bavard::Store::Lease.new(TestDatabase.url)

  def build_house
    lines = Bavard::Store::Lines.new(db)
    log = SemanticLogger["test"]
    @hub = Remembering.new
    box = Bavard::Store::SecretBox.new("k" * 32)
    permissions = Bavard::Store::Permissions.new(db, box)
    feeds = Bavard::Store::Feeds.new(db, box, permissions)
    stores = {shows: Bavard::Store::Shows.new(db), stages: Bavard::Store::Stages.new(db, box), left_out: Bavard::Store::LeftOut.new(db), deeds: Bavard::Store::Deeds.new(db)}
    deeds = Bavard::Store::DeedWriting.new(feeds:, lines:, **stores)
    @journal = Bavard::Live::Journal.new(Bavard::Store::LogWriting.new(lines, feeds:, people: Bavard::Store::People.new(db)), deeds:, log:).start
    dress = Bavard::Store::Dress.new(db)
    @house = Bavard::Live::House.new(
      platforms: platforms, permissions:, dress:, pictures: @pictures = pictures(dress, log),
      fetcher:, door:, imports: @imports = Bavard::Live::Imports.new(pictures_folder, store: dress, clock:, log:),
      known: Bavard::Store::People.new(db), team: Bavard::Store::Members.new(db, box),
      **stores, feeds:, files: Bavard::Store::Files.new(db), ceilings: Bavard::Store::Ceilings.new(db, ceilings), lines:, hub:, journal:, ids: Bavard::Live::LineIds.new(lines.last_id), clock:, log:,
      meters: Bavard::Live::Meters.new, boot: "boot", people: {},
      scripts: Bavard::Live::Script.all(File.expand_path("../../demo/scripts", __dir__), {}),
      cast: Bavard::Store::Cast.new(db), conversations: {}, tallies: Bavard::Store::Tallies.new(db), fellows: Bavard::Store::Fellows.new(db)
    )
  end

  def pictures_folder = @pictures_folder ||= Dir.mktmpdir("pictures")

  def door = @door ||= Bavard::Outward::Door.new(inside: [*inside, *platforms.values.flat_map(&:authorities)])

  def fetcher = @fetcher ||= Bavard::Pictures::Fetcher.new(door:)

  def cabinet = Bavard::Pictures::Cabinet.new(pictures_folder)

  def pictures(store, log)
    Bavard::Live::PictureDesk.new(fetcher:, workshop: KeptWorkshop.here,
      cabinet:, store:, clock:, log:).start
  end

  # What a show may have, where that is other than usual.
  def ceilings = {}

  # What the operator lists: the servers of this process.
  def inside = ["127.0.0.1"]

  # Platforms by key, for tests that know some.
  def platforms = {}

  # @return [Bavard::Store::Shows::Show] a show with one feed that is off and one stage
  def make_show(document: Bavard::Core::Stage::Document.empty, on_air: false)
    account_id = db[:accounts].insert(email: "host#{rand(10**9)}@reedmere.example", password_hash: "none")
    show = house.shows.create(account_id, name: "Test", host_name: "Odalys")
    @feed = house.feeds.create(show.id, kind: "irc", name: "Test", shape: "circle", colour: "#5fb8d6",
      address: {"host" => "127.0.0.1", "port" => 1, "tls" => false, "channel" => "#x", "nick" => nil}, password: "marsh")
    house.feeds.keep(@feed.id, wanted: false)
    @stage = house.stages.create(show.id, name: "Main", document:)
    house.stages.put_on_air(@stage.id, 1, document, clock.call) if on_air
    show
  end

  def with_chat(**values)
    piece = Bavard::Core::Pieces::ChatPiece.build("chat1", {"stay_ms" => 10_000}.merge(values.transform_keys(&:to_s)))
    Bavard::Core::Stage::Document.empty.merge("pieces" => [piece])
  end

  # Waits until all that was put into the journal is in the database.
  def until_written
    wait_for("the journal to be written") { journal.waiting.zero? }
  end

  # With a clock that goes.
  def build_house_with(clock)
    journal.stop
    build_house
    house.clock = clock
  end

  # A show whose feed reads from a server in this process, and which is on air.
  def make_show_on(server)
    record = make_show(document: with_chat, on_air: true)
    house.feeds.keep(@feed.id, wanted: true,
      address: {"host" => "127.0.0.1", "port" => server.port, "tls" => false, "channel" => "#reedmere", "nick" => nil})
    record
  end
end
