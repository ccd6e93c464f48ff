# frozen_string_literal: true

require "json"
require "prop_check"
require_relative "../support/lines"
require_relative "../support/plain"
require_relative "../../lib/bavard/core/gate/settings"
require_relative "../../lib/bavard/core/stage/document"
require_relative "../../lib/bavard/live/gatehouse"
require_relative "../../lib/bavard/live/playout"
require_relative "../../lib/bavard/relay/topic"

# Whatever is pulled before it goes is never painted, however the network behaves: frames come late, in bunches, after a cut,
# or as a whole picture instead.
class HoldPropertyTest < Minitest::Test
  include Lines

  HOLD_MS = 3000
  G = PropCheck::Generators
  # Draws what frames say, as the page does: whole pictures, frames one after another, and missed ones in one go.
  class Page
    LEAVING = %w[out pulled].freeze

    attr_reader :painted

    def initialize
      @standing = []
      @painted = {}
    end

    def take(message)
      if message["missed"] then missed(message["missed"])
      else frame(message)
      end
    end

    private

    def frame(frame)
      @standing = [] if frame["whole"]
      (frame.dig("pulled", "chat1") || []).each { |id| @standing.delete(id) }
      (frame.dig("out", "chat1") || []).each { |id| @standing.delete(id) }
      paint((frame.dig("in", "chat1") || []).map { |card| card["i"] })
    end

    # What came and went in between is not painted.
    def missed(frames)
      gone = frames.flat_map { |one| LEAVING.flat_map { |how| one.dig(how, "chat1") || [] } }
      frames.each { |one| frame(one.merge("in" => {"chat1" => (one.dig("in", "chat1") || []).reject { |card| gone.include?(card["i"]) }})) }
    end

    def paint(ids)
      @standing |= ids
      ids.each { |id| @painted[id] = true }
    end
  end
  # Hands frames to a page whose line is cut now and then.
  Hub = Struct.new(:waiting) { def deliver(_topic, text) = waiting << text }

  def way
    document = Bavard::Core::Stage::Document.empty.merge("pieces" => [Bavard::Core::Stage::ChatPiece.build("chat1", {"stay_ms" => "for good", "at_most" => 40})])
    hub = Hub.new([])
    topic = Bavard::Relay::Topic.new("t", "boot")
    playout = Bavard::Live::Playout.new(topic, hub, Bavard::Live::Playout::Shared.new(->(_) { %w[circle #5fb8d6] }, nil, "Odalys"), document:)
    gate = Bavard::Core::Gate::Settings.read(Bavard::Core::Gate::Settings::DEFAULT.merge("hold" => Bavard::Core::Gate::Settings.hold("ms" => HOLD_MS)))
    {hub:, topic:, playout:, gatehouse: Bavard::Live::Gatehouse.new(gate), page: Page.new, cut: false, last: nil, now: 1_000_000, next: 0, pulled: {}, let_go: {}}
  end

  # what happens next: a line comes, time passes, one of the last is pulled, put back or let go, the line to the page breaks or comes back
  def step(way, what, number)
    case what
    when 0, 1 then come(way)
    when 2 then pass(way, (number % 40) * 100)
    when 3 then pull(way, number)
    when 4 then way[:gatehouse].let_go(way[:next] - (number % 5)) && (way[:let_go][way[:next] - (number % 5)] = true)
    when 5 then way[:cut] = true
    when 6 then mend(way)
    when 7 then mend(way, from_nothing: true)
    end
  end

  def come(way)
    one = line(way[:next] += 1, "line #{way[:next]} #{%w[wren teal snipe heron].rotate(way[:next]).join(" ")}", at_ms: way[:now], login: "p#{way[:next]}")
    verdict = way[:gatehouse].take(one)
    way[:gatehouse].hold(one, 1, verdict, way[:now])
  end

  # A pull counts from when it is made: what went before that may have been painted.
  def pull(way, number)
    id = way[:next] - (number % 5)
    way[:pulled][id] = true if way[:gatehouse].pull(id)
    way[:playout].pull_where { |one| one.id == id }
  end

  def pass(way, ms)
    way[:now] += ms
    released, = way[:gatehouse].advance(way[:now])
    released.each { |held| way[:playout].add(held.line) }
    way[:playout].flush(way[:now])
    arrive(way) unless way[:cut]
  end

  def arrive(way)
    way[:hub].waiting.each { |text| hear(way, JSON.parse(text)) }
    way[:hub].waiting.clear
  end

  def mend(way, from_nothing: false)
    way[:cut] = false
    way[:hub].waiting.clear
    hear(way, JSON.parse(way[:topic].catch_up(from_nothing ? nil : way[:last])))
  end

  def hear(way, message)
    way[:last] = message["at"]
    way[:page].take(message)
  end

  def test_what_was_pulled_while_it_was_held_is_never_painted
    PropCheck.forall(G.array(G.tuple(G.nonnegative_integer, G.nonnegative_integer), min: 5, max: 80)) do |steps|
      way = way()
      steps.each { |what, number| step(way, what % 8, number) }
      mend(way)
      5.times { pass(way, HOLD_MS) }
      assert_empty way[:pulled].keys & way[:page].painted.keys
      if way[:next] <= 40 && steps.none? { |what, _| (what % 8) == 3 }
        assert_equal (1..way[:next]).to_a - way[:pulled].keys, way[:page].painted.keys.sort & (1..way[:next]).to_a
      end
    end
  end
end
