# frozen_string_literal: true

require "argon2"
require_relative "../../lib/bavard/core/stage/document"
require_relative "../../lib/bavard/feeds/irc"
require_relative "../../lib/bavard/store/feeds"
require_relative "../../lib/bavard/store/secret_box"
require_relative "../../lib/bavard/store/shows"
require_relative "../../lib/bavard/store/stages"
require_relative "browser"
require_relative "minimal_irc"

# A browser test that begins with a show that is on air already; how one gets there is told in from_nothing_test.rb.
class PreparedTest < BrowserTest
  EMAIL = "host@reedmere.example"
  IN_FORCE = %w[command_lines left_out].freeze
  PIECE = {"x" => 100, "y" => 100, "width" => 800, "height" => 600, "stay_ms" => "for good"}.freeze

  # The application starts when the show is there.
  def setup
    TestDatabase.db
    TestDatabase.clean
    @started = []
  end

  # @param feed [String] an address; nil for none
  # @param pieces [Array<Hash>] of the stage that is on air: chat, where they name no other kind
  # @param hold_ms [Integer] how long every line is held
  # @param platforms [Array<RunningStandin>] that the application knows by name
  def prepare(feed: nil, platforms: [], pieces: [PIECE], width: 1920, height: 1080, hold_ms: 0)
    db = TestDatabase.db
    account_id = db[:accounts].insert(email: EMAIL, password_hash: Argon2::Password.create(PASSWORD, t_cost: 1, m_cost: 8))
    @show = Bavard::Store::Shows.new(db).create(account_id, name: "Test watch", host_name: "Odalys")
    set_gate(db, hold_ms)
    add_feed_at(feed) if feed
    stages = Bavard::Store::Stages.new(db)
    document = Bavard::Core::Stage::Document.empty(width:, height:)
    built = pieces.each_with_index.map do |piece, index|
      kind = piece.fetch("kind", "chat")
      Bavard::Core::Stage::Pieces.kind(kind).build("#{kind}#{index + 1}", piece.except("kind"))
    end
    document = document.merge("pieces" => built)
    @stage = stages.create(@show.id, name: "Main", document:)
    stages.put_on_air(@stage.id, 1, document, 1)
    @started.concat(platforms)
    @app = RunningApp.new(platforms: platforms.map(&:platform)).start
    @started << @app
    Capybara.app_host = @app.address
  end

  def link = "#{@app.address}/air/#{@stage.token}"

  def sign_in
    visit "/account/login"
    fill_in "E-mail address", with: EMAIL
    fill_in "Password", with: PASSWORD
    click_on "Sign in"
    assert_text "What comes in"
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
