# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/challenge"
require_relative "../../../lib/bavard/core/cues/command"
require_relative "../../../lib/bavard/core/pieces/pieces"

class ChallengeTest < Minitest::Test
  include Bavard::Core::Cues

  Amount = Bavard::Core::Amount
  G = PropCheck::Generators
  MINUTE_MS = 60_000

  def piece(values = {}) = Bavard::Core::Pieces::ChallengePiece.build("challenge1", values)

  def event(kind, **more)
    Event.new(id: 1, kind:, at_ms: 0, feed_id: 1, login: "ann", name: "Ann", roles: [], **more)
  end

  def running(**values)
    @piece = piece(values.transform_keys(&:to_s))
    Challenge.begin(0)
  end

  def test_each_kind_counts_as_it_is_set_also_by_its_amount
    counts = [{"kind" => "follow", "each" => 2, "per_unit" => 0}, {"kind" => "tip", "each" => 1, "per_unit" => 0.5}, {"kind" => "gift", "each" => 5, "per_unit" => 0}]
    state = running(counts:, total: 1000)
    [event("follow"), event("tip", amount: Amount.money(1000, "EUR")), event("gift", number: 3), event("visit", number: 9)].each { |one| state = Challenge.count_event(@piece, state, one, 0) }
    assert_in_delta 2 + 6 + 15, state.done
    assert_equal 1, Challenge.count_event(@piece, Challenge.begin(0), event("tip"), 0).done
  end

  def test_what_counts_where_nothing_is_set
    assert_equal [1, 5, 0, 7.5], [event("follow"), event("subscription"), event("visit"), event("tip", amount: Amount.money(750, "EUR"))].map { |one| Challenge.worth(piece, one) }
  end

  def test_it_slips_back_with_time_and_by_events_and_never_below_nothing
    begun = running(slips: 4, counts: [{"kind" => "own", "each" => -30, "per_unit" => 0}])
    state = Challenge.add(@piece, begun, 20)
    assert_in_delta 12, Challenge.advance(@piece, state, 2 * MINUTE_MS).done
    assert_equal 0, Challenge.advance(@piece, state, 60 * MINUTE_MS).done
    assert_equal 0, Challenge.count_event(@piece, state, event("own"), 0).done
  end

  def test_it_is_reached_or_its_time_is_up_and_then_nothing_counts_any_more
    state = running(total: 3, minutes: 5)
    reached = Challenge.count_event(@piece, state, event("subscription"), MINUTE_MS)
    assert_equal ["reached", 3.0], [reached.state, reached.done]
    assert_equal reached, Challenge.advance(@piece, reached, 9 * MINUTE_MS)
    missed = Challenge.count_event(@piece, state, event("subscription"), 6 * MINUTE_MS)
    assert_equal ["missed", 0.0], [missed.state, missed.done]
  end

  def test_it_waits_for_a_hand_or_for_an_event_that_counts_already
    by_hand = piece
    assert_equal "waiting", Challenge.count_event(by_hand, Challenge::WAITING, event("follow"), 5).state
    begun = Challenge.count_event(piece("begins" => "follow"), Challenge::WAITING, event("follow"), 5)
    assert_equal ["running", 1.0, 5], [begun.state, begun.done, begun.began_ms]
  end

  def test_an_event_may_end_it
    challenge = piece("ends_with" => "visit", "total" => 5)
    assert_equal "missed", Challenge.count_event(challenge, Challenge.begin(0), event("visit"), 5).state
    assert_equal "running", Challenge.count_event(challenge, Challenge.begin(0), event("follow"), 5).state
  end

  def test_its_card_runs_up_or_down_and_tells_the_stages
    begun = running(total: 200, stages: "25, 50 %, 75, 300")
    state = Challenge.add(@piece, begun, 100)
    assert_equal [100, 0.5, [25, 50, 75], 2], Challenge.card(@piece, state).values_at(:value, :share, :stages, :passed)
    assert_equal 150, Challenge.card(piece("total" => 200, "runs" => "down"), Challenge.add(@piece, Challenge.begin(0), 50))[:value]
    assert_equal 300_000, Challenge.card(piece("minutes" => 5), Challenge.begin(0))[:ends]
  end

  def test_what_was_kept_is_read_whatever_it_is
    state = Challenge::State.new("running", 4.5, 10, 5)
    assert_equal state, Challenge.read(state.to_h)
    [nil, {}, {"state" => "odd", "done" => 1}, {"state" => "running", "done" => "x"}].each { |bad| assert_equal Challenge::WAITING, Challenge.read(bad) }
  end

  def test_done_stays_between_nothing_and_all_whatever_comes_when
    kinds = G.one_of(*%w[follow gift tip own].map { |kind| G.constant(kind) })
    PropCheck.forall(G.array(G.tuple(kinds, G.choose(0..90_000), G.choose(0..5000)))) do |happened|
      challenge = piece("total" => 50, "slips" => 3, "counts" => [{"kind" => "follow", "each" => 1, "per_unit" => 0}, {"kind" => "own", "each" => -7, "per_unit" => 0}, {"kind" => "tip", "each" => 0, "per_unit" => 1}])
      state = Challenge.begin(0)
      now = 0
      happened.each do |kind, pause, cents|
        state = Challenge.count_event(challenge, state, event(kind, amount: Amount.money(cents, "EUR")), now += pause)
        assert_includes 0.0..50.0, state.done
      end
    end
  end

  def test_a_command_is_a_word_and_perhaps_a_name
    assert_equal ["", "Heron House", "x"], [Command.rest("!Ringed", "!ringed"), Command.rest("!hello  Heron House ", "!hello"), Command.rest("!hello x", "!hello")]
    [["!helloo x", "!hello"], ["say !hello", "!hello"], ["!hello", ""], ["sixsix Heron", "!hello"], ["", ""], [" hello", " "], ["", "!hello"]].each { |text, word| assert_nil Command.rest(text, word), text }
    assert Command.may?({"may" => []}, %w[moderator])
    refute Command.may?({"may" => []}, %w[viewer subscriber])
    assert Command.may?({"may" => %w[viewer]}, %w[viewer])
  end
end
