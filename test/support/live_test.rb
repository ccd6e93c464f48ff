# frozen_string_literal: true

require "minitest/autorun"
require "semantic_logger"
require "tmpdir"
require_relative "../../lib/bavard/live/show/means"
require_relative "../../lib/bavard/live/pictures/imports"
require_relative "../../lib/bavard/live/journal/disk"
require_relative "../../lib/bavard/live/journal/journal"
require_relative "../../lib/bavard/live/lines/line_ids"
require_relative "../../lib/bavard/live/show/meters"
require_relative "../../lib/bavard/live/pictures/picture_desk"
require_relative "../../lib/bavard/live/rehearsal/rehearsal"
require_relative "../../lib/bavard/live/show/shows"
require_relative "../../lib/bavard/pictures/cabinet"
require_relative "../../lib/bavard/pictures/fetcher"
require_relative "../../lib/bavard/pictures/workshop"
require_relative "../../lib/bavard/store/lease"
require_relative "../../lib/bavard/store/secret_box"
require_relative "../../lib/bavard/store/stores"
require_relative "test_database"
require_relative "wait"

# A test with running shows in this process, a clock of its own, and a relay that only remembers.
class LiveTest < Minitest::Test
  include Wait

  # Remembers the frames that would go to screens, by topic.
  class Remembering
    attr_reader :whispers, :sizes

    def initialize
      @sizes = Hash.new(0)
      @frames = Hash.new { |hash, name| hash[name] = [] }
      @whispers = []
    end

    def whisper(_topic, id, text) = @whispers << [id, JSON.parse(text)["only"]]
    def deliver(topic, frame) = @frames[topic.name] << JSON.parse(frame)
    def size(topic) = sizes[topic.name]
    def pages = sizes.values.sum
    def behind = 0
    def relayed = 0
    def there? = true
    def delivered = @frames.each_value.sum(&:size)
    def cuts = 0
    def cut_where(**) = nil
    def let_go_where(&chosen) = (@let_go_where ||= []) << chosen
    # @return [Boolean] whether somebody of whom that is known was let go
    def let_go?(**env) = (@let_go_where || []).any? { |chosen| chosen.call(env.transform_keys { |key| "bavard.#{key}" }) }
    def came_from(_place, _topic) = nil
    def let_go(topic) = @frames[topic.name] << {"let_go" => true}
    def close(topic) = @frames[topic.name] << {"closed" => true}
    def frames(name) = @frames[name].dup
  end

  # Stands still until it is moved.
  class StillClock
    attr_accessor :now_ms, :mark

    def initialize = @now_ms = 1_795_499_520_000
    def call = now_ms
    def offset_ms = 0
    def ahead_of(earlier) = earlier && mark ? mark["ahead_ms"] - earlier["ahead_ms"] : 0
  end

  # The same for all tests of a process: what makes pictures takes longer to begin than a picture takes.
  class KeptWorkshop < Bavard::Pictures::Workshop
    def self.here = @here ||= new

    def stop = nil
  end

  attr_reader :clock, :hub, :imports, :journal, :means, :stores

  def setup
    TestDatabase.db
    TestDatabase.clean
    @clock = StillClock.new
    make_means
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

  def make_means
    log = SemanticLogger["test"]
    @hub = Remembering.new
    @stores = Bavard::Store::Stores.over(db, Bavard::Store::SecretBox.new("k" * 32), ceilings)
    @journal = Bavard::Live::Journal.new(stores.log_writing, deeds: stores.deed_writing, log:).start
    @imports = Bavard::Live::Imports.new(pictures_folder, store: stores.dress, clock:, log:)
    @means = Bavard::Live::Means.new(stores:, platforms:, pictures: @pictures = pictures(stores.dress, log), door:, hub:, journal:, disk:,
      ids: Bavard::Live::LineIds.new(stores.lines.last_id), clock:, log:, meters: Bavard::Live::Meters.new, conversations: {})
  end

  def scripts = @scripts ||= Bavard::Live::Script.all(File.expand_path("../../demo/scripts", __dir__), {})

  def pictures_folder = @pictures_folder ||= Dir.mktmpdir("pictures")

  def disk = @disk ||= Bavard::Live::Disk.new(-> { @free_kb || Bavard::Live::Disk::LOW_KB }).tap(&:look)

  # So much is left on it from now on.
  def left_on_disk(free_kb)
    @free_kb = free_kb
    disk.look
  end

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
    show = stores.shows.create(account_id, name: "Test", host_name: "Odalys")
    @feed = stores.feeds.create(show.id, kind: "irc", name: "Test", shape: "circle", colour: "#5fb8d6",
      address: {"host" => "127.0.0.1", "port" => 1, "tls" => false, "channel" => "#x", "nick" => nil}, password: "marsh")
    stores.feeds.keep(@feed.id, wanted: false)
    @stage = stores.stages.create(show.id, name: "Main", document:)
    stores.stages.put_on_air(@stage.id, 1, document, clock.call) if on_air
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
  def make_means_with(clock)
    journal.stop
    make_means
    means.clock = clock
  end

  # A show whose feed reads from a server in this process, and which is on air.
  def make_show_on(server)
    record = make_show(document: with_chat, on_air: true)
    stores.feeds.keep(@feed.id, wanted: true,
      address: {"host" => "127.0.0.1", "port" => server.port, "tls" => false, "channel" => "#reedmere", "nick" => nil})
    record
  end
end
