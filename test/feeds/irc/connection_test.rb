# frozen_string_literal: true

require_relative "../../support/own_ports"
require_relative "../../support/feed_probe"
require_relative "../../support/minimal_irc"
require_relative "../../support/plain"
require_relative "../../support/processes"
require_relative "../../support/trusted_certificate"

# What a feed does on any server, shown on two: one that offers everything and one that offers nothing.
module FeedContract
  include Wait

  def teardown
    @probe&.stop
    server.stop
  end

  def test_it_becomes_live_and_reads_lines
    @probe = FeedProbe.irc(address).start.until_live
    say("ann", "hello :) there 🌅")
    assert_equal guest, @probe.line_with("hello :) there 🌅").body.login
  end

  def test_it_comes_back_after_a_cut_and_says_why_it_was_away
    @probe = FeedProbe.irc(address).start.until_live
    cut
    wait_for("the loss") { @probe.states.include?(:waiting) }
    waiting = @probe.of(:feed_state).map(&:body).find { |state| state.state == :waiting }
    refute_empty waiting.reason
    assert_operator waiting.retry_at_ms, :>=, waiting.since_ms
    @probe.until_live
    wait_for("it to be in the channel again") { joined? }
    say("ann", "back again")
    @probe.line_with("back again")
  end

  def test_stopping_leaves_no_thread_behind
    before = Thread.list.size
    @probe = FeedProbe.irc(address).start.until_live
    @probe.stop
    wait_for("the thread to end") { Thread.list.none? { |thread| thread.name == "feed-1" } }
    assert_operator Thread.list.size, :<=, before + 2
    assert_equal :off, @probe.state.state
  end
end

class MinimalServerFeedTest < Minitest::Test
  include FeedContract

  def server = @server ||= MinimalIrc.new
  def address = "irc://127.0.0.1:#{server.port}/#reedmere"
  def say(nick, text) = server.say(nick, text)
  def cut = server.cut
  def joined? = server.clients.positive?
  def guest = "ann"

  def test_bytes_that_are_not_utf_8_are_read
    @probe = FeedProbe.irc(address).start.until_live
    server.write(":a!b@c PRIVMSG #reedmere :caf\xE9\r\n".b)
    assert_equal "a", @probe.line_with("café").body.login
  end

  def test_garbage_is_rejected_and_the_next_line_read
    @probe = FeedProbe.irc(address).start.until_live
    server.write("#{"x" * 40_000}\r\n\0\xFF\xFE\r\n@@@ ;;;\r\n:\r\n".b)
    say("ann", "still here")
    @probe.line_with("still here")
    assert_operator @probe.rejected.size, :>=, 3
  end

  def test_what_was_missed_shows_as_a_gap
    @probe = FeedProbe.irc(address, heard_at_ms: FeedProbe::CLOCK.call - 60_000).start.until_live
    gap = wait_for("the gap") { @probe.of(:gap).first }.body
    assert_in_delta 60_000, gap.to_ms - gap.from_ms, 5000
  end
end

class FullServerFeedTest < Minitest::Test
  include FeedContract

  def server = @server ||= RunningOxbow.new.start
  def address = server.address
  def say(nick, text) = server.type(text, nick:)
  def joined? = true
  # Where accounts are told, whoever has none is marked.
  def guest = "~ann"

  # Its own page can misbehave on purpose.
  def cut
    server.post("/cut", {})
  end

  def test_a_line_has_its_id_time_and_colours
    @probe = FeedProbe.irc(address).start.until_live
    server.post("/say", "login" => "kestrel_ann", "text" => "tagged")
    line = @probe.line_with("tagged")
    refute_nil line.platform_id
    assert_in_delta line.arrived_at_ms, line.platform_time_ms, 5000
    assert_equal ["#f3b634", "kestrel_ann", ["subscriber/14"]], [line.body.colour, line.body.display_name, line.body.badges]
  end

  def test_a_delete_on_the_platform_arrives
    @probe = FeedProbe.irc(address).start.until_live
    server.post("/say", "login" => "birdbath", "text" => "oops")
    id = @probe.line_with("oops").platform_id
    server.post("/delete", "id" => id)
    wait_for("the delete") { @probe.of(:delete_line).any? { |intake| intake.platform_id == id } }
  end

  def test_what_was_missed_is_fetched_once_with_its_own_times
    server.post("/say", "login" => "birdbath", "text" => "known")
    known = server.lines.last["id"]
    server.post("/say", "login" => "birdbath", "text" => "missed")
    @probe = FeedProbe.irc(address, last_id: known, heard_at_ms: FeedProbe::CLOCK.call).start.until_live
    missed = @probe.line_with("missed")
    assert missed.body.history
    refute_nil missed.platform_time_ms
    refute_includes @probe.texts, "known"
  end

  def test_the_end_of_the_broadcast_is_not_the_end_of_the_connection
    @probe = FeedProbe.irc(address).start.until_live
    server.post("/broadcast", "on" => "0")
    wait_for("the state") { @probe.state.state == :nobody_broadcasting }
    server.post("/broadcast", "on" => "1")
    @probe.until_live
  end

  def test_sasl_lets_a_known_viewer_in_and_a_wrong_password_not
    @probe = FeedProbe.irc(address, nick: "odalys", password: "marsh").start.until_live
    wrong = FeedProbe.irc(address, nick: "odalys", password: "desert").start
    wait_for("the refusal") { wrong.state&.state == :needs_you }
    wrong.stop
  end
end

class ConnectionTroubleTest < Minitest::Test
  include Wait

  def teardown
    @probe&.stop
    @server&.stop
  end

  def test_a_port_where_nothing_listens_is_said_to_be_so
    @probe = FeedProbe.irc("irc://127.0.0.1:#{OwnPorts.one}/#x").start
    wait_for("the reason") { @probe.states.include?(:waiting) }
    assert_includes @probe.of(:feed_state).map { |intake| intake.body.reason }.join, "Nothing answers at 127.0.0.1"
  end

  def test_a_certificate_nobody_vouches_for_is_refused
    @server = MinimalIrc.new(tls: TrustedCertificate.new("IP:127.0.0.1").context)
    @probe = FeedProbe.irc("ircs://127.0.0.1:#{@server.port}/#x").start
    wait_for("the refusal") { @probe.states.include?(:waiting) }
    assert_includes @probe.of(:feed_state).map { |intake| intake.body.reason }.join, "The secure connection failed"
    refute_includes @probe.states, :live
  end

  def test_a_certificate_somebody_vouches_for_is_good
    @server = MinimalIrc.new(tls: TrustedCertificate.new("IP:127.0.0.1").trust.context)
    @probe = FeedProbe.irc("ircs://127.0.0.1:#{@server.port}/#reedmere").start.until_live
    @server.say("ann", "secretly")
    assert_equal "ann", @probe.line_with("secretly").body.login
  end

  def test_a_server_that_refuses_by_name_needs_the_host
    @server = MinimalIrc.new(greeting: ->(client, nick) { client.write(":min 464 #{nick} :Password incorrect\r\n") })
    @probe = FeedProbe.irc("irc://127.0.0.1:#{@server.port}/#x").start
    wait_for("the state") { @probe.state&.state == :needs_you }
    assert_includes @probe.state.reason, "password"
  end
end
