# frozen_string_literal: true

require_relative "../../lib/bavard/start/data_folder"
require_relative "../../lib/bavard/start/postgres"
require_relative "../../lib/bavard/store/members"
require_relative "../support/fire/faults"
require_relative "../support/fire/judge"
require_relative "../support/fire/over_relay"
require_relative "../support/fire/people"
require_relative "../support/fire/record"
require_relative "../support/fire/small_disk"
require_relative "../support/prepared"
require_relative "../support/proxy"
require_relative "../support/settable_clock"

# A broadcast on which everything goes wrong that can, one thing after another, while people write on three platforms, moderators pull
# and platforms delete, and a host edits and takes chat off the picture. Then an independent judge looks at the log and at every frame of
# every screen. Longer, with other seeds, and over a relay, by bin/fire.
class FireTest < PreparedTest
  prepend Fire::OverRelay if ENV["FIRE_RELAY"]

  SECONDS = Integer(ENV.fetch("FIRE_SECONDS", 60))
  SEED = Integer(ENV.fetch("FIRE_SEED", 1))
  RECORDER = File.read(File.expand_path("../support/fire/recorder.js", __dir__))
  BETWEEN_S = 0.5..3.0
  # What an hour and more of it takes, and a database of its own.
  DISK_MB = 320
  DISK_MB_PER_S = 0.3
  PATIENCE_S = 5
  # Screens that have a line of their own.
  BEHIND = %i[behind prompter].freeze
  SCREENS = [:straight, *BEHIND].freeze

  attr_reader :answer, :app, :clock, :database_line, :disk, :line, :postgres, :standins

  def teardown
    super
    SettableClock.tidy
    TestDatabase.use_own(nil)
  end

  def test_nothing_is_lost_doubled_or_painted_after_it_was_taken_away
    @record = Fire::Record.new
    begin_broadcast
    set_fire
    come_to_rest
    tell(judge = Fire::Judge.new(@record, logged, screens, hold_ms: hold_kept))
    wrong = %i[lost doubled early painted_after stale braked undone].to_h { |what| [what, judge.send(what)] }.merge(no_rest: [@rest].compact).reject { |_, found| found.empty? }
    puts judge.story if wrong.any? || ENV["FIRE_STORY"]
    puts judge.whereabouts.flat_map { |text, stood| ["", text, *stood, *rows([text])] }
    assert_empty wrong, "seed #{SEED}"
    assert_equal %i[deleted pulled], @record.ways.keys.sort
    assert_includes @record.edits.map(&:outcome), :done
    refute_empty @record.brakes
  end

  def behind = BEHIND

  # Nginx, where it stands in front of the application; the port at which screens come in.
  def relay = nil
  def door = app.port

  def postmaster = Integer(File.foreach(File.join(disk.root, "data/postgres/postmaster.pid")).first)

  def database_answers?
    PG.connect(TestDatabase.url).close
    true
  rescue PG::Error
    false
  end

  # @return [Array<Array(Integer, String)>] of the log, as somebody sees them
  def newest(count)
    TestDatabase.db[:lines].where(show_id: @show.id, pulled: false).reverse(:id).limit(count).select_map(%i[id text])
  rescue Sequel::Error
    []
  end

  # Somebody at a prompter.
  #
  # @return [Symbol] :done, :refused, or :unknown
  def act(values) = outcome { visitor.post_json(nil, "/prompter/#{@prompter}/act", values) }

  # The host, on the Gate.
  def ask(path, values) = outcome { @answer = @host.post_json("/gate/", path, values) }

  private

  def begin_broadcast
    @disk = started(Fire::SmallDisk.new(DISK_MB + (SECONDS * DISK_MB_PER_S).round))
    @postgres = started(Bavard::Start::Postgres.new(Bavard::Start::DataFolder.new(File.join(disk.root, "data")).lock))
    TestDatabase.use_own(postgres.start)
    @standins = [oxbow, started(RunningStandin.new("Lantern", EVERY_MS: 200).start), started(RunningStandin.new("Skein", BEAT_MS: 1000).start)]
    @database_line = started(Proxy.new(URI(TestDatabase.url).port))
    make_show(0)
    feeds
    put_pieces_on_air([PIECE.merge("at_most" => 12)], 1920, 1080)
    begin_application
    behind_the_line = {behind: link, prompter: link.sub(%r{/air/.*}, "/prompter/#{@prompter}")}.transform_values { |address| address.sub(":#{door}/", ":#{line.port}/") }
    {straight: link, **behind_the_line}.each { |name, address| open_screen(address, name:) { execute_script(RECORDER) } }
    wait_for("all feeds to be heard") { TestDatabase.db[:feeds].exclude(heard_at_ms: nil).count == 3 }
  end

  def begin_application
    @clock = SettableClock.new
    database = {"DATABASE_URL" => TestDatabase.url.sub(%r{:\d+/}, ":#{database_line.port}/")}
    @app = own_app(standins, {**clock.env, **relay_env, **database}, folder: disk.root)
    stand_in_front
    @line = started(Proxy.new(door))
    @host = visitor.tap { |host| host.sign_in(email, PASSWORD) }
    @prompter = Bavard::Store::Members.new(TestDatabase.db).add_prompter(@show.id, name: "Teo", acts: true, at_ms: 1, made_by: @account_id).token
  end

  def relay_env = {}
  def stand_in_front = nil
  def started(one) = one.tap { @started << one }
  def visitor = HostsBrowser.new(app.address, patience_s: PATIENCE_S)

  # A page that cannot be had, or an answer that does not come, says nothing of what was done.
  def outcome
    answer = yield
    return :done if answer.is_a?(Net::HTTPOK)

    answer.is_a?(Net::HTTPClientError) ? :refused : :unknown
  rescue SystemCallError, EOFError, Net::ReadTimeout, Net::OpenTimeout
    :unknown
  end

  def feeds
    add_feed_at(oxbow.address)
    {"lantern" => {"number" => standins[1].state["number"]}, "skein" => {"room" => "reedmere"}}.each do |platform, address|
      Bavard::Store::Feeds.new(TestDatabase.db, Bavard::Store::SecretBox.new("-" * 32))
        .create(@show.id, kind: "described", platform:, name: platform, shape: "square", colour: "#63c58a", address:)
    end
  end

  def set_fire
    random = Random.new(SEED)
    people = Fire::People.new(self, @record, random).begin
    faults = Fire::Faults.new(self, @record, random)
    until_s = now_s + SECONDS
    while now_s < until_s
      sleep random.rand(BETWEEN_S)
      faults.one
    end
    people.brake_at_least_once
  ensure
    people&.stop
  end

  # What was said last stands on every screen, and all that was said is in the log. What waits of a flood is through before that: it would
  # take the place of what came after it by another way.
  def come_to_rest
    last = say_everywhere
    wait_for("what was said before to be through") { TestDatabase.db[:lines].where(text: last, aired: true).count == last.size }
    last = say_everywhere
    SCREENS.each { |name| on_screen(name) { last.each { |text| assert_text text } } }
    wait_for("the log to be whole") { (@record.said.keys - logged.keys).empty? }
  rescue Minitest::Assertion => error
    @rest = [*rows(last), error.message].join("\n")
  end

  # As the log has them.
  def rows(texts)
    TestDatabase.db[:lines].where(text: texts).map { |row| row.slice(:id, :text, :aired, :held, :pulled, :deleted, :arrived_at_ms, :shown_at_ms, :trace).inspect }
  end

  def say_everywhere = standins.map { |one| @record.words(one.name).tap { |text| one.say(text) } }
  def logged = TestDatabase.db[:lines].where(show_id: @show.id).select_map(:text).tally
  def hold_kept = Bavard::Store::Shows.new(TestDatabase.db).find(@show.id).gate.dig("hold", "ms")
  # As text: what a browser hands over piece by piece takes minutes, after an hour.
  def screens = SCREENS.to_h { |name| [name, JSON.parse(on_screen(name) { evaluate_script("JSON.stringify(window.fire)") })] }
  def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  def tell(judge)
    return unless ENV["FIRE_SECONDS"] || @rest

    taken = @record.ways.map { |way, count| "#{count} #{way}" }.join(", ")
    edits = @record.edits.map(&:outcome).tally.map { |outcome, count| "#{count} #{outcome}" }.join(", ")
    puts "", "Seed #{SEED}, #{SECONDS} s: #{@record.said.size} lines said, #{taken}, edits: #{edits}, chat off #{@record.brakes.size} times, " \
             "#{@record.faults.size} faults.",
      "", "| fault | times | longest silence of a screen |", "|---|---|---|"
    judge.silences.sort_by(&:kind).each { |one| puts "| #{one.kind.to_s.tr("_", " ")} | #{one.times} | #{(one.longest_ms / 1000.0).round(1)} s |" }
    late = judge.lateness
    puts "", "Between faults: #{late.lines} lines, from being said to the picture #{late.half_ms} ms (half), #{late.most_of_them_ms} ms (99 in 100), " \
             "#{late.longest_ms} ms (longest)."
    puts "Lost #{judge.lost.size}, doubled #{judge.doubled.size}, painted after it was taken away #{judge.painted_after.size}, stale #{judge.stale.size}, " \
         "on a picture that chat was off #{judge.braked.size}, edits undone #{judge.undone.size}."
  end
end
