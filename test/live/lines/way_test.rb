# frozen_string_literal: true

require_relative "../../support/still_show"
require_relative "../../../lib/bavard/feeds/irc/line_reader"
require_relative "../../../lib/bavard/feeds/irc/session"

# The way of one ordinary line, from the bytes that a server sent to the frame that a picture gets, written down in docs/way.md.
# WRITE_WAY=1 writes it anew.
class WayTest < StillShowTest
  ROOT = File.expand_path("../../..", __dir__)
  WRITTEN = File.join(ROOT, "docs/way.md")
  LIB = "#{ROOT}/lib/bavard/".freeze
  MOST_FILES = 70
  BEFORE = ":v!u@h PRIVMSG #dawn :the gulls are up\r\n"
  LINE = ":v!u@h PRIVMSG #dawn :is that a heron by the reeds?\r\n"

  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    begin_show
    @reader = Bavard::Feeds::Irc::LineReader.new
    @session = Bavard::Feeds::Irc::Session.new(feed_id: @lane.id, mapping: Bavard::Feeds::Irc::Mapping.new,
      address: Bavard::Feeds::Irc::Address.read("paste" => "irc://x.example/#dawn"))
    @session.begin(0)
    bring(":s 421 * CAP :?\r\n:s 001 g :hi\r\n:g!u@h JOIN #dawn\r\n")
    # What is made once, for the first of many.
    bring(BEFORE)
    advance(1000)
  end

  # As a feed's thread and the show's do it, one after the other.
  def bring(bytes)
    @reader.feed(bytes) { |text| @session.receive(text, clock.now_ms) }
    @session.take_intakes.each { |intake| @show.send(:handle, Bavard::Live::Messages::Brought.new(@lane, nil, intake)) }
    yield if block_given?
    @show.send(:advance)
  end

  # @return [Array<Array(String, String)>] file and method of each call, until the frame is out
  def way
    calls = []
    sent = frames(topic).size
    trace = TracePoint.new(:call) do |call|
      next trace.disable if frames(topic).size > sent

      calls << [call.path.delete_prefix(LIB), call.method_id.to_s] if call.path.start_with?(LIB)
    end
    clock.now_ms += 100
    taken_in = nil
    trace.enable(target_thread: Thread.current) { bring(LINE) { taken_in = calls.size } }
    [calls.first(taken_in), calls.drop(taken_in)]
  end

  def topic = "air:#{@stage.id}"
  def stations(calls) = calls.chunk_while { |one, other| one.first == other.first }.to_a

  def figures(calls) = [calls.map(&:first).uniq.size, stations(calls).size - 1, calls.size]

  def written(taken_in, shown)
    <<~PAGE
      # The way of one line

      What happens to `#{LINE.strip}`, from its bytes to the frame that a picture gets, as a test traced it
      (`test/live/lines/way_test.rb`, which also writes it anew). Read from above: each row is a file that the way comes through, where it does so
      for the first time, and what of it is called.

      #{part("Taken in", "read, judged, kept, told to whoever lists lines, and put on the stages", taken_in)}
      #{part("Shown", "the show’s next turn, in which each of its parts is asked whether it has something to do, and the frame is made", shown)}
    PAGE
  end

  def part(name, what, calls)
    rows = calls.map(&:first).uniq.map { |file| "| `#{file}` | #{calls.filter_map { |one, method| "`#{method}`" if one == file }.uniq.join(", ")} |" }
    files, changes, count = figures(calls)
    "## #{name}: #{what}\n\n#{files} files, #{changes} changes from one to another, #{count} calls.\n\n| file | methods |\n|---|---|\n#{rows.join("\n")}\n"
  end

  # Which methods it were may be a little otherwise than they are written down.
  def files(page) = page.scan(/^\| `([^`]+)` \|/).flatten

  def test_the_way_of_a_line_is_the_one_that_is_written_down
    taken_in, shown = way
    assert_equal 2, painted(topic).size
    page = written(taken_in, shown)
    File.write(WRITTEN, page) if ENV["WRITE_WAY"]
    assert_equal files(File.read(WRITTEN)), files(page), "WRITE_WAY=1 bin/test #{__FILE__.delete_prefix("#{ROOT}/")} writes it anew"
    assert_operator figures(taken_in).first, :<=, MOST_FILES
  end
end
