# frozen_string_literal: true

# Rodauth then hashes passwords as cheaply as argon2 can.
ENV["RACK_ENV"] ||= "test"

require "rack/test"
require_relative "live_test"
require_relative "../../lib/bavard/fair/turns"
require_relative "../../lib/bavard/live/moderation/replays"
require_relative "../../lib/bavard/live/pictures/set_imports"
require_relative "../../lib/bavard/live/pictures/takings"
require_relative "../../lib/bavard/web/app"

# What is brought is answered when it is done, however busy the machine is.
Bavard::Web::Station.set :soon_s, Wait::LIMIT_S

# A test of the pages, in this process, through Rack.
class WebTest < LiveTest
  include Rack::Test::Methods

  PASSWORD = "reeds-and-water-42"

  def setup
    super
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @mail = Dir.mktmpdir("mail")
    @site = Bavard::Web::Site.new(means:, imports:, takings: Bavard::Live::Takings.new(SemanticLogger["test"]), fetcher:, scripts:, shows: @shows, db:, session_secret: "s" * 64, now_secret: "n" * 64, accounts: "open", begin_key: "b" * 32, cookie: "bavard.test", letters: Bavard::Web::SignIn::Letters.new(@mail), films: pictures_folder, sounds: pictures_folder,
      backdrops: Bavard::Live::Backdrops.new(@pictures, cabinet), faces: File.join(Suite::Memory.root, "faces"),
      address: "http://127.0.0.1:4600", cabinet:, set_imports: Bavard::Live::SetImports.new(means, imports, fetcher, @shows), media: Bavard::Fair::Turns.new(at_once: 2), database_url: TestDatabase.url,
      replays: @replays = Bavard::Live::Replays.new(TestDatabase.url, log: SemanticLogger["test"]))
  end

  def teardown
    @replays.stop_all
    super
  end

  def app = @app ||= Bavard::Web::App.build(@site)

  def token_on(path)
    get path
    last_response.body[/name="(?:_csrf|csrf)" (?:content|value)="([^"]+)"/, 1] || last_response.body[/name="_csrf" value="([^"]+)"/, 1]
  end

  def sign_up(email: "host@reedmere.example", show: "Test watch")
    token = token_on("/account/create-account")
    post "/account/create-account", {"_csrf" => token, "login" => email, "password" => PASSWORD, "show_name" => show, "host_name" => "Odalys"}
    assert_equal 302, last_response.status, last_response.body
    @record = stores.shows.of_account(db[:accounts].where(email:).get(:id))
  end

  def sign_in(email: "host@reedmere.example", password: PASSWORD, **more)
    post "/account/login", {"_csrf" => token_on("/account/login"), "login" => email, "password" => password}.merge(more.transform_keys(&:to_s))
  end

  # As our own scripts send it.
  def send_form(path, values = {})
    header "X-CSRF-Token", (@csrf ||= token_on("/feeds"))
    header "X-Requested-With", "XMLHttpRequest"
    post path, values
    JSON.parse(last_response.body)
  end

  # Tries are counted from one full minute, or hour, to the next: in the midst of that there may be twice as many.
  #
  # @param most [Integer] in one of them
  # @yield [number]
  # @return [Integer] how many were answered with 429 at last
  def tries_until_told_to_wait(most)
    count = (1..((most * 2) + 1)).find { |number| yield(number).status == 429 }
    refute_nil count, "nobody is told to wait"
    count
  end

  def send_json(path, value)
    header "X-CSRF-Token", (@csrf ||= token_on("/feeds"))
    post path, value.is_a?(String) ? value : JSON.generate(value), "CONTENT_TYPE" => "application/json"
    JSON.parse(last_response.body)
  end

  # @return [Hash, nil] what is known of a page whose WebSocket was taken in there, with how many had been cut off before that was looked up
  def joined(path, query = {})
    env = nil
    hub.define_singleton_method(:join) { |_io, given, _topic, cuts:, **| env = given.merge("cuts" => cuts) }
    get path, query, {"HTTP_CONNECTION" => "Upgrade", "HTTP_UPGRADE" => "websocket", "rack.hijack" => -> {}}
    env
  ensure
    hub.singleton_class.send(:remove_method, :join)
  end

  def make_stage
    @stage = stores.stages.create(@record.id, name: "Main")
    @shows.run(@record.id).ask { |show| show.add_stage(@stage) unless show.desks.key?(@stage.id) }
    @stage
  end
end
