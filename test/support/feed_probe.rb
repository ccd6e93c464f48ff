# frozen_string_literal: true

require_relative "../../lib/bavard/feeds/irc"
require_relative "../../lib/bavard/feeds/runner"
require_relative "wait"

# A feed on a real socket, with what it hands over.
class FeedProbe
  include Wait

  CLOCK = -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) }
  Feed = Struct.new(:id, :address, :password, :mapping)

  attr_reader :intakes, :rejected

  def initialize(paste, mapping: {}, last_id: nil, heard_at_ms: nil, **given)
    read = Bavard::Feeds::Irc.read({"paste" => paste}.merge(given.transform_keys(&:to_s)))
    feed = Feed.new(1, read[:address], read[:password], mapping)
    @intakes = []
    @rejected = []
    @resume = Bavard::Feeds::Irc::Session::Resume.new(last_id, heard_at_ms)
    connect = lambda do
      Bavard::Feeds::Irc.connection(feed, @resume, clock: CLOCK, take: @intakes.method(:<<), reject: @rejected.method(:<<))
    end
    @runner = Bavard::Feeds::Runner.new(feed_id: 1, connect:, take: @intakes.method(:<<), clock: CLOCK,
      backoff: Bavard::Feeds::Backoff.new(random: Struct.new(:rand).new(0.0)))
  end

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
    wait_for("the feed to be live") { state&.state == :live }
    self
  end

  def line_with(text)
    wait_for("the line “#{text}”") { of(:line).find { |intake| intake.body.text == text } }
  end
end
