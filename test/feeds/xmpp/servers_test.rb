# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../support/feed_probe"
require_relative "../../support/xmpp_servers"

# Against Debian's servers, unmodified, over TLS: what any of them does.
module XmppServersTests
  include Wait

  def setup
    @server = server
    @ann = XmppServers::Talker.new(@server, "ann").join(room)
  end

  def teardown
    @probe&.stop
    @ann&.close
    @bo&.close
  end

  # Each test in a room of its own.
  def room = @room ||= @server.room("hide#{rand(10**9)}")

  def guest(**more) = {"jid" => room, "xmpp_server" => XmppServers::GUESTS, "place" => @server.place}.merge(more.transform_keys(&:to_s))
  def bo(**more) = {"jid" => room, "place" => @server.place, "account" => "bo@#{XmppServers::HOST}", "account_password" => XmppServers::PASSWORD}.merge(more.transform_keys(&:to_s))

  def read(given, resume: Bavard::Feeds::NOTHING_TO_RESUME)
    @probe = FeedProbe.xmpp(given, resume:).start
    until_live
  end

  def until_live = wait_for(-> { "the room to be read, not #{@probe.states} #{@probe.state.inspect}" }) { @probe.state&.state == :live }
  def until_state(state) = wait_for(-> { "#{state}, not #{@probe.states} #{@probe.state.inspect}" }) { @probe.state&.state == state }
  def said(text) = wait_for(-> { "“#{text}” among #{@probe.of(:line).map { |one| one.body.text }}" }) { @probe.of(:line).find { |one| one.body.text == text } }

  def test_a_guest_reads_with_roles_replies_and_actions
    read(guest)
    @ann.say("look at the <iris> & 🦉", id: "a1")
    first = said("look at the <iris> & 🦉")
    assert_equal ["ann", "ann", ["host", "moderator"], false], [first.body.login, first.body.display_name, first.body.badges, first.body.history]
    refute_nil first.platform_id
    @ann.say("/me waves")
    assert said("waves").body.action
    @ann.say("> look at the <iris> & 🦉\nyes", inside: "<reply xmlns='urn:xmpp:reply:0' to='#{room}/ann' id='#{first.platform_id}'/>" \
                                                      "<fallback xmlns='urn:xmpp:fallback:0' for='urn:xmpp:reply:0'><body start='0' end='25'/></fallback>")
    answer = said("yes")
    assert_equal [first.platform_id, "ann"], [answer.body.reply.platform_id, answer.body.reply.name]
  end

  def test_the_picture_of_whoever_speaks_comes_from_their_card
    bytes = Random.new(1).bytes(3000)
    read(guest)
    @ann.wear(bytes)
    line = nil
    wait_for("a line with a picture") do
      @ann.say("look #{number = rand(10**9)}")
      (line = said("look #{number}")).body.avatar
    end
    picture = wait_for("the picture") { @probe.of(:picture).first }
    assert_equal [line.body.avatar, bytes], picture.body.to_a
  end

  def test_what_is_changed_and_taken_back_by_its_writer_alone
    read(guest)
    @bo = XmppServers::Talker.new(@server, "bo").join_as_guest(room)
    @ann.say("teh wing", id: "w1")
    line = said("teh wing")
    @bo.say("I was here", id: "b1", inside: "<replace xmlns='urn:xmpp:message-correct:0' id='w1'/>")
    said("I was here")
    @ann.say("the wing", inside: "<replace xmlns='urn:xmpp:message-correct:0' id='w1'/>")
    edit = wait_for("the edit") { @probe.of(:edit_line).first }
    assert_equal [line.platform_id, "the wing"], [edit.platform_id, edit.body.text]
    retract = "<retract xmlns='urn:xmpp:message-retract:1' id='#{line.platform_id}'/>"
    @bo.say("(taken back)", inside: retract)
    wait_for("it to be refused") { @probe.rejected.any? { |what| what.include?("somebody else") } }
    @ann.say("(taken back)", inside: retract)
    gone = wait_for("the delete") { @probe.of(:delete_line).first }
    assert_equal line.platform_id, gone.platform_id
    assert_equal 1, @probe.of(:edit_line).size
  end

  # @yieldparam before [Core::Intake] the last line that was heard
  # @yieldparam heard_at_ms [Integer]
  # @yieldreturn [Array(String, Integer)] what is known of that when it begins anew
  def cut(many)
    @ann.say("before")
    read(guest)
    before = said("before")
    heard_at_ms = FeedProbe::CLOCK.call
    @probe.stop
    many.times { |number| @ann.say("meanwhile #{number}") }
    @ann.hear("meanwhile #{many - 1}")
    known = yield(before, heard_at_ms)
    read(guest, resume: Bavard::Feeds::Resume.new(*known, nil))
    told = said("meanwhile #{many - 1}")
    @ann.say("after")
    assert_equal [true, known.last, nil], [told.body.history, told.since_ms, said("after").since_ms]
  end

  def assert_told_again(many)
    texts = wait_for("all of it") do
      @probe.of(:line).uniq(&:platform_id).map { |one| one.body.text }.then do |all|
        all if (Array.new(many) { |number| "meanwhile #{number}" } - all).empty?
      end
    end
    assert_includes texts, "after"
    assert_empty @probe.of(:gap)
  end

  def test_after_a_cut_what_was_said_meanwhile_comes_once_and_there_is_no_gap
    cut(130) { |before, heard_at_ms| [before.platform_id, heard_at_ms] }
    assert_told_again(130)
  end

  def test_after_a_cut_in_which_our_clock_was_set_as_well
    cut(40) { |before, heard_at_ms| [before.platform_id, heard_at_ms + 3_600_000] }
    assert_told_again(40)
  end

  def test_after_a_cut_in_which_its_server_forgot_the_last_line_that_was_heard
    cut(40) { |_, heard_at_ms| ["1700000000000001", heard_at_ms] }
    assert_told_again(40)
  end

  def test_an_account_answers_and_is_told_whether_it_went
    read(bo)
    @probe.say("good morning")
    went = wait_for("the answer") { @probe.of(:answered).first }
    assert went.body.went, went.body.reason
    @ann.hear("good morning")
    assert_equal "bo", said("good morning").body.login.sub(/\Aguest-.*/, "bo")
  end

  def test_who_cannot_be_let_in_is_told_why
    @probe = FeedProbe.xmpp(bo(account_password: "wrong")).start
    until_state(:needs_you)
    assert_equal [:permission, true], [@probe.state.want, @probe.state.reason.include?("does not take this account and password")]
    @probe.stop
    @probe = FeedProbe.xmpp(guest(xmpp_server: XmppServers::HOST)).start
    until_state(:needs_you)
    assert_equal :permission, @probe.state.want
  end

  def test_a_nick_that_is_taken_is_tried_otherwise_and_whoever_is_banned_is_told
    read(guest(xmpp_nick: "ann"))
    @ann.hear("ann_")
    @ann.iq("<query xmlns='http://jabber.org/protocol/muc#admin'><item nick='ann_' role='none'/></query>")
    until_state(:needs_you)
    assert_match(/has put us out/, @probe.state.reason)
  end
end

# See above.
class ProsodyTest < Minitest::Test
  include XmppServersTests

  def self.running = @running ||= XmppServers::Prosody.new.start.tap { |server| Minitest.after_run { server.stop } }
  def server = self.class.running
end

# See above. It begins as root, or as its own user alone.
class EjabberdTest < Minitest::Test
  include XmppServersTests

  def setup = Process.uid.zero? || Etc.getpwuid.name == "ejabberd" ? super : skip("ejabberd begins as root, or as its own user alone")
  def self.running = @running ||= XmppServers::Ejabberd.new.start.tap { |server| Minitest.after_run { server.stop } }
  def server = self.class.running
end
