# frozen_string_literal: true

require "open3"
require "tmpdir"
require_relative "../support/plain"

# What runs the tests: no test is left out without a word.
class TestCommandTest < Minitest::Test
  WORKER = File.expand_path("../../tools/suite/worker", __dir__)

  # @param files [Hash{String => String}] by name
  # @return [Array<Array>] what a worker tells of them, in their order
  def told_of(files)
    Dir.mktmpdir do |folder|
      paths = files.map { |name, code| File.join(folder, name).tap { |path| File.write(path, code) } }
      command = ["ruby", "-e", "require ARGV.shift; Suite::Worker.new($stdin, $stdout.binmode, seed: 1).run", WORKER]
      output, status = Open3.capture2(*command, stdin_data: paths.join("\n"), binmode: true)
      assert_predicate status, :success?
      said(output)
    end
  end

  def said(output)
    require WORKER
    io = StringIO.new(output)
    all = []
    all << Marshal.load(io) until io.eof? # rubocop:disable Security/MarshalLoad -- of a process of ours
    all
  end

  def began(told) = told.filter_map { |what, name| name if what == :began }
  def broken(told) = told.filter_map { |what, file, words| [File.basename(file), words] if what == :broken }

  def test_classes_with_a_name_of_their_own_are_run
    told = told_of("a_test.rb" => "class OneTest < Minitest::Test; def test_a = assert(true); end",
      "b_test.rb" => "class OtherTest < Minitest::Test; def test_b = assert(true); end")
    assert_equal %w[OneTest#test_a OtherTest#test_b], began(told)
    assert_empty broken(told)
  end

  def test_two_files_with_a_class_of_the_same_name_are_told_of
    told = told_of("a_test.rb" => "class OneTest < Minitest::Test; def test_a = assert(true); end",
      "b_test.rb" => "class OneTest < Minitest::Test; def test_b = assert(true); end")
    assert_equal %w[OneTest#test_a], began(told)
    assert_equal %w[b_test.rb], broken(told).map(&:first)
    assert_match(/OneTest stands in another file/, broken(told)[0][1])
  end

  # Certificates that are trusted once are so for the whole process: one with another's name would be taken for it.
  def test_what_two_classes_draw_is_not_the_same
    drawn = %w[One Other].map { |name| ["#{name}.rb", "class #{name}Test < Minitest::Test; def test_a = flunk(\"drew \#{rand(10**9)}\"); end"] }
    numbers = Array.new(2) { told_of(drawn.to_h).select { |what,| what == :ended }.map { |_, outcome| outcome.problems.join[/drew \d+/] } }
    assert_equal numbers[0], numbers[1], "the same seed, other numbers"
    assert_equal 2, numbers[0].compact.uniq.size, numbers.inspect
  end

  def test_a_test_that_asserts_nothing_is_no_test
    require File.expand_path("../../tools/suite/report", __dir__)
    ended = [0, 1].map do |assertions|
      fine = nil
      said, = capture_io do
        report = Suite::Report.new
        report.begin(1, 1, 1)
        report.outcome(Suite::Outcome.new("OneTest#test_a", ".", 0.1, assertions, []), "core")
        fine = report.finish
      end
      [fine, said[/OneTest#test_a: .*/]]
    end
    assert_equal [[false, "OneTest#test_a: nothing is asserted in it"], [true, nil]], ended
  end

  ALL = File.expand_path("../all.rb", __dir__)

  # There is a folder ops of what these tests try, too.
  def test_folders_are_those_of_tests_and_what_is_none_is_refused
    none = %w[-n /no_test_is_called_that/]
    said, = Open3.capture2e("ruby", "-rbundler/setup", ALL, "ops", *none, chdir: File.expand_path("../..", __dir__))
    assert_match(/^Nothing ran for filter/, said)
    said, status = Open3.capture2e("ruby", "-rbundler/setup", ALL, "nowhere", *none)
    assert_equal [false, "There is no test nowhere.\n"], [status.success?, said]
  end

  def test_a_file_without_a_test_is_told_of
    assert_match(/there is no test in it/, broken(told_of("a_test.rb" => "class One; end"))[0][1])
  end
end
