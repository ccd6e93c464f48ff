# frozen_string_literal: true

require "minitest/autorun"
require "tmpdir"
require_relative "../../support/own_ports"
require_relative "../../support/feed_probe"
require_relative "../../../lib/bavard/start/ports"

# An ordinary IRC server from Debian's packages: ngIRCd, with nothing special switched on.
class OrdinaryServerTest < Minitest::Test
  include Wait

  PROGRAM = "/usr/sbin/ngircd"
  SETTINGS = <<~CONF
    [Global]
    Name = irc.reedmere.example
    Info = Test
    Listen = 127.0.0.1
    Ports = %<port>d
    ServerUID = nobody
    ServerGID = nogroup
    [Options]
    DNS = no
    Ident = no
    PAM = no
    [Channel]
    Name = #reedmere
  CONF

  def setup
    raise "bin/setup dev installs Debian's package ngircd" unless File.executable?(PROGRAM)

    @port = OwnPorts.one
    @folder = Dir.mktmpdir("ngircd")
    File.chmod(0o755, @folder)
    settings = File.join(@folder, "ngircd.conf")
    File.write(settings, format(SETTINGS, port: @port))
    @pid = spawn(PROGRAM, "-n", "-f", settings, out: File::NULL, err: File::NULL)
    wait_for("the server") do
      TCPSocket.new("127.0.0.1", @port).close || true
    rescue StandardError
      false
    end
  end

  def teardown
    @probe&.stop
    return unless @pid

    Process.kill("TERM", @pid)
    Process.wait(@pid)
  end

  # Another client: any will do.
  def client(nick)
    TCPSocket.new("127.0.0.1", @port).tap do |socket|
      socket.write("NICK #{nick}\r\nUSER #{nick} 0 * :#{nick}\r\nJOIN #reedmere\r\n")
      nil until socket.gets.include?(" 366 ")
    end
  end

  def test_lines_actions_and_answers
    @probe = FeedProbe.irc("irc://127.0.0.1:#{@port}/#reedmere", nick: "odalys").start.until_live
    ann = client("ann")
    ann.write("PRIVMSG #reedmere :héllo 🦆\r\nPRIVMSG #reedmere :\u0001ACTION waves\u0001\r\n")
    assert_equal "ann", @probe.line_with("héllo 🦆").body.login
    assert @probe.line_with("waves").body.action
    @probe.say("thank you")
    nil until ann.gets.include?("PRIVMSG #reedmere :thank you")
    assert wait_for("the answer to count as gone") { @probe.of(:answered).last }.body.went
  ensure
    ann&.close
  end
end
