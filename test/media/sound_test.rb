# frozen_string_literal: true

require "tmpdir"
require_relative "../support/plain"
require_relative "../../lib/bavard/media/sound"

# Sounds that a host brings are made anew and as loud as all others, or refused with the reason.
class SoundTest < Minitest::Test
  Sound = Bavard::Media::Sound

  def folder = @folder ||= Dir.mktmpdir("sounds")
  def made(path) = Sound.new.make(path, into: File.join(folder, "made"))

  def tone(name, source, *options)
    File.join(folder, name).tap do |path|
      system("ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", source, *options, path, exception: true)
    end
  end

  def test_a_quiet_and_a_loud_sound_become_equally_loud
    quiet, loud = [[0.02, "q.wav"], [0.9, "l.flac"]].map { |level, name| made(tone(name, "sine=frequency=600:duration=5", "-af", "volume=#{level * 8}")) }
    assert_operator quiet.was, :<, loud.was - 20
    [quiet, loud].each { |one| assert_in_delta(-23, one.loudness, 1) }
    assert_equal "OggS", File.binread(File.join(folder, "made", "#{quiet.id}.ogg"), 4)
  end

  def test_one_shorter_than_it_takes_to_measure_is_evened_out_as_well
    short = made(tone("short.mp3", "sine=frequency=900:duration=0.3", "-af", "volume=0.1"))
    assert_in_delta 0.3, short.seconds, 0.1
    assert_in_delta(-23, short.loudness, 2)
  end

  def test_its_wave_form_shows_where_it_is_loud
    path = tone("half.wav", "sine=frequency=500:duration=2", "-af", "volume=8:enable='gt(t,1)'")
    peaks = made(path).peaks
    assert_equal 96, peaks.size
    assert_operator peaks.last(40).min, :>, peaks.first(40).max
    assert_equal [[], [100, 50]], [Bavard::Core::Reading::WaveForm.of(""), Bavard::Core::Reading::WaveForm.of([-32_768, 16_384].pack("s<*"))]
  end

  def test_what_is_no_sound_or_too_long_is_refused_and_nothing_is_left
    bad = {"text.mp3" => "no sound", "half.wav" => "RIFF\x00\x00\x00\x00WAVE#{"x" * 300}", "lying.ogg" => "OggS#{"y" * 300}", "empty.flac" => "",
           "m3u.mp3" => "#EXTM3U\nfile:///etc/passwd\n"}
    bad.each do |name, bytes|
      path = File.join(folder, name).tap { |file| File.binwrite(file, bytes) }
      refute_empty assert_raises(Bavard::Error, name) { made(path) }.message
    end
    long = tone("long.ogg", "sine=frequency=300:duration=70", "-c:a", "libopus")
    assert_match(/longer than 60 s/, assert_raises(Bavard::Error) { made(long) }.message)
    picture = tone("film.webm", "testsrc=size=64x64:rate=5:duration=1", "-c:v", "libvpx")
    assert_match(/no sound/, assert_raises(Bavard::Error) { made(picture) }.message)
    assert_empty Dir[File.join(folder, "made", "*")]
  end

  def test_silence_stays_silent
    assert_operator made(tone("none.wav", "anullsrc=duration=1", "-t", "1")).loudness, :<=, -65
  end
end
