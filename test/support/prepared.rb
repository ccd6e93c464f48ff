# frozen_string_literal: true

require "argon2"
require "net/http"
require "securerandom"
require_relative "../../lib/bavard/core/cues/settings"
require_relative "../../lib/bavard/core/stage/document"
require_relative "../../lib/bavard/feeds/irc"
require_relative "../../lib/bavard/store/feeds"
require_relative "../../lib/bavard/store/secret_box"
require_relative "../../lib/bavard/store/shows"
require_relative "../../lib/bavard/store/stages"
require_relative "browser"
require_relative "hosts_browser"
require_relative "minimal_irc"

# A browser test that begins with a show that is on air already; how one gets there is told in from_nothing_test.rb. It shares one
# running application with others, and has a show and an account of its own there.
class PreparedTest < BrowserTest
  IN_FORCE = %w[command_lines left_out].freeze
  PIECE = {"x" => 100, "y" => 100, "width" => 800, "height" => 600, "stay_ms" => "for good"}.freeze
  LONG_S = 120
  # As little work as there can be.
  CHEAP = {t_cost: 1, m_cost: 8}.freeze

  def setup = @started = []

  def teardown
    super
    TestDatabase.use(:app)
    remove_account if @account_id
    TestDatabase.use(:house)
  end

  # @param feed [String] an address; nil for none
  # @param pieces [Array<Hash>, nil] of the stage that is on air: chat, where they name no other kind; nil: no stage
  # @param hold_ms [Integer] how long every line is held
  # @param platforms [Array<RunningStandin>] that run already
  # @param lead [Hash, nil] how far it has come from chat to air; nil: all the way
  # @param own [Boolean] whether the application is the test's own, to be stopped and killed
  def prepare(feed: nil, platforms: [], pieces: [PIECE], width: 1920, height: 1080, hold_ms: 0, lead: nil, own: false, env: {}, port: nil)
    TestDatabase.use(own ? :house : :app)
    TestDatabase.clean if own
    @started.concat(platforms)
    make_show(hold_ms, lead)
    add_feed_at(feed) if feed
    put_pieces_on_air(pieces, width, height) if pieces
    @app = own ? own_app(platforms, env, port:) : SharedApp.running
    Capybara.app_host = @app.address
    @cookies = (@hosts_browser = HostsBrowser.new(@app.address)).sign_in(email, PASSWORD)
    until_heard if feed && feed == @oxbow&.address
  end

  # What is said at a stand-in before it is listened to is not told again.
  def until_heard
    wait_for("the feed to be heard") { TestDatabase.db[:feeds].where(show_id: @show.id).exclude(heard_at_ms: nil).any? }
  end

  def email = "host#{@account_id}@reedmere.example"

  def link = "#{@app.address}/air/#{@stage.token}"

  # As somebody who has signed in; how that is done is told in from_nothing_test.rb and permissions_test.rb.
  #
  # @param page_first [String] where they go
  def sign_in(page_first = "/feeds")
    @cookies.each { |name, value| page.driver.set_cookie(name, value, domain: "127.0.0.1") }
    visit page_first
    assert_selector "header.signal"
    # What has come so far may be all but its scripts.
    wait_for("the page to be whole") { evaluate_script("document.readyState === 'complete'") }
  end

  # A server with nothing special, in this process.
  def server
    @server ||= MinimalIrc.new.tap { |server| @started << server }
  end

  def feed_address = "irc://127.0.0.1:#{server.port}/#reedmere"

  def until_live
    wait_for("the feed to read") { server.clients.positive? }
  end

  private

  # Its show may be writing down what became of its lines: of two that wait for each other PostgreSQL stops one, which begins anew.
  def remove_account
    db = TestDatabase.db
    db.transaction(retry_on: Sequel::SerializationFailure) { db[:accounts].where(id: @account_id).delete }
  end

  def own_app(platforms, env, folder: nil, port: nil)
    RunningApp.new(platforms: platforms.map(&:platform), env:, folder:, port:).start.tap { |app| @started << app }
  end

  def make_show(hold_ms, lead = nil)
    db = TestDatabase.db
    @account_id = db[:accounts].insert(email: "host-#{SecureRandom.hex(6)}", password_hash: Argon2::Password.create(PASSWORD, **CHEAP))
    db[:accounts].where(id: @account_id).update(email:)
    @show = Bavard::Store::Shows.new(db).create(@account_id, name: "Test watch", host_name: "Odalys", lead:)
    set_gate(db, hold_ms)
    let_cues_play(db)
  end

  # As long as they can: what stands there for a moment is missed by a browser that has to wait for the machine.
  def let_cues_play(db)
    document = Bavard::Core::Cues::Settings.default
    cues = document["cues"].map { |cue| cue.merge("length_s" => LONG_S) }
    Bavard::Store::Shows.new(db).keep_cues(@show.id, document.merge("cues" => cues))
  end

  def put_pieces_on_air(pieces, width, height)
    built = pieces.each_with_index.map do |piece, index|
      kind = piece.fetch("kind", "chat")
      Bavard::Core::Pieces.kind(kind).build("#{kind}#{index + 1}", piece.except("kind"))
    end
    document = Bavard::Core::Stage::Document.empty(width:, height:).merge("pieces" => built)
    stages = Bavard::Store::Stages.new(TestDatabase.db)
    @stage = stages.create(@show.id, name: "Main", document:)
    stages.put_on_air(@stage.id, 1, document, 1)
  end

  # Two rules only: what is said here is hostile on purpose, and is to get as far as the picture.
  def set_gate(db, hold_ms)
    rules = @show.gate["sets"][0]["rules"].map { |rule| rule.merge("on" => IN_FORCE.include?(rule["kind"])) }
    hold = Bavard::Core::Gate::Settings.hold("ms" => hold_ms)
    Bavard::Store::Shows.new(db).keep_gate(@show.id, @show.gate.merge("sets" => [{"name" => "Test", "rules" => rules}], "hold" => hold))
  end

  def add_feed_at(address)
    read = Bavard::Feeds::Irc.read({"paste" => address})
    Bavard::Store::Feeds.new(TestDatabase.db, Bavard::Store::SecretBox.new("-" * 32))
      .create(@show.id, kind: "irc", name: "Test", shape: "circle", colour: "#5fb8d6", **read.slice(:address))
  end
end
