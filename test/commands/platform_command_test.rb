# frozen_string_literal: true

require "stringio"
require "tmpdir"
require_relative "../support/plain"
require_relative "../support/wait"
require_relative "../../lib/bavard/commands/platform"
require_relative "../feeds/described/examples"
require_relative "../feeds/described/small_server"

class PlatformCommandTest < Minitest::Test
  include Wait

  def setup = @output = StringIO.new
  def command(**more) = Bavard::Commands::Platform.new(@output, **more)

  def test_each_example_can_be_used
    Examples.all.each { |name| assert command.check(File.join(Examples::FOLDER, "#{name}.json")) }
    assert_includes @output.string, "Weir can be used. It is reached over a WebSocket at weir.example:443; 5 rules, 1 sample that become what they should."
  end

  def test_what_is_wrong_is_said_with_its_place
    with(Examples.whole("kettle").merge("base" => "kettle")) { |file| refute command.check(file) }
    assert_equal "/base: an address such as https://chat.example, without a path\n", @output.string
  end

  def test_what_comes_is_printed_until_it_is_told_to_end
    body = JSON.generate("data" => {"mark" => "m", "messages" => [{"type" => "said", "id" => 1, "by" => {"name" => "ann"}, "html" => "<b>hi</b>"}, {"type" => "dance"}]})
    server = SmallServer.new { |path, _| [200, {}, path.include?("since") ? "{}" : body] }
    stop, tell = IO.pipe
    with(Examples.document("kettle").merge("base" => server.address)) do |file|
      thread = Thread.new { command(stop:).try(file, {"room" => "reedmere"}) }
      wait_for("two questions") { server.asked.size >= 2 }
      tell.write(".")
      thread.join
    end
    assert_includes @output.string, %({"is":"line","id":"1","login":"ann","text":"hi","badges":[]}\n)
    assert_match(/^not read: nothing reads this: .*dance/, @output.string)
    assert_match(/^off: Disconnected by you\.\n1 line, 1 not read\n\z/, @output.string)
  ensure
    server.stop
  end

  def test_what_is_asked_for_is_needed
    error = assert_raises(Bavard::Error) { command.try(File.join(Examples::FOLDER, "kettle.json"), {}) }
    assert_equal "Room: this is needed, such as reedmere.", error.message
  end

  def with(document)
    Dir.mktmpdir do |folder|
      file = File.join(folder, "one.json")
      File.write(file, JSON.generate(document))
      yield file
    end
  end
end
