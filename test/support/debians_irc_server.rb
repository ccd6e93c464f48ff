# frozen_string_literal: true

require "etc"
require "fileutils"
require "minitest/autorun"
require "tmpdir"
require_relative "feed_probe"
require_relative "own_ports"

# A server out of Debian's packages, as it is, and what every one of them has to be read as. A test says which PROGRAM, its SETTINGS, how it is
# begun (#words), and who ann is there (#ann_is).
module DebiansIrcServer
  include Wait

  def setup
    raise "bin/setup dev installs it: #{self.class::PROGRAM}" unless File.executable?(self.class::PROGRAM)

    @port = OwnPorts.one
    @folder = Dir.mktmpdir("irc")
    settings = File.join(@folder, "settings")
    File.write(settings, format(self.class::SETTINGS, port: @port, folder: @folder))
    @pid = begin_server(settings)
    wait_for("the server") { TCPSocket.new("127.0.0.1", @port).close || true rescue false } # rubocop:disable Style/RescueModifier
  end

  # It does not run as root.
  def begin_server(settings)
    as = Process.uid.zero? ? %w[runuser -u irc --] : []
    FileUtils.chown_R("irc", nil, @folder) if Process.uid.zero?
    spawn(*as, self.class::PROGRAM, *words(settings), out: File::NULL, err: File::NULL, pgroup: true)
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
    assert_equal [ann_is, "ann"], @probe.line_with("héllo 🦆").body.then { |said| [said.login, said.display_name] }
    assert @probe.line_with("waves").body.action
    @probe.say("thank you")
    until_says(ann, "PRIVMSG #reedmere :thank you")
    assert wait_for("the answer to count as gone") { @probe.of(:answered).last }.body.went
  end
end
