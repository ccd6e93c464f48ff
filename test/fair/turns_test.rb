# frozen_string_literal: true

require "minitest/autorun"
require_relative "../../lib/bavard/fair/queue"
require_relative "../../lib/bavard/fair/turns"
require_relative "../support/wait"

# Long work of several owners, each piece of it ended by the test.
class TurnsTest < Minitest::Test
  include Wait

  Piece = Struct.new(:owner, :name, :gate, :thread)

  def setup
    @pieces = []
  end

  def teardown = @pieces.each { |piece| piece.thread.kill }

  def turns(**more) = @turns = Bavard::Fair::Turns.new(at_once: 2, **more)

  # Its thread is where it is to be, at work or in line, when this gives.
  def ask(owner, name)
    piece = Piece.new(owner, name, Queue.new)
    waiting = @turns.waiting
    piece.thread = Thread.new { @turns.take(owner) { (Thread.current[:works] = name) && piece.gate.pop } }
    @pieces << piece
    wait_for("#{name} in line or at work") { piece.thread[:works] || (piece.thread.stop? && @turns.waiting > waiting) }
    piece
  end

  def waiting = @pieces.select { |piece| piece.thread&.alive? && !piece.thread[:works] }.map(&:name)
  def working = @pieces.select { |piece| piece.thread&.alive? && piece.thread[:works] }.map(&:name)

  def finish(name)
    piece = @pieces.find { |one| one.name == name }
    piece.gate << true
    piece.thread.join
  end

  def test_one_owner_has_one_at_work_however_much_is_asked_for
    turns
    %w[a1 a2 a3].each { |name| ask("a", name) }
    assert_equal %w[a1], working
    ask("b", "b1")
    assert_equal %w[a1 b1], working.sort
  end

  def test_owners_come_in_turn_whoever_asked_for_more
    turns
    %w[a1 a2 a3 a4].each { |name| ask("a", name) }
    ask("b", "b1")
    ask("c", "c1")
    ask("b", "b2")
    order = []
    until working.empty?
      now = working.min_by { |name| name[1] }
      order << now
      finish(now)
      wait_for("all who may to be at work") { working.size == (working + waiting).map { |name| name[0] }.uniq.first(2).size }
    end
    assert_equal %w[a1 b1 c1 a2 b2 a3 a4], order
  end

  def test_how_many_wait_is_bounded_for_each_and_for_all
    turns(most_waiting: 3, most_of_one: 2)
    ask("a", "a1")
    ask("a", "a2")
    refused = assert_raises(Bavard::Error) { @turns.take("a") { flunk } }
    assert_match(/yours/, refused.message)
    ask("b", "b1")
    ask("b", "b2")
    ask("c", "c1")
    refused = assert_raises(Bavard::Error) { @turns.take("d") { flunk } }
    assert_match(/many others/, refused.message)
  end

  def test_work_that_fails_or_is_ended_gives_its_turn_back
    turns
    fails = ->(*) { raise ArgumentError }
    assert_raises(ArgumentError) { @turns.take("a", &fails) }
    first = ask("a", "a1")
    ask("a", "a2")
    first.thread.kill.join
    wait_for("the next at work") { working == %w[a2] }
    third = ask("a", "a3")
    third.thread.kill.join
    assert_equal 0, @turns.waiting
    finish("a2")
    assert_equal(:free, @turns.take("a") { :free })
  end
end

class FairQueueTest < Minitest::Test
  def queue(most_of_one: 10, out_of_one: 1) = @queue ||= Bavard::Fair::Queue.new(most_of_one:, out_of_one:)

  # What comes out until there is nothing more, in one thread.
  def taken(number)
    found = []
    queue.each do |*one|
      found << one
      queue.close if found.size == number
    end
    found
  end

  def test_owners_come_in_turn_and_each_has_its_own_order
    {a: [1, 2, 3], b: [4], c: [5, 6]}.each { |owner, items| items.each { |item| assert queue.push(owner, item) } }
    assert_equal [[:a, 1], [:b, 4], [:c, 5], [:a, 2], [:c, 6], [:a, 3]], taken(6)
  end

  def test_a_flood_of_one_leaves_room_for_another
    queue(most_of_one: 2)
    assert_equal([true, true, false, false], Array.new(4) { |item| queue.push(:a, item) })
    assert queue.push(:b, 9)
    assert_equal [[:a, 0], [:b, 9], [:a, 1]], taken(3)
  end

  def test_threads_that_are_at_work_for_one_leave_the_others_to_the_next
    3.times { |item| queue.push(:a, item) }
    queue.push(:b, 9)
    taken = ::Queue.new
    go_on = ::Queue.new
    threads = Array.new(3) { Thread.new { queue.each { |*one| (taken << one) && go_on.pop } } }
    assert_equal [[:a, 0], [:b, 9]], [taken.pop, taken.pop].sort
    Thread.pass until threads.all?(&:stop?)
    assert_empty taken
    2.times { go_on << true }
    assert_equal [:a, 1], taken.pop
    queue.close
    3.times { go_on << true }
    threads.each(&:join)
  end

  def test_whoever_waits_is_let_go_when_it_closes
    waiting = Thread.new { taken(1) }
    Thread.pass until waiting.stop?
    queue.close
    assert_empty waiting.value
    refute queue.push(:a, 1)
  end
end
