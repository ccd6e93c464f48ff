# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/irc"

# The state machine, without sockets: every server's answer at the moment that matters.
class SessionTest < Minitest::Test
  Irc = Bavard::Feeds::Irc

  def session(last_id: nil, heard_at_ms: nil, behind_ms: nil, mapping: {}, **given)
    address = Irc::Address.read({"paste" => "irc://x.example/#dawn"}.merge(given.transform_keys(&:to_s)))
    @session = Irc::Session.new(feed_id: 1, address:, mapping: Irc::Mapping.new(mapping),
      resume: Bavard::Feeds::Resume.new(last_id, heard_at_ms, nil, behind_ms), digits: -> { 42 })
    @session.begin(1000)
    @session.take_outgoing.tap { @session.take_intakes }
  end

  def hear(*lines, at_ms: 2000)
    lines.each { |line| @session.receive(line, at_ms) }
    @session.take_outgoing
  end

  def intakes = @session.take_intakes

  def join(capabilities: nil)
    session_lines = capabilities ? [":s CAP * LS :#{capabilities}", ":s CAP * ACK :#{capabilities}"] : [":s 421 * CAP :?"]
    hear(*session_lines, ":s 001 guest42 :Welcome", ":guest42!g@h JOIN #dawn")
  end

  # Ours is an hour ahead: by its own clock nothing was said yet since then.
  def test_a_server_is_asked_by_its_own_clock_and_what_is_missing_is_told_by_ours
    noon_ms = 1_796_040_000_000
    session(heard_at_ms: noon_ms + 3_600_000, behind_ms: 3_600_000)
    asked = join(capabilities: "batch server-time draft/chathistory")
    assert_includes asked, "CHATHISTORY AFTER #dawn timestamp=#{Time.at(noon_ms / 1000).utc.iso8601(3)} 100"
    told = Time.at((noon_ms / 1000) + 5).utc.iso8601(3)
    hear(":s BATCH +b draft/chathistory #dawn", *Array.new(100) { "@batch=b;time=#{told} :v!u@h PRIVMSG #dawn :hello" })
    assert_includes hear(":s BATCH -b"), "CHATHISTORY AFTER #dawn timestamp=#{told} 100"
    intakes
    hear(":s FAIL CHATHISTORY INVALID_TARGET #dawn :no", at_ms: noon_ms + 3_700_000)
    assert_equal [noon_ms + 3_605_000, noon_ms + 3_700_000], intakes.find { |intake| intake.kind == :gap }.body.to_a
  end

  def test_a_guest_introduces_itself_at_once
    assert_equal ["CAP LS 302", "NICK guest42", "USER guest42 0 * :guest42"], session
  end

  def test_it_asks_only_for_what_is_offered_and_wanted
    session
    assert_includes hear(":s CAP * LS * :message-tags away-notify", ":s CAP * LS :server-time=x batch"), "CAP REQ :message-tags server-time batch"
    assert_equal ["CAP END"], hear(":s CAP * ACK :message-tags server-time batch")
  end

  def test_a_server_that_refuses_the_request_is_read_without
    session
    hear(":s CAP * LS :batch")
    assert_equal ["CAP END"], hear(":s CAP * NAK :batch")
  end

  def test_sasl_plain_is_used_where_it_is_offered
    assert_equal ["CAP LS 302"], session(nick: "ann", password: "marsh")
    assert_includes hear(":s CAP * LS :sasl=PLAIN message-tags"), "CAP REQ :message-tags sasl"
    assert_equal ["AUTHENTICATE PLAIN"], hear(":s CAP * ACK :message-tags sasl")
    assert_equal ["AUTHENTICATE #{["\0ann\0marsh"].pack("m0")}"], hear("AUTHENTICATE +")
    assert_equal ["CAP END"], hear(":s 903 ann :ok")
  end

  def test_a_long_password_goes_in_pieces
    session(nick: "ann", password: "x" * 300)
    hear(":s CAP * LS :sasl", ":s CAP * ACK :sasl")
    pieces = hear("AUTHENTICATE +").map { |line| line.delete_prefix("AUTHENTICATE ") }
    assert_equal ["\0ann\0#{"x" * 300}"], pieces.join.unpack("m")
    assert_equal 400, pieces.first.length
  end

  def test_a_refused_password_needs_the_host
    session(nick: "ann", password: "marsh")
    hear(":s CAP * LS :sasl", ":s CAP * ACK :sasl", ":s 904 ann :no")
    assert_equal :needs_you, @session.ended
  end

  def test_a_server_without_sasl_gets_the_password_the_old_way
    session(nick: "ann", password: "two words")
    assert_equal ["PASS :two words", "NICK ann", "USER ann 0 * :ann"], hear(":s 421 * CAP :?")
  end

  def test_a_server_that_never_answers_cap_gets_it_after_a_while
    session(nick: "ann", password: "marsh")
    @session.tick(3999)
    assert_empty @session.take_outgoing
    @session.tick(4000)
    assert_equal "PASS marsh", @session.take_outgoing.first
  end

  def test_a_nick_in_use_gets_another
    session(nick: "ann")
    assert_equal ["NICK ann_"], hear(":s 433 * ann :in use")
    assert_equal ["NICK ann__"], hear(":s 433 * ann_ :in use")
  end

  def test_a_nick_that_is_too_long_is_tried_shorter_and_then_told_with_the_servers_words
    session(nick: "marsh_harrier")
    assert_equal ["NICK marsh_har"], hear(":s 432 * marsh_harrier :Erroneous nickname")
    assert_equal ["NICK marsh_ha_"], hear(":s 433 * marsh_har :in use")
    assert_equal ["NICK marsh"], hear(":s 432 * marsh_ha_ :Erroneous nickname")
    hear(":s 432 * marsh :No birds here")
    assert_equal [:needs_you, "The server does not take the nick “marsh”: “No birds here”"], [@session.ended, @session.reason]
  end

  def test_a_guest_of_a_server_with_short_nicks_gets_in
    session
    assert_equal ["NICK g42"], hear(":s 432 * guest42 :too long")
  end

  def cleared = intakes.select { |intake| intake.kind == :clear_person }.map(&:body)

  def test_whoever_is_put_out_goes_with_all_they_said_under_other_nicks
    session
    join
    hear(":bo!b@h PRIVMSG #dawn :one", ":bo!b@h NICK bob", ":bob!b@h NICK robert", ":op!o@h KICK #dawn robert :enough")
    assert_equal %w[robert bo bob], cleared
  end

  def test_a_nick_that_somebody_else_has_taken_since_is_theirs
    session
    join
    hear(":bo!b@h NICK bob", ":bo!other@h PRIVMSG #dawn :I am another bo", ":op!o@h KICK #dawn bob :enough")
    assert_equal %w[bob], cleared
  end

  def test_a_server_where_every_nick_is_in_use_is_tried_again_later
    session
    7.times { hear(":s 433 * guest42 :in use") }
    assert_equal :waiting, @session.ended
  end

  def test_pings_are_answered_with_what_they_said
    session
    assert_equal ["PONG :a b"], hear("PING :a b")
  end

  def test_it_is_live_once_it_is_in_the_channel
    session
    join
    assert_equal([[:live, "Reading #dawn."]], intakes.map { |intake| [intake.body.state, intake.body.reason] })
  end

  def test_connected_but_nobody_broadcasting_is_not_the_same_as_live
    session
    hear(":s 421 * CAP :?", ":s 001 guest42 :Welcome", ":guest42!g@h JOIN #dawn", ":s 332 guest42 #dawn :off air until tomorrow")
    assert_equal(%i[live nobody_broadcasting], intakes.map { |intake| intake.body.state })
    hear(":x TOPIC #dawn :Dawn ringing, live")
    assert_equal([:live], intakes.map { |intake| intake.body.state })
  end

  def test_a_line_carries_what_its_tags_say
    session
    join
    intakes
    hear("@msgid=m1;time=2026-11-24T05:52:00.000Z;draft/display-name=Ann\\sB;account=ann;draft/color=#fff :ann2!a@h PRIVMSG #DAWN :hello")
    said = intakes.first
    assert_equal ["m1", 1_795_499_520_000, 2000], [said.platform_id, said.platform_time_ms, said.arrived_at_ms]
    assert_equal ["ann", "Ann B", "#ffffff", "hello", false, false], said.body.to_a.values_at(0, 1, 2, 4, 5, 6)
  end

  def test_an_action_is_one_and_other_ctcp_is_not_a_line
    session
    join
    intakes
    hear(":a!b@c PRIVMSG #dawn :\u0001ACTION waves\u0001", ":a!b@c PRIVMSG #dawn :\u0001VERSION\u0001", ":a!b@c PRIVMSG #dawn :\u0001ACTION cut")
    assert_equal([["waves", true], ["cut", true]], intakes.map { |intake| [intake.body.text, intake.body.action] })
  end

  def test_formatting_codes_are_taken_out
    session
    join
    intakes
    hear(":a!b@c PRIVMSG #dawn :\u000304,12red\u0003 \u0002bold\u000F")
    assert_equal "red bold", intakes.first.body.text
  end

  def test_lines_for_others_are_not_ours
    session
    join
    intakes
    hear(":a!b@c PRIVMSG guest42 :psst", ":a!b@c PRIVMSG #other :x", ":a!b@c PRIVMSG", "PRIVMSG #dawn :from nobody")
    assert_empty intakes
  end

  def test_a_redaction_deletes_the_line
    session
    join
    intakes
    hear(":op!o@h REDACT #dawn m1 :spam")
    assert_equal([[:delete_line, "m1"]], intakes.map { |intake| [intake.kind, intake.platform_id] })
  end

  def test_a_kick_is_tried_again_and_the_reason_kept
    session
    join
    hear(":op!o@h KICK #dawn guest42 :shoo")
    assert_equal [:waiting, "We were put out of #dawn: “shoo”"], [@session.ended, @session.reason]
  end

  def test_a_channel_that_does_not_let_us_in_needs_the_host
    session
    hear(":s 421 * CAP :?", ":s 001 guest42 :Welcome", ":s 473 guest42 #dawn :invite only")
    assert_equal :needs_you, @session.ended
  end

  def test_silence_is_asked_about_and_then_given_up
    session
    join
    @session.tick(33_000)
    assert_equal ["PING :still-there"], @session.take_outgoing
    @session.tick(48_000)
    assert_equal :waiting, @session.ended
  end

  def test_what_was_missed_is_fetched_page_by_page
    session(last_id: "m1", heard_at_ms: 500)
    asked = join(capabilities: "batch draft/chathistory message-tags")
    assert_includes asked, "CHATHISTORY AFTER #dawn msgid=m1 100"
    intakes
    hear(":s BATCH +h chathistory #dawn", *(2..101).map { |id| "@batch=h;msgid=m#{id} :a!b@c PRIVMSG #dawn :x" })
    assert_equal ["CHATHISTORY AFTER #dawn msgid=m101 100"], hear(":s BATCH -h")
    told = intakes
    assert_equal 100, told.size
    assert(told.all? { |intake| intake.body.history })
    hear(":s BATCH +i chathistory #dawn")
    assert_empty hear(":s BATCH -i")
  end

  def test_deletes_count_as_part_of_a_page
    session(last_id: "m1", heard_at_ms: 500)
    join(capabilities: "batch draft/chathistory message-tags")
    hear(":s BATCH +h chathistory #dawn", *(2..101).map { |id| "@batch=h;msgid=m#{id} :a!b@c REDACT #dawn m0" })
    assert_equal ["CHATHISTORY AFTER #dawn msgid=m101 100"], hear(":s BATCH -h")
  end

  def test_what_cannot_be_fetched_is_a_gap_from_when_to_when
    session(last_id: "m1", heard_at_ms: 500)
    join
    gap = intakes.find { |intake| intake.kind == :gap }.body
    assert_equal [500, 2000], [gap.from_ms, gap.to_ms]
  end

  def test_a_clock_that_was_set_back_hides_no_gap
    session(last_id: "m1", heard_at_ms: 90_000)
    join
    gap = intakes.find { |intake| intake.kind == :gap }.body
    assert_equal [2000, 90_000], [gap.from_ms, gap.to_ms]
  end

  def test_a_server_that_has_lost_its_history_leaves_a_gap
    session(last_id: "m1", heard_at_ms: 500)
    join(capabilities: "batch draft/chathistory")
    hear("FAIL CHATHISTORY MESSAGE_ERROR AFTER #dawn :Not found")
    assert_equal [:gap], intakes.map(&:kind).grep(:gap)
  end

  def test_a_first_connection_has_missed_nothing
    session
    join
    assert_empty intakes.map(&:kind).grep(:gap)
  end
end
