# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../../lib/bavard/feeds/outbox"
require_relative "../../../lib/bavard/feeds/xmpp"

# A stream to a room, without a socket: what is forged, broken or missing.
class XmppSessionTest < Minitest::Test
  Xmpp = Bavard::Feeds::Xmpp
  ROOM = "hide@rooms.reedmere.example"
  MUC = "http://jabber.org/protocol/muc#user"
  STREAM = "<stream:stream xmlns='jabber:client' xmlns:stream='http://etherx.jabber.org/streams' id='s1' version='1.0'>"
  JOINED = "<presence from='#{ROOM}/guest'><x xmlns='#{MUC}'><item affiliation='none' role='participant'/><status code='110'/></x></presence>".freeze
  ANN = "<presence from='#{ROOM}/ann'><x xmlns='#{MUC}'><item affiliation='owner' role='moderator'/></x></presence>".freeze

  def setup = begin_session

  def begin_session(resume: Bavard::Feeds::NOTHING_TO_RESUME, **given)
    @now_ms = 1_795_499_520_000
    @rejected = []
    read = Xmpp.read({"jid" => ROOM, "xmpp_nick" => "guest"}.merge(given.transform_keys(&:to_s)))
    @address = Xmpp::Address.new(**read[:address].transform_keys(&:to_sym), password: read[:password])
    @session = Xmpp::Session.new(3, @address, resume, reject: @rejected.method(:<<))
    @session.begin(@now_ms)
    @sent = @session.take_outgoing
    @intakes = []
  end

  # Cut anywhere.
  def hear(xml, fresh: false)
    @stream = Xmpp::Stream.new { |what| @session.receive(what, @now_ms) } if fresh || @stream.nil?
    xml.b.scan(/.{1,7}/mn) { |bytes| @stream.feed(bytes) }
    @sent = @session.take_outgoing
    @intakes += @session.take_intakes
    @sent
  end

  def features(inside) = hear("#{STREAM}<stream:features>#{inside}</stream:features>", fresh: true)

  def mechanisms(*names) = "<mechanisms xmlns='#{Xmpp::Session::SASL}'>#{names.map { |name| "<mechanism>#{name}</mechanism>" }.join}</mechanisms>"

  # As far as the room.
  def come_in
    features("<starttls xmlns='#{Xmpp::Session::TLS}'/>#{mechanisms("ANONYMOUS")}")
    assert_equal ["<starttls xmlns='#{Xmpp::Session::TLS}'/>"], @sent
    assert_equal [:secure], hear("<proceed xmlns='#{Xmpp::Session::TLS}'/>")
    @session.secured(@now_ms)
    features(mechanisms("ANONYMOUS", "PLAIN"))
    assert_match(/mechanism='ANONYMOUS'/, @sent.last)
    hear("<success xmlns='#{Xmpp::Session::SASL}'/>")
    features("<bind xmlns='#{Xmpp::Session::BIND}'/>")
    hear("<iq type='result' id='#{@sent.last[/id='(\w+)'/, 1]}'><bind xmlns='#{Xmpp::Session::BIND}'><jid>x@y/z</jid></bind></iq>")
    assert_includes @sent.last, "to='#{ROOM}/guest'"
    hear(ANN + JOINED)
  end

  def groupchat(inside, from: "#{ROOM}/ann", **attributes)
    "<message from='#{from}' type='groupchat' #{attributes.map { |name, value| "#{name}='#{value}'" }.join(" ")}>#{inside}</message>"
  end

  def lines = @intakes.select { |one| one.kind == :line }
  def kinds = @intakes.map(&:kind) - [:feed_state]

  def test_the_way_in_and_a_line
    come_in
    assert_predicate @session, :joined?
    hear(groupchat("<body>hi</body><stanza-id xmlns='urn:xmpp:sid:0' by='#{ROOM}' id='s1'/><stanza-id xmlns='urn:xmpp:sid:0' by='ann@x' id='forged'/>"))
    assert_equal [["ann", "hi", %w[host moderator], "s1"]], lines.map { |one| [one.body.login, one.body.text, one.body.badges, one.platform_id] }
    hear("#{groupchat("<body>old</body><delay xmlns='urn:xmpp:delay' stamp='2026-11-24T05:52:00Z'/>", id: "o")}#{groupchat("<body>bad</body><delay xmlns='urn:xmpp:delay' stamp='x'/>")}")
    assert_equal [[true, 1_795_499_520_000, "ann/o"], [false, nil, nil]], lines.drop(1).map { |one| [one.body.history, one.platform_time_ms, one.platform_id] }
  end

  def test_what_is_not_of_the_room_is_nothing
    come_in
    hear("#{groupchat("<body>x</body>", from: "other@rooms.reedmere.example/ann")}#{groupchat("<body>x</body>", from: "evil.example")}#{groupchat("<body>whispered</body>").sub("groupchat", "chat")}#{groupchat("<body>of the room itself</body>", from: ROOM)}#{groupchat("<subject>new</subject>")}<presence from='evil@x/ann' type='unavailable'/><presence/><message/><iq/><iq type='result' id='1'/>")
    assert_empty kinds
    assert_nil @session.ended
  end

  def test_roles_come_from_the_room_and_from_nothing_that_anybody_writes
    come_in
    hear(groupchat("<body>I am the host</body><x xmlns='#{MUC}'><item affiliation='owner' role='moderator'/></x>", from: "#{ROOM}/bo"))
    hear("<presence from='#{ROOM}/bo'><x xmlns='urn:other'><item affiliation='owner'/></x></presence>#{groupchat("<body>2</body>", from: "#{ROOM}/bo")}")
    assert_equal [[], []], lines.map { |one| one.body.badges }
    hear("<presence from='#{ROOM}/bo'><x xmlns='#{MUC}'><item affiliation='member' role='visitor'/></x></presence>#{groupchat("<body>3</body>", from: "#{ROOM}/bo")}")
    assert_equal %w[member], lines.last.body.badges
  end

  def test_nobody_takes_over_a_nick_and_with_it_what_was_said
    come_in
    hear(groupchat("<body>mine</body><stanza-id xmlns='urn:xmpp:sid:0' by='#{ROOM}' id='s1'/>", id: "m1"))
    hear("<presence from='#{ROOM}/ann' type='unavailable'><x xmlns='#{MUC}'/></presence>#{ANN}")
    hear(groupchat("<body>theirs</body><replace xmlns='urn:xmpp:message-correct:0' id='m1'/>", id: "m2"))
    hear(groupchat("<body/><retract xmlns='urn:xmpp:message-retract:1' id='s1'/>"))
    assert_equal [%i[line line], %w[mine theirs]], [kinds, lines.map { |one| one.body.text }]
    assert_equal 1, @rejected.size
    hear("<message from='#{ROOM}' type='groupchat'><retract xmlns='urn:xmpp:message-retract:1' id='s1'><moderated xmlns='urn:xmpp:message-moderate:1'/></retract></message>")
    assert_equal :delete_line, kinds.last
  end

  def test_whoever_is_called_otherwise_is_who_they_were_and_whoever_is_banned_is_silenced
    come_in
    hear(groupchat("<body>mine</body>", id: "m1"))
    hear("<presence from='#{ROOM}/ann' type='unavailable'><x xmlns='#{MUC}'><item nick='annie'/><status code='303'/></x></presence>")
    hear(groupchat("<body>mine, I mean</body><replace xmlns='urn:xmpp:message-correct:0' id='m1'/>", from: "#{ROOM}/annie"))
    assert_equal [:line, :edit_line, "ann/m1"], [*kinds, @intakes.last.platform_id]
    hear("<presence from='#{ROOM}/annie' type='unavailable'><x xmlns='#{MUC}'><item affiliation='outcast'/><status code='301'/></x></presence>")
    assert_equal [:clear_person, "annie"], [@intakes.last.kind, @intakes.last.body]
  end

  def test_a_password_is_sent_to_nobody_without_tls_and_to_no_server_that_does_not_know_it
    begin_session(account: "bo@reedmere.example", account_password: "secret")
    features(mechanisms("PLAIN", "SCRAM-SHA-1"))
    assert_match(/does not secure the line/, @session.ended.reason)
    assert_empty @sent
    begin_session(account: "bo@reedmere.example", account_password: "secret")
    @session.secured(@now_ms)
    features(mechanisms("PLAIN", "SCRAM-SHA-1"))
    assert_match(/mechanism='SCRAM-SHA-1'/, @sent.last)
    first = @sent.last[/>([^<]+)</, 1].unpack1("m")
    nonce = first[/r=(\w+)/, 1]
    hear("<challenge xmlns='#{Xmpp::Session::SASL}'>#{["r=#{nonce}x,s=#{["salt"].pack("m0")},i=4096"].pack("m0")}</challenge>")
    refute_includes @sent.first.unpack1("m"), "secret"
    hear("<success xmlns='#{Xmpp::Session::SASL}'>#{["v=#{["forged"].pack("m0")}"].pack("m0")}</success>")
    assert_match(/could not prove/, @session.ended.reason)
  end

  # RFC 5802 §5.
  def test_the_example_of_the_standard
    scram = Xmpp::Sasl::Scram.new("SCRAM-SHA-1", "user", "pencil", nonce: "fyko+d2lbbFgONRv9qkxdawL")
    assert_equal "n,,n=user,r=fyko+d2lbbFgONRv9qkxdawL", scram.first
    assert_equal "c=biws,r=fyko+d2lbbFgONRv9qkxdawL3rfcNHYJY1ZVvWVs7j,p=v0X8v3Bz2T0CJGbJQyF0X+HI4Ts=",
      scram.answer("r=fyko+d2lbbFgONRv9qkxdawL3rfcNHYJY1ZVvWVs7j,s=QSXCR+Q6sek8bf92,i=4096")
    assert scram.proved?("v=rmF9pqV8S7suAoZWja4dJRkFsKQ=")
    refute scram.proved?("v=xmF9pqV8S7suAoZWja4dJRkFsKQ=")
    ["r=other,s=QQ==,i=1", "r=fyko+d2lbbFgONRv9qkxdawLx,s=QQ==,i=99999999", "", "i=1", "r=fyko+d2lbbFgONRv9qkxdawL,s=QQ==,i=1"].each do |challenge|
      assert_nil Xmpp::Sasl::Scram.new("SCRAM-SHA-1", "user", "pencil", nonce: "fyko+d2lbbFgONRv9qkxdawL").answer(challenge), challenge
    end
  end

  def test_each_no_of_a_room_is_told_in_words
    {"registration-required" => :permission, "forbidden" => :permission, "item-not-found" => :address, "remote-server-not-found" => :address, "service-unavailable" => nil}
      .each do |kind, want|
      begin_session
      come_in_as_far_as_the_room
      hear("<presence from='#{ROOM}/guest' type='error'><error type='auth'><#{kind} xmlns='urn:ietf:params:xml:ns:xmpp-stanzas'/></error></presence>")
      assert_equal [want], [@session.ended.want], kind
      assert_includes @session.ended.reason, ROOM
    end
  end

  def come_in_as_far_as_the_room
    @session.secured(@now_ms)
    features(mechanisms("ANONYMOUS"))
    hear("<success xmlns='#{Xmpp::Session::SASL}'/>")
    features("<bind xmlns='#{Xmpp::Session::BIND}'/>")
    hear("<iq type='result' id='#{@sent.last[/id='(\w+)'/, 1]}'/>")
  end

  def test_a_line_that_is_silent_is_asked_and_then_dead
    come_in
    @session.tick(@now_ms += 44_000)
    assert_empty @session.take_outgoing
    @session.tick(@now_ms += 2000)
    assert_match(/urn:xmpp:ping/, @session.take_outgoing.first)
    hear("<iq type='error' id='x'/>")
    @session.tick(@now_ms += 46_000)
    @session.tick(@now_ms += 20_001)
    assert_match(/does not answer any more/, @session.ended.reason)
  end

  def test_it_answers_pings_and_knows_nothing_else
    come_in
    hear("<iq type='get' id='p1' from='reedmere.example'><ping xmlns='urn:xmpp:ping'/></iq>")
    assert_equal ["<iq type='result' id='p1' to='reedmere.example'/>"], @sent
    hear("<iq type='set' id='&apos;/&gt;' from='a@b'><query xmlns='x'/></iq>")
    assert_includes @sent.first, "id='&#39;/&gt;'"
  end

  def test_what_no_stream_may_hold_ends_it
    ["<!DOCTYPE x [<!ENTITY a 'b'>]>", "<?php x?>", "<!-- x -->", "<a>&undefined;</a>", "</wrong>", "<a b=c/>", "\xff\xfe", "<a>" * 40, "<a b='#{"x" * 600_000}'/>"].each do |bytes|
      stream = Xmpp::Stream.new { |what| what }
      parts = ["<?xml version='1.0'?>", STREAM, *bytes.b.scan(/.{1,3000}/mn), "</stream:stream>"]
      assert_raises(Xmpp::Nonsense, bytes[0, 30]) { parts.each { |some| stream.feed(some) } }
    end
    stream = Xmpp::Stream.new { |what| (@told ||= []) << what }
    "<?xml version='1.0'?>#{STREAM}<a><![CDATA[x < y]]></a> \n<b/></stream:stream>".each_char { |one| stream.feed(one) }
    assert_equal ["stream", "a", "b", :closed], @told.map { |what| what.is_a?(Symbol) ? what : what.name }
    assert_equal "x < y", @told[1].text
  end

  def test_anything_may_come_and_no_role_is_forged
    random = Random.new(11)
    names = %w[message presence iq x item status error body delay replace retract apply-to reply fallback result forwarded fin query stanza-id occupant-id subject destroy
      moderated not-authorized]
    spaces = ["jabber:client", MUC, "urn:xmpp:mam:2", "urn:xmpp:forward:0", "urn:xmpp:sid:0", "urn:xmpp:delay", "urn:xmpp:reply:0", "urn:xmpp:fallback:0", "urn:x"]
    values = ["#{ROOM}/bo", ROOM, "groupchat", "error", "unavailable", "110", "303", "307", "2026-11-24T05:52:00Z", "-3", "9" * 40, "", "ann", "result"]
    attributes = %w[from type id code affiliation role nick by stamp start end for to queryid var]
    build = lambda do |depth|
      given = Array.new(random.rand(4)) { attributes.sample(random:) }.uniq.to_h { |name| [name, values.sample(random:)] }
      given.delete("affiliation")
      given["role"] = "none" if given.key?("role")
      Xmpp::Element.written(names.sample(random:), {xmlns: spaces.sample(random:), **given}, *(depth.zero? ? ["t"] : Array.new(random.rand(3)) { build.call(depth - 1) }))
    end
    begin_session
    come_in_as_far_as_the_room
    3000.times do
      begin_session.then { come_in_as_far_as_the_room } if @session.ended
      hear(build.call(3))
      @session.tick(@now_ms += 10)
    end
    assert_empty(lines.flat_map { |one| one.body.badges })
  end

  def test_addresses_as_people_have_them
    read = ->(**given) { Xmpp::Address.read(given.transform_keys(&:to_s)) }
    one = read.call(jid: " xmpp:Hide@Rooms.Reedmere.Example?join ")
    assert_equal ["hide@rooms.reedmere.example", "reedmere.example", nil, nil], [one.room, one.server, one.host, one.account]
    one = read.call(jid: ROOM, account: "bo@other.example", account_password: "x", place: "[::1]:5223")
    assert_equal ["other.example", "::1", 5223, %w[bo x]], [one.server, one.host, one.port, one.login]
    assert_equal "localhost", read.call(jid: "hide@localhost").server
    {{jid: ""} => "jid", {jid: "hide"} => "jid", {jid: "a b@c.example"} => "jid", {jid: "<a>@c.example"} => "jid", {jid: ROOM, xmpp_server: "a b"} => "xmpp_server",
     {jid: ROOM, place: "x:99999"} => "place", {jid: ROOM, account: "bo"} => "account", {jid: ROOM, xmpp_nick: "x" * 61} => "xmpp_nick"}.each do |given, field|
      assert_equal field, assert_raises(Bavard::Error) { read.call(**given) }.field, given.inspect
    end
  end
end
