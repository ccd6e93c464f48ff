# frozen_string_literal: true

require_relative "../support/plain"
require_relative "../../lib/bavard/steady_clock"

# However the machine's clock is set, time goes on as time does.
class SteadyClockPropertyTest < Minitest::Test
  RUNS = 200
  STEPS = 60
  HOUR_MS = 3_600_000
  JUMPS = [-HOUR_MS, -30_000, -1, 1, 30_000, HOUR_MS, 86_400_000].freeze
  # The rounding of both ends.
  ROUNDED_MS = 1

  def setup
    @steady = 5000.0
    @wall = 1_795_499_520_000.0
    @clock = Bavard::SteadyClock.new(wall: -> { @wall }, steady: -> { @steady })
  end

  def pass(ms)
    @steady += ms
    @wall += ms
  end

  def test_it_lasts_as_long_as_it_lasts_whatever_the_machines_clock_does
    RUNS.times do |seed|
      random = Random.new(seed)
      STEPS.times do
        before = @clock.call
        @wall += JUMPS.sample(random:) if random.rand < 0.3
        pass(passed = random.rand(20_000.0))
        lasted = @clock.call - before
        assert_in_delta passed, lasted, (passed / Bavard::SteadyClock::SLEW) + ROUNDED_MS, "seed #{seed}"
        assert_operator lasted, :>=, 0
      end
    end
  end

  # However it was set while one process was there, between both, and while nobody was.
  def test_a_later_process_knows_how_far_it_was_set
    RUNS.times do |seed|
      random = Random.new(seed)
      uptime = -> { @steady + 900_000 }
      before = Bavard::SteadyClock.new(wall: -> { @wall }, steady: -> { @steady }, uptime:, boot: "b")
      pass(random.rand(20_000.0))
      @wall += JUMPS.sample(random:)
      pass(random.rand(20_000.0))
      mark = before.mark
      pass(random.rand(20_000.0))
      @wall += JUMPS.sample(random:)
      later = Bavard::SteadyClock.new(wall: -> { @wall }, steady: -> { @steady - 70 }, uptime:, boot: "b")
      assert_in_delta later.call - before.call, later.ahead_of(mark), (20_000 / Bavard::SteadyClock::SLEW) + (2 * ROUNDED_MS), "seed #{seed}"
    end
  end

  def test_on_another_machine_nobody_can_tell
    mark = Bavard::SteadyClock.new(boot: "b").mark
    @wall += HOUR_MS
    assert_equal 0, Bavard::SteadyClock.new(wall: -> { @wall }, boot: "c").ahead_of(mark)
    assert_nil Bavard::SteadyClock.new(boot: nil).mark
    assert_equal 0, Bavard::SteadyClock.new(boot: nil).ahead_of(mark)
    assert_equal 0, Bavard::SteadyClock.new(boot: nil).ahead_of(nil)
  end

  def test_where_nobody_sets_it_it_is_the_machines_clock
    1000.times do |step|
      pass(step)
      assert_in_delta @wall, @clock.call, ROUNDED_MS
      assert_equal 0, @clock.offset_ms
    end
  end

  def test_it_comes_nearer_to_what_was_set_and_stops_there
    [-30_000, 30_000].each do |jump|
      @wall += jump
      apart = Array.new(40) { pass(100_000) && @clock.offset_ms.abs }
      assert_equal apart, apart.sort.reverse
      assert_equal [29_000, 0], [apart.first, apart.last]
    end
  end
end
