# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../support/proxy"
require_relative "../../support/test_database"
require_relative "../../support/wait"
require "semantic_logger"
require_relative "../../../lib/bavard/live/journal/pulse"
require_relative "../../../lib/bavard/pauses"

# A database behind a line that stalls or is cut.
class PulseTest < Minitest::Test
  include Wait

  Pulse = Bavard::Live::Pulse

  def setup
    @line = Proxy.new(URI(TestDatabase.url).port)
    url = TestDatabase.url.sub(%r{:\d+/}, ":#{@line.port}/")
    @db = Bavard::Store::Database.open(url)
    @db.disconnect
    # Locks have a line of their own.
    @locks = Sequel.connect(url, max_connections: 1, test: false)
    @pulse = Pulse.new(@db, @locks, url, log: SemanticLogger["test"], over: Bavard::Over.new).start
    wait_for("the first beat") { asked == 1 }
    @locks.get(1)
  end

  def teardown
    @line.mend
    @line.go_on
    @pulse.stop
    [@db, @locks].each(&:disconnect)
    @line.stop
  end

  def asked = @db.get(1)

  def test_whoever_waits_for_one_that_hangs_is_told_and_nobody_begins_to_wait
    @line.stall
    assert_raises(Sequel::DatabaseError) { asked }
    assert_raises(Sequel::DatabaseError) { @locks.get(1) }
    wait_for("it to be known as away") { @pulse.away? }
    assert_equal [Pulse::WORDS] * 2, [@db, @locks].map { |db| assert_raises(Sequel::DatabaseConnectionError) { db.get(1) }.message }
    @line.go_on
    wait_for("it to answer again") { !@pulse.away? }
    assert_equal 1, asked
  end

  def test_one_that_is_gone_is_away_until_it_is_back
    @line.cut
    wait_for("it to be known as away") { @pulse.away? }
    assert_raises(Sequel::DatabaseError) { asked }
    @line.mend
    wait_for("it to answer again") { !@pulse.away? }
    assert_equal 1, asked
  end

  # What was asked counts as asked until then.
  def test_one_that_takes_its_time_is_not_away
    @line.stall
    later = Thread.new { asked }
    wait_for("it to be asked") { later.status == "sleep" }
    @line.go_on
    assert_equal [1, false], [later.value, @pulse.away?]
  end
end

# Before it watches, while the application begins.
class PulseBeforeTest < Minitest::Test
  include Wait

  def setup
    @line = Proxy.new(URI(TestDatabase.url).port)
    @url = TestDatabase.url.sub(%r{:\d+/}, ":#{@line.port}/")
    @db = Bavard::Store::Database.open(@url)
    @db.disconnect
    @over = Bavard::Over.new
    @said = Said.new
    @pulse = Bavard::Live::Pulse.new(@db, @url, log: @said, over: @over)
    @line.cut
  end

  def teardown
    @over.tell
    @asking&.join
    @db.disconnect
    @line.stop
  end

  Said = Class.new do
    def lines = @lines ||= Queue.new
    def warn(line) = lines << line
    def info(_) = nil
  end

  def ask
    @asking = Thread.new do
      @db.get(1)
    rescue Sequel::DatabaseConnectionError => error
      error
    end
    wait_for("it to be waited for") { !@said.lines.empty? }
  end

  def test_a_line_is_waited_for
    ask
    assert_match(/\Awaiting for the database: .*port #{@line.port}/, @said.lines.pop)
    @line.mend
    assert_equal 1, @asking.value
  end

  def test_until_it_is_over
    ask
    @over.tell
    assert_kind_of Sequel::DatabaseConnectionError, @asking.value
  end

  def test_and_no_longer_once_it_watches
    ask
    @pulse.start
    assert_kind_of Sequel::DatabaseConnectionError, @asking.value
    wait_for("it to be known as away") { @pulse.away? }
    assert_raises(Sequel::DatabaseConnectionError) { @db.get(1) }
  ensure
    @pulse.stop
  end
end
