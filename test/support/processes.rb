# frozen_string_literal: true

require "fileutils"
require "json"
require "net/http"
require "socket"
require "tmpdir"
require_relative "../../lib/bavard/feeds/platform"
require_relative "../../lib/bavard/start/lean"
require_relative "../../lib/bavard/start/ports"
require_relative "../../lib/bavard/start/standins"
require_relative "own_ports"
require_relative "../../tools/suite/nursery"
require_relative "test_database"
require_relative "wait"

# The application as a process of its own, on real sockets, against the test database.
class RunningApp
  include Wait

  attr_reader :port, :folder

  # @param platforms [Array<Bavard::Feeds::Platform, Hash>] or what stands in the list of them
  # @param env [Hash] what else it finds there
  def initialize(port: nil, folder: nil, platforms: [], env: {})
    @env = env
    @port = port || OwnPorts.one
    @folder = folder || Dir.mktmpdir("bavard-app")
    @platforms = platforms
  end

  def start
    begin_to_start
    until_it_answers
    self
  end

  def until_it_answers
    wait_for("the application to answer") { answers? }
  end

  # Whatever it still has to wait for.
  def begin_to_start
    TestDatabase.db
    @child = Suite::Nursery.child("Bavard", "lib/bavard/serve.rb", log: log,
      env: {"DATABASE_URL" => TestDatabase.url, "PORT" => port.to_s, "BAVARD_DATA" => folder, "APP_ENV" => "production",
            **Bavard::Start::Lean.env, "BAVARD_PLATFORMS" => platforms_file, "BAVARD_INSIDE" => "127.0.0.1", **Bavard::JustInTime.on, **@env})
    Dir.chdir(TestDatabase::PROJECT) { @child.start }
  end

  def platforms_file
    return "" if @platforms.empty?

    File.join(folder, "platforms.json").tap { |file| File.write(file, JSON.generate(@platforms.map { |one| listed(one) })) }
  end

  def listed(platform)
    return platform if platform.is_a?(Hash)

    platform.description ? RunningStandin.listed(platform.name) : platform.to_h
  end

  def address = "http://127.0.0.1:#{port}"
  def log = File.join(folder, "app.log")
  def pid = @child.pid

  # Killed outright, as by a crash.
  def kill
    Process.kill("KILL", @child.pid)
    wait_for("the application to be gone") { @child.ended }
  end

  def stop
    @child.stop
  end

  def running? = @child.ended.nil?

  def answers?
    raise Minitest::Assertion, "the application ended:\n#{File.read(log)}" if @child.ended

    Net::HTTP.get_response(URI("#{address}/healthz")).is_a?(Net::HTTPOK)
  rescue SystemCallError, EOFError
    false
  end
end

# One application for many tests, each with a show of its own; its database is :app. It knows each stand-in by the port that a test
# may start one on.
module SharedApp
  module_function

  # @return [RunningApp]
  def running
    return @app if @app&.running?

    @app = RunningApp.new(platforms: RunningStandin.all_platforms).start
    Minitest.after_run { @app.stop } unless @stops
    @stops = true
    @app
  end
end

# A stand-in as a process of its own.
class RunningStandin
  include Wait

  OXBOWS = {"irc" => "Oxbow's IRC", "web" => "Oxbow"}.freeze
  PORTS = {} # rubocop:disable Style/MutableConstant -- filled as they are asked for

  attr_reader :name, :web_port

  # @param name [String] as "Lantern"
  # @param settings [Hash] of its environment, without the name in front
  def initialize(name, pace: 0, **settings)
    @name = name
    @web_port = RunningStandin.port(name)
    @folder = Dir.mktmpdir(name.downcase)
    @settings = {WEB_PORT: web_port, PACE: pace, FILE: File.join(@folder, "history.jsonl")}.merge(settings)
  end

  def start
    log = File.join(@folder, "log")
    env = @settings.to_h { |setting, value| ["#{@name.upcase}_#{setting}", value.to_s] }
    @child = Suite::Nursery.child(@name, "standins/#{@name.downcase}/run.rb", log:, env:)
    Dir.chdir(TestDatabase::PROJECT) { @child.start }
    wait_for("#{@name} to listen") { File.read(log).include?("ready") || (@child.ended && flunk(File.read(log))) }
    self
  end

  def stop
    @child.stop
  end

  def base = "http://127.0.0.1:#{web_port}"

  # What its own small page does.
  def post(path, values = {})
    Net::HTTP.post_form(URI("#{base}#{path}"), values)
  end

  def say(text, login: "birdbath", **more) = post("/say", {"login" => login, "text" => text, **more.transform_keys(&:to_s)})
  def misbehave(what, on: true) = post("/mischief", "what" => what, "on" => on ? "1" : "0")

  # @return [Hash] what its page shows
  def state = JSON.parse(Net::HTTP.get(URI("#{base}/state")))

  # @return [Array<Hash>] what was said, as its page lists it
  def lines = state["lines"]

  # As the list of platforms has it.
  def platform = RunningStandin.platform(@name)

  # @return [Bavard::Feeds::Platform] whether it runs yet or not
  def self.platform(name)
    Bavard::Feeds::Platform.read(listed(name))
  end

  # The same for all tests of a process: one runs after the other.
  def self.port(name) = PORTS[[Process.pid, name]] ||= OwnPorts.one
  def self.all_platforms = Bavard::Start::Standins::OFFSETS.keys.grep_v(/irc|web/).map(&:capitalize).unshift("Oxbow").map { |name| platform(name) }

  # @return [Hash] as the list has it
  def self.listed(name)
    standins = Bavard::Start::Standins.new(Bavard::Start::DataFolder.new(Dir.tmpdir), 4600, {})
    standins.instance_variable_set(:@ports, Bavard::Start::Standins::OFFSETS.keys.to_h { |part| [part, port(OXBOWS.fetch(part) { part.capitalize })] })
    standins.platforms.map { |given| given.transform_keys(&:to_s) }.find { |given| given["name"] == name }
  end
end

# The stand-in Oxbow as a process of its own.
class RunningOxbow < RunningStandin
  attr_reader :irc_port

  # @param pace [Numeric] lines a minute the demo's viewers say
  def initialize(pace: 0)
    @irc_port = RunningStandin.port("Oxbow's IRC")
    super("Oxbow", pace:, IRC_PORT: irc_port)
  end

  def address = "irc://127.0.0.1:#{irc_port}/%23reedmere"

  # Says something through a plain IRC client in another process: NICK, USER, JOIN, PRIVMSG over TCP.
  def type(text, nick: "plain#{rand(100_000)}")
    script = <<~'RUBY'
      require "socket"
      port, nick, text = ARGV
      socket = TCPSocket.new("127.0.0.1", Integer(port))
      socket.write("NICK #{nick}\r\nUSER #{nick} 0 * :#{nick}\r\nJOIN #reedmere\r\n")
      nil until socket.gets.include?(" 366 ")
      socket.write("PRIVMSG #reedmere :#{text}\r\nPING :said\r\n")
      nil until socket.gets.include?("PONG")
    RUBY
    system("ruby", "-e", script, irc_port.to_s, nick, text, exception: true)
  end
end
