# frozen_string_literal: true

require "open3"
require "socket"
require_relative "../support/plain"
require_relative "../support/processes"
require_relative "../../lib/bavard/watched"

# What is put onto a server, and what stands in front of it.
class InstallTest < Minitest::Test
  include Wait

  ROOT = TestDatabase::PROJECT

  def setup = @folder = Dir.mktmpdir("bavard-install")
  def teardown = FileUtils.rm_rf(@folder)

  def install(*words) = Open3.capture2e(File.join(ROOT, "bin/install"), *words)

  def test_all_of_it_is_put_into_place_and_an_upgrade_leaves_what_was_set
    said, status = install("--into", @folder)
    assert_predicate status, :success?, said
    %w[opt/bavard/bin/start opt/bavard/bin/admin opt/bavard/lib/bavard/serve.rb opt/bavard/Gemfile.lock etc/systemd/system/bavard.service
      etc/logrotate.d/bavard var/lib/bavard].each { |path| assert_path_exists File.join(@folder, path) }
    refute_path_exists File.join(@folder, "opt/bavard/test")
    assert_equal 0o640, File.stat(settings).mode & 0o777
    File.write(settings, "PORT=4700\n")
    File.write(File.join(@folder, "opt/bavard/lib/gone.rb"), "")
    install("--into", @folder)
    assert_equal "PORT=4700\n", File.read(settings)
    refute_path_exists File.join(@folder, "opt/bavard/lib/gone.rb")
  end

  def settings = File.join(@folder, "etc/bavard/bavard.env")

  def test_what_it_does_not_know_it_says
    said, status = install("--onto")
    refute_predicate status, :success?
    assert_includes said, "--into FOLDER"
  end

  # Each name in it is one that systemd knows.
  def test_systemd_understands_the_unit
    install("--into", @folder)
    unit = File.join(@folder, "etc/systemd/system/bavard.service")
    File.write(unit, File.read(unit).gsub("=/opt/bavard/bin/start", "=/bin/true"))
    said, = Open3.capture2e("systemd-analyze", "verify", "--man=no", unit)
    assert_empty said.lines.grep(/bavard\.service/), said
  end

  def test_every_setting_of_the_file_is_in_the_readme
    readme = File.read(File.join(ROOT, "README.md"))
    named = File.read(File.join(ROOT, "ops/bavard.env")).scan(/^#?([A-Z_]+)=/).flatten
    assert_operator named.size, :>, 5
    assert_empty named.reject { |name| readme.include?("`#{name}") }
  end

  def test_it_says_that_it_goes_on
    path = File.join(@folder, "told")
    told = Socket.new(:UNIX, :DGRAM).tap { |socket| socket.bind(Socket.sockaddr_un(path)) }
    app = RunningApp.new(env: {"NOTIFY_SOCKET" => path}).start
    assert_equal Bavard::Watched::GOES_ON, told.recv(100)
    app.stop
    told.close
    refute Bavard::Watched.tell("x", {"NOTIFY_SOCKET" => path})
    refute Bavard::Watched.tell("x", {})
  end
end
