# frozen_string_literal: true

require_relative "../../lib/bavard/feeds/described"
require_relative "../../lib/bavard/feeds/irc"
require_relative "../../lib/bavard/feeds/xmpp"
require_relative "../../lib/bavard/feeds/outbox"
require_relative "../../lib/bavard/feeds/runner"
require_relative "wait"

# A feed on a real socket, with what it hands over.
class FeedProbe
  include Wait

  CLOCK = -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) }
  DOOR = Bavard::Outward::Door.new(inside: ["127.0.0.1"])
  Feed = Struct.new(:id, :address, :password, :mapping)

  attr_reader :intakes, :rejected

  # @return [FeedProbe] of an IRC channel
  def self.irc(paste, mapping: {}, last_id: nil, heard_at_ms: nil, **given)
    read = Bavard::Feeds::Irc.read({"paste" => paste}.merge(given.transform_keys(&:to_s)))
    feed = Feed.new(1, read[:address], read[:password], mapping)
    new(Bavard::Feeds::Resume.new(last_id, heard_at_ms)) { |resume, options| Bavard::Feeds::Irc.connection(feed, resume, door: DOOR, **options) }
  end

  # @return [FeedProbe] of an XMPP room
  def self.xmpp(given, resume: Bavard::Feeds::NOTHING_TO_RESUME)
    read = Bavard::Feeds::Xmpp.read(given)
    feed = Feed.new(1, read[:address], read[:password], {})
    new(resume) { |now, options| Bavard::Feeds::Xmpp.connection(feed, now, door: DOOR, **options) }
  end

  # @param platform [Bavard::Feeds::Platform]
  # @param address [Hash] what is asked of a host
  def self.of(platform, address, permission: nil, resume: Bavard::Feeds::NOTHING_TO_RESUME)
    feed = Feed.new(1, address, nil, {})
    new(resume) { |now, options| Bavard::Feeds::Described.connection(feed, now, platform:, permission:, **options) }
  end

  # @yieldparam resume [Bavard::Feeds::Resume] where the last connection stopped
  # @yieldparam options [Hash] of a connection
  def initialize(resume)
    @intakes = []
    @rejected = []
    @outbox = Bavard::Feeds::Outbox.new
    options = {clock: CLOCK, take: @intakes.method(:<<), reject: @rejected.method(:<<), outbox: @outbox}
    connect = lambda do
      last = @connection
      resume = Bavard::Feeds::Resume.new(of(:line).last&.platform_id, last.heard_at_ms, last.cursor) if last
      @connection = yield(resume, options)
    end
    @runner = Bavard::Feeds::Runner.new(feed_id: 1, connect:, take: @intakes.method(:<<), clock: CLOCK,
      backoff: Bavard::Feeds::Backoff.new(random: Struct.new(:rand).new(0.0)))
  end

  def say(text) = @outbox.put(7, text)
  def ask(login) = @outbox.ask(login)

  def start
    @runner.start
    self
  end

  def stop = @runner.stop

  def of(kind) = @intakes.select { |intake| intake.kind == kind }
  def states = of(:feed_state).map { |intake| intake.body.state }
  def state = of(:feed_state).last&.body
  def texts = of(:line).map { |intake| intake.body.text }

  def until_live
    wait_for(-> { "the feed to be live: #{states.last(5).join(", ")}: #{state&.reason}" }) { state&.state == :live }
    self
  rescue Minitest::Assertion
    # Whoever waits for its thread to end would wait for this one as well.
    stop
    raise
  end

  def line_with(text)
    wait_for("the line “#{text}”") { of(:line).find { |intake| intake.body.text == text } }
  end
end
