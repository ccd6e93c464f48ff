# frozen_string_literal: true

require "tmpdir"
require_relative "../support/plain"
require_relative "../../lib/bavard/pictures/cabinet"
require_relative "../../lib/bavard/pictures/workshop"

# Pictures lie in a folder by their names, which say what is in them.
class CabinetTest < Minitest::Test
  ID = "5f" * 16

  def setup
    @folder = Dir.mktmpdir("cabinet")
    @cabinet = Bavard::Pictures::Cabinet.new(@folder)
  end

  def teardown = FileUtils.rm_rf(@folder)

  def keep(files)
    @cabinet.keep(Bavard::Pictures::Workshop::Made.new.tap do |made|
      made.id = ID
      made.files = files
    end)
  end

  # Whatever cuts the machine off then leaves no name without what it stands for.
  def test_each_file_is_on_the_disk_before_it_has_its_name
    order = []
    seen = TracePoint.new(:c_call) { |call| order << call.method_id if %i[fdatasync rename].include?(call.method_id) }
    seen.enable { keep("2" => "twice", "1" => "once") }
    assert_equal %i[fdatasync rename] * 2, order
    assert_equal %w[once twice], %w[1 2].map { |size| File.binread(@cabinet.find("#{ID}-#{size}.webp")) }
  end

  def test_it_is_there_once_all_of_it_is
    refute @cabinet.there?(ID)
    write = @cabinet.method(:write)
    torn = ->(file, bytes) { file.end_with?("-2.webp") ? raise(Errno::ENOSPC) : write.call(file, bytes) }
    @cabinet.stub(:write, torn) { assert_raises(Errno::ENOSPC) { keep("1" => "once", "2" => "twice") } }
    refute @cabinet.there?(ID)
    File.stub(:rename, ->(*) { raise Errno::ENOSPC }) { assert_raises(Errno::ENOSPC) { keep("1" => "once") } }
    assert_empty Dir.glob("**/*.webp*", base: @folder)
    keep("1" => "once", "2" => "twice")
    assert @cabinet.there?(ID)
  end

  def test_nothing_outside_of_it_is_found
    File.write(File.join(@folder, "secret"), "x")
    ["../secret", "secret", "#{ID}-1.webp/../../secret", "#{ID}-1.webp\n", ""].each { |name| assert_nil @cabinet.find(name), name }
  end
end
