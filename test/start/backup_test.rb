# frozen_string_literal: true

require "open3"
require_relative "../support/plain"
require_relative "../support/demo_files"
require_relative "../support/processes"
require_relative "../../lib/bavard/commands/admin"
require_relative "../../lib/bavard/live/lines/line_ids"

# An installation into one file while it runs, and out of it in an empty place: the same host signs in, and the same line is on air.
class BackupTest < Minitest::Test
  include Wait

  # With what comes behind it: it may be cut off.
  LINE = /"i":(\d{12,})\D/

  def setup
    @folders = []
    @one = folder
  end

  def teardown
    stop
    @folders.each do |folder|
      Bavard::Start::Postgres.new(Bavard::Start::DataFolder.new(folder)).stop
      FileUtils.rm_rf(folder)
    end
  end

  def folder = Dir.mktmpdir("bavard-backup").tap { |made| FileUtils.chmod(0o755, made) && (@folders << made) }

  def start(data, *words)
    @port = OwnPorts.block_of(20)
    @said = File.join(Dir.mktmpdir, "said.txt")
    env = {"PORT" => @port.to_s, "BAVARD_DATA" => data, "APP_ENV" => nil, "BAVARD_DEMO_FILES" => DemoFiles.folder}
    @pid = spawn(env, "bin/start", *words, chdir: TestDatabase::PROJECT, in: File::NULL, out: @said, err: %i[child out], pgroup: true)
    wait_for("it to be ready:\n#{said}", limit_s: 200) { said.include?("Ctrl-C") || (Process.wait(@pid, Process::WNOHANG) && flunk(said)) }
  end

  def said = File.exist?(@said) ? File.read(@said) : ""

  def stop
    return unless @pid

    Process.kill("INT", -@pid)
    Process.wait(@pid)
    @pid = nil
  rescue Errno::ESRCH, Errno::ECHILD
    nil
  end

  def admin(data, *words) = Open3.capture2e({"BAVARD_DATA" => data, "APP_ENV" => nil}, "bin/admin", *words, chdir: TestDatabase::PROJECT)

  # Viewers of the demo talk by themselves. A screen that says nothing is cut off after a while, and another one looks.
  #
  # @return [Integer] id of the first line that a screen of this link gets
  def until_a_line_is_on_air(path)
    wait_for("a line on air") do
      line_on(path)
    rescue EOFError, SystemCallError
      nil
    end.to_i
  end

  def line_on(path)
    socket = TCPSocket.new("127.0.0.1", @port)
    socket.write("GET #{path}/live HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n" \
                 "Sec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n")
    read = +""
    read << socket.readpartial(65_536) until read.match?(LINE)
    read[LINE, 1]
  ensure
    socket&.close
  end

  def lines(data) = admin(data, "use").first[/(\d+) lines/, 1].to_i

  def test_out_of_one_place_into_another
    start(@one, "--demo")
    path = URI(said[/Air +(\S+)  \(Dawn wide\)/, 1]).path
    line = until_a_line_is_on_air(path)
    before = lines(@one)
    file = File.join(folder, "reedmere.tar.gz")
    words, status = admin(@one, "backup", file)
    assert_predicate status, :success?, words
    assert_equal 0o600, File.stat(file).mode & 0o777
    assert_includes admin(@one, "backup", file).first, "there already"
    stop
    assert_restored(file, path, line, before)
    assert_refused(file)
  end

  def assert_restored(file, path, line, before)
    two = folder
    words, status = admin(two, "restore", file)
    assert_predicate status, :success?, words
    assert_operator lines(two), :>=, before
    start(two)
    # That one, or one that came later.
    assert_operator until_a_line_is_on_air(path), :>=, line
    assert_equal File.read("#{@one}/sign-in.txt"), File.read("#{two}/sign-in.txt")
    assert_includes said, "odalys@reedmere.example  #{File.read("#{two}/sign-in.txt")}"
    assert_includes admin(two, "deeds").first, "bin/admin restored reedmere.tar.gz"
    assert_includes admin(two, "restore", file).first, "There is something in #{two}"
  end

  # Nothing of what cannot be restored leaves anything behind.
  def assert_refused(file)
    three = folder
    File.write(other = File.join(@one, "other.tar.gz"), "no backup")
    assert_includes admin(three, "restore", other).first, "is no backup of a Bavard"
    assert_includes admin(three, "restore", "/nowhere.tar.gz").first, "There is no /nowhere.tar.gz"
    assert_empty Dir.children(three)
    cut = File.join(@one, "cut.tar.gz").tap { |path| File.binwrite(path, File.binread(file, File.size(file) - 2000)) }
    assert_includes admin(three, "restore", cut).first, "tar said"
    refute_predicate admin(three, "use").last, :success?
    words, status = Open3.capture2e({"BAVARD_DATA" => three, "PORT" => OwnPorts.one.to_s}, "bin/start", chdir: TestDatabase::PROJECT)
    refute_predicate status, :success?
    assert_includes words, "was cut off"
    words, status = admin(three, "restore", file)
    assert_predicate status, :success?, words
  end

  def test_a_newer_database_is_said_to_be_newer
    data = Bavard::Start::DataFolder.new(@one).lock
    url = Bavard::Start::Postgres.new(data, fleeting: true).start
    db = Bavard::Store::Database.open(url)
    Bavard::Store::Database.migrate(db)
    db[:schema_info].update(version: Bavard::Store::Database.newest + 1)
    error = assert_raises(Bavard::Error) { Bavard::Store::Database.migrate(db) }
    assert_includes error.message, "of a newer Bavard"
  ensure
    db&.disconnect
  end
end
