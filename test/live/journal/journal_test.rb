# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../support/wait"
require "fileutils"
require "minitest/mock"
require "semantic_logger"
require "tmpdir"
require_relative "../../../lib/bavard/live/journal/journal"
require_relative "../../../lib/bavard/live/show/meters"

# What waits for the database, while it takes nothing.
class JournalTest < Minitest::Test
  include Wait

  Journal = Bavard::Live::Journal
  ROOM = 2000

  # A log that is written only when it is let, and only while it is there.
  class SlowLog
    attr_reader :written
    attr_accessor :away, :impossible

    def initialize
      @written = []
      @let = Queue.new
    end

    def let_all = 100_000.times { @let << true }
    def plain(_show_id, _kind, body) = body

    # What was written until then is not, where something fails.
    def as_a_whole
      before = @written.dup
      yield
    rescue StandardError
      @written.replace(before)
      raise
    end

    def write(show_id, kind, bodies)
      raise Sequel::DatabaseDisconnectError, "gone" if away

      @let.pop
      raise ArgumentError, "never" if bodies.include?(impossible) && impossible

      bodies.each { |body| @written << [show_id, kind, body] }
    end
  end

  def setup
    @log = SlowLog.new
    @meters = Bavard::Live::Meters.new
    @folder = Dir.mktmpdir("unwritten")
    @journal = journal.start
    @done = []
  end

  def teardown
    @log.away = false
    @log.let_all
    @journal.stop
    FileUtils.rm_rf(@folder)
  end

  def journal(**more) = Journal.new(@log, log: SemanticLogger["test"], meters: @meters, room: ROOM, patience_s: 0, **more)

  # With files for what waits, in the place of the one without.
  def with_files
    @journal.stop
    @journal = journal(folder: @folder).start
  end

  def flood(show_id, count = ROOM) = count.times { |number| @journal.line(show_id, number) }

  def let_all
    @log.let_all
    wait_for("all to be written") { @journal.waiting.zero? && @journal.spilling.empty? }
    @log.written
  end

  def of(show_id) = @log.written.filter_map { |show, _, body| body if show == show_id }
  def files = Dir[File.join(@folder, "*/*")]

  def test_what_people_do_waits_for_nothing_that_feeds_bring
    flood(1)
    number = Array.new(3) { |index| @journal.later { @done << index } }.last
    assert @journal.kept?(number, 60)
    assert_equal [0, 1, 2], @done
    assert_empty @log.written
  end

  def test_whoever_waits_for_what_they_did_does_not_wait_while_the_database_is_away
    away = true
    number = @journal.later { away ? raise(Sequel::DatabaseDisconnectError, "gone") : @done << :kept }
    refute @journal.kept?(number, 60)
    away = false
    wait_for("it to be kept after all") { @journal.kept?(number, 0) }
    assert_equal [:kept], @done
  end

  def test_only_the_show_that_floods_loses_lines
    flood(1, ROOM + 1000)
    100.times { |number| @journal.line(2, number) }
    assert_equal [[1], 1000], [@journal.shedding, @journal.lost]
    assert_equal 1000, @meters.registry.get(:bavard_log_shed_total).get
    let_all
    assert_equal [(0...100).to_a, ROOM], [of(2), of(1).size]
  end

  def test_two_that_flood_have_the_same_share
    flood(1)
    flood(2)
    assert_operator @journal.waiting, :<=, ROOM * 3 / 2
    let_all
    assert_equal [ROOM, ROOM / 2], [of(1).size, of(2).size]
    assert_equal [2], @journal.shedding
  end

  def test_what_a_platform_takes_away_is_let_go_last
    flood(1, ROOM + 1)
    @journal.behind(1, :pull, 7, "egg")
    assert_equal 1, @journal.lost
    assert_equal [1, :pull, [7, "egg"]], let_all.last
  end

  def test_takings_away_without_end_are_let_go_too
    ((ROOM * Journal::DELETES_SHARE) + 10).times { |number| @journal.behind(1, :pull, 7, number) }
    assert_operator @journal.lost, :>=, 10
    assert_operator @journal.waiting, :<=, ROOM * Journal::DELETES_SHARE
  end

  def test_there_is_room_again_once_it_was_written
    flood(1, ROOM + 1)
    let_all
    @journal.line(1, :late)
    assert_equal [[1, :add, :late], 1], [let_all.last, @journal.lost]
  end

  # Lines may come before what became of others.
  def test_of_each_show_all_is_written_in_its_order
    @journal.line(1, 1)
    @journal.settle(1, 2)
    @journal.line(2, 3)
    @journal.line(1, 4)
    @journal.settle(1, 5)
    let_all
    written = of(1)
    assert_equal [[1, 4], [2, 5], [3]], [written & [1, 4], written & [2, 5], of(2)]
    assert_operator written.index(1), :<, written.index(2)
  end

  def test_what_can_never_be_written_stands_in_nobodys_way
    @log.impossible = 3
    flood(1, 6)
    let_all
    assert_equal [[0, 1, 2, 4, 5], 1], [of(1), @journal.lost]
  end

  def test_while_the_database_is_away_it_waits_in_files_and_goes_from_there_into_the_log
    with_files
    @log.away = true
    flood(1, 500)
    wait_for("it to lie in files") { files.any? && @journal.waiting.zero? }
    flood(1, 3)
    @journal.behind(1, :pull, 7, "egg")
    assert_equal [1], @journal.spilling
    @log.away = false
    let_all
    assert_equal [*0...500, 0, 1, 2, [7, "egg"]], of(1)
    assert_equal [[], 0], [files, @journal.lost]
  end

  # However much there is: a file holds only so much, and the newest of it stays in memory.
  def test_more_than_there_is_room_for_in_memory
    with_files
    @log.away = true
    5.times do |round|
      flood(1, ROOM - 100)
      wait_for("round #{round} to lie in files") { @journal.waiting.zero? }
    end
    @log.away = false
    let_all
    assert_equal [(0...(ROOM - 100)).to_a * 5, 0], [of(1), @journal.lost]
  end

  def test_what_lay_in_files_when_a_process_ended_is_written_by_the_next_one
    with_files
    @log.away = true
    flood(1, 10)
    @journal.stop
    assert_equal 1, files.size
    # It was killed in the midst of the last line.
    File.write(files.first, File.read(files.first)[0..-4])
    @log.away = false
    @log.let_all
    @journal = journal(folder: @folder).start
    assert @journal.caught_up?(60)
    assert_equal [(0...9).to_a, []], [of(1), files]
  end

  # Stands for the stores: what is written by then, or nothing.
  Deeds = Struct.new(:written, :away) do
    def write(deed)
      raise Sequel::DatabaseDisconnectError, "gone" if away

      written << [deed.way, *deed.given, *([deed.named] if deed.named.any?)]
    end
  end

  def with_deeds
    @deeds ||= Deeds.new([], true)
    @journal.stop
    @journal = journal(folder: @folder, deeds: @deeds).start
  end

  def deeds_file = File.join(@folder, Journal::DEEDS)
  def lying = Bavard::Live::DeedFile.new(deeds_file).read
  def rename(name) = @journal.deed(:stages, :rename, 7, name)

  def test_what_people_do_while_the_database_is_away_outlives_the_process
    with_deeds
    refute @journal.kept?(rename("a"), 60)
    then_there = @deeds
    @journal.later { raise(Sequel::DatabaseDisconnectError, "gone") if then_there.away }
    @journal.deed(:stages, :put_on_air, 7, 2, {"pieces" => [{"x" => 1}]}, 5, by: "Teo")
    wait_for("both to lie there") { lying.size == 2 }
    # Killed in the midst of a third; the one before knows nothing of it any more.
    before = @journal
    File.write(deeds_file, '["stages","rename",[7', mode: "a")
    @deeds = Deeds.new([], false)
    @journal = journal(folder: @folder, deeds: @deeds).start
    assert @journal.caught_up?(60)
    assert_equal [[:rename, 7, "a"], [:put_on_air, 7, 2, {"pieces" => [{"x" => 1}]}, 5, {by: "Teo"}]], @deeds.written
    refute_path_exists deeds_file
  ensure
    then_there.away = false
    before.stop
  end

  # By a disk that was full, or a process that was killed.
  def test_what_is_torn_spoils_nothing_behind_it
    File.write(deeds_file, '["stages","rename",[7,"tor')
    deed = Bavard::Store::DeedWriting::Deed.new(:stages, :rename, [7, "whole"], {})
    file = Bavard::Live::DeedFile.new(deeds_file)
    2.times { file.append([deed]) }
    assert_equal [deed, deed], lying
  end

  def test_a_disk_without_room_leaves_nothing_that_is_done_again_later
    file = Bavard::Live::DeedFile.new(deeds_file)
    whole = File.method(:write)
    torn = ->(path, text, **more) { whole.call(path, text[0, text.size - 9], **more) && raise(Errno::ENOSPC) }
    File.stub(:write, torn) { assert_raises(Errno::ENOSPC) { file.append(Array.new(2) { |number| Bavard::Store::DeedWriting::Deed.new(:stages, :rename, [7, number.to_s], {}) }) } }
    assert_equal 1, file.read.size
    file.clear
    refute_path_exists deeds_file
  end

  def test_what_a_disk_without_room_has_torn_spoils_nothing_behind_it
    spill = Bavard::Live::Spill.new(File.join(@folder, "7"))
    lines = %w[a b].map { |text| JSON.generate([:put_back, [text]]) }
    whole = File.method(:write)
    torn = ->(path, text, **more) { whole.call(path, text[0, 9], **more) && raise(Errno::ENOSPC) }
    File.stub(:write, torn) { assert_raises(Errno::ENOSPC) { spill.append(lines) } }
    spill.append(lines)
    assert_equal [[:put_back, ["a"]], [:put_back, ["b"]]], spill.first(9)
  end

  def test_what_no_file_can_hold_is_written_all_the_same
    with_deeds
    rename("a")
    wait_for("it to lie there") { lying.one? }
    rename("\xff")
    @deeds.away = false
    wait_for("all to be written") { @journal.waiting.zero? }
    assert_equal [[:rename, 7, "a"], [:rename, 7, "\xff"]], @deeds.written
  end

  # They count in their order: what came later is not undone by what lies there from before.
  def test_as_long_as_one_lies_in_the_file_all_do
    with_deeds
    rename("a")
    wait_for("it to lie there") { lying.one? }
    rename("b")
    assert_equal %w[a b], lying.map { |deed| deed.given.last }
    @deeds.away = false
    wait_for("all to be written") { @journal.waiting.zero? }
    assert_equal [[:rename, 7, "a"], [:rename, 7, "b"]], @deeds.written
    refute_path_exists deeds_file
    assert @journal.kept?(rename("c"), 60)
    refute_path_exists deeds_file
  end

  # A name that is no show's, and a file of nothing.
  def test_files_of_others_are_left_alone
    FileUtils.mkdir_p([File.join(@folder, "else"), File.join(@folder, "3")])
    File.write(File.join(@folder, "else", "0000000001.jsonl"), "[\"add\",1]\n")
    File.write(File.join(@folder, "3", "0000000001.jsonl"), "\u0000{\n[]\n")
    with_files
    @log.let_all
    assert @journal.caught_up?(60)
    assert_equal [[], ["0000000001.jsonl"]], [@log.written, files.map { |file| File.basename(file) }]
  end
end
