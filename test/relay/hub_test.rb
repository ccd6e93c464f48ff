# frozen_string_literal: true

require "json"
require "minitest/autorun"
require "semantic_logger"
require "socket"
require "websocket/driver"
require_relative "../support/wait"
require_relative "../../lib/bavard/relay/hub"
require_relative "../../lib/bavard/relay/topic"

# The hub on real socket pairs, as the web server hands them over.
class HubTest < Minitest::Test
  include Wait

  # A page at the other end.
  class Page
    attr_reader :texts, :socket, :closed_with, :beats

    # What tells nothing but that the line holds.
    BEAT = /\A\{"t":\d+\}\z/

    def initialize(socket)
      @socket = socket
      @texts = []
      @beats = []
      @driver = WebSocket::Driver.client(self)
      @driver.on(:message) { |event| (event.data.match?(BEAT) ? @beats : @texts) << event.data }
      @driver.on(:close) { |event| @closed_with = event.code }
      @driver.start
    end

    def url = "ws://bavard.example/air/x/live"
    def say(text) = @driver.text(text)

    def write(bytes)
      socket.write(bytes)
    rescue Errno::EPIPE
      nil # it was let go
    end

    def read
      while (bytes = socket.read_nonblock(4096, exception: false)).is_a?(String)
        @driver.parse(bytes)
      end
      self
    end
  end

  # Remembers what pages did.
  class Follower
    attr_reader :happened

    def initialize = @happened = Queue.new
    def opened(_connection) = happened << :opened
    def heard(_connection, text) = happened << text
    def closed(_connection) = happened << :closed
  end

  def setup
    @now_ms = 0
    @hub = Bavard::Relay::Hub.new(clock: -> { @now_ms }, log: SemanticLogger["test"]).start
    @topic = Bavard::Relay::Topic.new("air:1", "boot")
    @follower = Follower.new
  end

  def teardown = @hub.stop

  def page(last: nil)
    theirs, ours = UNIXSocket.pair
    page = Page.new(theirs)
    request = ours.readpartial(4096)
    env = request.lines.drop(1).filter_map { |line| line.chomp.split(": ", 2) if line.include?(": ") }
      .to_h { |key, value| ["HTTP_#{key.upcase.tr("-", "_")}", value] }
    @hub.join(ours, env.merge("REQUEST_METHOD" => "GET", "REQUEST_URI" => "/air/x/live"), @topic, follower: @follower, last:)
    page
  end

  def publish(change)
    @hub.deliver(@topic, @topic.frame(change, -> { {all: change} }))
  end

  def until_texts(page, count)
    wait_for("#{count} messages") { page.read.texts.size >= count }
    page.texts.map { |text| JSON.parse(text) }
  end

  def test_a_page_gets_the_picture_and_then_every_frame_in_order
    one = page
    until_texts(one, 1)
    20.times { |number| publish({number:}) }
    assert_equal (0..19).to_a, until_texts(one, 21).drop(1).map { |frame| frame["number"] }
  end

  def test_a_page_that_was_away_is_brought_up_to_now
    3.times { |number| publish({number:}) }
    assert_equal [1, 2], until_texts(page(last: "boot:1"), 1).first["missed"].map { |frame| frame["number"] }
  end

  def test_what_a_page_says_reaches_who_follows_it
    one = page
    until_texts(one, 1)
    one.say("hello")
    assert_equal [:opened, "hello"], [@follower.happened.pop, @follower.happened.pop]
    one.socket.close
    assert_equal :closed, @follower.happened.pop
  end

  def test_a_page_that_does_not_read_never_slows_another
    slow = page
    quick = page
    until_texts(quick, 1)
    40.times do |number|
      publish({number:, ballast: "x" * 40_000})
      until_texts(quick, number + 2)
    end
    frames = until_texts(quick, 41)
    assert_equal (0..39).to_a, frames.drop(1).map { |frame| frame["number"] }
    last = JSON.parse(wait_for("the slow page to catch up") { slow.read.texts.find { |text| text.include?('"whole":true,"all"') } })
    assert_equal 39, last.dig("all", "number")
  end

  def test_garbage_from_a_page_costs_that_page_alone
    bad = page
    good = page
    until_texts(bad, 1)
    bad.socket.write("\x00\xFF garbage #{"y" * 50_000}")
    publish({number: 1})
    assert_equal 1, until_texts(good, 2).last["number"]
    wait_for("the bad page to be gone") { @follower.happened.size.positive? && drained.include?(:closed) }
  end

  def test_a_page_that_says_nothing_for_long_is_let_go
    one = page
    until_texts(one, 1)
    @now_ms = 20_000
    wait_for("the page to be let go") { (@now_ms += 50_000) && drained.include?(:closed) }
  end

  def test_a_page_hears_that_its_line_holds_and_how_long_it_is
    one = page
    wait_for("two beats") { one.read.beats.size >= 2 }
    first, second = one.beats.map { |beat| JSON.parse(beat)["t"] }
    assert_operator second - first, :>=, Bavard::Relay::Hub::BEAT_EVERY_MS
  end

  # What others send over a line of their own is answered, and nothing else is said but now and then.
  def test_who_is_no_page_of_ours_hears_now_and_then_that_the_line_holds
    @topic = Bavard::Relay::Topic.new("inbox:1", "boot", timed: false)
    other = page
    ours = Bavard::Relay::Topic.new("air:2", "boot").then { |topic| (@topic = topic) && page }
    until_texts(other, 1)
    wait_for("two beats of ours") { ours.read.beats.size >= 2 }
    assert_empty other.read.beats
    @now_ms = 20_000
    wait_for("the word") { other.read.texts.include?("{}") }
    refute_includes ours.read.texts, "{}"
  end

  def test_whether_all_is_there_is_answered_behind_all_of_it
    one = page
    until_texts(one, 1)
    publish({number: 1})
    one.say('{"here":7}')
    publish({number: 2})
    told = until_texts(one, 4).drop(1)
    assert_equal [nil, 7], told.find { |message| message["here"] }.values_at("number", "here")
    assert_operator told.index { |message| message["here"] }, :>=, 1
    one.say('{"here":"7"}')
    assert_equal [:opened, '{"here":"7"}'], [@follower.happened.pop, @follower.happened.pop]
  end

  # While it is behind, what was thrown away for it comes as a whole picture, and the answer behind that.
  def test_whether_all_is_there_is_answered_behind_the_picture_of_who_was_behind
    slow = page
    until_texts(slow, 1)
    20.times { |number| publish({number:, ballast: "x" * 40_000}) }
    slow.say('{"here":9}')
    wait_for("the answer") { slow.read.texts.any? { |text| text.start_with?('{"here":9') } }
    before = slow.texts.take_while { |text| !text.start_with?('{"here":9') }.map { |text| JSON.parse(text) }
    assert_equal 19, before.last.dig("all", "number") || before.last["number"]
  end

  def test_a_link_that_is_replaced_says_so_and_closes
    one = page
    until_texts(one, 1)
    @hub.close(@topic)
    wait_for("the word") { one.read.closed_with }
    assert_equal 4404, one.closed_with
  end

  private

  def drained
    @seen ||= []
    @seen << @follower.happened.pop until @follower.happened.empty?
    @seen
  end
end
