# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/outbox"
require_relative "../../../lib/bavard/feeds/described"
require_relative "examples"

# A session over a WebSocket as a description has it: Skein's.
class DescribedSocketSessionTest < Minitest::Test
  include Bavard::Feeds

  Held = Struct.new(:token) do
    def may?(what) = %w[read write].include?(what)
    def standing = "reedmere read write"
  end

  def setup
    @rejected = []
  end

  def session(cursor: nil, heard_at_ms: nil, permission: nil)
    Described::SocketSession.new(1, Examples.description("skein"), {"room" => "reedmere"}, Resume.new(nil, heard_at_ms, cursor), permission:,
      reject: @rejected.method(:<<)).tap { |made| made.begin(0) }
  end

  # @return [Array<Hash>] what goes out
  def sent(session) = session.take_outgoing.map { |text| JSON.parse(text) }

  def joined(**more)
    session(**more).tap do |made|
      made.receive({"op" => "hello", "beat_ms" => 5000}, 10)
      made.receive({"op" => "joined", "resume" => "r1", "on_air" => true, "seq" => 7}, 20)
      made.take_outgoing
      made.take_intakes
    end
  end

  def line(seq, id: "m#{seq}", at_ms: 100)
    {"op" => "event", "seq" => seq, "kind" => "line", "id" => id, "ts" => at_ms, "body" => "hello", "from" => {"login" => "ann"}}
  end

  def test_it_joins_as_a_guest_or_with_a_permission
    [[nil, nil], [Held.new("word"), "word"]].each do |permission, token|
      made = session(permission:)
      made.receive({"op" => "hello", "beat_ms" => 5000}, 10)
      assert_equal [{"op" => "join", "room" => "reedmere", "token" => token, "after" => nil}], sent(made)
    end
  end

  def test_how_many_there_are_in_all_is_taken_where_it_is_a_number
    made = joined
    made.receive({"op" => "totals", "followers" => 4180, "subscriptions" => "many", "moons" => 3}, 30)
    made.receive({"op" => "totals", "followers" => -1}, 40)
    assert_equal [{"followers" => 4180}], made.take_intakes.select { |intake| intake.kind == :totals }.map(&:body)
  end

  def test_somebody_is_asked_about_and_what_can_be_read_of_them_is_told
    session.tap { |made| made.ask("tern_tower") }.then { |made| assert_empty sent(made) }
    made = joined
    made.ask("tern_tower")
    assert_equal [{"op" => "who", "login" => "tern_tower"}], sent(made)
    made.receive({"op" => "profile", "login" => "tern_tower", "nick" => "Tern Tower", "about" => 7, "followers" => 8312, "face" => "javascript:1"}, 30)
    made.receive({"op" => "profile", "nick" => "nobody"}, 30)
    told = made.take_intakes.select { |intake| intake.kind == :profile }.map { |intake| intake.body.to_h.compact }
    assert_equal [{login: "tern_tower", name: "Tern Tower", followers: 8312}], told
  end

  def test_it_goes_on_where_it_was
    made = session(cursor: {"resume" => "r1", "after" => 7})
    made.receive({"op" => "hello", "beat_ms" => 5000}, 10)
    assert_equal [{"op" => "resume", "resume" => "r1", "after" => 7}], sent(made)
    made.receive({"op" => "joined", "resume" => "r2", "seq" => 7, "again" => true}, 1000)
    made.receive(line(8, at_ms: 500), 1010)
    made.receive(line(9, at_ms: 1500), 1510)
    assert_equal [true, false], made.take_intakes.select { |intake| intake.kind == :line }.map(&:history?)
    assert_equal({"resume" => "r2", "after" => 9}, made.cursor)
  end

  # What was said meanwhile comes at once; a clock that is behind ours puts before that whatever is said for as long as it is behind.
  def test_what_is_said_long_after_it_went_on_was_not_said_before_whatever_the_platforms_clock_says
    hour_ms = 3_600_000
    within_ms = Bavard::Feeds::Described::SocketSession::TELLS_AGAIN_MS
    {0 => true, within_ms => true, within_ms + 1 => false, -hour_ms => false}.each do |after_ms, history|
      made = joining_again({}, Held.new("word"))
      made.receive({"op" => "joined", "resume" => "r2", "seq" => 7, "again" => true}, 10 * hour_ms)
      made.receive(line(8, at_ms: 9 * hour_ms), (10 * hour_ms) + after_ms)
      assert_equal [history], made.take_intakes.select { |intake| intake.kind == :line }.map(&:history?), "#{after_ms} ms after"
    end
  end

  def joining_again(cursor, permission)
    made = session(cursor: {"resume" => "r1", "after" => 7}.merge(cursor), heard_at_ms: 400, permission:)
    made.receive({"op" => "hello", "beat_ms" => 5000}, 10)
    made
  end

  def test_a_permission_given_later_is_used_and_nothing_said_meanwhile_is_lost
    made = joining_again({}, Held.new("word"))
    assert_equal [{"op" => "join", "room" => "reedmere", "token" => "word", "after" => 7}], sent(made)
    made.receive({"op" => "joined", "resume" => "r2", "seq" => 7, "again" => true}, 1000)
    made.receive(line(8, at_ms: 500), 1010)
    intakes = made.take_intakes
    assert_equal [[true, 400]], intakes.select { |intake| intake.kind == :line }.map { |intake| [intake.history?, intake.since_ms] }
    assert_empty(intakes.select { |intake| intake.kind == :gap })
    assert_equal "reedmere read write", made.cursor["_as"]
    made.say(Outbox::Letter.new(5, "hello"), 1100)
    assert_equal [{"op" => "say", "nonce" => "5", "body" => "hello"}], sent(made)
  end

  def test_after_a_permission_was_given_back_nobody_goes_on_in_its_name
    made = joining_again({"_as" => "reedmere read write"}, nil)
    assert_equal [{"op" => "join", "room" => "reedmere", "token" => nil, "after" => 7}], sent(made)
  end

  def test_a_permission_of_the_same_kind_goes_on_where_it_was
    made = joining_again({"_as" => "reedmere read write"}, Held.new("newer"))
    assert_equal [{"op" => "resume", "resume" => "r1", "after" => 7}], sent(made)
  end

  def test_where_a_room_begins_anew_for_another_permission_it_is_a_gap
    made = joining_again({}, Held.new("word"))
    made.receive({"op" => "joined", "resume" => "r2", "seq" => 12}, 1000)
    assert_equal [400, 1000], made.take_intakes.find { |intake| intake.kind == :gap }.body.to_a
  end

  def test_what_cannot_be_told_again_is_a_gap
    made = session(cursor: {"resume" => "r1", "after" => 7}, heard_at_ms: 400)
    made.receive({"op" => "hello"}, 900)
    made.receive({"op" => "cannot_resume"}, 1000)
    assert_equal [400, 1000], made.take_intakes.find { |intake| intake.kind == :gap }.body.to_a
    assert_equal :join, sent(made).last["op"].to_sym
  end

  def test_a_missed_heartbeat_ends_it
    made = joined
    made.tick(12_000)
    assert_nil made.ended
    made.tick(12_600)
    assert_equal :waiting, made.ended.state
    assert_includes made.ended.reason, "silent for 13 s"
  end

  def test_a_beat_is_answered_and_counts_as_heard
    made = joined
    made.receive({"op" => "beat"}, 9000)
    assert_equal [{"op" => "beat"}], sent(made)
    made.tick(20_000)
    assert_nil made.ended
  end

  def test_what_close_codes_mean
    {1012 => [:waiting, nil], 4401 => [:needs_you, :permission], 4404 => [:needs_you, :address],
     4429 => [:waiting, nil]}.each do |code, (state, want)|
      made = joined
      made.closed(code, "why", 100)
      assert_equal [state, want], [made.ended.state, made.ended.want], code.to_s
    end
    assert_includes joined.tap { |made|
      made.closed(1012, "restarting", 100)
    }.ended.reason, "(1012, restarting). It goes on where it stopped."
  end

  def test_an_answer_went_was_refused_or_was_never_heard_of_again
    made = joined(permission: Held.new("word"))
    (1..3).each { |id| made.say(Outbox::Letter.new(id, "thanks"), 100) }
    assert_equal [{"op" => "say", "nonce" => "1", "body" => "thanks"}], sent(made).first(1)
    made.receive({"op" => "said", "nonce" => "1"}, 200)
    made.receive({"op" => "refused", "nonce" => "2", "reason" => "too long"}, 200)
    made.receive({"op" => "beat"}, 8000)
    made.tick(8200)
    assert_equal [[1, true, nil], [2, false, "too long"], [3, false, "Skein did not say whether it took the line."]], made.take_intakes.map { |intake|
      intake.body.to_a
    }
  end

  def test_a_guest_cannot_answer
    made = joined
    made.say(Outbox::Letter.new(1, "thanks"), 100)
    refute made.take_intakes.first.body.went
    assert_empty sent(made)
  end

  def test_nonsense_is_counted_and_changes_nothing
    made = joined
    [{"op" => 5}, {"op" => "event"}, {"op" => "event", "seq" => "x", "kind" => "line"}, {"op" => "event", "seq" => 8, "kind" => []}, {}].each do |one|
      made.receive(one, 100)
    end
    assert_empty made.take_intakes
    assert_equal 5, @rejected.size
    assert_nil made.ended
  end
end
