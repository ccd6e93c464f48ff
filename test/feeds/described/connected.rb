# frozen_string_literal: true

require_relative "../../support/wait"
require_relative "../../../lib/bavard/feeds/outbox"
require_relative "../../../lib/bavard/feeds/platform"
require_relative "examples"

# A described feed that is connected in this process, and what came of it.
module Connected
  include Wait

  Described = Bavard::Feeds::Described
  Feed = Struct.new(:id, :address, :password)

  def setup
    @taken = Queue.new
    @refused = Queue.new
    @open = []
  end

  def teardown
    @open.each(&:close)
    @thread&.join
  end

  # @return what its run gives, once it is over
  def connect(name, asked, base:, resume: Bavard::Feeds::NOTHING_TO_RESUME, secrets: nil, permission: nil, **change)
    platform = Bavard::Feeds::Platform.new(key: name, name:, kind: "described", description: Examples.description(name, base:, **change))
    feed = Feed.new(3, asked, secrets && JSON.generate(secrets))
    @connection = Described.connection(feed, resume, platform:, permission:, clock: method(:now_ms), outbox: @outbox = Bavard::Feeds::Outbox.new,
      take: ->(intake) { @taken << intake }, reject: ->(what) { @refused << what })
    stop, @stop = IO.pipe
    @open.push(stop, @stop)
    @thread = Thread.new { @ended = @connection.run(stop) }
  end

  def now_ms = (Time.now.to_f * 1000).to_i

  def halt
    @stop.write(".")
    @thread.join
    @ended
  end

  def taken(kind)
    wait_for("a #{kind}") { (@all ||= []).push(*drained).any? { |intake| intake.kind == kind } }
    @all.find { |intake| intake.kind == kind }.tap { |intake| @all.delete(intake) }
  end

  def drained = Array.new(@taken.size) { @taken.pop }
  def state(name) = wait_for("to be #{name}") { (@all ||= []).push(*drained).any? { |intake| intake.kind == :feed_state && intake.body.state == name } }
end
