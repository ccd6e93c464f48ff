# frozen_string_literal: true

require "tmpdir"
require_relative "../support/plain"
require_relative "../../lib/bavard/media/film"
require_relative "../../lib/bavard/pictures/typeface"

# Films and faces that a host brings are made anew, or refused with the reason.
class FilmTest < Minitest::Test
  def folder = @folder ||= Dir.mktmpdir("films")

  def test_a_film_becomes_webm_whatever_it_was
    path = File.join(folder, "clip.mp4")
    system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "testsrc=size=320x180:rate=10:duration=1", "-pix_fmt", "yuv420p", path, exception: true)
    made = Bavard::Media::Film.new.make(path, into: File.join(folder, "made"))
    assert_equal [320, 180], [made.width, made.height]
    assert_in_delta 1.0, made.seconds, 0.2
    assert_equal "\x1A\x45\xDF\xA3".b, File.binread(File.join(folder, "made", "#{made.id}.webm"), 4)
  end

  # Half of it can be seen through, and still can after.
  def test_a_film_that_can_be_seen_through_stays_so_whichever_codec_it_has
    {"libvpx-vp9" => "webm", "libvpx" => "webm", "qtrle" => "mov"}.each do |codec, container|
      path = File.join(folder, "clear-#{codec}.#{container}")
      pixels = codec == "qtrle" ? [] : ["-pix_fmt", "yuva420p", "-auto-alt-ref", "0"]
      system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "color=c=red@0.5:s=64x64:r=10:d=0.5,format=rgba", "-c:v", codec, *pixels, path,
        exception: true)
      made = Bavard::Media::Film.new.make(path, into: File.join(folder, "made"))
      out, = Open3.capture2("ffmpeg", "-v", "error", "-nostdin", "-c:v", "libvpx", "-i", File.join(folder, "made", "#{made.id}.webm"), "-frames:v", "1",
        "-f", "rawvideo", "-pix_fmt", "rgba", "pipe:1", binmode: true)
      assert_in_delta 128, out.getbyte(3), 8, codec
    end
  end

  def test_how_far_a_film_is_is_told_and_one_that_is_stopped_leaves_nothing
    path = File.join(folder, "long.mp4")
    system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "testsrc=size=320x180:rate=25:duration=12", "-pix_fmt", "yuv420p", path, exception: true)
    shares = []
    watch = Object.new
    watch.define_singleton_method(:told) { |done, total| shares << (done / total) }
    watch.define_singleton_method(:stopped?) { false }
    Bavard::Media::Film.new.make(path, into: File.join(folder, "told"), watch:)
    assert_equal [shares.sort, true], [shares, shares.last > 0.9]
    watch.define_singleton_method(:stopped?) { true }
    assert_raises(Bavard::Stopped) { Bavard::Media::Film.new.make(path, into: File.join(folder, "stopped"), watch:) }
    assert_empty Dir[File.join(folder, "stopped", "*")]
  end

  # Nobody is told that their film is none.
  def test_where_there_is_no_room_that_is_what_is_said
    path = File.join(folder, "clip.mp4")
    system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "testsrc=size=320x180:rate=10:duration=1", "-pix_fmt", "yuv420p", path, exception: true)
    full = ->(*, **) { raise Errno::ENOSPC }
    Bavard::Media::Ffmpeg.stub(:followed, false) do
      File.stub(:write, full) { assert_raises(Errno::ENOSPC) { Bavard::Media::Film.new.make(path, into: File.join(folder, "made")) } }
      assert_raises(Bavard::Error) { Bavard::Media::Film.new.make(path, into: File.join(folder, "made")) }
    end
    assert_empty Dir.children(File.join(folder, "made"))
  end

  def test_what_is_no_film_is_refused_and_nothing_is_left
    {"text.mp4" => "no film at all", "half.webm" => "\x1A\x45\xDF\xA3".b + ("x" * 200), "empty.mp4" => "", "lying.mp4" => "\x00\x00\x00\x18ftypmp42#{"z" * 400}"}.each do |name, bytes|
      path = File.join(folder, name)
      File.binwrite(path, bytes)
      error = assert_raises(Bavard::Error, name) { Bavard::Media::Film.new.make(path, into: File.join(folder, "made")) }
      refute_empty error.message
    end
    assert_empty Dir[File.join(folder, "made", "*")]
  end

  def test_a_face_is_packed_anew_and_what_is_none_is_refused
    bytes = File.binread(File.expand_path("../../assets/vendor/fonts/anton-latin-400-normal.woff2", __dir__))
    made = Bavard::Pictures::Typeface.new.make(bytes, into: folder)
    assert_equal "wOF2", File.binread(File.join(folder, "#{made.id}.woff2"), 4)
    plain = File.binread(File.join(folder, "own-#{made.id}.ttf"))
    refute_equal made.id, Bavard::Pictures::Typeface.new.make(plain, into: folder).id
    ["", "no font", "wOF2#{"x" * 300}", "\x00\x01\x00\x00#{"\xFF".b * 300}", "OTTO", bytes[0, 900]].each do |bad|
      assert_raises(Bavard::Error, bad[0, 8].inspect) { Bavard::Pictures::Typeface.new.make(bad.b, into: folder) }
    end
  end
end
