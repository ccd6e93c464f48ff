# frozen_string_literal: true

require_relative "../../support/noisy_rooms"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/voice/talking"
require_relative "../../../lib/bavard/core/voice/stretches"
require_relative "../../../standins/hidewire/conversation"

class TalkingTest < Minitest::Test
  Talking = Bavard::Core::Voice::Talking
  FOLDER = File.expand_path("../../../demo/conversations", __dir__)
  # What conversations whose truth is known must come to.
  SHOWN_PERCENT = 98
  FALSE_PERCENT = 2
  LATE_MS = 150
  SHORTEST_MS = 200

  # @param spans [Array<Array(Integer, Integer)>] milliseconds and dBov
  # @return [Array<Array(Integer, Integer)>] when it was on
  def on_in(spans, every_ms: 20)
    talking = Talking.new
    found = []
    at_ms = 0
    spans.each do |ms, dbov|
      (ms / every_ms).times do
        found << [at_ms, nil] if talking.level(at_ms, dbov) && talking.on?
        found.last[1] = talking.since_ms if found.last && found.last[1].nil? && !talking.on?
        at_ms += every_ms
      end
    end
    found
  end

  def stretches(conversation)
    found = Bavard::Core::Voice::Stretches.new
    all = []
    conversation.each { |one| all.concat(found.level(one.at_ms, one.person, -one.level)) }
    all.concat(found.finish).group_by(&:person).transform_values { |list| list.map { |one| [one.from_ms, one.to_ms] } }
  end

  def common(one, other) = [[one[1], other[1]].min - [one[0], other[0]].max, 0].max

  def test_conversations_whose_truth_is_known
    Hidewire::Conversation.all(FOLDER).each do |name, conversation|
      shown = stretches(conversation)
      truth = conversation.truth
      talked = truth.values.flatten(1).sum { |from, to| to - from }
      right = truth.sum { |person, all| all.sum { |one| shown.fetch(person, []).sum { |other| common(one, other) } } }
      wrong = shown.values.flatten(1).sum { |from, to| to - from } - right
      silent = (conversation.length_ms * conversation.people.size) - talked

      assert_operator right * 100.0 / talked, :>=, SHOWN_PERCENT, name
      assert_operator wrong * 100.0 / silent, :<=, FALSE_PERCENT, name
      assert_operator latest(truth, shown), :<=, LATE_MS, name
      assert_operator shown.values.flatten(1).map { |from, to| to - from }.min, :>=, SHORTEST_MS, name
      assert_operator shown.values.flat_map { |all| all.each_cons(2).map { |one, other| other[0] - one[1] } }.min || SHORTEST_MS, :>=, SHORTEST_MS, name
    end
  end

  def latest(truth, shown)
    truth.flat_map { |person, all| all.map { |one| [(shown.fetch(person).find { |other| common(one, other).positive? }[0] - one[0]), 0].max } }.max
  end

  # In each of these rooms most of what is said is shown and hardly anything else, soon, and without flickering.
  ROOMS = {
    **[0.5, 1, 2, 2.5, 3, 4].to_h { |spread| ["noise of #{spread} dB", {floor: -55, spread:}] },
    "keys that are struck" => {floor: -60, spread: 1.5, clicks: 25}, "music" => {floor: -62, spread: 1, music: -50},
    "noise that comes and goes" => {floor: ->(at_ms) { -60 + (10 * (Math.sin(at_ms / 9000.0)**2)) }, spread: 2}
  }.freeze
  # Of silence, beside the tails that all talking has; the keys of three minutes take 200 ms each where they are as long as a sound.
  WRONG_PERCENT = Hash.new(2.5).merge("keys that are struck" => 4.0).freeze

  def test_rooms_that_are_not_quiet
    ROOMS.each do |name, values|
      rooms = NoisyRooms.voices.each_slice(3).with_index.map { |(voice, *), seed| NoisyRooms.room(voice, seed, **values) }
      shown = rooms.map { |room| shown_in(room.levels) }
      talked, right, wrong, silent = rooms.zip(shown).map { |room, spans| shares(room, spans) }.transpose.map(&:sum)
      late = rooms.zip(shown).flat_map { |room, spans| room.truth.map { |one| [spans.find { |other| common(one, other).positive? }[0] - one[0], 0].max } }.sort

      assert_operator right * 100.0 / talked, :>=, SHOWN_PERCENT, name
      assert_operator wrong * 100.0 / silent, :<=, WRONG_PERCENT[name], name
      assert_operator late[(late.size * 0.99).floor], :<=, LATE_MS, name
      assert_operator shown.flatten(1)[..-2].map { |from, to| to - from }.min, :>=, 60, name
    end
  end

  def shown_in(levels)
    talking = Talking.new
    levels.each_with_object([]) do |(at_ms, dbov), spans|
      next unless talking.level(at_ms, dbov)

      talking.on? ? spans << [talking.since_ms, levels.last[0]] : spans.last[1] = talking.since_ms
    end
  end

  def shares(room, spans)
    talked = room.truth.sum { |from, to| to - from }
    right = room.truth.sum { |one| spans.sum { |other| common(one, other) } }
    [talked, right, spans.sum { |from, to| to - from } - right, room.length_ms - talked]
  end

  def test_a_service_that_says_only_whether_somebody_talks_is_believed
    assert_equal [[1020, 4340]], on_in([[1000, -127], [3000, -20], [1000, -127]])
  end

  def test_a_pause_between_words_is_no_end_and_a_mug_no_beginning
    assert_equal 1, on_in([[1000, -70], [600, -25], [200, -70], [600, -25], [1000, -70]]).size
    assert_empty on_in([[1000, -70], [20, -10], [1000, -70], [20, -12], [1000, -70]])
  end

  def test_single_levels_begin_nothing_however_long_each_stands_for
    assert_empty on_in([[600, -70], *([[60, -10], [600, -70]] * 3)], every_ms: 60)
  end

  def test_whoever_still_talks_at_the_end_has_talked_until_then
    found = Bavard::Core::Voice::Stretches.new
    assert_empty found.finish
    100.times { |step| assert_empty found.level(step * 20, "teo", step < 50 ? -70 : -20) }
    assert_equal ["teo"], found.finish.map(&:person)
  end

  def test_it_begins_soon_and_ends_after_its_tail
    from, to = on_in([[1000, -70], [1000, -25], [1000, -70]]).first
    assert_includes 1000..1060, from
    assert_includes 2300..2400, to
  end

  def test_a_fan_is_no_voice_once_it_is_known_and_a_voice_is_heard_over_it
    found = on_in([[6000, -42], [1000, -20], [1500, -42]])
    assert_equal [1], found.select { |from, _| from >= 5000 }.map { |from, _| from / 6000 }
  end

  def test_a_quiet_voice_counts_where_there_is_no_noise
    assert_equal 1, on_in([[2000, -127], [1000, -50], [1000, -127]]).size
  end

  def test_levels_that_stop_coming_are_silence
    talking = Talking.new
    20.times { |step| talking.level(step * 20, step < 5 ? -70 : -20) }
    assert_predicate talking, :on?
    assert_nil talking.advance(380 + Talking::MISSING_MS).then { |ended| ended || nil }
    assert talking.advance(talking.due_ms)
    refute_predicate talking, :on?
  end

  def test_levels_out_of_range_and_out_of_order_do_no_harm
    talking = Talking.new
    [[0, 900], [40, -900], [20, -20], [60, 0], [80, 12], [100, -3], [50, -3]].each { |at_ms, dbov| talking.level(at_ms, dbov) }
    assert_includes 0.0..1.0, talking.loudness
  end

  def test_loudness_follows_and_is_nothing_in_silence
    talking = Talking.new
    50.times { |step| talking.level(step * 20, -70) }
    20.times { |step| talking.level(1000 + (step * 20), -24) }
    assert_operator talking.loudness, :>, 0.5
    talking.hush(1500)
    assert_equal [false, 0.0], [talking.on?, talking.loudness]
  end

  def test_packets_alone_are_enough
    talking = Talking.new
    10.times { |step| talking.packet(step * 20) }
    assert_predicate talking, :on?
  end

  def test_a_level_that_comes_late_counts_as_the_newest_and_turns_nothing_back
    steady = Talking.new
    late = Talking.new
    (0...100).each { |step| [steady, late].each { |one| one.level(step * 20, step < 50 ? -70 : -20) } }
    since = late.since_ms
    late.level(400, -70)
    late.level(0, -70)
    assert_equal [true, since, steady.on?], [late.on?, late.since_ms, true]
    refute late.advance(100)
    assert_operator late.due_ms, :>=, 1980
  end

  def test_loudness_rises_faster_than_it_falls
    talking = Talking.new
    50.times { |step| talking.level(step * 20, -70) }
    rising = Array.new(10) { |step| (talking.level(1000 + (step * 20), -10) && nil) || talking.loudness }
    assert_equal rising.sort, rising
    loud = talking.loudness
    5.times { |step| talking.level(1200 + (step * 20), -40) }
    assert_operator talking.loudness, :<, loud
    assert_operator loud - talking.loudness, :<, loud - rising.first
  end

  def test_a_louder_voice_is_drawn_louder
    loudest = [-52, -45, -38].map do |dbov|
      talking = Talking.new
      50.times { |step| talking.level(step * 20, -70) }
      50.times { |step| talking.level(1000 + (step * 20), dbov) }
      talking.loudness
    end
    assert_equal loudest.sort.uniq, loudest
  end

  def test_it_says_whether_something_began_or_ended
    talking = Talking.new
    turns = (0...200).filter_map { |step| step * 20 if talking.level(step * 20, step.between?(50, 100) ? -20 : -70) }
    assert_equal 2, turns.size
    assert_equal [false, nil], [talking.on?, talking.due_ms]
  end

  def test_who_is_muted_stops_at_once_and_begins_anew_afterwards
    talking = Talking.new
    100.times { |step| talking.level(step * 20, step < 50 ? -70 : -20) }
    talking.hush(2000)
    assert_equal [false, 2000, 0.0], [talking.on?, talking.since_ms, talking.loudness]
    talking.hush(2100)
    assert_equal 2000, talking.since_ms
    20.times { |step| talking.level(2400 + (step * 20), -20) }
    assert_predicate talking, :on?
  end
end
