# frozen_string_literal: true

require "json"
require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/broadcast/cue_desk"

class CueDeskTest < Minitest::Test
  Cue = Bavard::Core::Cues::Cue

  def setup
    @now = 1_000_000
    @ids = 0
    @document = Bavard::Core::Cues::Settings.default
    @desk = Bavard::Live::CueDesk.new(@document, feed_name: ->(_id) { "Oxbow" })
  end

  def event(kind, text = "", login: "ann", name: "Ann", number: nil, paid: nil, at_ms: @now, feed_id: 1)
    said = Bavard::Core::Said.new(login, name, nil, [], text, false, false)
    said.paid = paid
    body = kind == :paid ? said : Bavard::Core::Happened.new(kind, said, number)
    intake = Bavard::Core::Intake.new(kind == :paid ? :line : :event, feed_id, nil, nil, at_ms, body)
    Bavard::Core::Chat::Line.from(intake, id: @ids += 1)
  end

  def words = @desk.card(nil)[:w].map(&:last).join

  def advance(ms = 0)
    @desk.advance(@now += ms)
    @desk.changed?
  end

  def euros(number) = Bavard::Core::Amount.money(number * 100, "EUR")

  def test_an_event_plays_with_its_words_and_message_and_is_over
    @desk.happened(event(:tip, "for a <b>nest box</b>", paid: euros(25)), @now)
    assert advance
    card = @desk.card(nil)
    assert_equal ["Ann gave 25.00 EUR", "for a <b>nest box</b>", 6000], [words, card[:g].map(&:last).join, card[:ms]]
    refute advance(5000)
    assert advance(1000)
    assert_nil @desk.card(nil)
  end

  def test_a_renewal_differs_from_a_first_subscription
    @desk.happened(event(:subscription), @now)
    @desk.happened(event(:renewal, number: 12, login: "bo", name: "Bo"), @now)
    advance
    first = words
    advance(6000)
    advance(1000)
    assert_equal ["Ann subscribed", "Bo renewed, 12 months now"], [first, words]
  end

  def test_chat_lines_are_no_events_and_what_is_told_again_is_not_cued
    @desk.happened(Lines.instance_method(:line).bind_call(Object.new.extend(Lines), 1, "hello"), @now)
    @desk.happened(event(:follow, at_ms: @now - 200_000), @now)
    refute advance
  end

  def test_a_film_a_sound_and_its_own_motion_go_with_the_cue
    file = "f" * 32
    cues = @document["cues"].map { |cue| cue["kind"] == "tip" ? cue.merge("film" => file, "sound" => file, "volume" => 40, "aloud" => true, "motion_in" => "hatch", "motion_out" => "none", "held" => "sway") : cue }
    @desk.use(@document.merge("cues" => cues))
    line = event(:tip, "for you", paid: euros(5))
    @desk.happened(line, @now)
    advance
    card = @desk.card(nil)
    assert_equal [file, "sway", [], 0], [card[:film], card[:held], card[:out], card[:in].first["opacity"]]
    assert_equal({v: 0.4, u: "/sounds/#{file}.ogg", f: 1, said: 0.8}, @desk.playing.heard.except(:i))
    playing = @desk.queue.playing.id
    assert_equal [["for you", nil]], @desk.read_aloud(playing).spoken.map(&:to_a)
    assert_nil @desk.read_aloud(playing + 1)
    @desk.happened(event(:follow), @now, silent: true)
    advance(6000)
    advance(1000)
    assert_nil @desk.playing.heard
  end

  def speaking(**more)
    @desk.use(@document.merge("cues" => @document["cues"].map { |cue| cue["kind"] == "follow" ? cue.merge(more.transform_keys(&:to_s)) : cue }))
  end

  def test_what_several_did_together_has_no_name_and_no_message_of_its_own
    speaking(spoken_words: true, aloud: true, spoken_volume: 30)
    %w[ann bo].each { |login| @desk.happened(event(:follow, "hello to all of you", login:), @now) }
    @now += 5000
    advance
    assert_equal [[["2 follows from Ann", nil]], 0.3], [@desk.playing.spoken.map(&:to_a), @desk.playing.heard[:said]]
    speaking(spoken_name: true, aloud: true)
    @desk.skip(@now)
    advance(1000)
    %w[ann bo].each { |login| @desk.happened(event(:follow, "hello to all of you", login:), @now) }
    advance(8000)
    assert_nil @desk.playing&.heard&.key?(:said) || nil
  end

  def test_the_screens_own_voice_is_told_what_it_is_to_say_and_how
    speaking(spoken_name: true, aloud: true, spoken_by: "screen", spoken_speed: 120, spoken_most_s: 9, spoken_voice: "en-us")
    @desk.happened(event(:follow, "danke für alles, ihr Lieben"), @now)
    advance
    assert_equal({t: [["Ann", nil], ["danke für alles, ihr Lieben", "de"]], v: "en-us", r: 1.2, p: 1.0, s: 9}, @desk.playing.heard[:say])
    assert_equal({voice: "en-us", speed: 120, pitch: 100, most_s: 9}, @desk.playing.manner)
  end

  def test_where_a_cue_has_no_sound_the_alerts_own_is_heard
    @desk.happened(event(:follow), @now)
    advance
    assert_nil @desk.playing.heard
    assert_equal "/assets/sounds/reed.ogg", @desk.playing.heard("reed")[:u]
    speaking(sound: "f" * 32)
    @desk.skip(@now)
    advance(1000)
    @desk.happened(event(:follow), @now)
    advance(8000)
    assert_equal "/sounds/#{"f" * 32}.ogg", @desk.playing.heard("reed")[:u]
  end

  def test_parts_that_begin_later_are_told_with_the_cue
    later = {"sound" => "f" * 32, "sound_begins_s" => 1.5, "message_begins_s" => 2, "flurry_count" => 3, "flurry_begins_s" => 0.7, "words_in" => "letters"}
    @desk.use(@document.merge("cues" => @document["cues"].map { |cue| cue["kind"] == "tip" ? cue.merge(later) : cue }))
    @desk.happened(event(:tip, "for you", paid: euros(5)), @now)
    advance
    wardrobe = Struct.new(:flown).new([])
    card = @desk.card(nil)
    assert_equal [{"message" => [2000, 6000]}, {by: "letters"}, 1500], [card[:t], card[:u], @desk.playing.heard[:w]]
    assert_equal 700, @desk.playing.wish(wardrobe, Random.new(1)).after_ms
  end

  def test_many_gifts_become_one
    12.times { |number| @desk.happened(event(:gift, number: 1, login: "a#{number % 3}", name: "A#{number % 3}"), @now) }
    advance
    assert_equal "12 given subscriptions from A0 and 2 more", words
  end

  def test_what_is_pulled_plays_no_more
    line = event(:tip, "words", paid: euros(5))
    @desk.happened(line, @now)
    advance
    @desk.pull_where(@now) { |one| one.id == line.id }
    assert_predicate @desk, :changed?
    assert_equal({off: 1}, @desk.card(nil))
    assert_nil @desk.card(nil)
    assert_empty @desk.report[:recent]
    assert_raises(Bavard::Error) { @desk.again(line.id, @now) }
  end

  def test_what_is_pulled_is_told_also_where_the_next_begins_at_once
    @desk.use(@document.merge("queue" => @document["queue"].merge("gap_ms" => 0)))
    lines = [event(:follow), event(:visit, number: 4)].each { |line| @desk.happened(line, @now) }
    advance
    @desk.pull_where(@now) { |one| one.id == lines.first.id }
    assert advance
    assert_equal [1, "visit"], @desk.card(nil).values_at(:off, :k)
    refute @desk.card(nil).key?(:off)
  end

  def test_what_happened_is_played_again_and_tried_ones_are_for_the_draft
    line = event(:visit, number: 41)
    @desk.happened(line, @now, test: :draft)
    advance
    assert_equal :draft, @desk.where
    advance(6000)
    @desk.again(line.id, @now)
    assert_raises(Bavard::Error) { @desk.again(99, @now) }
    advance(1000)
    assert_equal "Ann comes to visit with 41 viewers", words
  end

  def set(kind, **values)
    cues = @document["cues"].map { |cue| cue["kind"] == kind ? cue.merge(values.transform_keys(&:to_s)) : cue }
    @desk.use(@document.merge("cues" => cues))
  end

  def test_what_is_played_again_or_tried_adds_nothing_and_waits_for_no_cool_down
    set("follow", "adds" => 4, "adds_to" => "Feeder", "cool_down_s" => 600)
    @desk.happened(event(:follow, login: "bo"), @now, test: :screens)
    assert_empty @desk.take_added
    line = event(:follow)
    @desk.happened(line, @now)
    assert_equal({"Feeder" => 4}, @desk.take_added)
    assert_empty @desk.take_added
    advance
    advance(6000)
    @desk.again(line.id, @now)
    assert_equal 1, @desk.queue.waiting.size
    assert_empty @desk.take_added
  end

  def test_what_cues_add_is_added_however_little_of_the_queue_is_ever_played
    set("gift", "adds" => 2, "adds_to" => "Feeder")
    @desk.queue.pause
    500.times { |number| @desk.happened(event(:gift, login: "a#{number}"), @now += 5000) }
    assert_equal({"Feeder" => 1000}, @desk.take_added)
  end

  def test_a_cue_for_the_first_of_somebody
    set("follow", "first" => true)
    @desk.happened(event(:follow), @now)
    assert_empty @desk.queue.waiting
    @desk.happened(event(:follow), @now, first: true)
    assert_equal 1, @desk.queue.waiting.size
  end

  def test_one_cue_is_tried_whatever_the_sheet_would_choose
    set("follow", "first" => true, "roles" => %w[host], "share_percent" => 1)
    @desk.happened(event(:follow), @now, test: :draft, only: "cue_follow")
    assert_equal ["cue_follow"], @desk.queue.waiting.map { |one| one.cue["id"] }
    assert_raises(Bavard::Error) { @desk.happened(event(:follow), @now, test: :draft, only: "cue_gone") }
  end

  def test_ten_thousand_events_wait_bounded
    10_000.times { |number| @desk.happened(event(:tip, "words #{number}", paid: euros(1 + (number % 900)), login: "p#{number}"), @now += 6) }
    assert_operator @desk.queue.waiting.size, :<=, 40
  end

  def test_settings_are_read_whatever_was_kept
    kept = {"cues" => [{"kind" => "tip", "words" => "{name}", "length_s" => 3}, "nonsense"], "queue" => {"most" => -4, "approve" => "yes"}}
    read = Bavard::Core::Cues::Settings.read(kept)
    assert_equal [1, "cue_0", 1, false], [read["cues"].size, read["cues"][0]["id"], read["queue"]["most"], read["queue"]["approve"]]
    assert_raises(Bavard::Error) { Cue.build("a", "words" => "{nothing}") }
    assert_raises(Bavard::Error) { Cue.build("a", "odd" => 1) }
    assert_equal read, Bavard::Core::Cues::Settings.read(JSON.parse(JSON.generate(read)))
  end
end
