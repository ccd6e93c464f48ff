# frozen_string_literal: true

require_relative "../../support/debians_irc_server"

# InspIRCd, with what IRCv3 has of ids, times and accounts switched on.
class ModularServerTest < Minitest::Test
  include DebiansIrcServer

  PROGRAM = "/usr/sbin/inspircd"
  MODULES = %w[cap ircv3 ircv3_capnotify ircv3_msgid ircv3_servertime ircv3_accounttag ircv3_ctctags].freeze
  SETTINGS = <<~CONF + MODULES.map { |name| %(<module name="#{name}">) }.join
    <server name="irc.reedmere.example" description="Test" network="Test">
    <bind address="127.0.0.1" port="%<port>d" type="clients">
    <connect allow="*" timeout="60" resolvehostnames="no" useident="no" localmax="100" globalmax="100" commandrate="100000" fakelag="no">
    <path configdir="%<folder>s" datadir="%<folder>s" logdir="%<folder>s" runtimedir="%<folder>s">
    <pid file="%<folder>s/pid">
  CONF

  def words(settings) = ["--nofork", "--config=#{settings}"]

  # This server tells accounts, and ann has none: her nick is not the account of the same name.
  def ann_is = "~ann"

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
end

# ircd-hybrid: multi-prefix and extended joins, and neither ids nor times. Debian does not install it beside ngIRCd.
class HybridServerTest < Minitest::Test
  include DebiansIrcServer

  PROGRAM = "/usr/local/lib/ircd-hybrid-package/usr/sbin/ircd-hybrid"
  SETTINGS = <<~CONF
    serverinfo { name = "irc.reedmere.example"; sid = "0AA"; description = "Test"; network_name = "Test"; };
    admin { name = "Test"; description = "Test"; email = "test@reedmere.example"; };
    class { name = "users"; ping_time = 90 seconds; max_number = 100; sendq = 1 megabyte; recvq = 8000 bytes; };
    auth { user = "*@*"; class = "users"; flags = exceed_limit; };
    listen { host = "127.0.0.1"; port = %<port>d; };
    general { throttle_count = 1000; throttle_time = 1 second; disable_auth = yes; ping_cookie = no; default_floodcount = 0; };
    channel { default_join_flood_count = 0; };
  CONF

  def words(settings) = ["-foreground", "-configfile", settings, "-logfile", "#{@folder}/log", "-pidfile", "#{@folder}/pid"]

  # By what she calls herself: this server tells no accounts.
  def ann_is = "ann"

  def test_lines_have_neither_ids_nor_times_of_the_servers
    ann = client("ann")
    read
    ann.write("PRIVMSG #reedmere :plain\r\n")
    assert_equal [nil, nil], @probe.line_with("plain").then { |line| [line.platform_id, line.platform_time_ms] }
  end
end
