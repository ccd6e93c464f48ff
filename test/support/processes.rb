# frozen_string_literal: true

require "fileutils"
require "net/http"
require "socket"
require "tmpdir"
require_relative "../../lib/bavard/start/child"
require_relative "../../lib/bavard/start/ports"
require_relative "test_database"
require_relative "wait"

# The application as a process of its own, on real sockets, against the test database.
class RunningApp
  include Wait

  attr_reader :port, :folder

  def initialize(port: nil, folder: nil)
    @port = port || Bavard::Start::Ports.free(rand(20_000..39_999))
    @folder = folder || Dir.mktmpdir("bavard-app")
  end

  def start
    TestDatabase.db
    @child = Bavard::Start::Child.new("Bavard", ["ruby", "lib/bavard/serve.rb"], log: log,
      env: {"DATABASE_URL" => TestDatabase.url, "PORT" => port.to_s, "BAVARD_DATA" => folder, "APP_ENV" => "production",
            "RUBY_YJIT_ENABLE" => "1"})
    Dir.chdir(TestDatabase::PROJECT) { @child.start }
    wait_for("the application to answer") { answers? }
    self
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

# The stand-in Oxbow as a process of its own.
class RunningOxbow
  include Wait

  attr_reader :irc_port, :web_port

  # @param pace [Numeric] lines a minute the demo's viewers say
  def initialize(pace: 0)
    @pace = pace
    @irc_port = Bavard::Start::Ports.free(rand(20_000..39_999))
    @web_port = Bavard::Start::Ports.free(@irc_port + 1)
    @folder = Dir.mktmpdir("oxbow")
  end

  def start
    @child = Bavard::Start::Child.new("Oxbow", ["ruby", "standins/oxbow/run.rb"], log: File.join(@folder, "log"),
      env: {"OXBOW_IRC_PORT" => irc_port.to_s, "OXBOW_WEB_PORT" => web_port.to_s, "OXBOW_PACE" => @pace.to_s,
            "OXBOW_FILE" => File.join(@folder, "history.jsonl")})
    Dir.chdir(TestDatabase::PROJECT) { @child.start }
    wait_for("Oxbow to listen") { File.read(File.join(@folder, "log")).include?("ready") }
    self
  end

  def stop
    @child.stop
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

  # What its own small page does.
  def post(path, values)
    Net::HTTP.post_form(URI("http://127.0.0.1:#{web_port}#{path}"), values)
  end

  # @return [Array<Hash>] what was said, as its page lists it
  def lines
    JSON.parse(Net::HTTP.get(URI("http://127.0.0.1:#{web_port}/lines")))["lines"]
  end
end
