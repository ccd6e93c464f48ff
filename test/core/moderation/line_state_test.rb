# frozen_string_literal: true

require "prop_check"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/gate/verdict"
require_relative "../../../lib/bavard/core/moderation/line_state"

# The table of what can become of a line.
class LineStateTest < Minitest::Test
  LineState = Bavard::Core::Moderation::LineState
  Verdict = Bavard::Core::Gate::Verdict
  G = PropCheck::Generators
  TAKEN = %i[pull delete].freeze
  # Only these lead back to the picture.
  BACK = LineState::TO_PICTURE.keys + [:put_back]
  NOT_YET = %i[arrived queued].freeze

  def verdict(action) = Verdict.new(action, nil, nil, [], nil)
  def state(*events) = events.each_with_object(LineState.new) { |event, state| state.move(event) }

  # @return [Array<LineState>] one in each state
  def all = LineState::NAMES.map { |name| LineState.new(name, was: LineState::TAKEN.include?(name) ? :aired : nil) }

  def test_each_event_leads_where_the_table_says_or_nowhere
    all.product(LineState::EVENTS).each do |state, event|
      state = state.dup
      before = state.name
      to = LineState::TABLE.fetch(before)[event]
      next assert_raises(Bavard::Error) { state.move(event) } unless to

      assert_equal before, state.move(event)
      assert_equal to == LineState::BACK ? :aired : to, state.name
    end
  end

  def test_every_state_can_be_come_to_and_left
    reached = LineState::TABLE.each_value.flat_map(&:values).uniq - [LineState::BACK]
    assert_empty LineState::NAMES - reached - [:arrived]
    assert(LineState::TABLE.each_value.none?(&:empty?))
  end

  def test_what_was_taken_away_goes_back_to_where_it_was
    %i[hold stop keep_off queue leave air draft pass_by].each do |event|
      name = state(event).name
      TAKEN.each do |how|
        next unless state(event).can?(how)

        assert_equal [name, nil], state(event, how, :put_back).then { |back| [back.name, back.was] }
      end
    end
    assert_equal :held, state(:hold, :pull, :delete, :put_back).name
  end

  def test_a_platforms_delete_outlasts_somebodys_pull
    assert_equal :deleted, state(:air, :pull, :delete).name
    refute state(:air, :delete).can?(:pull)
    refute state(:air, :delete).can?(:keep_off)
  end

  def test_it_knows_who_moved_it_last
    one = state(:air)
    one.move(:pull, by: "Teo")
    assert_equal "Teo", one.by
    one.move(:put_back)
    assert_nil one.by
  end

  def test_nothing_that_was_taken_away_is_seen_before_somebody_brings_it_back
    PropCheck.forall(G.array(G.one_of(*LineState::EVENTS.map { |event| G.constant(event) }), min: 3, max: 40)) do |events|
      state = LineState.new
      away = false
      events.select { |event| state.can?(event) }.each do |event|
        next unless state.can?(event)

        state.move(event)
        away = true if TAKEN.include?(event)
        away = false if BACK.include?(event)
        refute_predicate state, :seen?, events.inspect if away
        assert_equal state.taken?, !state.was.nil?
      end
    end
  end

  def test_people_are_offered_what_the_table_lets_them_do
    all.each do |state|
      assert state.can?(:pull), state.name if state.offers?("pull")
      assert_equal state.offers?("let_go"), state.can?(:let_go) || (!state.seen? && state.can?(:air) && !NOT_YET.include?(state.name)), state.name
      refute state.seen? && state.offers?("let_go"), state.name
    end
  end

  def test_every_way_to_the_picture_has_its_event
    assert_equal LineState::SHOW, LineState::TO_PICTURE.invert
    assert_equal LineState::SEEN, LineState::SHOW.keys
  end

  # verdict; held, aired, pulled, deleted in the log
  LOG = {
    ["pass", false, true, false, false] => [:aired, nil], ["pass", false, false, false, false] => [:nowhere, nil],
    ["pass", true, false, false, false] => [:held, nil], ["hold", true, false, false, false] => [:waits, nil],
    ["hold", false, false, false, false] => [:left, nil], ["hold", false, true, false, false] => [:aired, nil],
    ["drop", false, false, false, false] => [:off, nil], ["drop", false, true, false, false] => [:aired, nil],
    ["pass", false, true, true, false] => %i[pulled aired], ["hold", true, false, true, false] => %i[pulled waits],
    ["drop", false, false, true, false] => %i[pulled off], ["pass", false, true, true, true] => %i[deleted aired]
  }.freeze

  def test_of_the_log_it_is_what_it_was
    LOG.each do |(action, held, aired, pulled, deleted), expected|
      state = LineState.kept(verdict(action.to_sym), held:, aired:, pulled:, deleted:)
      assert_equal expected, [state.name, state.was]
    end
  end

  WENT = {["shown", "draft"] => :draft, ["shown", "thinned"] => :washed, ["shown", "nowhere"] => :nowhere, ["left", "nobody let it go in time"] => :left}.freeze

  def test_where_it_went_stands_in_its_trace
    WENT.each do |last, expected|
      assert_equal expected, LineState.kept(verdict(:pass), held: false, aired: false, pulled: false, deleted: false, last:).name
    end
    assert_equal :held, LineState.kept(verdict(:pass), held: true, aired: false, pulled: false, deleted: false, last: %w[shown thinned]).name
  end
end
