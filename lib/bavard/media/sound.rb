# frozen_string_literal: true

require "digest"
require_relative "../core/reading/wave_form"
require_relative "../error"
require_relative "ffmpeg"

module Bavard
  module Media
    # Makes a sound anew as Opus in Ogg, as loud as all others: evened out to EBU R 128 (−23 LUFS, true peak at most −1 dBTP).
    #
    #   Sound.new.make(path, into: "…/sounds")   # => Made with id, seconds, loudness, was, peaks
    class Sound
      # loudness and was:: integrated loudness in LUFS, now and as it came; peaks:: Core::Reading::WaveForm
      Made = Struct.new(:id, :seconds, :loudness, :was, :peaks)

      LARGEST_BYTES = 24 * 1024 * 1024
      LONGEST_S = 60
      TARGET_LUFS = -23.0
      PEAK_DB = -1.0
      # What is shorter than the blocks R 128 is measured in is measured over and over.
      MEASURED_S = 4
      # So quiet that there is nothing to even out.
      SILENT_LUFS = -65.0
      RATE = 48_000
      WAVE_RATE = 8000
      # Containers that are read, by what they begin with.
      MARKS = {"wav" => /\ARIFF....WAVE/mn, "mp3" => /\A(?:ID3|\xFF[\xE2-\xFF])/n, "ogg" => /\AOggS/n, "flac" => /\AfLaC/n,
               "mov,mp4,m4a,3gp,3g2,mj2" => /\A....ftyp/mn, "matroska,webm" => /\A\x1A\x45\xDF\xA3/n}.freeze

      # @param path [String] of the file as it came
      # @param into [String] a folder
      # @return [Made]
      # @raise [Bavard::Error] saying why not, in words that go on after "it"
      def make(path, into:)
        raise Error, "it has more than #{LARGEST_BYTES / 1024 / 1024} MB" if File.size(path) > LARGEST_BYTES

        demuxer = demuxer_of(path) or raise Error, "it is no WAV, MP3, Ogg, FLAC, M4A or WebM sound"
        seconds = seconds(path, demuxer)
        was = loudness(path, demuxer)
        id = Digest::SHA256.file(path).hexdigest[0, 32]
        target = File.join(into, "#{id}.ogg")
        Ffmpeg.make(path, demuxer, target, *encoded(was)) or raise Error, "it cannot be read as a sound"
        Made.new(id, seconds, loudness(target, "ogg"), was, wave_form(target))
      end

      private

      def demuxer_of(path)
        head = File.binread(path, 64).to_s
        MARKS.find { |_, mark| head.match?(mark) }&.first
      end

      def seconds(path, demuxer)
        about = Ffmpeg.probe(path, demuxer, "a:0", "codec_name") or raise Error, "it holds no sound that can be read"
        raise Error, "it is longer than #{LONGEST_S} s" if about["seconds"] > LONGEST_S
        raise Error, "it holds no sound that can be read" unless about["seconds"].positive?

        about["seconds"].round(2)
      end

      # @return [Float] integrated, in LUFS
      def loudness(path, demuxer)
        again = "aresample=#{RATE},aloop=loop=-1:size=#{RATE * LONGEST_S},atrim=duration=#{MEASURED_S}"
        short = (Ffmpeg.probe(path, demuxer, "a:0", "codec_name") || {})["seconds"].to_f < MEASURED_S
        filter = [short ? again : nil, "ebur128=framelog=verbose"].compact.join(",")
        _, said = Ffmpeg.read(path, demuxer, "-v", "info", "-map", "0:a:0", "-af", filter, "-t", LONGEST_S.to_s, "-f", "null")
        found = said.to_s.scrub.scan(/I:\s+(-?[\d.]+|-inf) LUFS/).last or raise Error, "it cannot be read as a sound"
        found[0] == "-inf" ? -70.0 : found[0].to_f
      end

      # One gain for all of it; what then stands out is held below the peak.
      def encoded(was)
        gain = was <= SILENT_LUFS ? 0 : TARGET_LUFS - was
        limit = 10**(PEAK_DB / 20)
        ["-v", "error", "-map", "0:a:0", "-map_metadata", "-1", "-af",
          "aresample=#{RATE},volume=#{gain.round(2)}dB,alimiter=limit=#{limit.round(4)}:level=false:attack=2:release=40",
          "-ac", "2", "-c:a", "libopus", "-b:a", "112k", "-t", LONGEST_S.to_s, "-f", "ogg"]
      end

      def wave_form(path)
        samples, = Ffmpeg.read(path, "ogg", "-v", "error", "-map", "0:a:0", "-ac", "1", "-ar", WAVE_RATE.to_s, "-f", "s16le")
        Core::Reading::WaveForm.of(samples.to_s)
      end
    end
  end
end
