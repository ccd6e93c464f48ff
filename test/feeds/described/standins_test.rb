# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../support/processes"
require_relative "connected"

# The made-up platforms are read by their descriptions, as they run.
class DescribedRunningStandinsTest < Minitest::Test
  include Connected

  def standin(name, **settings) = (@standins ||= []) << RunningStandin.new(name, **settings).start

  def teardown
    super
    @standins.each(&:stop)
  end

  def test_a_room_that_is_joined_gone_on_with_and_written_to
    skein = standin("Skein", BEAT_MS: 200).last
    connect("skein", {"room" => "reedmere"}, base: skein.base)
    state(:live)
    skein.say("see the wing?")
    line = taken(:line)
    assert_equal ["see the wing?", "birdbath", false], [line.body.text, line.body.login, line.body.history]
    skein.post("/delete", "id" => skein.lines.last["id"])
    assert_equal line.platform_id, taken(:delete_line).platform_id
    assert_nil halt
    skein.say("while nobody listened")
    connect("skein", {"room" => "reedmere"}, base: skein.base, resume: Bavard::Feeds::Resume.new(nil, now_ms, @connection.cursor))
    assert_equal ["while nobody listened", true], taken(:line).body.then { |said| [said.text, said.history] }
    halt
    connect("skein", {"room" => "nowhere"}, base: skein.base)
    @thread.join
    assert_equal %i[needs_you address], [@ended.state, @ended.want]
  end

  def test_a_broadcast_that_is_found_by_its_channel
    lantern = standin("Lantern", EVERY_MS: 200).last
    connect("lantern", {"channel" => "reedmere"}, base: lantern.base)
    state(:live)
    lantern.say("see the wing?")
    wait_for("the line") { (@all ||= []).push(*drained).any? { |intake| intake.kind == :line && intake.body.text == "see the wing?" } }
    assert_operator taken(:totals).body["followers"], :>, 2000
    lantern.misbehave("limit")
    state(:waiting)
    lantern.misbehave("limit", on: false)
    assert_nil halt
    assert_equal [lantern.state["number"], true], [@connection.cursor["number"], @connection.joined?]
  end
end
