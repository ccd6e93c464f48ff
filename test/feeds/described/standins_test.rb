# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../support/processes"
require_relative "../../../lib/bavard/feeds/voice"
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

  def write(hidewire, room, text) = hidewire.post("/voices", "do" => "write", "who" => "teo", "room" => room, "text" => text)

  def line_with(text)
    wait_for("the line") { (@all ||= []).push(*drained).find { |intake| intake.kind == :line && intake.body.text == text } }
  end

  def test_a_voice_room_and_what_is_written_in_another
    hidewire = standin("Hidewire", BEAT_MS: 200).last
    asked = {"room" => "hides", "written" => "sightings"}
    connect("hidewire", asked, base: hidewire.base)
    assert_equal [:room, "The hides", %w[odalys ibrahim sunniva teo wilhelmina]],
      taken(:voice).body.then { |told| [told.what, told.room.name, told.people.map(&:key)] }
    wait_for("to be in it") { @all.any? { |intake| intake.kind == :feed_state && intake.body.reason == "In The hides, with 5 people." } }
    hidewire.post("/voices", "do" => "talk", "who" => "teo", "on" => "1")
    wait_for("teo to be loud") do
      (@all ||= []).push(*drained).any? { |intake| intake.kind == :voice && intake.body.levels.to_a.any? { |who, dbov| who == "teo" && dbov > -60 } }
    end
    write(hidewire, "pinboard", "not for us")
    write(hidewire, "sightings", "a bittern")
    refute line_with("a bittern").body.history
    assert_nil halt
    write(hidewire, "sightings", "while nobody listened")
    connect("hidewire", asked, base: hidewire.base, resume: Bavard::Feeds::Resume.new(nil, now_ms, @connection.cursor))
    assert line_with("while nobody listened").body.history
    assert_empty(@all.select { |intake| intake.kind == :gap || (intake.kind == :line && intake.body.text == "not for us") })
    halt
    connect("hidewire", asked.merge("written" => "nowhere"), base: hidewire.base)
    @thread.join
    assert_equal [:needs_you, :address, "Hidewire does not know “hides” or “nowhere”."], [@ended.state, @ended.want, @ended.reason]
  end

  def test_rooms_are_listed_with_who_is_in_them_and_those_to_read
    hidewire = standin("Hidewire").last
    platform = Bavard::Feeds::Platform.of(Examples.description("hidewire", base: hidewire.base))
    told = Bavard::Feeds::Voice.rooms(platform)
    assert_equal [["hides", "The hides", "Reedmere’s ringing team", 5], ["night", "Night shift", "Owls and moths, after ten", 2]],
      told[:rooms].map { |room| [*room.values_at(:id, :name, :topic), room[:people].size] }
    assert_equal [{id: "sightings", name: "Sightings"}, {id: "pinboard", name: "Pinboard"}], told[:texts]
    hidewire.stop
    assert_includes assert_raises(Bavard::Error) { Bavard::Feeds::Voice.rooms(platform) }.message, "Nothing answers"
    hidewire.start
  end
end
