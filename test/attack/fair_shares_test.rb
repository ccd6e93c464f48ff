# frozen_string_literal: true

require "tmpdir"
require_relative "../support/live_test"
require_relative "../support/drawings"
require_relative "../../lib/bavard/copies/reading"
require_relative "../../lib/bavard/live/moderation/replays"
require_relative "../../lib/bavard/pictures/pack"
require_relative "../../lib/bavard/store/log"
require_relative "../../lib/bavard/web/stations/log/export_stream"

# What one account brings, so that another's waits.
class FairSharesTest < LiveTest
  Error = Bavard::Error

  # What a host brings that never ends: whoever reads it waits for somebody who writes.
  def endless(folder) = File.join(folder, "endless").tap { |path| File.mkfifo(path) }

  def stop(pid) = Process.kill("STOP", pid)
  def go_on(pid) = Process.kill("CONT", pid)

  def drawn(width) = Drawings.svg(%(<rect width="#{width}" height="9" fill="#fff"/>))

  def test_somebody_elses_pictures_behind_one_that_takes_as_long_as_it_may
    shop = Bavard::Pictures::Workshop.new
    shop.make(drawn(1), owner: :host)
    pid = shop.instance_variable_get(:@children)["svg"].last.pid
    stop(pid)
    slow = Thread.new { shop.make(drawn(2), owner: :host) }
    wait_for("it to be at work") { slow.stop? && shop.instance_variable_get(:@children)["svg"].empty? }
    assert_equal 1, shop.make(drawn(3), owner: :other).frames
    assert_equal 8, shop.make(Drawings.png(8, 8), owner: :other).width
    assert_predicate slow, :alive?
    go_on(pid)
    assert_equal 1, slow.value.frames
  ensure
    shop.stop
  end

  # Gives pictures of one host when it is let, of others at once.
  class Slow
    attr_reader :asked, :gate

    def initialize
      @asked = Queue.new
      @gate = Queue.new
    end

    def get(address)
      @asked << address
      @gate.pop if address.include?("flood")
      raise Error, "it is no picture"
    end
  end

  def test_pictures_of_anothers_chat_behind_a_flood_of_ones_own
    slow = Slow.new
    desk = Bavard::Live::PictureDesk.new(fetcher: slow, workshop: Bavard::Pictures::Workshop.new, cabinet:, store: stores.dress, clock:, log: means.log).start
    2500.times { |number| desk.at("http://flood.example/#{number}.png", 1) }
    desk.at("http://calm.example/face.png", 2)
    wait_for("the other's to be asked for") { slow.asked.size >= 3 }
    assert_includes Array.new(3) { slow.asked.pop }, "http://calm.example/face.png"
  ensure
    slow.gate.close
    desk.stop
  end

  def test_a_directory_of_a_zip_that_is_larger_than_all_that_is_in_it
    Dir.mktmpdir do |folder|
      path = File.join(folder, "pack.zip")
      # The end of a directory with 60 000 entries, of which none can be read.
      File.binwrite(path, "PK\u0003\u0004#{"\0" * 3_000_000}" + [0x06054b50, 0, 0, 60_000, 60_000, 2_800_000, 4, 0].pack("VvvvvVVv"))
      error = assert_raises(Error) { Bavard::Pictures::Pack.open(path) { flunk } }
      assert_includes error.message, "60000 files"
      error = assert_raises(Error) { Bavard::Copies::Reading.of(File.binread(path)) { flunk } }
      assert_includes error.message, "more than 2000 files"
    end
  end

  def test_packs_without_end
    theirs = make_show
    target = Bavard::Live::Imports::Target.new(->(*) { stores.dress.add_shelf(theirs.id, "Marsh") }, ->(*) {}, false)
    running = Array.new(Bavard::Live::Imports::MOST_RUNNING) do
      folder = Dir.mktmpdir
      @imports.begin(-1, ["files", "endless.png", endless(folder)], folder:, target:)
    end
    folder = Dir.mktmpdir
    error = assert_raises(Error) { @imports.begin(-1, ["files", "a.png", folder], folder:, target:) }
    assert_includes error.message, "5 packs of yours"
    refute_path_exists folder
    folder = Dir.mktmpdir
    File.binwrite(path = File.join(folder, "0"), Drawings.png)
    import = @imports.begin(theirs.id, ["files", "wren.png", path], folder:, target:)
    wait_for("the other's to be done") { import.state == :done }
    assert_equal %i[running], running.map(&:state).uniq
  end

  def test_exports_that_nobody_reads_to_the_end
    search = Bavard::Store::Log::Search.new
    stream = ->(show) { Bavard::Web::ExportStream.new("csv", show, search, TestDatabase.url) }
    opened = []
    4.times { |show| opened << stream.call(show + 1) }
    assert_raises(Error) { stream.call(5) }
    opened.shift.close
    assert_raises(Error) { stream.call(2) }
    opened << stream.call(5)
  ensure
    opened.each(&:close)
  end

  def test_rules_that_are_tried_over_a_long_log
    replays = Bavard::Live::Replays.new(TestDatabase.url, log: means.log)
    20.times { replays.begin(1, {show: 1, before: [], after: [], from_ms: 0, to_ms: 1}) }
    wait_for("the last of them alone to run") { replays.instance_variable_get(:@runs).values.count { |run| run.state == :running } <= 1 }
    run = replays.begin(2, {show: 2, before: [], after: [], from_ms: 0, to_ms: 1})
    wait_for("the other's to be done") { %i[done failed].include?(run.state) }
    assert_operator replays.instance_variable_get(:@runs).size, :<=, Bavard::Live::Replays::KEPT + 2
  ensure
    replays.stop_all
  end
end
