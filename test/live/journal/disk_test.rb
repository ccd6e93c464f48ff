# frozen_string_literal: true

require "tmpdir"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/live/journal/disk"
require_relative "../../../lib/bavard/start/data_folder"

# What is told of the room that is left.
class DiskTest < Minitest::Test
  Disk = Bavard::Live::Disk

  def test_hosts_are_told_before_there_is_none_and_when
    {Disk::FULL_KB - 1 => [:full, Disk::FULL], Disk::FULL_KB => [:low, Disk::LOW], Disk::LOW_KB - 1 => [:low, Disk::LOW], Disk::LOW_KB => [:room, nil],
     nil => [:unknown, nil]}.each do |free_kb, told|
      one = Disk.new(-> { free_kb }).tap(&:look)
      assert_equal [*told, free_kb && (free_kb * 1024)], [one.state, one.words, one.free_bytes]
    end
  end

  def test_it_is_looked_at_from_the_beginning_and_again
    free = [0, Disk::LOW_KB]
    one = Disk.new(-> { free.shift }).start
    assert_predicate one, :full?
    one.look
    assert_equal :room, one.state
  ensure
    one.stop
  end

  # On the disk of this folder, as the system says it.
  def test_a_folder_tells_how_much_there_is
    Dir.mktmpdir do |folder|
      data = Bavard::Start::DataFolder.new(folder)
      assert_operator data.free_kb, :>, 0
      IO.stub(:popen, ->(*) { "" }) { assert_equal [nil, nil], [data.free_kb, data.check_room] }
    end
  end
end
