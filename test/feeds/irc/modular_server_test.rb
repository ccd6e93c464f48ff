# frozen_string_literal: true

require "etc"
require "fileutils"
require "minitest/autorun"
require "tmpdir"
require_relative "../../support/feed_probe"
require_relative "../../support/own_ports"

# A server of the other kind in Debian's packages: InspIRCd, with what IRCv3 has of ids, times and accounts switched on.
class ModularServerTest < Minitest::Test
  include Wait

  PROGRAM = "/usr/sbin/inspircd"
  MODULES = %w[cap ircv3 ircv3_capnotify ircv3_msgid ircv3_servertime ircv3_accounttag ircv3_ctctags].freeze
  SETTINGS = <<~CONF
    <server name="irc.reedmere.example" description="Test" network="Test">
    <bind address="127.0.0.1" port="%<port>d" type="clients">
    <connect allow="*" timeout="60" resolvehostnames="no" useident="no" localmax="100" globalmax="100" commandrate="100000" fakelag="no">
    <path configdir="%<folder>s" datadir="%<folder>s" logdir="%<folder>s" runtimedir="%<folder>s">
    <pid file="%<folder>s/pid">
    %<modules>s
  CONF

  def setup
    raise "bin/setup dev installs Debian's package inspircd" unless File.executable?(PROGRAM)

    @port = OwnPorts.one
    @folder = Dir.mktmpdir("inspircd")
    settings = File.join(@folder, "inspircd.conf")
    File.write(settings, format(SETTINGS, port: @port, folder: @folder, modules: MODULES.map { |name| %(<module name="#{name}">) }.join))
    @pid = begin_server(settings)
    wait_for("the server") { TCPSocket.new("127.0.0.1", @port).close || true rescue false } # rubocop:disable Style/RescueModifier
  end

  # It does not run as root.
  def begin_server(settings)
    as = Process.uid.zero? ? %w[runuser -u irc --] : []
    FileUtils.chown_R("irc", nil, @folder) if Process.uid.zero?
    spawn(*as, PROGRAM, "--nofork", "--config=#{settings}", out: File::NULL, err: File::NULL, pgroup: true)
  end

  def teardown
    @probe&.stop
    @clients&.each(&:close)
    Process.kill("TERM", -@pid)
    Process.wait(@pid)
    FileUtils.remove_entry(@folder, true)
  end

  # Another client: any will do. The first in a channel is its operator.
  def client(nick)
    TCPSocket.new("127.0.0.1", @port).tap do |socket|
      (@clients ||= []) << socket
      socket.write("NICK #{nick}\r\nUSER #{nick} 0 * :#{nick}\r\n")
      until_says(socket, " 422 ")
      socket.write("JOIN #reedmere\r\n")
      until_says(socket, " 366 ")
    end
  end

  def until_says(socket, words)
    heard = +""
    wait_for("“#{words}” among #{heard}") do
      bytes = socket.read_nonblock(65_536, exception: false)
      heard << bytes.force_encoding(Encoding::UTF_8).scrub if bytes.is_a?(String)
      heard.include?(words)
    end
  end

  def read(**given) = @probe = FeedProbe.irc("irc://127.0.0.1:#{@port}/#reedmere", **given).start.until_live
  def roles(text) = @probe.line_with(text).body.badges

  def test_roles_are_what_the_channel_says_and_change_with_it
    ann = client("ann")
    bo = client("bo")
    read
    ann.write("PRIVMSG #reedmere :from the operator\r\n")
    refute_empty roles("from the operator")
    bo.write("PRIVMSG #reedmere :from nobody\r\n")
    assert_empty roles("from nobody")
    ann.write("MODE #reedmere +v bo\r\n")
    until_says(bo, "MODE #reedmere +v")
    bo.write("PRIVMSG #reedmere :with a voice\r\n")
    refute_empty roles("with a voice")
    ann.write("MODE #reedmere -v bo\r\n")
    until_says(bo, "MODE #reedmere -v")
    bo.write("PRIVMSG #reedmere :without one\r\n")
    assert_empty roles("without one")
  end

  def test_ids_and_times_are_the_servers_own_and_a_client_s_tags_are_not
    ann = client("ann")
    read
    ann.write("CAP REQ :message-tags\r\n")
    until_says(ann, "ACK")
    ann.write("@+draft/badges=host;msgid=forged;time=2001-01-01T00:00:00.000Z PRIVMSG #reedmere :tagged\r\n")
    line = @probe.line_with("tagged")
    refute_includes [nil, "forged"], line.platform_id
    assert_in_delta FeedProbe::CLOCK.call, line.platform_time_ms, 60_000
    refute_includes line.body.badges, "host"
  end

  def test_who_is_kicked_out_and_banned_is_told
    ann = client("ann")
    read(nick: "odalys")
    ann.write("MODE #reedmere +b odalys!*@*\r\nKICK #reedmere odalys :enough\r\n")
    wait_for("it to be told, not #{@probe.state.inspect}") { @probe.state.state == :needs_you || @probe.state.reason.match?(/enough|ban/i) }
  end

  def test_lines_actions_and_answers
    ann = client("ann")
    read(nick: "odalys")
    ann.write("PRIVMSG #reedmere :héllo 🦆\r\nPRIVMSG #reedmere :\u0001ACTION waves\u0001\r\n")
    # This server tells accounts, and ann has none: her nick is not the account of the same name.
    assert_equal ["~ann", "ann"], @probe.line_with("héllo 🦆").body.then { |said| [said.login, said.display_name] }
    assert @probe.line_with("waves").body.action
    @probe.say("thank you")
    until_says(ann, "PRIVMSG #reedmere :thank you")
    assert wait_for("the answer to count as gone") { @probe.of(:answered).last }.body.went
  end
end
