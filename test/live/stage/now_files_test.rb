# frozen_string_literal: true

require_relative "../../support/live_test"
require_relative "../../../lib/bavard/core/stage/edit"
require_relative "../../../lib/bavard/live/stage/now_files"

class NowFilesTest < LiveTest
  def setup
    super
    piece = {"do" => "add", "kind" => "now_line", "values" => {"source" => "file", "file_name" => "net"}}
    @record = make_show(document: Bavard::Core::Stage::Edit.apply(Bavard::Core::Stage::Document.empty, piece).document, on_air: true)
    @shows = Bavard::Live::Shows.new(means, lease:).start
    @shows.run(@record.id)
    @folder = Dir.mktmpdir("now")
    @files = Bavard::Live::NowFiles.new(@folder, @shows, logger: SemanticLogger["test"])
  end

  def text = @shows.run(@record.id).ask { |show| show.desk(@stage.id).live.text_of("now_line1") }

  def test_a_now_line_follows_its_file
    File.write(File.join(@folder, "net.txt"), "a reed warbler\n")
    @files.look
    assert_equal "a reed warbler", text
    File.write(File.join(@folder, "net.txt"), "a wren \xFF\n")
    File.utime(Time.now + 5, Time.now + 5, File.join(@folder, "net.txt"))
    @files.look
    assert_equal "a wren", text
  end

  def test_no_other_file_is_ever_read
    secret = File.join(Dir.mktmpdir, "secret.txt")
    File.write(secret, "secret")
    File.symlink(secret, File.join(@folder, "net.txt"))
    @files.look
    assert_equal "", text
    ["../secret", "/etc/passwd", "..", "a/b", ""].each { |name| refute_match Bavard::Live::NowFiles::NAME, name }
  end

  def test_nothing_there_is_no_trouble
    @files.look
    assert_equal "", text
  end
end
