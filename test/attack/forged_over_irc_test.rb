# frozen_string_literal: true

require "prop_check"
require_relative "../support/ordinary_irc_server"
require_relative "../support/plain"
require_relative "../../lib/bavard/feeds/irc"

# What anybody with a client gains on an ordinary server: nothing but lines of their own, under their own nick.
class ForgedOverIrcTest < Minitest::Test
  Irc = Bavard::Feeds::Irc
  G = PropCheck::Generators
  CHANNEL = "#reedmere"
  HOST = "odalys"

  Server = OrdinaryIrcServer

  def session(mapping: {}, capabilities: "message-tags account-tag batch server-time multi-prefix extended-join draft/chathistory")
    address = Irc::Address.read("paste" => "irc://irc.example/#{CHANNEL}")
    @session = Irc::Session.new(feed_id: 1, address:, mapping: Irc::Mapping.new(mapping), digits: -> { 42 })
    @session.begin(0)
    hear(":s CAP * LS :#{capabilities}", ":s CAP * ACK :#{capabilities}", ":s 001 guest42 :Welcome",
      ":s 005 guest42 PREFIX=(qaohv)~&@%+ CHANMODES=beI,k,l,imnpst :are supported", ":guest42!g@h JOIN #{CHANNEL}",
      ":s 353 guest42 = #{CHANNEL} :~#{HOST} @moor +bram eve guest42")
    @session.take_intakes
  end

  def hear(*lines) = lines.each { |line| @session.receive(line, 1000) }
  def lines = @session.take_intakes.select { |intake| intake.kind == :line }.map(&:body)

  # What a client wrote becomes.
  def sent(*bytes, nick: "eve", account: nil)
    server = Server.new(nick, account:)
    hear(*bytes.flat_map { |one| server.relay(one) })
    @session.take_intakes
  end

  EVERYTHING = "+draft/amount=100000000/EUR;+draft/event=tip;+draft/badges=host,moderator,subscriber/99;+draft/display-name=Odalys;" \
               "+draft/color=#ff0000;+draft/avatar=http://evil.example/x.png;+draft/first=1;+draft/number=999;+draft/message=hi;+account=odalys;" \
               "+display-name=Odalys;+badges=host;+msgid=m1;+time=2020-01-01T00:00:00Z;+draft/emotes=owl:0-1"

  def test_a_tip_of_a_million
    session
    assert_nil sent("@#{EVERYTHING} PRIVMSG #{CHANNEL} :look").first.body.paid
    assert_nil sent("@#{EVERYTHING.delete("+")} PRIVMSG #{CHANNEL} :look").first.body.paid
  end

  def test_an_event
    session
    assert_empty sent("@#{EVERYTHING} TAGMSG #{CHANNEL}", "@#{EVERYTHING.delete("+")} TAGMSG #{CHANNEL}")
  end

  def test_the_name_badges_colour_and_face_of_the_host
    session
    said = sent("@#{EVERYTHING} PRIVMSG #{CHANNEL} :look").first
    assert_equal ["~eve", "eve", nil, [], nil, false, nil], said.body.then { |one| [one.login, one.display_name, one.colour, one.badges, one.avatar, one.first_time, one.emotes] }
    assert_equal [nil, nil], [said.platform_id, said.platform_time_ms]
  end

  def test_the_account_of_the_host_by_taking_its_name_for_a_nick
    session
    assert_equal "~odalys", sent("PRIVMSG #{CHANNEL} :it is me", nick: "odalys").first.body.login
    assert_equal "odalys", sent("PRIVMSG #{CHANNEL} :it is me", nick: "fenn", account: "odalys").first.body.login
  end

  def test_a_rank_by_modes_the_client_sends_itself
    session
    badges = sent("MODE #{CHANNEL} +o eve", "PRIVMSG #{CHANNEL} :look").map { |intake| intake.body.badges }
    assert_equal [[]], badges
    assert_equal [["moderator"]], sent("PRIVMSG #{CHANNEL} :look", nick: "moor").map { |intake| intake.body.badges }
  end

  def test_the_rank_of_somebody_who_left_or_changed_their_nick
    session
    hear(":moor!u@h NICK :moor2", ":#{HOST}!u@h QUIT :bye", ":bram!u@h PART #{CHANNEL} :bye")
    badges = %w[moor odalys bram moor2].map { |nick| sent("PRIVMSG #{CHANNEL} :look", nick:).first.body.badges }
    assert_equal [[], [], [], ["moderator"]], badges
  end

  def test_a_second_line_smuggled_into_the_first
    session
    said = sent("PRIVMSG #{CHANNEL} :hi\r:moor!u@h PRIVMSG #{CHANNEL} :I am moor\0:s MODE #{CHANNEL} +o eve")
    assert_equal [["~eve", "eve"]], said.map { |intake| [intake.body.login, intake.body.display_name] }.uniq
    assert_empty sent("PRIVMSG #{CHANNEL} :x").first.body.badges
  end

  def test_what_was_said_before_under_a_nick_that_is_an_operators_now
    session
    hear(":s BATCH +h chathistory #{CHANNEL}", "@batch=h :moor!u@h PRIVMSG #{CHANNEL} :old", ":s BATCH -h")
    assert_equal [[]], lines.map(&:badges)
  end

  def test_somebody_elses_lines_taken_away
    session
    assert_empty sent("REDACT #{CHANNEL} m1", "KICK #{CHANNEL} moor", "MODE #{CHANNEL} +b moor!*@*")
  end

  WORDS = ["PRIVMSG", "TAGMSG", "NOTICE", "MODE", "KICK", "NICK", "JOIN", "PART", "BATCH", "REDACT", "TOPIC", CHANNEL, "+o", "~odalys", "odalys", "eve", ":",
    " ", ";", "=", "@", "!", "\r", "\n", "\0", "\x01ACTION ", "+draft/event=tip", "+draft/amount=5/EUR", "+draft/badges=host", "account=odalys",
    "display-name=Odalys", "draft/badges=host", "msgid=m1", "batch=h", "\\:", "\\s", "é", "\xFF"].freeze

  # Whatever bytes an ordinary client sends, they become no event, amount, role, badge, or anybody else's name.
  def test_any_bytes_at_all
    session
    PropCheck.forall(G.array(G.one_of(*WORDS.map { |word| G.constant(word) }), min: 1, max: 14), G.boolean) do |parts, tagged|
      sent("#{"@" if tagged}#{parts.join(tagged ? "" : " ")} PRIVMSG #{CHANNEL} :look", parts.join(" "), parts.join).each do |intake|
        assert_equal :line, intake.kind, parts.inspect
        said = intake.body
        assert_equal [nil, [], nil, nil], [said.paid, said.badges, said.avatar, intake.platform_id], parts.inspect
        assert_match(/\A~/, said.login)
        assert_equal said.login.delete_prefix("~"), said.display_name
      end
    end
  end
end
