# frozen_string_literal: true

require "json"
require "open3"
require "stringio"
require_relative "../support/plain"
require_relative "../../lib/bavard/commands/talking"

# bin/talking, as scripts use it.
class TalkingCommandTest < Minitest::Test
  def test_the_command_prints_one_line_for_each_stretch
    lines = (0...200).map { |step| JSON.generate(at_ms: step * 20, person: "odalys", dbov: step.between?(50, 100) ? -20 : -70) }
    said, status = Open3.capture2(File.expand_path("../../bin/talking", __dir__), "-", stdin_data: lines.join("\n"))
    assert_predicate status, :success?
    stretch = JSON.parse(said)
    assert_equal %w[person from_ms to_ms], stretch.keys
    assert_includes 1000..1100, stretch["from_ms"]
  end

  def test_the_command_says_which_line_it_cannot_read
    ["no", "{}", "[1]", '{"at_ms":1,"person":"a","dbov":null}', '{"at_ms":1,"person":"","dbov":-3}'].each do |line|
      error = assert_raises(Bavard::Error) { Bavard::Commands::Talking.new.run(StringIO.new(line), StringIO.new) }
      assert_includes error.message, "Line 1"
    end
  end
end
