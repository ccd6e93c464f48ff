# frozen_string_literal: true

require_relative "../../lib/bavard/store/members"
require_relative "../support/fire/faults"
require_relative "../support/fire/judge"
require_relative "../support/fire/record"
require_relative "../support/prepared"
require_relative "../support/proxy"

# A broadcast on which everything goes wrong that can, one thing after another, while people write on three platforms, moderators pull
# and platforms delete. Then an independent judge looks at the log and at every frame of every screen. Longer, and with other seeds, by
# bin/fire.
class FireTest < PreparedTest
  SECONDS = Integer(ENV.fetch("FIRE_SECONDS", 30))
  SEED = Integer(ENV.fetch("FIRE_SEED", 1))
  RECORDER = File.read(File.expand_path("../support/fire/recorder.js", __dir__))
  EVERY_S = 0.05..0.25
  PULLS_EVERY_S = 0.4..1.5
  DELETED = 0.2
  DELETED_AFTER_S = 0.0..2.0
  BETWEEN_S = 0.5..3.0

  attr_reader :app, :line, :database_line, :standins

  def test_nothing_is_lost_doubled_or_painted_after_it_was_taken_away
    @record = Fire::Record.new
    begin_broadcast
    set_fire
    come_to_rest
    tell(judge = Fire::Judge.new(@record, logged, screens))
    assert_equal [[], [], [], []], [judge.lost, judge.doubled, judge.painted_after, judge.stale], "seed #{SEED}"
    assert_operator @record.taken.size, :>, 3
  end

  # While it lasts nothing can be kept, and nothing is told.
  def database_away(&block) = TestDatabase.away(&block)

  private

  def begin_broadcast
    TestDatabase.use(:house)
    TestDatabase.clean
    @standins = [oxbow, started(RunningStandin.new("Lantern", EVERY_MS: 200).start), started(RunningStandin.new("Skein", BEAT_MS: 1000).start)]
    @database_line = started(Proxy.new(URI(TestDatabase.url).port))
    make_show(0)
    feeds
    put_pieces_on_air([PIECE.merge("at_most" => 12)], 1920, 1080)
    @app = own_app(standins, "DATABASE_URL" => TestDatabase.url.sub(%r{:\d+/}, ":#{database_line.port}/"))
    @line = started(Proxy.new(app.port))
    HostsBrowser.new(app.address).sign_in(email, PASSWORD)
    @prompter = Bavard::Store::Members.new(TestDatabase.db).add_prompter(@show.id, name: "Teo", acts: true, at_ms: 1, made_by: @account_id).token
    {straight: link, behind: link.sub(":#{app.port}/", ":#{line.port}/")}.each { |name, address| open_screen(address, name:) { execute_script(RECORDER) } }
    wait_for("all feeds to be heard") { TestDatabase.db[:feeds].exclude(heard_at_ms: nil).count == 3 }
  end

  def started(one) = one.tap { @started << one }

  def feeds
    add_feed_at(oxbow.address)
    {"lantern" => ["polling", {"number" => standins[1].state["number"]}], "skein" => ["socket", {"room" => "reedmere"}]}.each do |platform, (kind, address)|
      Bavard::Store::Feeds.new(TestDatabase.db, Bavard::Store::SecretBox.new("-" * 32))
        .create(@show.id, kind:, platform:, name: platform, shape: "square", colour: "#63c58a", address:)
    end
  end

  def set_fire
    random = Random.new(SEED)
    people = [[:write, EVERY_S], [:pull, PULLS_EVERY_S]].map { |what, range| goes_on(Random.new(random.rand(2**30)), what, range) }
    faults = Fire::Faults.new(self, @record, random)
    until_s = now_s + SECONDS
    while now_s < until_s
      sleep random.rand(BETWEEN_S)
      faults.one
    end
  ensure
    @quiet = true
    people&.each(&:join)
  end

  def goes_on(random, what, range)
    Thread.new do
      until @quiet
        send(what, random)
        sleep random.rand(range)
      end
    end
  end

  def write(random)
    where = standins.sample(random:)
    text = @record.words(where.name)
    where.say(text)
    delete(where, text, random.rand(DELETED_AFTER_S)) if random.rand < DELETED
  end

  def delete(where, text, after_s)
    sleep after_s
    line = where.lines.find { |one| one["text"] == text } or return
    where.post("/delete", "id" => line["id"])
    @record.take(text)
  end

  # Somebody at a prompter; what is refused, or not answered, is not taken away.
  def pull(random)
    id, text = TestDatabase.db[:lines].where(show_id: @show.id, pulled: false).reverse(:id).limit(8).select_map(%i[id text]).sample(random:)
    answer = id && Net::HTTP.post_form(URI("#{app.address}/prompter/#{@prompter}/act"), "do" => "pull", "line" => id)
    @record.take(text) if answer.is_a?(Net::HTTPOK)
  rescue Sequel::DatabaseError, SystemCallError, EOFError, Net::ReadTimeout
    nil
  end

  # What was said last stands on every screen, and all that was said is in the log.
  def come_to_rest
    last = standins.map { |one| @record.words(one.name).tap { |text| one.say(text) } }
    screens.each_key { |name| on_screen(name) { last.each { |text| assert_selector ".line", text: } } }
    wait_for("the log to be whole") { (@record.said.keys - logged.keys).empty? }
  rescue Minitest::Assertion => error
    @rest = error.message
  end

  def logged = TestDatabase.db[:lines].where(show_id: @show.id).select_map(:text).tally
  def screens = %i[straight behind].to_h { |name| [name, on_screen(name) { evaluate_script("window.fire") }] }
  def now_s = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  def tell(judge)
    return unless ENV["FIRE_SECONDS"] || @rest

    puts "", "Seed #{SEED}, #{SECONDS} s: #{@record.said.size} lines said, #{@record.taken.size} taken away, #{@record.faults.size} faults. #{@rest}",
      "", "| fault | times | longest silence of a screen |", "|---|---|---|"
    judge.silences.sort_by(&:kind).each { |one| puts "| #{one.kind.to_s.tr("_", " ")} | #{one.times} | #{(one.longest_ms / 1000.0).round(1)} s |" }
    puts "", "Lost #{judge.lost.size}, doubled #{judge.doubled.size}, painted after it was taken away #{judge.painted_after.size}, stale #{judge.stale.size}."
  end
end
