# frozen_string_literal: true

require_relative "../support/live_test"

# Whatever order events come in, and however often a platform repeats them, each counts once: in what is tallied while the show runs,
# and in what is tallied from the log after a restart.
class CountsPropertyTest < LiveTest
  Core = Bavard::Core
  KINDS = %i[follow subscription renewal gift tip cause visit].freeze
  RUNS = 12
  MOST = 60
  # Taken in by several people, some of them several times.
  Happening = Struct.new(:id, :kind, :login, :number, :minor)

  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    begin_show
  end

  def begin_show
    @show = Bavard::Live::Show.new(@record, means)
    @lane = @show.lanes.values.first
    @reception = @show.reception
  end

  def test_each_counts_once_whatever_the_order_and_repeats
    all = []
    RUNS.times do |run|
      random = Random.new(run)
      all.concat(happened = some(random, run))
      (happened + happened.sample(random.rand(MOST), random:)).shuffle(random:).each { |one| take(one) }
      assert_equal wanted(all), tallied, "seed #{run}"
    end
    until_written
    begin_show
    assert_equal wanted(all), tallied
  end

  def some(random, run)
    Array.new(random.rand(1..MOST)) do |number|
      Happening.new("r#{run}-#{number}", KINDS.sample(random:), "p#{random.rand(5)}", random.rand(0..9), random.rand(0..90_000))
    end
  end

  def take(one)
    said = Core::Said.new(one.login, one.login.capitalize, nil, [], "", false, false)
    said.paid = Core::Amount.money(one.minor, "EUR") if %i[tip cause].include?(one.kind)
    clock.now_ms += 1
    @reception.receive(@lane, nil, Core::Intake.new(:event, @lane.id, one.id, nil, clock.now_ms, Core::Happened.new(one.kind, said, one.number)))
  end

  def tallied
    tally = @show.tallies["ever"]
    numbers = %w[followers subscriptions gifts visits].to_h { |what| [what, tally.value(what)] }
    most = @show.tallies.standings("ever").given(%w[tip], "EUR").first
    numbers.merge("worth" => tally.value("worth", "EUR"), "cause" => tally.value("cause", "EUR"), "most" => most&.worth)
  end

  def wanted(all)
    of = ->(*kinds) { all.select { |one| kinds.include?(one.kind) } }
    gifts = of[:gift].sum { |one| [one.number, 1].max }
    tips = of[:tip].group_by(&:login).transform_values { |theirs| theirs.sum(&:minor) }
    {"followers" => of[:follow].size, "subscriptions" => of[:subscription, :renewal].size + gifts, "gifts" => gifts, "visits" => of[:visit].size,
     "worth" => of[:tip].sum(&:minor) / 100.0, "cause" => of[:cause].sum(&:minor) / 100.0, "most" => tips.values.max}
  end
end
