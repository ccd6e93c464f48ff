# frozen_string_literal: true

require "json"
require "minitest/autorun"
require "open3"
require "stringio"
require "tempfile"
require_relative "../../lib/bavard/commands/gate"

# bin/gate, as scripts use it.
class GateCommandTest < Minitest::Test
  SCRIPT = File.expand_path("../../bin/gate", __dir__)

  def judged(options, *lines)
    out = StringIO.new
    Bavard::GateCommand.new(options).run(StringIO.new(lines.map { |line| "#{line}\n" }.join), out)
    out.string.lines.map { |line| JSON.parse(line) }
  end

  def with_file(text)
    Tempfile.create("list") do |file|
      file.write(text)
      file.flush
      yield file.path
    end
  end

  def test_each_line_is_judged_by_a_list_of_words
    with_file("goosebrain\n# a remark\n") do |path|
      told = judged(["--words", path], "hello", "you g o o s e b r a i n", "", "\xFF\xFE")
      assert_equal %w[pass mask drop pass], told.map { |one| one["action"] }
      assert_equal [nil, "stopped_words", "g o o s e b r a i n", "you ●●●●●●●●●●"], [told[0]["rule"], told[1]["rule"], told[1]["seen"], told[1]["shown"]]
    end
  end

  def test_lines_before_count_for_rules_that_look_back
    rules = {"name" => "A", "rules" => [{"kind" => "repeats", "times" => 3}]}
    with_file(JSON.generate(rules)) do |path|
      told = judged(["--rules", path], "a wren again", "a wren again", "a wren again", "an owl")
      assert_equal 1, told.count { |one| one["action"] == "drop" && one["shown"].nil? }
      assert_equal "pass", told.last["action"]
    end
  end

  def test_what_it_cannot_read_is_said_without_a_trace
    with_file("{") do |path|
      [["--rules", path], ["--rules", "/nowhere"], ["--words", "/nowhere"]].each do |options|
        said, status = Open3.capture2e(SCRIPT, *options, stdin_data: "hello\n")
        refute_predicate status, :success?, options
        assert_match(%r{bin/gate: }, said)
        refute_match(/\.rb:\d+:in/, said)
      end
    end
  end

  def test_without_anything_to_judge_by_it_says_how_it_is_called
    said, status = Open3.capture2e(SCRIPT, stdin_data: "")
    assert_equal [false, "bin/gate --words LIST < LINES\n"], [status.success?, said]
  end
end
