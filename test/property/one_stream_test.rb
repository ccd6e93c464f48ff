# frozen_string_literal: true

require_relative "../support/live_test"

# Whatever three feeds hand over, in whatever order, repeated and told again: each line is in the log once, nothing that
# was deleted or whose person was silenced is left on a stage, and screens end up with exactly what stands.
class OneStreamTest < LiveTest
  Core = Bavard::Core
  STILL = Struct.new(:name) { def halt = nil }.new("still")
  PEOPLE = %w[ann bob cy dee].freeze
  ROUNDS = 12
  HAPPENINGS = 120

  def setup
    super
    @record = make_show(document: with_chat(at_most: 50, stay_ms: "for good"), on_air: true)
    2.times do |number|
      feed = stores.feeds.create(@record.id, kind: "irc", name: "F#{number}", shape: "ring", colour: "#ffffff", address: {})
      stores.feeds.keep(feed.id, wanted: false)
    end
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @show = @shows.run(@record.id)
    @lanes = @show.ask { |show| show.lanes.values.each { |lane| lane.instance_variable_set(:@runner, STILL) } }
  end

  def test_one_stream
    ROUNDS.times { |round| play(Random.new(round + 1), round) }
  end

  private

  # What should be: by feed and id, whose line it is and whether it may still stand.
  def play(random, round)
    expected = {}
    HAPPENINGS.times { |number| happen(random, "#{round}-#{number}", expected) }
    settle
    assert_equal standing(expected), on_air, "round #{round}"
    assert_equal expected.size, db[:lines].where(Sequel.like(:platform_id, "#{round}-%")).count, "round #{round}"
    assert_equal expected.count { |_, line| line[:gone] }, db[:lines].where(pulled: true).where(Sequel.like(:platform_id, "#{round}-%")).count
    @lanes.each { |lane| take(lane, :clear_all, nil, nil) }
    settle
    assert_empty on_air
  end

  def happen(random, id, expected)
    lane = @lanes.sample(random:)
    known = expected.keys.select { |feed_id, _| feed_id == lane.id }
    case random.rand(10)
    when 0 then delete(lane, known.sample(random:), expected)
    when 1 then silence(lane, PEOPLE.sample(random:), expected) if random.rand(4).zero?
    when 2 then again(lane, known.sample(random:), expected)
    else say(lane, id, PEOPLE.sample(random:), expected)
    end
    clock.now_ms += random.rand(60)
  end

  def say(lane, id, login, expected)
    expected[[lane.id, id]] = {login:, gone: false}
    take(lane, :line, Core::Said.new(login, nil, nil, [], "line #{id}", false, false), id)
  end

  # A platform that repeats itself, also what was deleted meanwhile.
  def again(lane, known, expected)
    take(lane, :line, Core::Said.new(expected[known][:login], nil, nil, [], "line #{known.last}", false, true), known.last) if known
  end

  def delete(lane, known, expected)
    return unless known

    expected[known][:gone] = true
    take(lane, :delete_line, nil, known.last)
  end

  def silence(lane, login, expected)
    expected.each { |(feed_id, _), line| line[:gone] = true if feed_id == lane.id && line[:login] == login }
    take(lane, :clear_person, login, nil)
  end

  def take(lane, kind, body, id)
    intake = Core::Intake.new(kind, lane.id, id, nil, clock.call, body)
    @show.ask { |show| show.reception.receive(lane, STILL, intake) }
  end

  def settle
    clock.now_ms += 100
    2.times { @show.ask { nil } }
    until_written
  end

  # The newest fifty count, gone or not; of those the ones that may stand.
  def standing(expected)
    expected.to_a.last(50).reject { |_, line| line[:gone] }.map { |(_, id), _| "line #{id}" }
  end

  # What a screen shows that has followed every frame.
  def on_air
    shown = {}
    hub.frames("air:#{@stage.id}").each do |frame|
      (Array(frame.dig("out", "chat1")) + Array(frame.dig("pulled", "chat1"))).each { |id| shown.delete(id) }
      (frame.dig("in", "chat1") || []).each { |card| shown[card["i"]] = card["f"].map { |fragment| fragment[1] }.join }
    end
    shown.sort.map(&:last)
  end
end
