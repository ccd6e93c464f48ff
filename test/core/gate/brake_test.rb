# frozen_string_literal: true

require_relative "../../support/lines"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/settings"
require_relative "../../../lib/bavard/live/moderation/gatehouse"

class BrakeTest < Minitest::Test
  include Lines

  Brake = Bavard::Core::Gate::Brake

  def brake(kind, **more) = Brake.read({"kind" => kind}.merge(more.transform_keys(&:to_s)), now_ms: 1000, by: "Odalys")

  def gatehouse(brake, hold_ms: 0)
    document = Bavard::Core::Gate::Settings::DEFAULT.merge("brake" => brake.to_h, "hold" => {"ms" => hold_ms, "by_role" => {}, "leaves_after_ms" => nil})
    Bavard::Live::Gatehouse.new(document)
  end

  def test_everything_is_held_until_somebody_lets_it_go
    gatehouse = gatehouse(brake("hold_all"))
    verdict = gatehouse.hear(line(1, "hello"))
    assert_equal [:hold, "brake"], [verdict.action, verdict.rule]
    assert_predicate gatehouse, :holds_all?
  end

  def test_only_people_with_a_role_and_what_a_rule_drops_stays_dropped
    gatehouse = gatehouse(brake("roles_only", roles: %w[moderator]))
    assert_equal :drop, gatehouse.hear(line(1, "hello")).action
    assert_predicate gatehouse.hear(line(2, "hello", badges: ["moderator"])), :pass?
    assert_equal "command_lines", gatehouse.hear(line(3, "!ring", badges: ["moderator"])).rule
  end

  def test_at_most_so_many_a_minute
    gatehouse = gatehouse(brake("slow", per_minute: "6"))
    assert_equal [6, true], [gatehouse.hold_settings.per_minute, gatehouse.hear(line(1, "hello")).pass?]
  end

  def test_its_end_is_seen_and_comes
    timed = brake("off_picture", minutes: "5")
    assert_equal [301_000, true], [timed.until_ms, timed.off_picture?]
    refute timed.over?(300_999)
    assert timed.over?(301_000)
    assert_nil brake("hold_all").until_ms
    assert_equal timed, Brake.from(timed.to_h)
    assert_raises(Bavard::Error) { brake("anchor") }
    assert_equal Brake::PER_MINUTE.end, brake("slow", per_minute: "999").per_minute
  end

  def verdict(action, rule) = Bavard::Core::Gate::Verdict.new(action, rule, nil, [], nil)

  def test_what_a_rule_dropped_stays_dropped_by_that_rule_whatever_the_brake
    dropped = verdict(:drop, "command_lines")
    Brake::KINDS.each_key { |kind| assert_same dropped, brake(kind).on(dropped, ["moderator"]), kind }
  end

  def test_what_was_found_before_the_brake_is_still_told
    masked = Bavard::Core::Gate::Verdict.new(:mask, "stopped_words", "x", [:found], :shown)
    braked = brake("hold_all").on(masked, [])
    assert_equal [:hold, "brake", :shown, [:found, "everything is held"]],
      [braked.action, braked.rule, braked.shown, braked.findings.map { |one| one == :found ? one : one.why }]
  end

  def test_brakes_that_are_about_the_picture_or_the_pace_judge_no_line
    passed = verdict(:pass, nil)
    %w[off_picture slow].each { |kind| assert_same passed, brake(kind).on(passed, ["viewer"]), kind }
    assert_equal [true, false, false], %w[off_picture slow hold_all].map { |kind| brake(kind).off_picture? }
  end

  def test_one_role_of_several_is_enough_and_nobody_chosen_is_everybody_with_a_role
    some = brake("roles_only", roles: %w[guest host])
    assert_predicate some.on(verdict(:pass, nil), %w[viewer guest]), :pass?
    assert_predicate some.on(verdict(:pass, nil), %w[viewer moderator]), :drop?
    assert_equal "only lines by guest, host", some.on(verdict(:pass, nil), []).findings.last.why
    assert_equal Brake::ROLES, brake("roles_only", roles: %w[viewer nobody]).roles
  end

  def test_what_is_asked_for_is_kept_within_bounds
    assert_equal [20, 1, 120], [nil, "0", "121"].map { |given| brake("slow", per_minute: given).per_minute }
    assert_equal [nil, nil, 61_000, 1000 + Brake::LONGEST_MS], %w[0 soon 1 999].map { |given| brake("slow", minutes: given).until_ms }
  end
end
