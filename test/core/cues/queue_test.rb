# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/cues/event"
require_relative "../../../lib/bavard/core/cues/queue"

# What waits to be played, in every order somebody may press things in.
class CueQueueTest < Minitest::Test
  include Bavard::Core::Cues

  def event(id, kind = "tip") = Event.new(id:, kind:, at_ms: 0, feed_id: 3, login: "p#{id}", name: "P#{id}", roles: ["viewer"], first_ever: false)
  def cue(id) = {"id" => id, "name" => id}
  def queue(**settings) = @queue = Queue.new(Queue::Settings.new(**Queue::CALM.to_h, gap_ms: 0, **settings))
  def add(id, cue_id = "c#{id}", now_ms: 0, **more) = @queue.add(event(id), cue(cue_id), now_ms, joins: false, length_ms: 1000, **more)
  def ids = @queue.waiting.map { |one| one.events.first.id }
  def begun(now_ms) = @queue.advance(now_ms).last.then { |one| one && one.events.first.id }

  def test_while_it_is_paused_nothing_begins_what_plays_ends_and_the_order_stays
    queue
    [1, 2, 3].each { |id| add(id) }
    assert_equal 1, begun(0)
    @queue.pause
    assert_predicate @queue, :paused?
    ended, next_one = @queue.advance(1000)
    assert_equal [1, nil], [ended.events.first.id, next_one]
    add(4, importance: 9)
    assert_equal [nil, [2, 3, 4]], [begun(5000), ids]
    assert_nil @queue.due_ms
    @queue.go_on
    refute_predicate @queue, :paused?
    assert_equal [4, 2, 3], [5000, 6000, 7000].map { |now| begun(now) }
  end

  def test_of_the_same_importance_the_first_that_came_plays_first
    queue
    [[1, 0], [2, 5], [3, 5], [4, 0]].each { |id, importance| add(id, importance:) }
    assert_equal [2, 3, 1, 4], [0, 1000, 2000, 3000].map { |now| begun(now) }
  end

  def test_between_two_there_is_a_gap_and_it_says_when_the_next_begins
    queue(gap_ms: 500)
    [1, 2].each { |id| add(id) }
    assert_equal 0, @queue.due_ms
    begun(0)
    assert_equal 1000, @queue.due_ms
    assert_equal [nil, nil, nil, 2], [999, 1000, 1499, 1500].map { |now| begun(now) }
  end

  def test_what_is_skipped_is_over_and_skipping_nothing_is_nothing
    queue(gap_ms: 300)
    assert_nil @queue.skip(0)
    [1, 2].each { |id| add(id) }
    begun(0)
    assert_equal 1, @queue.skip(100).events.first.id
    assert_equal [nil, nil, 2], [@queue.playing, begun(399), begun(400)]
  end

  def test_what_was_pulled_leaves_what_it_was_joined_with
    queue(alike_ms: 4000)
    3.times { |number| @queue.add(event(number, "gift"), cue("gift"), number, joins: true) }
    assert_equal [[0, 1, 2]], @queue.waiting.map { |one| one.events.map(&:id) }
    refute @queue.pull_where(10) { |one| one.id == 1 }
    assert_equal [[0, 2]], @queue.waiting.map { |one| one.events.map(&:id) }
    refute @queue.pull_where(10) { true }
    assert_empty @queue.waiting
  end

  def test_only_what_is_alike_of_the_same_cue_and_came_lately_is_joined
    queue(alike_ms: 4000)
    gift = ->(id, cue_id, now) { @queue.add(event(id, "gift"), cue(cue_id), now, joins: true) }
    gift.call(1, "a", 0)
    gift.call(2, "b", 0)
    gift.call(3, "a", 4000)
    gift.call(4, "a", 4001)
    @queue.add(event(5, "gift"), cue("a"), 4001, joins: false)
    assert_equal [[1, 3], [2], [4], [5]], @queue.waiting.map { |one| one.events.map(&:id) }
  end

  def test_where_somebody_approves_only_what_was_let_go_plays
    queue(approve: true)
    one, two = [1, 2].map { |id| add(id) }
    assert_nil @queue.due_ms
    @queue.approve(two.id)
    assert_equal 0, @queue.due_ms
    assert_equal [2, nil], [begun(0), begun(1000)]
    @queue.remove(one.id)
    assert_equal [nil, nil, []], [@queue.approve(one.id), @queue.remove(one.id), ids]
  end

  def test_the_least_important_that_came_last_makes_room
    queue(most: 2)
    add(1, importance: 1)
    add(2, importance: 2)
    add(3, importance: 1)
    assert_equal [[1, 2], 1], [ids, @queue.left]
    add(4, importance: 3)
    assert_equal [[2, 4], 2], [ids, @queue.left]
  end

  def test_what_waited_too_long_is_left_and_counted
    queue(longest_wait_ms: 1000)
    add(1, length_ms: 5000)
    begun(0)
    add(2, now_ms: 0)
    add(3, now_ms: 500)
    @queue.advance(1000)
    assert_equal [2, 3], ids
    @queue.advance(1001)
    assert_equal [[3], 1], [ids, @queue.left]
  end
end
